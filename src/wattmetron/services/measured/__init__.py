"""Use cases of measured runs: taking them in, what they say, what they teach."""
