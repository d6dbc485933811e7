"""Runs: recorded, taken from files, held against what was promised, taken as evidence."""
