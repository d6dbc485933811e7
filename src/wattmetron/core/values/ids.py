"""Ids of parts and games, as they stand in files and addresses."""

ID_WORDS = "small letters, digits and hyphens, and none of the words of addresses such as new"
ADDRESSES = frozenset(
    {"assumptions", "charts", "confirm", "import", "money", "new", "open", "read", "scale", "undo"}
)
"""Words that stand in addresses where an id would: no part and no game is called so."""


def is_id(text: str) -> bool:
    """Small letters, digits and hyphens, at most 80, not beginning with a hyphen, and no word that
    addresses need.
    """
    if text in ADDRESSES:
        return False
    plain = text.replace("-", "a")
    return (
        0 < len(text) <= 80
        and text[0] != "-"
        and plain.isascii()
        and plain.isalnum()
        and plain.islower() | plain.isdecimal()
    )
