"""The words by which labels, tiers, conditions and glue are known."""

import re
from typing import Literal

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

LABELS: dict[str, Field] = {
    **dict.fromkeys(
        ("processor", "processors", "cpu", "central processor", "prozessor"), "processor"
    ),
    **dict.fromkeys(
        (
            "graphics",
            "graphics card",
            "graphics cards",
            "graphics part",
            "video card",
            "video",
            "gpu",
            "display adapter",
            "graphics chip",
            "graphics hardware",
            "card",
        ),
        "graphics",
    ),
    **dict.fromkeys(("memory", "ram", "system memory", "main memory", "system ram"), "memory"),
    **dict.fromkeys(
        ("video memory", "vram", "video ram", "graphics memory", "gpu memory"), "video memory"
    ),
    **dict.fromkeys(
        (
            "storage",
            "hard disk",
            "hard disk space",
            "hard drive",
            "hard drive space",
            "disk",
            "disk space",
            "drive",
            "drive space",
            "hdd",
            "ssd",
            "free space",
            "free disk space",
            "storage space",
            "available space",
            "install size",
            "space",
        ),
        "storage",
    ),
    **dict.fromkeys(
        ("os", "operating system", "system", "operating systems", "platform"), "system"
    ),
    **dict.fromkeys(
        ("api", "graphics api", "graphics level", "api level", "feature level", "shader level"),
        "api",
    ),
    **dict.fromkeys(
        (
            "target",
            "settings",
            "tested at",
            "runs at",
            "experience",
            "performance",
            "quality",
            "graphics settings",
            "video settings",
            "expected performance",
            "playing at",
            "detail",
        ),
        "conditions",
    ),
    **dict.fromkeys(
        ("resolution", "display", "screen", "display resolution", "screen resolution"), "resolution"
    ),
    **dict.fromkeys(("preset", "graphics preset", "graphics quality", "quality preset"), "preset"),
    **dict.fromkeys(
        ("frame rate", "framerate", "fps", "frames per second", "target frame rate"), "frame rate"
    ),
    **dict.fromkeys(
        (
            "additional notes",
            "notes",
            "note",
            "network",
            "internet",
            "internet connection",
            "sound",
            "sound card",
            "audio",
            "input",
            "controller",
            "other",
            "other requirements",
            "additional",
            "peripherals",
        ),
        "notes",
    ),
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

COLUMN_HEADS = frozenset(
    {
        "",
        "component",
        "components",
        "requirement",
        "requirements",
        "tier",
        "spec",
        "specs",
        "part",
        "category",
        "item",
    }
)

GLUE = frozenset(
    [
        "a",
        "about",
        "after",
        "all",
        "also",
        "an",
        "and",
        "any",
        "anything",
        "are",
        "around",
        "as",
        "at",
        "available",
        "be",
        "below",
        "better",
        "both",
        "by",
        "can",
        "card",
        "chip",
        "class",
        "cpu",
        "desktop",
        "dedicated",
        "do",
        "edition",
        "either",
        "equal",
        "equivalent",
        "equivalents",
        "experience",
        "faster",
        "for",
        "free",
        "from",
        "game",
        "gpu",
        "graphics",
        "has",
        "have",
        "hardware",
        "higher",
        "if",
        "in",
        "is",
        "it",
        "its",
        "latest",
        "least",
        "level",
        "machine",
        "more",
        "modern",
        "need",
        "needs",
        "newer",
        "of",
        "on",
        "one",
        "or",
        "our",
        "play",
        "player",
        "players",
        "plus",
        "preset",
        "processor",
        "quality",
        "recommend",
        "recommended",
        "recommends",
        "required",
        "requires",
        "runs",
        "series",
        "set",
        "settings",
        "similar",
        "some",
        "something",
        "space",
        "such",
        "than",
        "that",
        "the",
        "them",
        "there",
        "these",
        "this",
        "to",
        "together",
        "top",
        "up",
        "update",
        "us",
        "use",
        "version",
        "we",
        "will",
        "with",
        "you",
        "your",
        "takes",
        "aim",
        "nearly",
        "at's",
        "drive",
        "disk",
        "disc",
        "hard",
        "storage",
        "memory",
        "ram",
        "system",
        "video",
        "target",
        "minimum",
        "requirement",
        "requirements",
        "recommendation",
        "installation",
        "install",
        "experience",
        "compatible",
        "capable",
        "using",
        "support",
        "supported",
        "tier",
    ]
)
NAME_GLUE = frozenset(
    [
        "a",
        "above",
        "also",
        "an",
        "and",
        "any",
        "as",
        "at",
        "be",
        "better",
        "capable",
        "card",
        "class",
        "compatible",
        "comparable",
        "cpu",
        "dedicated",
        "desktop",
        "either",
        "equal",
        "equivalent",
        "faster",
        "for",
        "from",
        "gpu",
        "graphics",
        "have",
        "higher",
        "in",
        "latest",
        "least",
        "like",
        "modern",
        "need",
        "newer",
        "of",
        "on",
        "or",
        "processor",
        "recommended",
        "requires",
        "series",
        "similar",
        "some",
        "something",
        "such",
        "than",
        "that",
        "the",
        "this",
        "video",
        "vram",
        "we",
        "with",
        "will",
        "you",
        "your",
    ]
)
"""Words that are never part of a part's name; of any other word beside a name it is not known."""

OR_BETTER = re.compile(
    r"(?:(?<![ ,/(])[ ,/(]+)?(?:\b(?:or|and|oder)|&)[ ]+(?:a[ ]+)?"
    r"(?:better|above|up|equivalent|equivalents|similar|faster|higher|newer|greater|equal"
    r"|comparable|more|later|stronger)\b\)?|\+(?=\s|$)",
    re.IGNORECASE,
)
