"""Tiers in words."""


def tier_label(label: str, position: int) -> str:
    return label or f"Tier {position + 1}"
