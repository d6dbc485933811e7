"""Where figures come from: what is only claimed, and what other sources say instead."""

from collections.abc import Callable, Iterator
from dataclasses import fields, replace
from typing import Any, NamedTuple, cast, get_type_hints

from wattmetron.core.fit.finding import Figure, Finding
from wattmetron.core.values.fields import Column
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import KINDS, Kind, Part, Storage

Check = Callable[[Machine], tuple[Finding, ...]]
RULES_ON: dict[str, str] = {
    "board_forms": "board form factor",
    "capacity_w": "cooler capacity",
    "card_height_mm": "card height",
    "card_length_mm": "card length",
    "card_thickness_mm": "card thickness",
    "cooler_height_mm": "cooler height",
    "firmware_needed": "firmware",
    "firmware_shipped": "firmware",
    "height_mm": "height",
    "length_mm": "length",
    "memory_clearance_mm": "memory clearance",
    "memory_max_gb": "memory capacity",
    "memory_max_mts": "memory speed",
    "mts": "memory speed",
    "processor_w": "board power delivery",
    "sockets": "cooler socket",
    "spike_w": "supply spikes",
    "supply_length_mm": "supply length",
    "watts": "supply watts",
}
"""Columns on which a rule hangs, with what it judges."""


class Dissent(NamedTuple):
    """What another source says of a part's figure."""

    column: str
    value: float
    source: str


def dissents(part: Part) -> Iterator[Dissent]:
    """The disputed figures of a part that can be read: a number of its own, written as
    ``length_mm=309 by a shop``.
    """
    own = {item.name for item in fields(part)} if part.disputed else set()
    for entry in part.disputed:
        figure, _, source = entry.partition(" by ")
        column, _, text = figure.partition("=")
        try:
            value = float(text)
        except ValueError:
            continue
        present = getattr(part, column.strip(), None) if column.strip() in own else None
        if isinstance(present, (int, float)) and not isinstance(present, bool):
            yield Dissent(column.strip(), value, source.strip() or "another source")


def unreadable(part: Part) -> tuple[str, str] | None:
    """The first entry, with its column, that names no figure of the part."""
    own = {item.name for item in fields(part)}
    for column in part.claimed:
        if column not in own:
            return "claimed", column
    for entry in part.disputed:
        if not any(dissents(replace(part, disputed=(entry,)))):
            return "disputed", entry
    return None


def figure_name(part: Part, column: str) -> str:
    """A column in words, such as longest card."""
    hint = get_type_hints(type(part), include_extras=True).get(column)
    text = next(
        (one.text for one in getattr(hint, "__metadata__", ()) if isinstance(one, Column)), column
    )
    return text.partition(";")[0][:1].lower() + text.partition(";")[0][1:]


def claimed(machine: Machine) -> Iterator[Finding]:
    """Figures that a rule hangs on and that nobody but maker or seller vouches for."""
    found = [
        (part, column) for part in machine.parts() for column in part.claimed if column in RULES_ON
    ]
    if not found:
        return
    told = "; ".join(f"{part.name}: {figure_name(part, column)}" for part, column in found)
    yield Finding(
        "only claimed",
        "good to know",
        tuple(dict.fromkeys(kind_of(part) for part, _ in found)),
        f"Claimed by a maker's list or an offer's text, confirmed by nobody: {told}.",
        f"What hangs on it: {', '.join(dict.fromkeys(RULES_ON[column] for _, column in found))}."
        " Measure or ask before buying.",
        tuple(Figure(part.name, figure_name(part, column)) for part, column in found),
    )


def disputed(machine: Machine, check: Check) -> Iterator[Finding]:
    """Where sources disagree on a figure: does something block by the other one?"""
    standing: set[str] | None = None
    for part in machine.parts():
        for one in dissents(part):
            if standing is None:
                standing = {finding.rule for finding in check(machine) if finding.level == "blocks"}
            yield _disagreement(machine, part, one, standing, check)


def _disagreement(
    machine: Machine, part: Part, one: Dissent, standing: set[str], check: Check
) -> Finding:
    kind = kind_of(part)
    other = _with_figure(machine, kind, part, one)
    new = (
        []
        if other is None
        else [f for f in check(other) if f.level == "blocks" and f.rule not in standing]
    )
    name, own = figure_name(part, one.column), getattr(part, one.column)
    consequence = (
        f" By that figure it blocks: {new[0].sentence}" if new else " It makes no difference here."
    )
    return Finding(
        "sources disagree",
        "do first" if new else "good to know",
        (kind,),
        f"Sources disagree on {part.name}, {name}: {own:g} by {part.source or 'the catalogue'},"
        f" {one.value:g} by {one.source}.{consequence}",
        (
            "Find out which is right before buying, or take a part that fits either way."
            if new
            else "Nothing to do."
        ),
        (Figure(part.source or "catalogue", f"{own:g}"), Figure(one.source, f"{one.value:g}")),
    )


def _with_figure(machine: Machine, kind: Kind, part: Part, one: Dissent) -> Machine | None:
    """The machine with the other source's figure; None where it makes no part or stands in no
    single place.
    """
    if kind not in KINDS:
        return None
    whole: Any = type(getattr(part, one.column))
    changed = replace(part, **{one.column: whole(one.value)})
    if kind == "storage":
        drives = tuple(cast(Storage, changed) if own is part else own for own in machine.storage)
        return replace(machine, storage=drives)
    return replace(machine, **{kind: changed}) if getattr(machine, kind) is part else None  # type: ignore[arg-type]
