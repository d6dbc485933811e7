"""Where figures come from: what is only claimed, and what other sources say instead."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import fields, replace
from typing import Any, NamedTuple, cast, get_type_hints

from wattmetron.core.compatibility.finding import Figure, Finding, Told
from wattmetron.core.compatibility.rule import Rule
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.fields import Column
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part

Check = Callable[[Machine], tuple[Finding, ...]]
CLAIMED = Told(
    name="only claimed",
    family="all",
    levels=("good to know",),
    speaks="a figure that a rule hangs on is claimed by a maker's list or an offer's text alone",
    silent="figures are confirmed",
)
DISPUTED = Told(
    name="sources disagree",
    family="all",
    levels=("do first", "good to know"),
    speaks="another source gives another figure; do first where something blocks by that figure",
    silent="sources agree",
)


class Dissent(NamedTuple):
    """What another source says of a part's figure."""

    column: str
    value: float
    source: str


def dissents(part: Part) -> Iterator[Dissent]:
    """The disputed figures of a part that can be read: a number of its own, written as
    ``length_mm=309 by a shop``.
    """
    columns = {item.name for item in fields(part)} if part.disputed else set()
    for entry in part.disputed:
        figure, _, source = entry.partition(" by ")
        column, _, text = figure.partition("=")
        try:
            value = float(text)
        except ValueError:
            continue
        present = getattr(part, column.strip(), None) if column.strip() in columns else None
        if isinstance(present, (int, float)) and not isinstance(present, bool):
            yield Dissent(column.strip(), value, source.strip() or "another source")


def unreadable(part: Part) -> tuple[str, str] | None:
    """The first entry, with its column, that names no figure of the part."""
    names = {item.name for item in fields(part)}
    for column in part.claimed:
        if column not in names:
            return "claimed", column
    for entry in part.disputed:
        if not any(dissents(replace(part, disputed=(entry,)))):
            return "disputed", entry
    return None


def figure_name(part: Part, column: str) -> str:
    """A column in words, such as longest card."""
    hint = get_type_hints(type(part), include_extras=True).get(column)
    text = next(
        (
            each_hint.text
            for each_hint in getattr(hint, "__metadata__", ())
            if isinstance(each_hint, Column)
        ),
        column,
    )
    return text.partition(";")[0][:1].lower() + text.partition(";")[0][1:]


def claimed(machine: Machine, rules: Iterable[Rule]) -> Iterator[Finding]:
    """Figures that a rule hangs on and that nobody but maker or seller vouches for."""
    hanging: dict[tuple[Kind, str], list[str]] = {}
    for rule in rules:
        for kind, columns in rule.hangs_on.items():
            for column in columns:
                hanging.setdefault((kind, column), []).append(rule.name)
    unsure = [
        (part, column, names)
        for part in machine.parts()
        for column in part.claimed
        if (names := hanging.get((kind_of(part), column)))
    ]
    if not unsure:
        return
    sentence = "; ".join(f"{part.name}: {figure_name(part, column)}" for part, column, _ in unsure)
    judged = dict.fromkeys(name for _, _, names in unsure for name in names)
    yield Finding(
        CLAIMED.name,
        CLAIMED.levels[0],
        tuple(dict.fromkeys(kind_of(part) for part, _, _ in unsure)),
        f"Claimed by a maker's list or an offer's text, confirmed by nobody: {sentence}.",
        f"What hangs on it: {', '.join(judged)}. Measure or ask before buying.",
        tuple(Figure(part.name, figure_name(part, column)) for part, column, _ in unsure),
    )


def disputed(machine: Machine, check: Check) -> Iterator[Finding]:
    """Where sources disagree on a figure: does something block by the other one?"""
    standing: set[str] | None = None
    for part in machine.parts():
        for dissent in dissents(part):
            if standing is None:
                standing = {finding.rule for finding in check(machine) if finding.level == "blocks"}
            yield _disagreement(machine, part, dissent, standing, check)


def _disagreement(
    machine: Machine, part: Part, dissent: Dissent, standing: set[str], check: Check
) -> Finding:
    kind = kind_of(part)
    other = _with_figure(machine, kind, part, dissent)
    new = (
        []
        if other is None
        else [f for f in check(other) if f.level == "blocks" and f.rule not in standing]
    )
    name, stated = figure_name(part, dissent.column), getattr(part, dissent.column)
    consequence = (
        f" By that figure it blocks: {new[0].sentence}" if new else " It makes no difference here."
    )
    return Finding(
        DISPUTED.name,
        DISPUTED.levels[0 if new else 1],
        (kind,),
        f"Sources disagree on {part.name}, {name}: {stated:g} by {part.source or 'the catalogue'},"
        f" {dissent.value:g} by {dissent.source}.{consequence}",
        (
            "Find out which is right before buying, or take a part that fits either way."
            if new
            else "Nothing to do."
        ),
        (
            Figure(part.source or "catalogue", f"{stated:g}"),
            Figure(dissent.source, f"{dissent.value:g}"),
        ),
    )


def _with_figure(machine: Machine, kind: Kind, part: Part, dissent: Dissent) -> Machine | None:
    """The machine with the other source's figure; None where it makes no part or stands in no
    single place.
    """
    if kind not in KINDS:
        return None
    whole: Any = type(getattr(part, dissent.column))
    changed = replace(part, **{dissent.column: whole(dissent.value)})
    if kind == "storage":
        drives = tuple(
            cast(Storage, changed) if drive is part else drive for drive in machine.storage
        )
        return replace(machine, storage=drives)
    return replace(machine, **{kind: changed}) if getattr(machine, kind) is part else None  # type: ignore[arg-type]
