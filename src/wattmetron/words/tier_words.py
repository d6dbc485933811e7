"""Tiers in words."""


def tier_label(label: str, place: int) -> str:
    return label or f"Tier {place + 1}"
