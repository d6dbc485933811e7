"""The frontier: every cost at which more can be had than for any less, over all complete fitting
builds.

Builds are ranked as the aim ranks them: by the weight of targets met, then by U. A step of the
frontier is a cost and the best rank that it reaches; every cheaper build ranks lower. Pairings are
bounded as in the search and given up as soon as their bound is no better than what something
cheaper reaches.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.branch_and_bound import (
    NO_RANK,
    RANK_BITS,
    Field,
    Hunt,
    Winner,
    rank_of,
    unranked,
)
from wattmetron.core.search.problem import Scene, Scenes

Ints = NDArray[np.int64]
Mask = NDArray[np.bool_]
FIRST_BLOCK = 256
LARGEST_BLOCK = 4096
"""As in the search for one answer; the frontier keeps more of each block."""


@dataclass(frozen=True)
class Staircase:
    """Costs and the best rank within each, both rising."""

    cost: Ints
    rank: Ints

    def within(self, cost: Ints) -> Ints:
        """The best rank within each cost; NO_RANK where nothing is as cheap."""
        index = np.searchsorted(self.cost, cost, side="right") - 1
        return np.where(index >= 0, np.append(self.rank, NO_RANK)[index], NO_RANK)

    def with_more(self, cost: Ints, rank: Ints) -> "Staircase":
        """The staircase of these and other builds."""
        costs, ranks = np.append(self.cost, cost), np.append(self.rank, rank)
        order = np.lexsort((-ranks, costs))
        costs, ranks = costs[order], ranks[order]
        before = np.append(NO_RANK, np.maximum.accumulate(ranks)[:-1]) if ranks.size else ranks
        rising = ranks > before
        return Staircase(costs[rising], ranks[rising])


@dataclass(frozen=True)
class Frontier:
    """All steps, the cheapest first, each with the pairings (integrated, processor, card) that
    reach it; costs in minor units without what the budget pays besides.
    """

    steps: tuple[Winner, ...]
    stairs: Staircase
    gains: tuple[tuple[int, ...], ...] = ()
    """For each step and counted target ln r in millionths, as far as it counts."""

    def best(self, budget: int) -> Winner | None:
        """The step of the largest rank within a budget."""
        index = int(np.searchsorted(self.stairs.cost, budget, side="right")) - 1
        return self.steps[index] if index >= 0 else None

    def reaching(self, met: int, gain: int) -> Winner | None:
        """The cheapest step of at least this rank."""
        index = int(np.searchsorted(self.stairs.rank, (met << RANK_BITS) + gain))
        return self.steps[index] if index < len(self.steps) else None

    def answer(self, budget: int, band: int) -> Winner | None:
        """What the aim of most frames answers for a budget: the cheapest within the band of the
        best.
        """
        best = self.best(budget)
        return None if best is None else self.reaching(best.met, best.gain - band)


Pick = Callable[[Scene, Ints, Ints], Mask]


def frontier(scenes: Scenes, most: int = NEVER - 1, pick: Pick | None = None) -> Frontier:
    """The frontier over all builds of the scenes that cost at most ``most``; ``pick`` says which
    pairings count.
    """
    sweep = _Sweep(most)
    hunt = Hunt(scenes, most)
    for field in filter(None, map(hunt.field, range(len(scenes)))):
        sweep.through(field if pick is None else field.only(pick(field.scene, field.c, field.g)))
    return sweep.ended()


class _Judged(NamedTuple):
    """Complete builds of one scene: processors, cards, groups of options, costs and ranks."""

    scene: Scene
    c: Ints
    g: Ints
    group: Ints
    cost: Ints
    rank: Ints


class _Sweep:
    def __init__(self, most: int) -> None:
        self.most = most
        empty = np.empty(0, dtype=np.int64)
        self.stairs = Staircase(empty, empty)
        self._found: list[_Judged] = []

    def through(self, field: Field) -> None:
        """Judges every pairing of a field that may still make a step, the most promising first."""
        field = field.only(np.argsort(field.cost, kind="stable"))
        bound = rank_of(field.met, field.gain)
        judged = np.zeros(bound.size, dtype=bool)
        if not field.scene.targets.sides:
            judged[:] = True
        waiting, size = np.ones(bound.size, dtype=bool), FIRST_BLOCK
        while (left := self._open(field.cost, bound, waiting)).size:
            block = left[_outermost(bound[left], size)]
            fresh = block[~judged[block]]
            if fresh.size > block.size // 8:
                bound[fresh], enough = best_case(field, fresh, self.most)
                judged[fresh] = True
                waiting[fresh[~enough]] = False
            else:
                waiting[block] = False
                self._evaluate(field, block, bound[block], np.zeros(block.size, dtype=np.int64))
                self._evaluate(field, block, bound[block], self.most - field.cost[block])
                size = min(2 * size, LARGEST_BLOCK)

    def _open(self, cost: Ints, bound: Ints, waiting: Mask) -> Ints:
        """What is not surely beaten by something cheaper; what may tie stays."""
        left = np.flatnonzero(waiting)
        return left[bound[left] > self.stairs.within(cost[left] - 1)]

    def _evaluate(self, field: Field, block: Ints, bound: Ints, spare: Ints) -> None:
        """Builds of these pairings with the options that cost at most ``spare`` more than the
        cheapest of each.
        """
        scene = field.scene
        c, g, least = field.c[block], field.g[block], field.cost[block]
        index, group, dearer = scene.grouped(c, spare)
        open_ones = bound[index] > self.stairs.within(least[index] + dearer - 1)
        index, group = index[open_ones], group[open_ones]
        cost = scene.least_cost(
            c[index], g[index], group, least[index], np.full(index.size, self.most)
        )
        open_ones = (cost <= self.most) & (bound[index] > self.stairs.within(cost - 1))
        index, group, cost = index[open_ones], group[open_ones], cost[open_ones]
        enough = scene.memory_enough(scene.pairing(c[index], g[index], group))
        c, g, cost, group = c[index][enough], g[index][enough], cost[enough], group[enough]
        rank = rank_of(*scene.targets.evaluate(scene.pairing(c, g, group), scene.integrated))
        self.stairs = self.stairs.with_more(cost, rank)
        self._found.append(_Judged(scene, c, g, group, cost, rank))

    def ended(self) -> Frontier:
        """The steps with all the pairings that reach each, the staircase, and each step's gains by
        target.
        """
        stairs = self.stairs
        pairings: list[set[tuple[bool, int, int]]] = [set() for _ in stairs.cost]
        gains: list[tuple[int, ...]] = [() for _ in stairs.cost]
        for judged in self._found:
            index = np.searchsorted(stairs.cost, judged.cost)
            on = index < stairs.cost.size
            on[on] = (stairs.cost[index[on]] == judged.cost[on]) & (
                stairs.rank[index[on]] == judged.rank[on]
            )
            rows = np.flatnonzero(on)
            pairing = judged.scene.pairing(judged.c[rows], judged.g[rows], judged.group[rows])
            by_target = [
                side.gain(pairing, judged.scene.integrated) for side in judged.scene.targets.sides
            ]
            for n, row in enumerate(rows):
                pairings[index[row]].add(
                    (judged.scene.integrated, int(judged.c[row]), int(judged.g[row]))
                )
                gains[index[row]] = tuple(int(array[n]) for array in by_target)
        steps = tuple(
            Winner(int(cost), *unranked(int(rank)), tuple(sorted(pairing)))
            for cost, rank, pairing in zip(stairs.cost, stairs.rank, pairings, strict=True)
        )
        return Frontier(steps, stairs, tuple(gains))


def best_case(field: Field, rows: Ints, most: int) -> tuple[Ints, Mask]:
    """Bounds of pairings at the best memory and link that a cost leaves open, and whether that
    memory is enough.
    """
    scene = field.scene
    spare = most - field.cost[rows]
    enough = scene.memory_enough(scene.best_pairing(field.c[rows], field.g[rows], spare)) & (
        spare >= 0
    )
    able = rows[enough]
    pairing = scene.best_pairing(field.c[able], field.g[able], spare[enough])
    met, gain = scene.targets.evaluate(pairing, scene.integrated, slack=2)
    bound = np.full(rows.size, NO_RANK, dtype=np.int64)
    bound[enough] = rank_of(met, gain)
    return bound, enough


def _outermost(bound: Ints, size: int) -> Ints:
    """Places of about so many rows, the cheapest first, that no cheaper one equals in bound, layer
    by layer.
    """
    left = np.arange(bound.size)
    taken: list[Ints] = []
    count = 0
    while left.size and count < size:
        left_bound = bound[left]
        outer = left_bound > np.append(NO_RANK, np.maximum.accumulate(left_bound)[:-1])
        taken.append(left[outer])
        count += int(outer.sum())
        left = left[~outer]
    return np.concatenate(taken)
