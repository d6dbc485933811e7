"""Measured runs: what a trace of frame times says, and what a promise was worth."""
