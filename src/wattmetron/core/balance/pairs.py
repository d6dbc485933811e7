"""The pairings map: for each processor and graphics part the best build by the aim within the
budget.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames.frame_rates import processor_share
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.branch_and_bound import NO_RANK, Winner, rank_of, unranked
from wattmetron.core.search.candidate_pool import KindPool
from wattmetron.core.search.problem import Scene, Scenes
from wattmetron.core.search.target_arrays import LogTimes
from wattmetron.core.speeds.speed_scale import variant_key
from wattmetron.core.values.parts import Graphics, Part, Processor

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]
MOST_CARDS, MOST_PROCESSORS = 18, 12


class PairCell(NamedTuple):
    """One pairing's build: its cost (NEVER where nothing fits), weight met and U, whether it is
    within the budget, and by target the share of frames that the processor limits and whether the
    target is met.
    """

    winner: Winner
    inside: bool
    processor_shares: tuple[float, ...]
    meets: tuple[bool, ...]


@dataclass(frozen=True)
class PairsMap:
    """Processors down and graphics parts across, by what they cost, with a cell for each pairing
    that can be built; parts around which nothing fits are left out.
    """

    processors: tuple[int, ...]
    cards: tuple[int | None, ...]
    cells: dict[tuple[int, int | None], PairCell]


def pairs_map(scenes: Scenes, budget: int, band: int, chosen: Sequence[Part] = ()) -> PairsMap:
    """The map of the parts that nothing beats at their price, cards with enough video memory;
    ``chosen`` parts are always among them.

    A card of None stands for integrated graphics.
    """
    with_cards, integrated = scenes[0], next((scene for scene in scenes if scene.integrated), None)
    pool = with_cards.pool
    chips = _worth_showing(
        pool.processors,
        [_processor_figures(part) for part in pool.processors.parts],
        [part.id for part in pool.processors.parts],
        chosen,
        MOST_PROCESSORS,
    )
    able = np.flatnonzero(with_cards.allowed)
    usable = KindPool(
        tuple(pool.cards.parts[i] for i in able), pool.cards.cost[able], pool.cards.fixed
    )
    cards = able[
        _worth_showing(
            usable,
            [_card_figures(part) for part in usable.parts],
            [variant_key(part.chip, part.memory_gb) for part in usable.parts],
            chosen,
            MOST_CARDS,
        )
    ]
    cells: dict[tuple[int, int | None], PairCell] = {}
    c, g = (array.ravel() for array in np.meshgrid(chips, cards, indexing="ij"))
    for index, cell in cells_of(with_cards, c, g, budget, band).items():
        cells[int(c[index]), int(g[index])] = cell
    columns: list[int | None] = [int(card) for card in cards]
    if integrated is not None:
        integrated_chips = chips[integrated.igpu[chips]] if chips.size else chips
        for index, cell in cells_of(
            integrated,
            integrated_chips,
            np.zeros(integrated_chips.size, dtype=np.int64),
            budget,
            band,
        ).items():
            cells[int(integrated_chips[index]), None] = cell
        if any(card is None for _, card in cells):
            columns.insert(0, None)
    return PairsMap(
        tuple(int(other) for other in chips if any(chip == other for chip, _ in cells)),
        tuple(column for column in columns if any(card == column for _, card in cells)),
        cells,
    )


def cells_of(scene: Scene, c: Ints, g: Ints, budget: int, band: int) -> dict[int, PairCell]:
    """By place in ``c`` and ``g`` the cell of a pairing; pairings that nothing fits around have
    none.
    """
    if not c.size or not any(len(option) for option in scene.options):
        return {}
    bound = scene.cost_bound(c, g)
    able = np.flatnonzero(bound < NEVER)
    if able.size < c.size:
        return {
            int(able[index]): cell
            for index, cell in cells_of(scene, c[able], g[able], budget, band).items()
        }
    spare = _spare(scene, c, g, bound, budget)
    position, group, _ = scene.grouped(c, spare)
    cost = scene.least_cost(
        c[position], g[position], group, bound[position], (bound + spare)[position]
    )
    can = (cost < NEVER) & scene.memory_enough(scene.pairing(c[position], g[position], group))
    position, group, cost = position[can], group[can], cost[can]
    pairing = scene.pairing(c[position], g[position], group)
    gains = [side.gain(pairing, scene.integrated) for side in scene.targets.sides]
    met, gain = scene.targets.score(gains, position.size)
    rank = rank_of(met, gain)
    shares = [
        processor_share(
            *_times(side.times(pairing, scene.integrated)),
            side.v_c[pairing.processor],
            side.load.v_g,
        )
        for side in scene.targets.sides
    ]
    cells = {}
    for index, row in _best_rows(position, cost, rank, c.size, budget, band).items():
        pairing_key = (scene.integrated, int(c[index]), int(g[index]))
        cells[index] = PairCell(
            Winner(int(cost[row]), *unranked(int(rank[row])), (pairing_key,)),
            int(cost[row]) <= budget,
            tuple(float(share[row]) for share in shares),
            tuple(
                bool(each_gain[row] >= 0 and side.can_be_met)
                for each_gain, side in zip(gains, scene.targets.sides, strict=True)
            ),
        )
    return cells


def _spare(scene: Scene, c: Ints, g: Ints, bound: Ints, budget: int) -> Ints:
    """How much dearer than the cheapest an option may be: up to the budget, and up to what one
    build costs for certain.

    With integrated graphics the cheapest memory may be too little, so nothing is certain.
    """
    if scene.integrated:
        return NEVER - 1 - bound
    index, group, _ = scene.grouped(c, np.zeros(c.size, dtype=np.int64))
    some = np.full(c.size, NEVER, dtype=np.int64)
    np.minimum.at(some, index, scene.cost(c[index], g[index], scene.groups.head[group]))
    return np.maximum(np.maximum(some, budget) - bound, -1)


def _times(times: LogTimes) -> tuple[Floats, Floats]:
    return np.exp(times.ln_c), np.exp(times.ln_g)


def _best_rows(
    index: Ints, cost: Ints, rank: Ints, count: int, budget: int, band: int
) -> dict[int, int]:
    """For each place the row that the aim picks within the budget, else the cheapest; ties by
    rank.
    """
    inside = cost <= budget
    best = np.full(count, NO_RANK, dtype=np.int64)
    np.maximum.at(best, index[inside], rank[inside])
    has = best[index] > NO_RANK
    able = np.where(has, inside & (rank >= best[index] - band), True)
    rows = np.flatnonzero(able)
    order = rows[np.lexsort((-rank[rows], cost[rows], index[rows]))]
    _, first = np.unique(index[order], return_index=True)
    return {int(index[row]): int(row) for row in order[first]}


def _processor_figures(chip: Processor) -> tuple[float, ...]:
    return chip.single_speed, chip.all_core_speed


def _card_figures(card: Graphics) -> tuple[float, ...]:
    return (
        card.speed_1080p,
        card.speed_2160p or card.speed_1440p or card.speed_1080p,
        card.ray_speed or 0.0,
        card.memory_gb,
    )


def _worth_showing(
    shelf: KindPool[Processor] | KindPool[Graphics],
    figures: list[tuple[float, ...]],
    sorts: list[str],
    chosen: Sequence[Part],
    most: int,
) -> Ints:
    """Places of the parts that no other beats at their price, the cheapest of each sort, thinned
    evenly, by what they cost.
    """
    if not len(shelf):
        return np.empty(0, dtype=np.int64)
    table = np.array(figures)
    order = np.lexsort((*(-table.T), shelf.cost))
    chosen_places: list[int] = []
    seen: set[str] = set()
    for i in order:
        if sorts[i] in seen:
            continue
        seen.add(sorts[i])
        if not (table[chosen_places] >= table[i]).all(axis=1).any():
            chosen_places.append(int(i))
    ids = {part.id for part in chosen}
    must = [i for i, part in enumerate(shelf.parts) if part.id in ids]
    free = [i for i in chosen_places if i not in must]
    room = max(0, most - len(must))
    if len(free) > room:
        free = (
            [free[int(index)] for index in np.linspace(0, len(free) - 1, room).round()]
            if room
            else []
        )
    picked = np.array(sorted({*must, *free}), dtype=np.int64)
    return np.asarray(picked[np.argsort(shelf.cost[picked], kind="stable")])
