"""Shops and prices: what changed, and what it means for each brief."""
