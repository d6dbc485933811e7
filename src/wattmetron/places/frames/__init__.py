"""Frames of each game, how they are worked out, settings."""
