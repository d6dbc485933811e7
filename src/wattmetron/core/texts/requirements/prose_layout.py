"""A list told in prose, as lines."""

import re

from wattmetron.core.texts.requirements.headings import (
    tier_name,
)
from wattmetron.core.texts.requirements.pieces import Layout, Piece, TextLine
from wattmetron.core.texts.requirements.vocabulary import (
    EVERY,
    SURE_TIERS,
)
from wattmetron.core.values import amounts

BEFORE_COLON = re.compile(r"[\s*#\-=\[(]*(?P<head>[^:\n]{3,60}?)[ ]*:")
_IN_BRACKETS = re.compile(
    r"[\s*#\-=\[]*(?P<name>[^():\n]{2,50}?)[ ]*\((?P<head>[^()\n]{3,60})\)[\s:]*\Z"
)


def head_by_conditions(text: str) -> tuple[str, int] | None:
    """A tier named by its resolution and frame rate before a colon, or with them in brackets after
    its name: the name, and where what it says begins.
    """
    match = _IN_BRACKETS.match(text)
    if match and conditions_alone(match["head"]):
        says = amounts.PRESET.search(match["name"]) or amounts.BARE_PRESET.search(match["name"])
        return match["name"].strip(" -*#"), match.start("name" if says else "head")
    match = BEFORE_COLON.match(text)
    if match and conditions_alone(match["head"]):
        return match["head"].strip(" -*#["), match.start("head")
    return None


def every_tier(layout: Layout) -> int:
    """The place of what is said of every tier."""
    if EVERY not in layout.tiers:
        layout.tiers.append(EVERY)
    return layout.tiers.index(EVERY)


def conditions_alone(text: str) -> bool:
    """Whether a line says nothing but a resolution with a frame rate or a preset."""
    size = any(
        pattern.search(text) for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE)
    )
    rest = text
    for pattern in (
        amounts.SIZE,
        amounts.LINES,
        amounts.NAMED_SIZE,
        amounts.FPS,
        amounts.PRESET,
        amounts.BARE_PRESET,
        amounts.UPSCALING,
        amounts.RAYS,
        amounts.GENERATED,
    ):
        rest = pattern.sub(" ", rest)
    return (
        size
        and len(rest.strip(" /,|-+@:*#()")) < 4
        and rest != text
        and (amounts.FPS.search(text) or amounts.BARE_PRESET.search(text)) is not None
    )


def read_prose(text: str, lines: list[TextLine], layout: Layout) -> None:
    """Sentences: each belongs to the tier that it names, else to the one before; one tier where
    none is named.
    """
    tier: int | None = None
    word = re.compile(rf"\b({SURE_TIERS})\b", re.IGNORECASE)
    if not any(word.search(line.text) for line in lines):
        tier = 0
        layout.tiers.append("")
    for line in lines:
        for match in re.finditer(r"(?:[^.;!?]|[.;!?](?!\s|\Z))+[.;!?]?", line.text):
            if EVERY in match[0]:
                position = line.start + match.start() + match[0].index(EVERY)
                layout.structure.append((position, position + 1, "layout", None))
                layout.pieces.append(
                    Piece(
                        tier=every_tier(layout),
                        field=None,
                        label="",
                        start=position + 1,
                        end=line.start + match.end(),
                        prose=True,
                    )
                )
                continue
            named = word.search(match[0])
            if named:
                tier = len(layout.tiers)
                layout.tiers.append(tier_name(named[1]))
                position = line.start + match.start()
                layout.structure.append(
                    (position + named.start(), position + named.end(), "tier", tier)
                )
            start, end = line.start + match.start(), line.start + match.end()
            if tier is None:
                layout.structure.append((start, end, "unread", None))
            else:
                layout.pieces.append(
                    Piece(tier=tier, field=None, label="", start=start, end=end, prose=True)
                )
