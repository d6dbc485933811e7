"""All pairings in one picture: processors and graphics parts in groups by price, and the best
pairing of each two groups.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.pairs import PairCell, cells_of
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.branch_and_bound import Field
from wattmetron.core.search.frontier import best_case
from wattmetron.core.search.problem import Scene, Scenes

T = TypeVar("T")
Ints = NDArray[np.int64]
Judge = Callable[[Ints], tuple[Ints, Ints]]
MOST_ROWS, MOST_COLUMNS = 20, 36
AT_ONCE = 3
"""Pairings of each bin that are judged together."""
FAR = np.int64(1 << 62)


@dataclass(frozen=True)
class Picture:
    """Groups of processors (rows) and graphics parts (columns; None: integrated graphics) by rising
    price, as places in the pool, and by row and column the best pairing with its cell; bins in
    which nothing fits are left out.

    Best is the pairing with the largest weight met and U that any of its builds within the budget
    reaches, the one whose build is cheaper among equals; where none is within the budget, the
    pairing of the cheapest fitting build.
    """

    rows: tuple[tuple[int, ...], ...]
    columns: tuple[tuple[int | None, ...], ...]
    cells: dict[tuple[int, int], tuple[int, int | None, PairCell]]


def all_pairings(
    scenes: Scenes,
    budget: int,
    band: int,
    rows: int = MOST_ROWS,
    columns: int = MOST_COLUMNS,
) -> Picture:
    """The picture over every pairing of the scenes; costs in minor units, without what the budget
    pays besides.
    """
    fields = [
        drawn
        for scene in scenes
        if any(len(option) for option in scene.options) and (drawn := _field(scene)) is not None
    ]
    pool = scenes[0].pool
    chips = sorted(
        {int(item) for field in fields for item in np.unique(field.c)},
        key=lambda c: (pool.processors.cost[c], c),
    )
    ints = {
        int(item) for field in fields if not field.scene.integrated for item in np.unique(field.g)
    }
    cards: list[int | None] = [*sorted(ints, key=lambda g: (pool.cards.cost[g], g))]
    if any(field.scene.integrated for field in fields):
        cards.insert(0, None)
    down, across = _sizes(len(chips), rows), _sizes(len(cards), columns)
    row_of = np.zeros(len(pool.processors), dtype=np.int64)
    row_of[chips] = np.repeat(np.arange(down.size), down)
    column_of = np.zeros(len(pool.cards) + 1, dtype=np.int64)
    column_of[[-1 if each_card is None else each_card for each_card in cards]] = np.repeat(
        np.arange(across.size), across
    )
    best: dict[int, tuple[int, int, Field, int]] = {}
    bins = [
        row_of[each_field.c] * across.size
        + column_of[-1 if each_field.scene.integrated else each_field.g]
        for each_field in fields
    ]
    for field, own_bins in zip(fields, bins, strict=True):
        _merge(best, field, _within(field, own_bins, budget))
    inside = set(best)
    for field, own_bins in zip(fields, bins, strict=True):
        _merge(best, field, _cheapest(field, own_bins, inside))
    cells = {}
    for field in fields:
        mine = {index: row for index, (_, _, owner, row) in best.items() if owner is field}
        places = np.array(list(mine.values()), dtype=np.int64)
        for n, cell in cells_of(
            field.scene, field.c[places], field.g[places], budget, band
        ).items():
            index = list(mine)[n]
            card = None if field.scene.integrated else int(field.g[places[n]])
            cells[index // across.size, index % across.size] = int(field.c[places[n]]), card, cell
    return Picture(_grouped(chips, down), _grouped(cards, across), cells)


def _field(scene: Scene) -> Field | None:
    """Every pairing that could be built, with a cost that none of its builds undercuts."""
    c, g = scene.grid()
    cost = scene.cost_bound(c, g)
    able = cost < NEVER
    zero = np.zeros(int(able.sum()), dtype=np.int64)
    return (
        Field(scene=scene, c=c[able], g=g[able], cost=cost[able], met=zero, gain=zero)
        if able.any()
        else None
    )


def _sizes(count: int, most: int) -> Ints:
    """How many neighbours go into each group: about as many into each."""
    groups = min(most, count)
    return np.diff(np.arange(groups + 1, dtype=np.int64) * count // max(1, groups))


def _grouped(ordered: Sequence[T], sizes: Ints) -> tuple[tuple[T, ...], ...]:
    ends = np.cumsum(sizes)
    return tuple(
        tuple(ordered[end - size : end])
        for end, size in zip(ends.tolist(), sizes.tolist(), strict=True)
    )


Found = dict[int, tuple[int, int, int]]
"""By bin what is least, the cost and the place of the pairing."""


def _merge(best: dict[int, tuple[int, int, Field, int]], field: Field, least: Found) -> None:
    for index, (value, cost, row) in least.items():
        if index not in best or (value, cost) < best[index][:2]:
            best[index] = value, cost, field, row


def _within(field: Field, bins: Ints, budget: int) -> Found:
    """By bin the pairing of the largest rank within the budget."""
    rows = np.flatnonzero(field.cost <= budget)
    if not rows.size:
        return {}
    bound, enough = best_case(field, rows, budget)
    rows, bound = rows[enough], bound[enough]

    def judge(picked: Ints) -> tuple[Ints, Ints]:
        value, cost = np.full(picked.size, FAR), np.full(picked.size, FAR)
        for index, cell in cells_of(
            field.scene, field.c[rows[picked]], field.g[rows[picked]], budget, 0
        ).items():
            if cell.inside:
                value[index], cost[index] = -cell.winner.rank, cell.winner.cost
        return value, cost

    least = _least_of_each(bins[rows], -bound, field.cost[rows], judge)
    return {index: (value, cost, int(rows[row])) for index, (value, cost, row) in least.items()}


def _cheapest(field: Field, bins: Ints, but: set[int]) -> Found:
    """By bin the pairing of the least cost, in other bins than these."""
    rows = np.flatnonzero(~np.isin(bins, np.array(sorted(but), dtype=np.int64)))

    def judge(picked: Ints) -> tuple[Ints, Ints]:
        cost = np.full(picked.size, FAR)
        for index, cell in cells_of(
            field.scene, field.c[rows[picked]], field.g[rows[picked]], -1, 0
        ).items():
            cost[index] = cell.winner.cost
        return cost, cost

    least = _least_of_each(bins[rows], field.cost[rows], field.cost[rows], judge)
    return {index: (value, cost, int(rows[row])) for index, (value, cost, row) in least.items()}


def _least_of_each(bins: Ints, lower: Ints, cost_bound: Ints, judge: Judge) -> Found:
    """By bin the row whose judged value is least, then its cost; bounds say what no row
    undercuts.
    """
    count = int(bins.max(initial=-1)) + 1
    value, cost, position = np.full(count, FAR), np.full(count, FAR), np.full(count, -1)
    order = np.lexsort((cost_bound, lower, bins))
    while order.size:
        bin_numbers = bins[order]
        open_ones = (lower[order] < value[bin_numbers]) | (
            (lower[order] == value[bin_numbers]) & (cost_bound[order] < cost[bin_numbers])
        )
        order = order[open_ones]
        bin_numbers = bins[order]
        nth = np.arange(order.size) - np.searchsorted(bin_numbers, bin_numbers)
        picked, order = order[nth < AT_ONCE], order[nth >= AT_ONCE]
        values, costs = judge(picked)
        for index, item, price, row in zip(
            bins[picked].tolist(), values.tolist(), costs.tolist(), picked.tolist(), strict=True
        ):
            if (item, price) < (value[index], cost[index]):
                value[index], cost[index], position[index] = item, price, row
    return {
        index: (int(value[index]), int(cost[index]), int(position[index]))
        for index in np.flatnonzero(position >= 0).tolist()
    }
