"""The search for the best build: bound every pairing, evaluate only those that can still win.

A build's frame rates depend on processor, graphics part, the memory's speed and the link; its cost splits
into tables over small keys (platforms, enclosures, supplies). Every pairing of processor and graphics part
gets a lower bound of its cost and an upper bound of its gain. Two questions are then answered best bound
first, until no bound can beat what was found: the most that a budget reaches, and the least that a given
reach costs. The answers are exact.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.answer import NEVER
from wattmetron.core.balance.scene import Scene
from wattmetron.core.balance.sides import Pairing
from wattmetron.core.frames import work

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Mask = NDArray[np.bool_]
FIRST_BLOCK = 64
LARGEST_BLOCK = 4096
NO_GAIN = -(1 << 40)


@dataclass(frozen=True, slots=True)
class Winner:
    """The winning cost, weight and gain, with every pairing (integrated, processor, card) that reaches them."""

    cost: int
    met: int
    gain: int
    pairings: tuple[tuple[bool, int, int], ...]


@dataclass(frozen=True)
class Field:
    """The pairings of one scene with their bounds, as equally long arrays."""

    scene: Scene
    c: Ints
    g: Ints
    cost: Ints
    met: Ints
    gain: Ints


@dataclass(frozen=True)
class Complete:
    """Complete builds: their pairings, options, costs, weights met and gains."""

    c: Ints
    g: Ints
    cost: Ints
    met: Ints
    gain: Ints


class Hunt:
    """One question's pairings with their bounds; answers both kinds of search over them."""

    def __init__(self, scenes: list[Scene], budget: int) -> None:
        self.budget = budget
        self.pairings = self.in_budget = self.estimated = 0
        self.fields = [field for scene in scenes if (field := self._field(scene)) is not None]

    def _field(self, scene: Scene) -> Field | None:
        if not any(len(options) for options in scene.options):
            return None
        c, g = scene.grid()
        self.pairings += c.size
        cost = scene.cost_bound(c, g)
        inside = cost <= min(self.budget, NEVER - 1)
        c, g, cost = c[inside], g[inside], cost[inside]
        self.in_budget += c.size
        if not c.size:
            return None
        met, gain = _alone_bounds(scene, c, g)
        return Field(scene, c, g, cost, met, gain)

    def most(self) -> tuple[int, int] | None:
        """The largest (weight met, gain) within the budget, or None where nothing fits."""
        top: tuple[int, int] | None = None
        for field in self.fields:
            rank = (field.met << 41) + field.gain

            def open_ones(rank: Ints = rank) -> Mask:
                return rank > (NO_GAIN if top is None else (top[0] << 41) + top[1])

            for block in _blocks(-rank, open_ones):
                done = self._evaluated(field, block, lambda met, gain: _above(met, gain, top), self.budget)
                if done.cost.size:
                    met = int(done.met.max())
                    best = (met, int(done.gain[done.met == met].max()))
                    top = best if top is None else max(top, best)
        return top

    def least(self, met_floor: int, gain_floor: int) -> Winner | None:
        """The cheapest builds that meet at least this weight and gain; among equals those of largest gain."""
        best = NEVER
        found: list[tuple[bool, Complete]] = []
        for field in self.fields:
            able = (field.met >= met_floor) & (field.gain >= gain_floor)

            def open_ones(able: Mask = able, cost: Ints = field.cost) -> Mask:
                return np.asarray(able & (cost <= min(best, NEVER - 1)))

            def good(met: Ints, gain: Ints) -> Mask:
                return np.asarray((met >= met_floor) & (gain >= gain_floor))

            for block in _blocks(field.cost, open_ones):
                done = self._evaluated(field, block, good, min(self.budget, best))
                if done.cost.size:
                    best = min(best, int(done.cost.min()))
                    found.append((field.scene.integrated, done))
        return _winner(found, best)

    def _evaluated(
        self, field: Field, block: Ints, good: Callable[[Ints, Ints], Mask], limit: int
    ) -> Complete:
        """Complete builds of a block within the limit that are good, first judged at their best memory and link."""
        scene = field.scene
        c, g = field.c[block], field.g[block]
        if scene.targets.sides:
            best_case = scene.pairing(c, g, None)
            met, gain = scene.targets.evaluate(best_case, scene.integrated, slack=2)
            self.estimated += c.size
            keep = good(met, gain) & scene.memory_enough(best_case)
            c, g = c[keep], g[keep]
        c, g, option = scene.expanded(c, g)
        cost = scene.cost(c, g, option)
        inside = cost <= min(limit, NEVER - 1)
        c, g, option, cost = c[inside], g[inside], option[inside], cost[inside]
        pairing = scene.pairing(c, g, option)
        met, gain = scene.targets.evaluate(pairing, scene.integrated)
        self.estimated += c.size
        keep = good(met, gain) & scene.memory_enough(pairing)
        return Complete(c[keep], g[keep], cost[keep], met[keep], gain[keep])


def _above(met: Ints, gain: Ints, top: tuple[int, int] | None) -> Mask:
    if top is None:
        return np.ones(met.size, dtype=bool)
    return np.asarray((met > top[0]) | ((met == top[0]) & (gain > top[1])))


def _blocks(rank: Ints, open_ones: Callable[[], Mask]) -> Iterator[Ints]:
    """Indices by rising rank in blocks of growing size, for as long as any is open."""
    waiting = np.ones(rank.size, dtype=bool)
    size = FIRST_BLOCK
    while True:
        left = np.flatnonzero(waiting & open_ones())
        if not left.size:
            return
        if left.size > size:
            left = left[np.argpartition(rank[left], size)[:size]]
        waiting[left] = False
        size = min(2 * size, LARGEST_BLOCK)
        yield left


def _winner(found: list[tuple[bool, Complete]], cost: int) -> Winner | None:
    if cost >= NEVER:
        return None
    cheapest = [(integrated, done, done.cost == cost) for integrated, done in found]
    gain = max(int(done.gain[at].max(initial=NO_GAIN)) for _, done, at in cheapest)
    pairings: set[tuple[bool, int, int]] = set()
    met = 0
    for integrated, done, at in cheapest:
        for i in np.flatnonzero(at & (done.gain == gain)):
            pairings.add((integrated, int(done.c[i]), int(done.g[i])))
            met = max(met, int(done.met[i]))
    return Winner(cost, met, gain, tuple(sorted(pairings)))


def _alone_bounds(scene: Scene, c: Ints, g: Ints) -> tuple[Ints, Ints]:
    """Upper bounds of weight met and U from either side alone, at the best memory and link."""
    sides = scene.targets.sides
    if not sides:
        zero = np.zeros(c.size, dtype=np.int64)
        return zero, zero
    gains = []
    if scene.integrated:
        pairing = scene.pairing(c, g, None)
        gains = [np.minimum(*side.alone(pairing, True)) for side in sides]
    else:
        chips = np.arange(len(scene.pool.processors))
        cards = np.arange(len(scene.pool.cards))
        link = _best_links(scene)
        first = np.zeros(chips.size, dtype=np.int64)
        by_chip = scene.pairing(chips, first, None)
        some_chip = np.zeros(cards.size, dtype=np.int64)
        of_card = scene.pairing(some_chip, cards, None)
        by_card = Pairing(
            some_chip, of_card.latency_ns, of_card.bandwidth_gbs, cards, link, np.ones(cards.size)
        )
        for side in sides:
            gains.append(np.minimum(side.alone(by_chip, False)[0][c], side.alone(by_card, False)[1][g]))
    return scene.targets.score(gains, c.size)


def _best_links(scene: Scene) -> Floats:
    """The fastest link that each card could have on any platform of the scene."""
    if not scene.link_matters:
        return np.ones(len(scene.pool.cards))
    gen = max(int(options.link_gen.max()) for options in scene.options if len(options))
    lanes = max(int(options.link_lanes.max()) for options in scene.options if len(options))
    gens = np.minimum(scene.card_gen, min(gen, int(scene.chip_gen.max())))
    return work.link_gbs(gens, np.minimum(scene.card_lanes, min(lanes, int(scene.chip_lanes.max()))))
