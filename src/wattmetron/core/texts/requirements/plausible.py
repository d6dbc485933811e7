"""How well a reading accounts for what its text mentions: the better of two readings is kept."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from wattmetron.core.texts.requirements.draft import Mark, PartMark
from wattmetron.core.texts.requirements.mentions import CORE, Mention
from wattmetron.core.texts.requirements.name_matching import PLACED_FROM
from wattmetron.core.values.published import Listed, Tier

KNOWN, SWALLOWED, UNKNOWN, CONTRADICTED, LOPSIDED, SAME_MAKER, VALUE, LEFT_OVER = (
    2.0,
    -4.0,
    -1.0,
    -1.5,
    -2.0,
    -2.0,
    0.5,
    -2.0,
)
"""What counts for a reading and against it: a part that is known, a name that holds another part,
a part's name with words that it does not have, a second value for a field, a tier with one side
alone, two parts of one maker on one side, any other value, a part that was not listed.
"""
_TOLD = (("storage", "storage_gb"), ("memory", "memory_gb"), ("frame rate", "fps"))
_SINGLE = (
    "memory_gb",
    "video_memory_gb",
    "storage_gb",
    "storage_kind",
    "width_px",
    "preset",
    "fps",
    "upscaling",
    "ray_tracing",
)


@dataclass(frozen=True, slots=True)
class Plausibility:
    """The sum of what counts for and against a reading, and whether anything counts against it."""

    points: float
    clean: bool


def plausibility(
    tiers: Sequence[Tier], marks: Iterable[Mark], mentions: Sequence[Mention]
) -> Plausibility:
    """Of a reading of a text that mentions all this."""
    named = [mention for mention in mentions if mention.kind in CORE]
    core = [mention for mention in named if mention.known]
    listed = [entry for tier in tiers for entry in (*tier.processors, *tier.graphics)]
    known = sum(entry.part is not None for entry in listed)
    own_marks = list(marks)
    swallowed = sum(_swallows(mark, core) for mark in own_marks if isinstance(mark, PartMark))
    unnamed = [
        mark
        for mark in own_marks
        if isinstance(mark, PartMark) and not mark.confidence >= PLACED_FROM
    ]
    unknown = sum(any(_overlap(mark, mention) for mention in core) for mark in unnamed)
    contradicted = sum(
        "contradicts" in mark.what and not mark.what.startswith("graphics API")
        for mark in own_marks
    )
    whole = any(tier.processors and tier.graphics for tier in tiers)
    lopsided = sum(bool(tier.processors) != bool(tier.graphics) for tier in tiers) if whole else 0
    same = sum(_same_maker(tier.processors) + _same_maker(tier.graphics) for tier in tiers)
    left_over = max(0, len(core) - known) + max(0, len(named) - len(core) - len(unnamed))
    empty = sum(not (tier.processors or tier.graphics) for tier in tiers) if whole else 0
    values = len(unnamed) - unknown
    values += sum(bool(tier.label) for tier in tiers) if len(tiers) > 1 else 0
    values += sum(getattr(tier, name) is not None for tier in tiers for name in _SINGLE)
    against = (
        SWALLOWED * swallowed
        + UNKNOWN * unknown
        + CONTRADICTED * contradicted
        + LOPSIDED * (lopsided + empty)
        + SAME_MAKER * same
        + LEFT_OVER * left_over
    )
    points = KNOWN * min(known, len(core)) + VALUE * values + against
    labelled = len(tiers) < 2 or all(tier.label for tier in tiers)
    return Plausibility(points, against == 0 and labelled and _all_told(tiers, mentions))


def _all_told(tiers: Sequence[Tier], mentions: Sequence[Mention]) -> bool:
    """Whether there is a value for every amount and condition that the text mentions."""
    return all(
        sum(mention.kind == kind for mention in mentions)
        <= sum(getattr(tier, name) is not None for tier in tiers)
        for kind, name in _TOLD
    )


def _swallows(mark: PartMark, core: Iterable[Mention]) -> bool:
    """Whether a name holds two parts, or one of the other side."""
    inside = [mention for mention in core if _overlap(mark, mention)]
    return len(inside) > 1 or any(mention.kind != mark.side for mention in inside)


def _overlap(mark: Mark, mention: Mention) -> bool:
    return mark.start < mention.end and mention.start < mark.end


def _same_maker(listed: Sequence[Listed]) -> int:
    makers = [entry.text.split()[0].casefold() for entry in listed if entry.part is not None]
    return len(makers) - len({*makers})
