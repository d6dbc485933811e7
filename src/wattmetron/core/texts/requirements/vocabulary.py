"""The words by which labels, tiers, conditions and glue are known."""

import re
from typing import Literal

from wattmetron.core.texts.word_lists import word_lists

Field = Literal[
    "processor",
    "graphics",
    "memory",
    "video memory",
    "storage",
    "system",
    "api",
    "conditions",
    "resolution",
    "preset",
    "frame rate",
    "notes",
]

_WORDS = word_lists("requirement_vocabulary")
LABELS: dict[str, Field] = {
    label: field for field, labels in _WORDS["labels"].items() for label in labels
}

BY_LENGTH = "|".join(
    re.escape(text).replace(r"\ ", r"[ ]+") for text in sorted(LABELS, key=len, reverse=True)
)

SURE_TIERS = (
    r"minimum|minimal|minimums|min|recommended|recommendation|recommends?|rec|optimal|optimum|ideal"
    r"|enthusiast|competitive"
)
BARE_TIERS = (
    r"very high|ultra|high|medium|low|entry|standard|extreme|performance|basic|advanced|best|top"
)
TIER_TAIL = (
    r"(?:[ ]+(?:system|pc|hardware|machine))?(?:[ ]+(?:requirements?|specifications?|spec"
    r" sheet|specs?|configuration|setup)\b)?"
)

EVERY = "\u2200"
"""Stands where something is said of every tier."""

TITLE = re.compile(
    r"(?:official |pc |the |full"
    r" )*(?:system|hardware|pc|technical)?\s*(?:requirements?|specifications?|specs?)\s*:?",
    re.IGNORECASE,
)
NEW_TIER_FIELDS = frozenset({"processor", "graphics", "memory", "storage", "system"})

COLUMN_HEADS = frozenset(_WORDS["column_heads"])
GLUE = frozenset(_WORDS["glue"])
NAME_GLUE = frozenset(_WORDS["name_glue"])
"""Words that are never part of a part's name; of any other word beside a name it is not known."""

OR_BETTER = re.compile(
    r"(?:(?<![ ,/(])[ ,/(]+)?(?:\b(?:or|and|oder)|&)[ ]+(?:a[ ]+)?"
    r"(?:better|above|up|equivalent|equivalents|similar|faster|higher|newer|greater|equal"
    r"|comparable|more|later|stronger)\b\)?|\+(?=\s|$)",
    re.IGNORECASE,
)
