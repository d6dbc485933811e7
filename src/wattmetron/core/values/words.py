"""Small words of sentences."""

from collections.abc import Iterable


def listed(words: Iterable[str]) -> str:
    """``a, b and c``."""
    *first, last = [*words] or [""]
    return f"{', '.join(first)} and {last}" if first else last
