"""Still the pick up to: how far a part's price may rise before the answer changes, or must fall for it to enter."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from wattmetron.core.balance.answer import NEVER, Proposal
from wattmetron.core.balance.frontier import Frontier, Ints, Mask, frontier
from wattmetron.core.balance.hunt import Winner
from wattmetron.core.balance.pool import fixed_parts
from wattmetron.core.balance.scene import Scene, scenes_for
from wattmetron.core.balance.settle import settle
from wattmetron.core.briefs import Brief, Build
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.allowed import bars
from wattmetron.core.parts import Kind, Part, kind_of


@dataclass(frozen=True, slots=True)
class PriceLimit:
    """A part's delivered price today and its limit, both in minor units.

    Of a part of the answer: the largest price at which the answer is the same. Of another part: the largest price below
    today's at which the answer contains it, or None where even a gift does not enter.
    """

    kind: Kind
    part: Part
    price_minor: int
    limit_minor: int | None
    inside: bool


def price_limit(catalogue: Catalogue, brief: Brief, kept: Build, part: Part, answer: Proposal, band: int) -> PriceLimit | None:
    """The limit of one part by the aim of most frames: all its offers shift together, other prices stay.

    None for parts that are owned, kept, without a price or not allowed, and for drives beside other drives. A part price
    cap limits every price.
    """
    kind = kind_of(part)
    price = catalogue.prices(brief.region, brief.allow_used).delivered(part.id)
    if price is None or answer.build is None or part.id in brief.owned or kept.of(kind) or (len(answer.build.storage) > 1 and kind == "storage"):
        return None
    stays = tuple(one for own in fixed_parts(catalogue, brief, kept).values() for one, _ in own)
    if any(bars(brief, part, 0, stays)):
        return None
    inside = part.id in answer.build.of(kind)
    capped = NEVER if brief.part_cap_minor is None else brief.part_cap_minor - price
    budget = answer.budget_minor
    ours, theirs, own, barred = _frontiers(catalogue, brief, kept, part, budget if inside else budget + price, budget)

    def named(step: Winner, found: Frontier) -> tuple[object, ...]:
        build = settle(catalogue, *((brief, found.scenes, step, own) if found is ours else (barred, found.scenes, step, kept)))
        return build.processor, build.graphics or "", build.mainboard, build.memory, build.storage, build.cooler or "", build.supply, build.case

    contest = Contest(ours, theirs, budget, band, named)
    if inside:
        most = _last(lambda rise: contest.pick(rise) == (answer.cost_minor, answer.gain), 0, min(budget, capped))
        return PriceLimit(kind, part, price, None if most is None else price + most, True)
    entering = _enters(contest, price, min(-1, capped))
    return PriceLimit(kind, part, price, None if entering is None else price + entering, False)


def _frontiers(
    catalogue: Catalogue, brief: Brief, kept: Build, part: Part, most: int, budget: int
) -> tuple[Frontier, Frontier, Build, Brief]:
    """The frontiers with and without a part, and what to keep and to ask for the builds of each.

    Processors and cards are picked among the pairings; for other kinds the tables are made anew.
    """
    kind = kind_of(part)
    scenes = scenes_for(catalogue, brief, kept)
    of_kind = scenes[0].pool.processors.parts if kind == "processor" else scenes[0].pool.cards.parts if kind == "graphics" else ()
    place = next((i for i, one in enumerate(of_kind) if one.id == part.id), None)
    if place is not None:

        def has(scene: Scene, c: Ints, g: Ints) -> Mask:
            if kind == "processor":
                return np.asarray(c == place)
            return np.asarray((g == place) & (not scene.integrated))

        return frontier(scenes, most, has), frontier(scenes, budget, lambda *of: ~has(*of)), kept, brief
    own, barred = kept.with_part(kind, part.id), replace(brief, banned=(*brief.banned, part.id))
    return frontier(scenes_for(catalogue, brief, own), most), frontier(scenes_for(catalogue, barred, kept), budget), own, barred


@dataclass(frozen=True)
class Contest:
    """The frontier of all builds with a part against that of all without it."""

    ours: Frontier
    theirs: Frontier
    budget: int
    band: int
    named: Callable[[Winner, Frontier], tuple[object, ...]]

    def pick(self, rise: int) -> tuple[int, int] | None:
        """Cost at today's prices and gain of the answer if it contains the part when that costs ``rise`` more; else None."""
        left = self.budget - rise
        tops = [step for step in (self.ours.best(left), self.theirs.best(self.budget)) if step is not None]
        if not tops:
            return None
        top = max(tops, key=lambda step: step.rank)
        mine = self._affordable(self.ours.reaching(top.met, top.gain - self.band), left)
        other = self._affordable(self.theirs.reaching(top.met, top.gain - self.band), self.budget)
        if mine is None or (other is not None and self._before(other, mine, rise)):
            return None
        return mine.cost, mine.gain

    def _affordable(self, step: Winner | None, budget: int) -> Winner | None:
        return step if step is not None and step.cost <= budget else None

    def _before(self, other: Winner, mine: Winner, rise: int) -> bool:
        """Whether the build without the part comes first: cheaper, then of larger gain, then by part ids."""
        one, two = (other.cost, -other.gain), (mine.cost + rise, -mine.gain)
        return self.named(other, self.theirs) < self.named(mine, self.ours) if one == two else one < two


def _enters(contest: Contest, price: int, high: int) -> int | None:
    """The least fall (a rise below nothing) with which the answer contains the part.

    Between two costs at which another of its builds comes within the budget, it is in from some fall on.
    """
    for least, most in _stretches(contest, price, high):
        found = _last(lambda rise: contest.pick(rise) is not None, least, most)
        if found is not None:
            return found
    return None


def _stretches(contest: Contest, price: int, high: int) -> Iterator[tuple[int, int]]:
    """Ranges of rises from ``high`` down to -price within which the same builds with the part are within the budget."""
    for step in contest.ours.steps:
        low = contest.budget - step.cost + 1
        if low <= high:
            yield max(low, -price), high
            high = low - 1
        if high < -price:
            return
    yield -price, high


def _last(holds: Callable[[int], bool], low: int, high: int) -> int | None:
    """The largest whole number from low to high for which it holds; it holds up to a limit and never again."""
    if low > high or not holds(low):
        return None
    while low < high:
        middle = (low + high + 1) // 2
        low, high = (middle, high) if holds(middle) else (low, middle - 1)
    return low
