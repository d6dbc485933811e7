"""Candidates for a place in a build: the neighbours in price, with what each would change."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.rule import RuleContext
from wattmetron.core.compatibility.rules import blocking, blocking_on, check
from wattmetron.core.compatibility.wasted_money import weighed
from wattmetron.core.errors import UnknownGameError
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import State
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.brief import BOUGHT_KINDS, Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.assess import (
    Assessment,
    assess,
    floors_missed,
    known_build,
    not_allowed,
    whole_wishes,
)
from wattmetron.places.proposal.moves import FORCED, MOST_MOVES, move

NEIGHBOURS = 5
OWN_FLOORS: dict[Kind, tuple[str, ...]] = {
    "memory": ("memory_gb", "all_channels"),
    "mainboard": ("wireless",),
    "wireless": ("wireless",),
    **dict.fromkeys((kind for kind in BOUGHT_KINDS if kind != "input"), ("buys",)),
    "storage": ("storage_gb", "solid_state", "system_gb", "drives_apart"),
}
"""The brief's floors that hang on one kind alone."""


@dataclass(frozen=True, slots=True)
class SwapEffect:
    """What a candidate does to one target; ``state`` is None while there is nothing that draws."""

    fps: float | None
    interval_fps: tuple[float, float] | None
    change_fps: float | None
    state: State | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """A part that could stand in a place, with the build that it makes; ``forced`` are other parts
    that come with it, and are in what it changes.
    """

    part: Part
    offer: Offer | None
    stale: bool
    owned: bool
    present: bool
    build: Build
    change_minor: int | None
    effects: tuple[SwapEffect, ...]
    findings: tuple[Finding, ...]
    floors: tuple[str, ...]
    missing: bool
    forced: tuple[Part, ...] = ()

    @property
    def cost_minor(self) -> int | None:
        if self.owned:
            return 0
        if self.offer is None:
            return None
        return self.offer.cost_minor


@dataclass(frozen=True, slots=True, kw_only=True)
class Swap:
    """Candidates around the present part, cheapest first, and how many more there are."""

    kind: Kind
    present: str | None
    candidates: tuple[Candidate, ...]
    cheaper_hidden: int
    dearer_hidden: int
    unfit_hidden: int


class SwapRow(NamedTuple):
    """A part that could stand in a place, at its price in minor units (None: not on sale), with the
    machine that it makes and the floors that this would miss; ``forced`` come with it.
    """

    cost_minor: int | None
    part: Part
    build: Build
    machine: Machine
    floors: tuple[str, ...]
    unfit: bool
    forced: tuple[Part, ...] = ()

    @property
    def order(self) -> tuple[int, str]:
        return (-1 if self.cost_minor is None else self.cost_minor, self.part.id)


@dataclass(frozen=True, slots=True, kw_only=True)
class SwapQuery:
    """Which place is to be filled anew: a kind, and the part that stands there.

    Five cheaper and five dearer parts that fit are shown; ``everything`` lists all, ``search`` by
    name, ``with_unfit`` those too that do not fit; ``also`` is listed in any case: the part that is
    being tried. ``again_first``: all parts that one would buy again come before the others.
    """

    kind: Kind
    present: str | None = None
    everything: bool = False
    search: str = ""
    with_unfit: bool = False
    also: str | None = None
    again_first: bool = False


def swap(catalogue: Catalogue, now: Assessment, query: SwapQuery) -> Swap:
    """Candidates for a place, cheapest first, with what each would change."""
    usual = _kept(catalogue, now, replace(query, also=None))
    listed = (None, *(candidate.part.id for candidate in usual.candidates))
    return usual if query.also in listed else _kept(catalogue, now, query)


def _kept(catalogue: Catalogue, now: Assessment, query: SwapQuery) -> Swap:
    return catalogue.ask(_swap, now.brief, now.build, query)


def _swap(catalogue: Catalogue, brief: Brief, build: Build, query: SwapQuery) -> Swap:
    now, words = assess(catalogue, brief, build), query.search.lower().split()
    always = (query.present, query.also)
    named = [
        row
        for row in _rows(catalogue, now, query.kind, query.present)
        if row.part.id == query.present or all(word in row.part.name.lower() for word in words)
    ]
    with_unfit = query.with_unfit
    if not with_unfit:
        named = _with_moves(catalogue, now, query, named)
    with_unfit = with_unfit or bool(words)
    listed = [row for row in named if with_unfit or not row.unfit or row.part.id in always]
    shown, cheaper, dearer = _around(
        listed, query.present, query.everything or bool(words), query.also
    )
    if query.again_first:
        marked = [row for row in listed if row.part.again]
        shown = [*marked, *(row for row in shown if not row.part.again)]
    base = next((row.cost_minor for row in listed if row.part.id == query.present), 0) or 0
    effects = _effects(catalogue, now, [row.machine for row in shown])
    return Swap(
        kind=query.kind,
        present=query.present,
        candidates=tuple(
            _candidate(catalogue, now, query, row, base, tuple(effect[i] for effect in effects))
            for i, row in enumerate(shown)
        ),
        cheaper_hidden=cheaper,
        dearer_hidden=dearer,
        unfit_hidden=len(named) - len(listed),
    )


def _with_moves(
    catalogue: Catalogue, now: Assessment, query: SwapQuery, rows: list[SwapRow]
) -> list[SwapRow]:
    """The rows with those that do not fit as they stand as whole moves, so far as they are near the
    present part in price.
    """
    if query.kind not in FORCED or query.present is None:
        return rows
    base = next((row.cost_minor or 0 for row in rows if row.part.id == query.present), 0)
    unfit = [row for row in rows if row.unfit and row.part.id != query.present and not row.floors]
    unfit.sort(key=lambda row: (row.part.id != query.also, abs((row.cost_minor or 0) - base)))
    moved = {row.part.id: _moved(catalogue, now, row) for row in unfit[:MOST_MOVES]}
    return [moved.get(row.part.id) or row for row in rows]


def _moved(catalogue: Catalogue, now: Assessment, row: SwapRow) -> SwapRow | None:
    moved = move(catalogue, now, row.part)
    if moved is None:
        return None
    machine = machine_of(catalogue, moved.build, now.brief.clocks)
    return row._replace(build=moved.build, machine=machine, unfit=False, forced=moved.forced)


def _rows(
    catalogue: Catalogue, now: Assessment, kind: Kind, present: str | None
) -> tuple[SwapRow, ...]:
    """Every part that could stand in a place, the cheapest first."""
    return catalogue.keep.once(
        ("swap rows", now.brief, now.build, kind, present),
        lambda: tuple(sorted(_fill(catalogue, now, kind, present), key=lambda row: row.order)),
    )


def _fill(
    catalogue: Catalogue, now: Assessment, kind: Kind, present: str | None
) -> Iterator[SwapRow]:
    brief = now.brief
    book, wishes = catalogue.prices(brief.region, brief.may_buy), whole_wishes(catalogue, brief)
    rules = blocking_on(kind)
    for part in catalogue.by_kind[kind]:
        owned = part.id in brief.owned
        offer = book.best(part.id)
        if owned:
            cost = 0
        elif offer is None:
            cost = None
        else:
            cost = offer.cost_minor
        if cost is None and part.id != present:
            continue
        build = now.build if part.id == present else now.build.with_part(kind, part.id, present)
        machine = machine_of(catalogue, known_build(catalogue, build), brief.clocks)
        floors = _floors(catalogue, now, kind, machine)
        if not owned:
            floors = (*floors, *not_allowed(brief, part, cost or 0, book, now.stays))
        against = blocking(rules, RuleContext(machine, wishes))
        unfit = bool(floors) or any(kind in finding.kinds for finding in against)
        yield SwapRow(cost, part, build, machine, floors, unfit)


def _candidate(
    catalogue: Catalogue,
    now: Assessment,
    query: SwapQuery,
    row: SwapRow,
    base_minor: int,
    effects: tuple[SwapEffect, ...],
) -> Candidate:
    brief = now.brief
    book, wishes = catalogue.prices(brief.region, brief.may_buy), whole_wishes(catalogue, brief)
    offer = book.best(row.part.id)
    return Candidate(
        part=row.part,
        offer=offer,
        stale=offer is not None and book.is_stale(offer, brief.old_after),
        owned=row.part.id in brief.owned,
        present=row.part.id == query.present,
        build=row.build,
        change_minor=_change(catalogue, now, row, base_minor),
        effects=effects,
        findings=weighed(check(row.machine, wishes), row.machine, catalogue, book),
        floors=row.floors,
        missing=bool(row.machine.missing()),
        forced=row.forced,
    )


def _change(catalogue: Catalogue, now: Assessment, row: SwapRow, base_minor: int) -> int | None:
    """What the build costs more with a candidate and all that it forces, in minor units."""
    if row.forced:
        return assess(catalogue, now.brief, row.build).spent_minor - now.spent_minor
    return None if row.cost_minor is None else row.cost_minor - base_minor


def _floors(catalogue: Catalogue, now: Assessment, kind: Kind, machine: Machine) -> tuple[str, ...]:
    """Floors of the brief that a memory kit or drive would miss."""
    if kind not in OWN_FLOORS:
        return ()
    missed = floors_missed(catalogue, now.brief, machine)
    return tuple(words for field, words in missed if field in OWN_FLOORS[kind])


def _around(
    rows: list[SwapRow], present: str | None, everything: bool, also: str | None
) -> tuple[list[SwapRow], int, int]:
    if everything:
        return rows, 0, 0
    index = next((i for i, row in enumerate(rows) if row.part.id == present), None)
    first, last = 0, min(len(rows), 2 * NEIGHBOURS)
    if index is not None:
        first, last = max(0, index - NEIGHBOURS), min(len(rows), index + NEIGHBOURS + 1)
    extra = [i for i, row in enumerate(rows) if row.part.id == also and not first <= i < last]
    picks = sorted([*range(first, last), *extra])
    cheaper = first - sum(i < first for i in extra)
    return [rows[i] for i in picks], cheaper, len(rows) - len(picks) - cheaper


def _effects(
    catalogue: Catalogue, now: Assessment, machines: list[Machine]
) -> list[list[SwapEffect]]:
    """Per target, the effect of each machine."""
    effects, lineup = [], Lineup(machines)
    for target, before in zip(now.brief.targets, now.estimates, strict=True):
        try:
            game = fitted_game(catalogue, target.game_id)
        except UnknownGameError:
            effects.append([SwapEffect(None, None, None, "short") for _ in machines])
            continue
        seen = glance(lineup, game, target, now.brief, curves_of(catalogue.keep))
        base = before.judged_fps if before is not None and before.judged_fps else None
        effects.append(
            [
                SwapEffect(
                    float(fps) if fps == fps else None,
                    (float(least), float(most)) if fps == fps else None,
                    float(fps) - base if base is not None and fps == fps else None,
                    state if machine.can_draw else None,
                )
                for fps, least, most, state, machine in zip(
                    seen.fps.tolist(),
                    seen.low_fps.tolist(),
                    seen.high_fps.tolist(),
                    seen.states,
                    machines,
                    strict=True,
                )
            ]
        )
    return effects
