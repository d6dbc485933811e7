"""Questions put to the search: pairings, price limits, split, cuts, conflicting wishes."""
