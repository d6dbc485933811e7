"""Case and cooler together: least cost by cooler class, board form, supply form and card length."""

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.answer import NEVER
from wattmetron.core.balance.pool import Pool, ints
from wattmetron.core.parts import BOARD_FORMS, SUPPLY_FORMS, Processor

Ints = NDArray[np.int64]


class Enclosures:
    """Least costs of case and cooler, exact for every processor, board form, supply form and card length.

    ``cost`` has the shape (cooler classes, board forms, supply forms, length places).
    """

    def __init__(self, pool: Pool) -> None:
        self._pool = pool
        self._lengths = np.unique(ints(case.card_length_mm for case in pool.cases.parts))
        self._heights = np.unique(ints(case.cooler_height_mm for case in pool.cases.parts))
        coolers = pool.coolers.parts
        capacities, self._cooler_rank = np.unique(
            ints(cooler.capacity_w for cooler in coolers), return_inverse=True
        )
        ranks = np.searchsorted(capacities, ints(chip.sustained_w for chip in pool.processors.parts))
        self._cooler_place = np.searchsorted(self._heights, ints(cooler.height_mm for cooler in coolers))
        self._mounting: dict[str, NDArray[np.bool_]] = {}
        self._cases = self._case_table()
        self._class_of: dict[tuple[str, int, bool], int] = {}
        tables: list[Ints] = []
        self.class_index = np.empty(len(pool.processors), dtype=np.int64)
        for i, chip in enumerate(pool.processors.parts):
            key = (chip.socket, int(ranks[i]), boxed_carries(chip))
            if key not in self._class_of:
                self._class_of[key] = len(tables)
                costs = self._cooler_costs(*key)
                places = _worth(costs)
                tables.append((self._cases[..., places] + costs[places]).min(axis=-1, initial=NEVER))
            self.class_index[i] = self._class_of[key]
        shape = (0, len(BOARD_FORMS), len(SUPPLY_FORMS), self._lengths.size + 1)
        self.cost: Ints = np.minimum(np.array(tables), NEVER) if tables else np.empty(shape, dtype=np.int64)

    def length_place(self, length_mm: Ints) -> Ints:
        """Index on the last axis of ``cost`` for cards of these lengths."""
        return np.searchsorted(self._lengths, length_mm)

    def _case_table(self) -> Ints:
        """Least case cost by board form, supply form, room for the card, room for the cooler."""
        shape = (len(BOARD_FORMS), len(SUPPLY_FORMS), self._lengths.size + 1, self._heights.size + 1)
        table = np.full(shape, NEVER, dtype=np.int64)
        for case, cost in zip(self._pool.cases.parts, self._pool.cases.cost, strict=True):
            length = int(np.searchsorted(self._lengths, case.card_length_mm))
            height = int(np.searchsorted(self._heights, case.cooler_height_mm))
            for board in case.board_forms:
                for supply in case.supply_forms:
                    place = (BOARD_FORMS.index(board), SUPPLY_FORMS.index(supply), length, height)
                    table[place] = min(int(table[place]), int(cost))
        for axis in (2, 3):
            table = np.flip(np.minimum.accumulate(np.flip(table, axis), axis=axis), axis)
        return table

    def _cooler_costs(self, socket: str, least_rank: int, boxed: bool) -> Ints:
        """Least cost by the room that the case must leave, of coolers from this place among the capacities up."""
        costs = np.full(self._heights.size + 1, NEVER, dtype=np.int64)
        if boxed and not self._pool.coolers.fixed:
            costs[0] = 0
        fits = self._mounts(socket) & (self._cooler_rank >= least_rank)
        np.minimum.at(costs, self._cooler_place[fits], self._pool.coolers.cost[fits])
        return costs

    def _mounts(self, socket: str) -> NDArray[np.bool_]:
        if socket not in self._mounting:
            coolers = self._pool.coolers.parts
            self._mounting[socket] = np.array([socket in cooler.sockets for cooler in coolers], dtype=bool)
        return self._mounting[socket]


def _worth(costs: Ints) -> Ints:
    """Places at which a taller cooler is cheaper than every lower one."""
    lower = np.concatenate(([NEVER], np.minimum.accumulate(costs)[:-1]))
    return np.flatnonzero(costs < lower)


def boxed_carries(chip: Processor) -> bool:
    """Whether the boxed cooler carries the sustained power."""
    return chip.boxed_cooler_w is not None and chip.boxed_cooler_w >= chip.sustained_w
