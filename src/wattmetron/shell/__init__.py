"""What every page needs: its frame, forms, errors, access, long computations."""
