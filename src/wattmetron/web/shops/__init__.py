"""The place Shops: how shops sell, and what changed."""
