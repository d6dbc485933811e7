"""The balance of a brief: where the money goes, what it could buy instead, and what the next money
would bring.
"""

from dataclasses import dataclass, replace
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from wattmetron.core.balance.cost_shares import Split, split
from wattmetron.core.balance.pairs import PairCell, PairsMap, cells_of, pairs_map
from wattmetron.core.balance.preference_prices import Granted
from wattmetron.core.balance.reductions import Cut, cuts, free_money
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.branch_and_bound import Winner
from wattmetron.core.search.frontier import Frontier, frontier
from wattmetron.core.search.problem import Scene, scenes_for
from wattmetron.core.search.proposal import BAND, besides_minor
from wattmetron.core.search.tie_break import settle
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.places.assessment.assess import Assessment, assess, known_brief, known_build
from wattmetron.places.balance.years import outlasts
from wattmetron.places.proposal.preference_answers import settled
from wattmetron.places.proposal.proposals import kept_parts

MORE_MONEY = (-10_000, -5_000, -2_500, 2_500, 5_000, 10_000)
FRONTIER_SHARE = 2
KNEE_GAIN, KNEE_BUDGET = 10_000, 0.02


@dataclass(frozen=True, kw_only=True)
class TargetSides:
    """The processors and cards that the search looks at with their costs in minor units, which
    cards it takes, and which targets can be met at all.
    """

    chips: tuple[Processor, ...]
    cards: tuple[Graphics, ...]
    chip_costs: tuple[int, ...]
    card_costs: tuple[int, ...]
    allowed: tuple[bool, ...]
    can_be_met: tuple[bool, ...]


@dataclass(frozen=True, kw_only=True)
class Tables:
    """The exact tables of a question: frontier and map, the budget for the eight kinds, what is
    paid besides, the parts that stay; all costs in minor units. The brief has its granted
    preferences as floors; ``preferences`` says which, ``wished`` is the brief as it was asked.
    """

    catalogue: Catalogue
    brief: Brief
    fixed_build: Build
    frontier: Frontier
    budget: int
    besides: int
    preferences: tuple[Granted, ...]
    wished: Brief
    sides: TargetSides

    def build_at(self, step: Winner) -> Build:
        """The complete build of a step or a cell."""
        return self.catalogue.ask(_build_at, self.brief, self.fixed_build, step)

    def answer(self, budget: int) -> Winner | None:
        return self.frontier.answer(budget, BAND)

    @property
    def knee(self) -> int | None:
        """Place of the last step up to which money still brings at least 1 % of U for every 2 % of
        the budget.

        Seen along the upper hull of cost and U, so that one odd step neither makes nor hides it.
        """
        steps, hull = self.frontier.steps, list[int]()
        for index, step in enumerate(steps):
            while len(hull) > 1 and _slope(steps[hull[-2]], steps[hull[-1]]) <= _slope(
                steps[hull[-1]], step
            ):
                hull.pop()
            if not hull or step.gain > steps[hull[-1]].gain:
                hull.append(index)
        enough = KNEE_GAIN / max(1.0, KNEE_BUDGET * self.budget)
        return next(
            (b for a, b in reversed([*pairwise(hull)]) if _slope(steps[a], steps[b]) >= enough),
            None,
        )


def _slope(winner: Winner, other: Winner) -> float:
    """Gain in millionths for each minor unit."""
    return (other.gain - winner.gain) / max(1, other.cost - winner.cost)


def tables(catalogue: Catalogue, brief: Brief, build: Build) -> Tables:
    """The tables around the kept parts of a build, kept for as long as neither changes."""
    brief = known_brief(catalogue, brief)
    fixed = kept_parts(catalogue, brief, build)
    return catalogue.ask(_tables, brief, fixed)


def _tables(catalogue: Catalogue, wanted: Brief, build: Build) -> Tables:
    brief, preferences = settled(catalogue, wanted, build)
    besides = besides_minor(catalogue, brief, build)
    budget = brief.budget_high_minor - besides
    scenes = scenes_for(catalogue, brief, build)
    most = min(NEVER - 1, max(FRONTIER_SHARE * budget, budget + max(MORE_MONEY)))
    return Tables(
        catalogue=catalogue,
        brief=brief,
        fixed_build=build,
        frontier=frontier(scenes, most),
        budget=budget,
        besides=besides,
        preferences=preferences,
        wished=wanted,
        sides=_sides(scenes[0]),
    )


def _sides(scene: Scene) -> TargetSides:
    pool = scene.pool
    return TargetSides(
        chips=pool.processors.parts,
        cards=pool.cards.parts,
        chip_costs=tuple(map(int, pool.processors.cost)),
        card_costs=tuple(map(int, pool.cards.cost)),
        allowed=tuple(map(bool, scene.allowed)),
        can_be_met=tuple(side.can_be_met for side in scene.targets.sides),
    )


def map_of(tables: Tables, shown: tuple[Part, ...]) -> PairsMap:
    """The map of pairings, with these parts shown in any case."""
    names = tuple(part.id for part in shown)
    return tables.catalogue.ask(_map, tables.brief, tables.fixed_build, tables.budget, names)


def _map(
    catalogue: Catalogue, brief: Brief, fixed: Build, budget: int, shown_ids: tuple[str, ...]
) -> PairsMap:
    shown = tuple(catalogue.part(part_id) for part_id in shown_ids)
    return pairs_map(scenes_for(catalogue, brief, fixed), budget, BAND, shown)


def _build_at(catalogue: Catalogue, brief: Brief, fixed: Build, step: Winner) -> Build:
    return settle(catalogue, brief, scenes_for(catalogue, brief, fixed), step, fixed)


def cell_of(tables: Tables, processor: str, card: str) -> PairCell | None:
    """The cell of a pairing by part ids; an empty card stands for integrated graphics."""
    return tables.catalogue.ask(
        _cell, tables.brief, tables.fixed_build, tables.budget, processor, card
    )


def _cell(
    catalogue: Catalogue, brief: Brief, fixed: Build, budget: int, processor: str, card: str
) -> PairCell | None:
    scenes = scenes_for(catalogue, brief, fixed)
    scene = next((each for each in scenes if each.integrated == (not card)), None)
    if scene is None:
        return None
    chips = [part.id for part in scene.pool.processors.parts]
    cards = [part.id for part in scene.pool.cards.parts] if card else [""]
    if processor not in chips or card not in cards:
        return None
    index = np.array([chips.index(processor)]), np.array([cards.index(card)])
    return cells_of(scene, *index, budget, BAND).get(0)


@dataclass(frozen=True, slots=True)
class More:
    """What a budget of so much more (or less) buys: the build and its assessment; None where
    nothing fits.
    """

    change_minor: int
    assessment: Assessment | None
    changed: tuple[Kind, ...]


def more_money(
    tables: Tables, now: Assessment, changes: tuple[int, ...] = MORE_MONEY
) -> tuple[More, ...]:
    """The answers around the brief's budget, held against a build."""
    return tuple(_more(tables, now, change) for change in changes)


def _more(tables: Tables, now: Assessment, change: int) -> More:
    step = tables.answer(tables.budget + change)
    if step is None:
        return More(change, None, ())
    build = tables.build_at(step)
    same = tuple(kind for kind in ALL_KINDS if build.of(kind) != now.build.of(kind))
    return More(change, assess(tables.catalogue, tables.brief, build), same)


def split_of(catalogue: Catalogue, now: Assessment) -> Split | None:
    """The split of a whole build in which nothing blocks; else None."""
    if not now.whole:
        return None
    costs: dict[Kind, int] = dict.fromkeys(ALL_KINDS, 0)
    for line in now.lines:
        if line.kind in ALL_KINDS:
            costs[line.kind] += line.cost_minor
    brief = known_brief(catalogue, now.brief)
    return catalogue.ask(_split, brief, replace(now.build, second_card=None), tuple(costs.items()))


def _split(
    catalogue: Catalogue, brief: Brief, build: Build, costs: tuple[tuple[Kind, int], ...]
) -> Split | None:
    return split(catalogue, brief, build, dict(costs))


def cuts_of(catalogue: Catalogue, now: Assessment) -> tuple[Cut, ...]:
    """All single swaps for something cheaper that grants what the answer grants, for a whole
    build.
    """
    if now.missing or not now.machine.can_draw:
        return ()
    brief, _ = settled(
        catalogue, known_brief(catalogue, now.brief), kept_parts(catalogue, now.brief, now.build)
    )
    return catalogue.ask(_cuts, brief, known_build(catalogue, now.build))


def _cuts(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[Cut, ...]:
    return tuple(cuts(catalogue, brief, build))


def idle_money(catalogue: Catalogue, now: Assessment) -> dict[Kind, Cut]:
    """Money that buys no frames: by kind the cheapest replacement that costs none, now or in the
    years to keep.
    """
    return free_money(
        [cut for cut in cuts_of(catalogue, now) if not (cut.free and outlasts(catalogue, now, cut))]
    )


class CarriedLonger(NamedTuple):
    """A replacement that costs no frames today, and how many targets the present part and the other
    carry alone in the last year to keep.
    """

    cut: Cut
    present: int
    other: int


def bought_for_years(catalogue: Catalogue, now: Assessment) -> dict[Kind, CarriedLonger]:
    """By kind the cheapest replacement that costs no frames today but targets in the years to keep,
    with how many the present part and the other carry alone in the last of them.
    """
    free = free_money(list(cuts_of(catalogue, now)))
    return {
        kind: CarriedLonger(cut, *carried)
        for kind, cut in free.items()
        if (carried := outlasts(catalogue, now, cut))
    }


def trimmed(catalogue: Catalogue, now: Assessment, over_minor: int) -> tuple[Cut, ...]:
    """Cuts, one kind each, of least loss until so much is saved; empty where no cuts do it.

    The single cut of least loss that suffices wins; else the one that loses least per unit of money
    is made first.
    """
    weights = tuple(target.weight for target in known_brief(catalogue, now.brief).counted_targets)
    made: list[Cut] = []
    left, present = over_minor, now
    while left > 0:
        open_ones = [
            cut for cut in cuts_of(catalogue, present) if cut.kind not in {cut.kind for cut in made}
        ]
        if not open_ones:
            return ()
        enough = [open_one for open_one in open_ones if open_one.saves_minor >= left]
        if enough:
            best = min(enough, key=lambda cut: (cut.loss(weights), -cut.saves_minor, cut.part.id))
        else:
            best = min(
                open_ones,
                key=lambda open_one: (
                    max(0.0, open_one.loss(weights)) / open_one.saves_minor,
                    -open_one.saves_minor,
                    open_one.part.id,
                ),
            )
        made.append(best)
        left -= best.saves_minor
        present = assess(catalogue, now.brief, best.build)
    return tuple(made)
