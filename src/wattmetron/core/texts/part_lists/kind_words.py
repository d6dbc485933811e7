"""The words by which lists call the kinds of part."""

import re

from wattmetron.core.values.part_kinds import SPECS, Kind

WORDS: tuple[tuple[Kind, str], ...] = tuple(
    (kind, spec.words) for kind, spec in sorted(SPECS.items(), key=lambda item: item[1].words_rank)
)
_KINDS = tuple((kind, re.compile(rf"\b(?:{words})\b", re.I)) for kind, words in WORDS)
_LEADING = tuple(
    (kind, re.compile(rf"^\W*(?:\d+\W+)?(?:{words})\b\s*[:=|\t.–-]*", re.I))
    for kind, words in WORDS
)


def kind_named(text: str) -> Kind | None:
    """The kind that a text names first."""
    starts = [(match.start(), kind) for kind, pattern in _KINDS if (match := pattern.search(text))]
    return min(starts)[1] if starts else None


def leading_kind(text: str) -> tuple[Kind | None, str]:
    """The kind with which a text begins, and the rest of it."""
    for kind, pattern in _LEADING:
        if match := pattern.match(text):
            return kind, text[match.end() :]
    return None, text
