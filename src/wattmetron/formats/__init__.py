"""Open formats in and out: catalogue folder, briefs, builds."""
