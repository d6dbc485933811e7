"""Published tiers: bars, verdicts, agreement; texts are read in ``reading``."""
