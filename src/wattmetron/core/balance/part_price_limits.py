"""Still the pick up to: how far a part's price may rise before the answer changes, or must fall for
it to enter.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.search.answer import NEVER, Proposal
from wattmetron.core.search.branch_and_bound import Winner
from wattmetron.core.search.candidate_pool import NEW_DRIVES, fixed_parts
from wattmetron.core.search.frontier import Frontier, Ints, Mask, Pick, frontier
from wattmetron.core.search.problem import Scene, scenes_for
from wattmetron.core.search.tie_break import settle
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import FURTHER_KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part


@dataclass(frozen=True, slots=True, kw_only=True)
class PriceLimit:
    """A part's delivered price today and its limit, both in minor units.

    Of a part of the answer: the largest price at which the answer is the same. Of another part: the
    largest price below today's at which the answer contains it, or None where even a gift does not
    enter.
    """

    kind: Kind
    part: Part
    price_minor: int
    limit_minor: int | None
    inside: bool


def price_limit(
    catalogue: Catalogue, brief: Brief, rest: Build, part: Part, answer: Proposal, band: int
) -> PriceLimit | None:
    """The limit of one part by the aim of most frames: all its offers shift together, other prices
    stay.

    None for kinds beside the eight, for places that are taken by a part that stays, for parts
    without a price or not allowed, and for a drive that is not in the answer. A part price cap
    limits every price.
    """
    kind = kind_of(part)
    book = catalogue.prices(brief.region, brief.may_buy)
    price = book.cost(part.id)
    fixed = fixed_parts(catalogue, brief, rest)
    if (
        price is None
        or kind in FURTHER_KINDS
        or answer.build is None
        or part.id in (*brief.owned, *rest.of(kind))
        or (kind != "storage" and fixed[kind])
    ):
        return None
    stays = tuple(each_part for priced in fixed.values() for each_part, _ in priced)
    floors = scenes_for(catalogue, brief, rest)[0].pool.floors
    bought = may_be_bought(brief, part, 0, stays, book.supply)
    if not bought or not floors.takes(part):
        return None
    copies = answer.build.of(kind).count(part.id)
    if kind == "storage" and not copies:
        return None
    capped = NEVER if brief.part_cap_minor is None else brief.part_cap_minor - price
    budget = answer.budget_minor
    contest = Contest(
        tuple(
            _contestants(catalogue, brief, rest, part, budget if copies else budget + price, budget)
        ),
        budget,
        band,
    )
    if copies:
        same = (answer.cost_minor, answer.gain, copies)
        most = _last(lambda rise: contest.pick(rise) == same, 0, min(budget, capped))
        return PriceLimit(
            kind=kind,
            part=part,
            price_minor=price,
            limit_minor=None if most is None else price + most,
            inside=True,
        )
    entering = _enters(contest, price, min(-1, capped))
    return PriceLimit(
        kind=kind,
        part=part,
        price_minor=price,
        limit_minor=None if entering is None else price + entering,
        inside=False,
    )


@dataclass(frozen=True)
class Contestant:
    """All builds with so many copies of the part, as their frontier; ``build`` names a step's."""

    copies: int
    frontier: Frontier
    build: Callable[[Winner], Build]

    def named(self, step: Winner) -> tuple[object, ...]:
        build = self.build(step)
        return (
            build.processor,
            build.graphics or "",
            build.mainboard,
            build.memory,
            sorted(build.storage),
            build.cooler or "",
            build.supply,
            build.case,
            build.of("fan"),
            build.of("splitter"),
        )


def _contestants(
    catalogue: Catalogue, brief: Brief, build: Build, part: Part, most: int, budget: int
) -> Iterator[Contestant]:
    """The builds with and without a part; of a drive there may be two.

    Processors and cards are picked among the pairings; for other kinds the tables are made anew.
    """
    kind = kind_of(part)

    def contestant(
        copies: int,
        brief: Brief,
        fixed_build: Build,
        drives: int = NEW_DRIVES,
        pick: Pick | None = None,
    ) -> Contestant:
        scenes = scenes_for(catalogue, brief, fixed_build, new_drives=drives, stays=build)
        return Contestant(
            copies,
            frontier(scenes, most if copies else budget, pick),
            lambda step: settle(catalogue, brief, scenes, step, fixed_build),
        )

    pool = scenes_for(catalogue, brief, build)[0].pool
    of_kind: tuple[Part, ...]
    if kind == "processor":
        of_kind = pool.processors.parts
    elif kind == "graphics":
        of_kind = pool.cards.parts
    else:
        of_kind = ()
    index = next((i for i, other in enumerate(of_kind) if other.id == part.id), None)
    if index is not None:

        def has(scene: Scene, c: Ints, g: Ints) -> Mask:
            if kind == "processor":
                return np.asarray(c == index)
            return np.asarray((g == index) & (not scene.integrated))

        yield contestant(1, brief, build, pick=has)
        yield contestant(0, brief, build, pick=lambda *of: ~has(*of))
        return
    barred = replace(brief, banned=(*brief.banned, part.id))
    yield contestant(0, barred, build)
    if kind != "storage":
        yield contestant(1, brief, build.with_part(kind, part.id))
        return
    for copies in range(1, NEW_DRIVES + 1):
        yield contestant(
            copies,
            barred,
            replace(build, storage=(*build.storage, *copies * (part.id,))),
            NEW_DRIVES - copies,
        )


class PricedAnswer(NamedTuple):
    """What an answer costs at today's prices, its gain, and copies of the part in it."""

    cost_minor: int
    gain: int
    copies: int


@dataclass(frozen=True)
class Contest:
    """Builds with and without the part against each other."""

    all_of: tuple[Contestant, ...]
    budget: int
    band: int

    def pick(self, rise: int) -> PricedAnswer | None:
        """Cost at today's prices, gain and copies of the part in the answer if the part costs
        ``rise`` more; None where the answer is without it or there is none.
        """
        tops = [
            step
            for contestant in self.all_of
            if (step := contestant.frontier.best(self.budget - contestant.copies * rise))
            is not None
        ]
        if not tops:
            return None
        top = max(tops, key=lambda step: step.rank)
        able = [
            (step.cost + contestant.copies * rise, -step.gain, contestant, step)
            for contestant in self.all_of
            if (step := contestant.frontier.reaching(top.met, top.gain - self.band)) is not None
            and step.cost + contestant.copies * rise <= self.budget
        ]
        first = min(able, key=lambda pick: pick[:2])
        equal = [pick for pick in able if pick[:2] == first[:2]]
        _, _, contestant, step = (
            first if len(equal) == 1 else min(equal, key=lambda pick: pick[2].named(pick[3]))
        )
        if not contestant.copies:
            return None
        return PricedAnswer(step.cost, step.gain, contestant.copies)


def _enters(contest: Contest, price: int, high: int) -> int | None:
    """The least fall (a rise below nothing) with which the answer contains the part.

    Between two costs at which another of its builds comes within the budget, it is in from some
    fall on.
    """
    for least, most in _stretches(contest, price, high):
        last = _last(lambda rise: contest.pick(rise) is not None, least, most)
        if last is not None:
            return last
    return None


def _stretches(contest: Contest, price: int, high: int) -> Iterator[tuple[int, int]]:
    """Ranges of rises from ``high`` down to -price within which the same builds with the part are
    within the budget.
    """
    ours = next(contestant.frontier for contestant in contest.all_of if contestant.copies)
    for step in ours.steps:
        low = contest.budget - step.cost + 1
        if low <= high:
            yield max(low, -price), high
            high = low - 1
        if high < -price:
            return
    yield -price, high


def _last(holds: Callable[[int], bool], low: int, high: int) -> int | None:
    """The largest whole number from low to high for which it holds; it holds up to a limit and
    never again.
    """
    if low > high or not holds(low):
        return None
    while low < high:
        middle = (low + high + 1) // 2
        low, high = (middle, high) if holds(middle) else (low, middle - 1)
    return low
