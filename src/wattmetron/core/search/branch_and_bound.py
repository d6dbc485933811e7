"""The search for the best build: bound every pairing, evaluate only those that can still win.

A build's frame rates depend on processor, graphics part, the memory's speed and the link; its cost
splits into tables over small keys (platforms, enclosures, supplies). Every pairing of processor and
graphics part gets a lower bound of its cost and an upper bound of its gain. Two questions are then
answered best bound first, until no bound can beat what was found: the most that a budget reaches,
and the least that a given reach costs. The answers are exact.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames import work
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.problem import Scene, Scenes
from wattmetron.core.search.target_arrays import Pairing

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Mask = NDArray[np.bool_]
FIRST_BLOCK = 16
LARGEST_BLOCK = 4096
"""Blocks double: the first often hold the answer, later ones pay off as whole arrays."""
RANK_BITS = 42
"""Weight met above, gain below: one integer compares both, and 42 bits hold any gain."""
NO_GAIN = -(1 << 40)
NO_RANK = -(1 << 60)


@dataclass(frozen=True, slots=True)
class Winner:
    """The winning cost, weight and gain, with every pairing (integrated, processor, card) that
    reaches them.
    """

    cost: int
    met: int
    gain: int
    pairings: tuple[tuple[bool, int, int], ...]

    @property
    def rank(self) -> int:
        """Weight met first, then gain, as one number."""
        return (self.met << RANK_BITS) + self.gain


@dataclass(frozen=True, kw_only=True)
class Field:
    """The pairings of one scene with their bounds, as equally long arrays."""

    scene: Scene
    c: Ints
    g: Ints
    cost: Ints
    met: Ints
    gain: Ints

    def only(self, rows: Mask | Ints) -> "Field":
        """Some of the pairings."""
        return Field(
            scene=self.scene,
            c=self.c[rows],
            g=self.g[rows],
            cost=self.cost[rows],
            met=self.met[rows],
            gain=self.gain[rows],
        )


@dataclass(frozen=True, kw_only=True)
class Complete:
    """Complete builds: their pairings, options, costs, weights met and gains."""

    c: Ints
    g: Ints
    cost: Ints
    met: Ints
    gain: Ints


class Hunt:
    """One question's pairings with their bounds; answers both kinds of search over them."""

    def __init__(self, scenes: Scenes, budget: int) -> None:
        self.budget = budget
        self.in_budget = self.estimated = 0
        self.pairings = sum(scene.grid()[0].size for scene in scenes)
        self._scenes = scenes
        self._made: dict[int, Field | None] = {}

    def field(self, index: int, floor: int = NO_RANK) -> Field | None:
        """The pairings of a scene; None where there are none, and for integrated graphics where
        even the best memory on sale leaves them under a floor of rank.
        """
        scene = self._scenes[index]
        if index not in self._made:
            if scene.integrated and _dream_rank(scene) < floor:
                return None
            self._made[index] = self._field(scene)
        return self._made[index]

    def _field(self, scene: Scene) -> Field | None:
        if not any(len(options) for options in scene.options):
            return None
        c, g = scene.grid()
        cost = scene.cost_bound(c, g)
        inside = cost <= min(self.budget, NEVER - 1)
        c, g, cost = c[inside], g[inside], cost[inside]
        self.in_budget += c.size
        if not c.size:
            return None
        met, gain = _alone_bounds(scene, c, g)
        return Field(scene=scene, c=c, g=g, cost=cost, met=met, gain=gain)

    def most(self) -> tuple[int, int] | None:
        """The largest (weight met, gain) within the budget, or None where nothing fits."""
        best = NO_RANK
        for index in range(len(self._scenes)):
            field = self.field(index, best)
            if field is None:
                continue
            rank = rank_of(field.met, field.gain)
            blocks = _Blocks(-rank)
            while (block := blocks.take(rank > best)).size:
                done = self._evaluated(field, block, best + 1, self.budget)
                best = max(best, int(rank_of(done.met, done.gain).max(initial=NO_RANK)))
        return None if best == NO_RANK else unranked(best)

    def least(self, met_floor: int, gain_floor: int) -> Winner | None:
        """The cheapest builds that reach this weight and gain; among equals those of largest gain.

        ``met_floor`` is the largest weight that any build reaches, or all of it.
        """
        best = NEVER
        complete: list[tuple[bool, Complete]] = []
        floor = int(rank_of(np.array(met_floor), np.array(gain_floor)))
        for index in range(len(self._scenes)):
            field = self.field(index, floor)
            if field is None:
                continue
            able = rank_of(field.met, field.gain) >= floor
            blocks = _Blocks(field.cost)
            while (block := blocks.take(able & (field.cost <= min(best, NEVER - 1)))).size:
                done = self._evaluated(field, block, floor, min(self.budget, best))
                if done.cost.size:
                    best = min(best, int(done.cost.min()))
                    complete.append((field.scene.integrated, done))
        return _winner(complete, best)

    def _evaluated(self, field: Field, block: Ints, floor: int, limit: int) -> Complete:
        """Complete builds of a block within the cost limit whose rank reaches the floor.

        Each pairing is first judged at its best memory and link.
        """
        scene = field.scene
        c, g = field.c[block], field.g[block]
        spare = min(limit, NEVER - 1) - field.cost[block]
        if scene.targets.sides:
            best_case = scene.best_pairing(c, g, spare)
            met, gain = scene.targets.evaluate(best_case, scene.integrated, slack=2)
            self.estimated += c.size
            keep = (rank_of(met, gain) >= floor) & scene.memory_enough(best_case)
            c, g, spare = c[keep], g[keep], spare[keep]
        index, group, _ = scene.grouped(c, spare)
        c, g = c[index], g[index]
        most = np.full(index.size, min(limit, NEVER - 1))
        cost = scene.least_cost(c, g, group, most - spare[index], most)
        inside = cost < NEVER
        c, g, cost = c[inside], g[inside], cost[inside]
        pairing = scene.pairing(c, g, group[inside])
        met, gain = scene.targets.evaluate(pairing, scene.integrated)
        self.estimated += c.size
        keep = (rank_of(met, gain) >= floor) & scene.memory_enough(pairing)
        return Complete(c=c[keep], g=g[keep], cost=cost[keep], met=met[keep], gain=gain[keep])


def rank_of(met: Ints, gain: Ints) -> Ints:
    """Weight met first, then gain, as one number."""
    return np.asarray((np.asarray(met, dtype=np.int64) << RANK_BITS) + gain)


def unranked(rank: int) -> tuple[int, int]:
    half = 1 << (RANK_BITS - 1)
    gain = (rank + half) % (1 << RANK_BITS) - half
    return (rank - gain) >> RANK_BITS, gain


class _Blocks:
    """Indices by rising order, in blocks of growing size."""

    def __init__(self, order: Ints) -> None:
        self.order = order
        self.waiting = np.ones(order.size, dtype=bool)
        self.size = FIRST_BLOCK

    def take(self, open_ones: Mask) -> Ints:
        """The next block among those that are open; empty when none is left."""
        left = np.flatnonzero(self.waiting & open_ones)
        if left.size > self.size:
            left = left[np.argpartition(self.order[left], self.size)[: self.size]]
        self.waiting[left] = False
        self.size = min(2 * self.size, LARGEST_BLOCK)
        return left


def _winner(complete: list[tuple[bool, Complete]], cost: int) -> Winner | None:
    if cost >= NEVER:
        return None
    cheapest = [(integrated, done, done.cost == cost) for integrated, done in complete]
    gain = max(int(done.gain[index].max(initial=NO_GAIN)) for _, done, index in cheapest)
    pairings: set[tuple[bool, int, int]] = set()
    met = 0
    for integrated, done, index in cheapest:
        for i in np.flatnonzero(index & (done.gain == gain)):
            pairings.add((integrated, int(done.c[i]), int(done.g[i])))
            met = max(met, int(done.met[i]))
    return Winner(cost, met, gain, tuple(sorted(pairings)))


def _dream_rank(scene: Scene) -> int:
    """A rank that no build of a scene with integrated graphics surpasses."""
    c, g = scene.grid()
    if not len(scene.pool.kits):
        return NO_RANK
    if not c.size or not scene.targets.sides:
        return -NO_RANK
    pairing = scene.dream_pairing(c, g)
    gains = [
        side.counted(np.minimum(*side.alone(pairing, True)), pairing.drawing, True)
        for side in scene.targets.sides
    ]
    return int(rank_of(*scene.targets.score(gains, c.size)).max())


def _alone_bounds(scene: Scene, c: Ints, g: Ints) -> tuple[Ints, Ints]:
    """Upper bounds of weight met and U from either side alone, at the best memory and link."""
    sides = scene.targets.sides
    if not sides:
        zero = np.zeros(c.size, dtype=np.int64)
        return zero, zero
    gains = []
    if scene.integrated:
        pairing = scene.best_pairing(c, g)
        gains = [
            side.counted(np.minimum(*side.alone(pairing, True)), pairing.drawing, True)
            for side in sides
        ]
    else:
        chips = np.arange(len(scene.pool.processors))
        cards = np.arange(len(scene.pool.cards))
        link = _best_links(scene)
        first = np.zeros(chips.size, dtype=np.int64)
        by_chip = scene.best_pairing(chips, first)
        some_chip = np.zeros(cards.size, dtype=np.int64)
        of_card = scene.best_pairing(some_chip, cards)
        by_card = Pairing(
            processor=some_chip,
            latency_ns=of_card.latency_ns,
            bandwidth_gbs=of_card.bandwidth_gbs,
            drawing=cards,
            link_gbs=link,
            scale=np.ones(cards.size),
        )
        for side in sides:
            ahead = np.minimum(side.alone(by_chip, False)[0][c], side.alone(by_card, False)[1][g])
            gains.append(side.counted(ahead, g, False))
    return scene.targets.score(gains, c.size)


def _best_links(scene: Scene) -> Floats:
    """The fastest link that each card could have on any platform of the scene."""
    gen = max(int(options.link_gen.max()) for options in scene.options if len(options))
    lanes = max(int(options.link_lanes.max()) for options in scene.options if len(options))
    gens = np.minimum(scene.card_gen, min(gen, int(scene.chip_gen.max())))
    return work.link_gbs(
        gens, np.minimum(scene.card_lanes, min(lanes, int(scene.chip_lanes.max())))
    )
