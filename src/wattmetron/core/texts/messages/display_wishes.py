"""The display of a letter: its size by figures or by its usual name, and its refresh."""

import re
from collections.abc import Iterator

from wattmetron.core.texts.messages.statements import Clause, MessageReading

FIGURES = re.compile(r"\b(\d{3,5})\s*(?:x|by)\s*(\d{3,4})\b")
NAMED: tuple[tuple[re.Pattern[str], tuple[int, int]], ...] = (
    (re.compile(r"\b(?:uwqhd|ultra-?wide)\b"), (3440, 1440)),
    (re.compile(r"(?<![\w.,])(?:4k|2160p|uhd)(?=\d{2,3}\b|\b|/)"), (3840, 2160)),
    (re.compile(r"\b(?:1440p|wqhd|qhd)(?=\d{2,3}\b|\b)"), (2560, 1440)),
    (re.compile(r"\b(?:1080p|full ?hd|fhd)(?=\d{2,3}\b|\b)"), (1920, 1080)),
    (re.compile(r"\b720p\b"), (1280, 720)),
)
HERTZ = re.compile(r"\b(\d{2,3})\s*-?\s*(?:hz|hertz)\b")
BESIDE = re.compile(r"\b(?:4k|1440p|1080p)\s*[/@]?\s*(\d{2,3})\b(?!\s*(?:fps|p\b))")
LEAST_HZ, MOST_HZ = 30, 600


def display(text: str) -> Iterator[MessageReading]:
    """Size and refresh, the first of each; figures before names."""
    figures = [
        (match, (int(match[1]), int(match[2])))
        for match in FIGURES.finditer(text)
        if int(match[1]) >= 640 and int(match[2]) >= 360
    ]
    named = [(match, size) for pattern, size in NAMED for match in pattern.finditer(text)]
    sizes = figures or sorted(named, key=lambda row: row[0].start())
    if sizes:
        match, size = sizes[0]
        sure = len({size for _, size in sizes}) == 1
        yield MessageReading(
            field="size", value=size, start=match.start(), end=match.end(), sure=sure
        )
    rates = [match for pattern in (HERTZ, BESIDE) for match in pattern.finditer(text)]
    rates = [match for match in rates if LEAST_HZ <= int(match[1]) <= MOST_HZ]
    if rates:
        match = rates[0]
        sure = len({match[1] for match in rates}) == 1
        hz = float(match[1])
        yield MessageReading(
            field="refresh_hz", value=hz, start=match.start(), end=match.end(), sure=sure
        )


def names_display(clause: Clause) -> bool:
    """Whether a clause says how large or fast the display is."""
    text = clause.text
    return bool(
        FIGURES.search(text)
        or HERTZ.search(text)
        or any(pattern.search(text) for pattern, _ in NAMED)
    )
