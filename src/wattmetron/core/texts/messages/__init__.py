"""Letters in prose that ask for a machine."""
