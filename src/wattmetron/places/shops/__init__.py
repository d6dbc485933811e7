"""Shops: prices, feeds, what changed, watches."""
