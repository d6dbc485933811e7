"""Electrical draw."""
