"""Cuts: what each cheaper part in one place, everything else kept, would save and cost in
frames.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import State
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.parts import Part

TRIFLE = float(np.log(0.98))
DECIDING: frozenset[Kind] = frozenset({"processor", "graphics", "mainboard", "memory"})
"""Kinds that frame rates depend on."""
STATES: tuple[State, ...] = ("short", "unsure", "meets")


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """A cheaper part in the place of another: what it saves in minor units, and for each counted
    target the change of ln r (never above what counts) and the state then.
    """

    kind: Kind
    part: Part
    instead_of: str
    saves_minor: int
    build: Build
    changes: tuple[float, ...]
    states: tuple[State, ...]
    worsens: bool

    @property
    def free(self) -> bool:
        """Whether no target's r falls by 2 % or more and no state worsens."""
        return not self.worsens and all(change > TRIFLE for change in self.changes)

    def loss(self, weights: tuple[int, ...]) -> float:
        """The weighted mean fall of ln r."""
        total = sum(weights)
        return (
            -sum(w * change for w, change in zip(weights, self.changes, strict=True)) / total
            if total
            else 0.0
        )


def cuts(
    catalogue: Catalogue, brief: Brief, build: Build, kinds: tuple[Kind, ...] = KINDS
) -> Iterator[Cut]:
    """All cuts of a build, kind by kind, the cheapest part first: parts on sale that the brief
    allows and that fit.

    Owned and kept parts and places with several parts are left alone.
    """
    for kind in kinds:
        present = build.of(kind)
        if len(present) == 1 and present[0] not in brief.owned and present[0] not in build.kept:
            yield from _of_kind(catalogue, brief, build, kind, present[0])


def _of_kind(
    catalogue: Catalogue, brief: Brief, build: Build, kind: Kind, present: str
) -> Iterator[Cut]:
    book = catalogue.prices(brief.region, brief.may_buy)
    price = book.cost(present)
    if price is None:
        return
    stays = tuple(
        catalogue.part(part_id)
        for _, part_id in build.ids()
        if part_id in brief.owned or part_id in build.kept
    )
    cheaper = sorted(
        (cost, part.id)
        for part in catalogue.by_kind[kind]
        if (cost := book.cost(part.id)) is not None
        and cost < price
        and may_be_bought(brief, part, cost, stays, book.supply)
    )
    machine = machine_of(catalogue, build, brief.clocks)
    bare = replace(machine, storage=()) if kind == "storage" else machine
    vetting = Vetting(catalogue, brief, machine)
    against = reasons_against(
        bare, kind, (catalogue.part(part_id) for _, part_id in cheaper), vetting.wishes
    )
    hopeful = [row for row, findings in zip(cheaper, against, strict=True) if not findings]
    tried = [(cost, part_id, build.with_part(kind, part_id, present)) for cost, part_id in hopeful]
    whole = [
        (kind, part_id, other, run)
        for kind, part_id, other in tried
        if not (run := machine_of(catalogue, other, brief.clocks)).missing() and vetting.passes(run)
    ]
    changes, states, worsens = _frames(
        catalogue, brief, machine, [run for _, _, _, run in whole], kind in DECIDING
    )
    for i, (cost, part_id, other, _) in enumerate(whole):
        yield Cut(
            kind=kind,
            part=catalogue.part(part_id),
            instead_of=present,
            saves_minor=price - cost,
            build=other,
            changes=changes[i],
            states=states[i],
            worsens=worsens[i],
        )


def _frames(
    catalogue: Catalogue, brief: Brief, before: Machine, after: list[Machine], decides: bool
) -> tuple[list[tuple[float, ...]], list[tuple[State, ...]], list[bool]]:
    """Changes of ln r, states and whether any worsens, for each machine."""
    changes: list[list[float]] = [[] for _ in after]
    states: list[list[State]] = [[] for _ in after]
    worsens = [False for _ in after]
    lineup = Lineup([before, *after] if decides else [before])
    for target in brief.counted_targets if after else ():
        game = fitted_game(catalogue, target.game_id)
        seen = glance(lineup, game, target, brief, curves_of(catalogue.keep), with_ratio=True)
        for i in range(len(after)):
            index = i + 1 if decides else 0
            changes[i].append(float(seen.ln_ratio[index] - seen.ln_ratio[0]))
            states[i].append(seen.states[index])
            worsens[i] |= STATES.index(seen.states[index]) < STATES.index(seen.states[0])
    return [tuple(change) for change in changes], [tuple(state) for state in states], worsens


def keeps_frames(catalogue: Catalogue, brief: Brief, before: Machine, after: Machine) -> bool:
    """Whether no target's r falls by 2 % or more and no state worsens from one machine to
    another.
    """
    changes, _, worsens = _frames(catalogue, brief, before, [after], True)
    return not worsens[0] and all(change > TRIFLE for change in changes[0])


def free_money(cuts: list[Cut]) -> dict[Kind, Cut]:
    """For each kind the cheapest replacement that costs no frames."""
    best: dict[Kind, Cut] = {}
    for cut in cuts:
        if cut.free and (cut.kind not in best or cut.saves_minor > best[cut.kind].saves_minor):
            best[cut.kind] = cut
    return best
