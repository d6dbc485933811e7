"""Wattmetron: from a brief to a gaming PC build that can be defended."""

__version__ = "0.1.0"
