"""A finding: what a rule says about the parts concerned."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal, NamedTuple

from wattmetron.core.values.part_kinds import Kind

Level = Literal["blocks", "do first", "wastes", "good to know"]
LEVELS: tuple[Level, ...] = ("blocks", "do first", "wastes", "good to know")


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """A rule as it is told of: name, family, levels that it can speak at, when it speaks, when it
    stays silent.
    """

    name: str
    family: str
    levels: tuple[Level, ...]
    speaks: str
    silent: str


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


class RuleFinding(NamedTuple):
    """What a rule says: a finding without the rule's name; no level means the rule's first."""

    kinds: tuple[Kind, ...]
    sentence: str
    advice: str
    figures: tuple[Figure, ...] = ()
    remedy_kinds: tuple[Kind, ...] = ()
    level: Level | None = None


class MissingData(NamedTuple):
    """A figure that a rule needs and that is not known."""

    kind: Kind
    part: str
    figure: str


class Gap(NamedTuple):
    """What a rule cannot judge, because a figure of a part is not known."""

    rule: str
    kind: Kind
    part: str
    figure: str


Spoken = Finding | Gap
Speech = Iterator[RuleFinding | MissingData]


NOT_JUDGED = Told(
    name="not judged",
    family="all",
    levels=("good to know",),
    speaks="a figure that a rule needs is not known: the finding names part and figure",
    silent="all figures are known",
)


def not_judged(gaps: Iterable[Gap]) -> Iterator[Finding]:
    """All gaps as one finding that names the missing figures."""
    missing = list(dict.fromkeys(gaps))
    if not missing:
        return
    rules = ", ".join(dict.fromkeys(gap.rule for gap in missing))
    named = "; ".join(f"{gap.part}: {gap.figure}" for gap in missing)
    yield Finding(
        NOT_JUDGED.name,
        NOT_JUDGED.levels[0],
        tuple(dict.fromkeys(gap.kind for gap in missing)),
        f"Not judged for want of figures: {rules}.",
        f"Look these up and enter them with the part: {named}.",
        tuple(Figure(gap.part, "not known", gap.figure) for gap in missing),
    )
