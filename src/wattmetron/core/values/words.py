"""Small words of sentences."""

from collections.abc import Iterable


def listed(words: Iterable[str], before_last: str = "and") -> str:
    """``a, b and c``."""
    *first, last = [*words] or [""]
    return f"{', '.join(first)} {before_last} {last}" if first else last


def counted(count: float, word: str) -> str:
    """How many of a thing, in words: no fans, 1 fan, 2 fans."""
    return f"{'no' if not count else f'{count:g}'} {word if count == 1 else word + 's'}"


def with_article(noun: str) -> str:
    """``a case``, ``an SSD``."""
    return f"{'an' if noun[0] in VOWELS or noun in SPELT else 'a'} {noun}"


VOWELS = "aeio"
SPELT = ("SSD", "NVMe SSD")
"""Words that are spelt when spoken."""
