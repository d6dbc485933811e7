"""What is computed once and kept, per catalogue revision: one owner, bounded, for many hands."""
