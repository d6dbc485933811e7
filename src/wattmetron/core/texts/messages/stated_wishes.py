"""Wishes of a letter, clause by clause: each a word for the thing, and whether it is wanted."""

import re
from collections.abc import Iterator

from wattmetron.core.texts.messages.statements import Clause, Field, MessageReading

NO = re.compile(
    r"\bno\b|\bnot\b|\bwithout\b|\bnothing\b|\bneither\b|n't\b|\bnever\b|\bexclud\w*|\bnone\b|\brefuse\w*"
)
IGNORED = re.compile(r"\b(?:lights?|rgb)\b[^,;.]*\bdon't\b|don't (?:care|mind)|doesn't matter")
LIGHTS = re.compile(
    r"\brgb\b|\blights?\b|\blighting\b|\billuminat\w*|\bleds?\b|\bflashy\b|\bblink\w*|\bglow\w*"
)
QUIET = re.compile(r"\bquiet\w*|\bsilen\w*|\bnoiseless\b|\binaudible\b")
LOUD = re.compile(r"\bloud\b|\bhowl\w*|\bnois[ey]\w*|\broar\w*")
MATTERS = re.compile(r"matters?|as low as|important|low\b|little|keep")
SMALL = re.compile(r"\bsmall\w*|\bcompact\b|\btiny\b|\bitx\b|\blittle (?:box|case|one)\b|\bslim\b")
SMALL_OTHER = re.compile(r"small\w* (?:budget|money|amount|ssd|drive|sum)")
COLOUR = re.compile(r"\b(black|white)\b")
LIQUID = re.compile(r"\b(?:liquid|water)[- ]?cool\w*|\baio\b")
AIR = re.compile(r"\bair[- ]?cool\w*")
WIRELESS = re.compile(r"\bwi-?fi\b|\bwlan\b|\bwireless\b(?! (?:mouse|keyboard|headset|controller))")
NO_WIRELESS = re.compile(r"\bno (?:need|wi)|\bnot needed|without wi")
NO_BEFORE = re.compile(r"\bno\b|\bnot\b|\bwithout\b")
USED = re.compile(r"\bused\b(?! to\b)|\bsecond[- ]?hand\b|\brefurbished\b|\bpre-?owned\b")
NEW = re.compile(r"\b(?:everything|all|only|buy\w*|brand) new\b|\bnew parts\b")
GENERATED = re.compile(r"\bframe[ -]?gen(?:eration|s)?\b|\b(?:generated|made-up) frames\b")
UPSCALING = re.compile(r"\bup-?scal\w*")
DISKS = re.compile(r"\bhard ?(?:disks?|drives?)\b|\bhdds?\b|\bspinning\b")
STREAM = re.compile(r"\bstream(?!ed)\w*")
EDIT = re.compile(
    r"\bedit\w* (?:\w+ )?videos?\b|\bvideo[- ]edit\w*|\bcut\w* (?:\w+ )?videos?\b|\bvideo cutting\b"
)
YEARS = re.compile(r"\b(\d{1,2}|two|three|four|five|six|seven|eight) (?:years?|yrs?)\b")
KEEPS = re.compile(r"\bkeep\w*|\blast\b|\bfor\b|\bhold\b|\buse it\b")
NUMBERS = {"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8}
MEMORY = re.compile(r"\b(\d{1,4})\s*gb(?:\s+of)?\s+(?:memory|ram|main memory)\b")
MEMORY_AFTER = re.compile(r"\b(?:memory|ram)\b[ :]+(\d{1,4})\s*gb\b")
STORAGE = re.compile(
    r"\b(\d{1,2}(?:[.,]5)?|one|two|four)\s*(?:tb|terabytes?)\b|\b(\d{3,4})\s*gb(?:\s+of)?\s+(?:storage|ssd|space|drive)\b"
)


def wishes(clause: Clause, before: str) -> Iterator[MessageReading]:
    """The wishes of a clause; ``before`` is the rest of its sentence before it."""
    text = clause.text
    no = bool(NO.search(text))
    yield from _lights(clause, no, before)
    yield from _noise(clause, no)
    if (match := SMALL.search(text)) and not no and not SMALL_OTHER.search(text):
        yield _said(clause, match, "small", True, sure=False)
    if (match := COLOUR.search(text)) and not no:
        yield _said(clause, match, "colour", match[1])
    yield from _cooling(clause, no)
    if (match := WIRELESS.search(text)) and not NO_WIRELESS.search(text):
        yield _said(clause, match, "wireless", True)
    yield from _used(clause, no)
    if match := UPSCALING.search(text):
        yield _said(clause, match, "upscaling", not no)
    if match := GENERATED.search(text):
        yield _said(clause, match, "generated", not no)
    if (match := DISKS.search(text)) and no:
        yield _said(clause, match, "no_disks", True)
    if (match := STREAM.search(text)) and not no:
        yield _said(clause, match, "work", "streaming")
    if (match := EDIT.search(text)) and not no:
        yield _said(clause, match, "work", "video editing")
    if (match := YEARS.search(text)) and KEEPS.search(text):
        yield _said(clause, match, "years", _number(match[1]))


def sizes(clause: Clause, owns: bool) -> Iterator[MessageReading]:
    """Memory and storage in GB, unless the clause says what is there already."""
    if owns:
        return
    if match := MEMORY.search(clause.text) or MEMORY_AFTER.search(clause.text):
        yield _said(clause, match, "memory_gb", float(match[1]))
    if match := STORAGE.search(clause.text):
        whole = float(_number(match[1]) * 1000 if match[1] else int(match[2]))
        yield _said(clause, match, "storage_gb", whole)


def _lights(clause: Clause, no: bool, before: str) -> Iterator[MessageReading]:
    match = LIGHTS.search(clause.text)
    refused = no or bool(NO_BEFORE.search(before[-20:]))
    if match and refused and not IGNORED.search(clause.text):
        yield _said(clause, match, "no_lights", True)


def _noise(clause: Clause, no: bool) -> Iterator[MessageReading]:
    match = QUIET.search(clause.text)
    if match and not no:
        yield _said(clause, match, "quiet", True, sure=False)
        return
    match = LOUD.search(clause.text)
    if match and (no or MATTERS.search(clause.text)):
        yield _said(clause, match, "quiet", True, sure=False)


def _cooling(clause: Clause, no: bool) -> Iterator[MessageReading]:
    if match := LIQUID.search(clause.text):
        yield _said(clause, match, "cooling", "air" if no else "liquid")
    elif (match := AIR.search(clause.text)) and not no:
        yield _said(clause, match, "cooling", "air")


def _used(clause: Clause, no: bool) -> Iterator[MessageReading]:
    if match := USED.search(clause.text):
        yield _said(clause, match, "allow_used", not no)
    elif match := NEW.search(clause.text):
        yield _said(clause, match, "allow_used", False)


def _said(
    clause: Clause, match: re.Match[str], field: Field, value: object, sure: bool = True
) -> MessageReading:
    return MessageReading(
        field=field,
        value=value,
        start=clause.start + match.start(),
        end=clause.start + match.end(),
        sure=sure,
    )


def _number(word: str) -> float:
    return NUMBERS[word] if word in NUMBERS else float(word.replace(",", "."))
