"""A finding: what a rule says about the parts concerned."""

from collections.abc import Iterable, Iterator
from typing import Literal, NamedTuple

from wattmetron.core.values.parts import Kind

Level = Literal["blocks", "do first", "wastes", "good to know"]
LEVELS: tuple[Level, ...] = ("blocks", "do first", "wastes", "good to know")


class Figure(NamedTuple):
    """A compared figure with its unit."""

    label: str
    value: str
    unit: str = ""


class Finding(NamedTuple):
    """Level, kinds concerned, one plain sentence, the figures compared, what to do.

    ``remedy_kinds`` are the kinds whose change can clear it, best first.
    """

    rule: str
    level: Level
    kinds: tuple[Kind, ...]
    sentence: str
    advice: str
    figures: tuple[Figure, ...] = ()
    remedy_kinds: tuple[Kind, ...] = ()


class Gap(NamedTuple):
    """What a rule cannot judge, because a figure of a part is not known."""

    rule: str
    kind: Kind
    part: str
    figure: str


Spoken = Finding | Gap


def counted(count: int, word: str) -> str:
    """How many of a thing, in words: no fans, 1 fan, 2 fans."""
    return f"{count or 'no'} {word if count == 1 else word + 's'}"


def not_judged(gaps: Iterable[Gap]) -> Iterator[Finding]:
    """All gaps as one finding that names the missing figures."""
    missing = list(dict.fromkeys(gaps))
    if not missing:
        return
    rules = ", ".join(dict.fromkeys(gap.rule for gap in missing))
    named = "; ".join(f"{gap.part}: {gap.figure}" for gap in missing)
    yield Finding(
        "not judged",
        "good to know",
        tuple(dict.fromkeys(gap.kind for gap in missing)),
        f"Not judged for want of figures: {rules}.",
        f"Look these up and enter them with the part: {named}.",
        tuple(Figure(gap.part, "not known", gap.figure) for gap in missing),
    )
