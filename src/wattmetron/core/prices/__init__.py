"""Offers, delivered prices and their dates."""
