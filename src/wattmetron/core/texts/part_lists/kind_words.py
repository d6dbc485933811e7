"""The words by which lists call the kinds of part."""

import re

from wattmetron.core.values.part_kinds import Kind

WORDS: tuple[tuple[Kind, str], ...] = (
    ("mainboard", r"main ?boards?|mother ?boards?|mobo|boards?|hovedkort"),
    ("graphics", r"graphics(?: cards?)?|gpu|video cards?|grafikkarte|skjermkort|cards?"),
    ("wireless", r"wi-?fi(?: card| stick)?|wireless(?: adapter)?|wlan"),
    ("memory", r"memory|ram|arbeitsspeicher|minne"),
    ("cooler", r"(?:cpu |processor )?cooler|cooling|aio|kühler|kjøler"),
    ("supply", r"power suppl(?:y|ies)|psu|supply|netzteil|strømforsyning"),
    ("case", r"case|housing|chassis|tower|gehäuse|kabinett"),
    ("storage", r"ssd|nvme|hdd|hard dis[ck]|hard drive|drives?|storage|scratch disk|festplatte"),
    ("splitter", r"fan (?:splitter|hub)s?(?: cable)?|splitter(?: cable)?s?|y-cables?"),
    ("fan", r"(?:case )?fans?|lüfter"),
    ("display", r"monitor|display|screen|bildschirm|skjerm"),
    ("system", r"operating system|os|betriebssystem"),
    ("optical", r"optical(?: drive)?|disc drive"),
    ("input", r"keyboard(?: and mouse)?|mouse|controller|headset|tastatur"),
    ("processor", r"cpu|processor|prozessor|prosessor"),
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
