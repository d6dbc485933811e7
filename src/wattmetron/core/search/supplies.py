"""Power supplies: least cost by sort (form and length), connectors, rated watts and spikes."""

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.leads import CardPlugs
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.candidate_pool import Pool
from wattmetron.core.search.thresholds import ints

Ints = NDArray[np.int64]


NO_PLUGS = CardPlugs()


class Supplies:
    """Least supply costs, exact for every need."""

    def __init__(self, pool: Pool, sorts: NDArray[np.int64], plugs: list[CardPlugs]) -> None:
        """``sorts`` numbers the sort of each supply."""
        self._pool, self._sorts = pool, sorts
        able = self._number_leads()
        count = int(sorts.max(initial=-1)) + 1
        supplies = pool.supplies.parts
        self._watts, self._own_watts = np.unique(
            np.array([pool.floors.output_w(supply) for supply in supplies], dtype=np.int64),
            return_inverse=True,
        )
        self._spikes, self._own_spikes = np.unique(
            np.array([supply.spike_w for supply in supplies], dtype=np.int64), return_inverse=True
        )
        finds = self._number_plugs([NO_PLUGS, *dict.fromkeys(plugs)])
        self._table = self._least(count, able, finds)
        self._watts_place = self._places(self._watts)
        self._spike_place = self._places(self._spikes)

    def cost(
        self, sort: int, leads: Ints | int, plugs: Ints, needed_w: Ints, spike_w: Ints
    ) -> Ints:
        """Least cost of a supply of this sort; arrays broadcast."""
        watts = self._watts_place[np.minimum(needed_w, self._watts_place.size - 1)]
        spikes = self._spike_place[np.minimum(spike_w, self._spike_place.size - 1)]
        return np.asarray(self._table[sort, leads, plugs, watts, spikes])

    @staticmethod
    def _places(steps: Ints) -> Ints:
        """Place of every whole watt among the steps, so that look-ups need no search."""
        top = int(steps[-1]) if steps.size else 0
        return np.searchsorted(steps, np.arange(top + 2)).astype(np.int64)

    def _number_plugs(self, plugs: list[CardPlugs]) -> NDArray[np.bool_]:
        """Numbers cards by the supplies on which they find their leads; which these are, a row for
        each number.
        """
        floors = self._pool.floors
        kinds = {
            (
                supply.pcie_8pin,
                supply.pcie_16pin,
                supply.pcie_16pin_w,
                supply.id in floors.owned,
            ): supply
            for supply in self._pool.supplies.parts
        }
        numbers: dict[tuple[bool, ...], int] = {}
        card = self._pool.floors.later.card
        later = CardPlugs.of([card] if card else [])
        self.plugs = {
            need: numbers.setdefault(
                tuple(
                    floors.card_leads_do(supply, need) and floors.card_leads_do(supply, later)
                    for supply in kinds.values()
                ),
                len(numbers),
            )
            for need in plugs
        }
        index = {kind: i for i, kind in enumerate(kinds)}
        sort_numbers = ints(
            index[
                supply.pcie_8pin,
                supply.pcie_16pin,
                supply.pcie_16pin_w,
                supply.id in floors.owned,
            ]
            for supply in self._pool.supplies.parts
        )
        return np.array(list(numbers), dtype=bool).reshape(len(numbers), len(kinds))[
            :, sort_numbers
        ]

    def _number_leads(self) -> NDArray[np.bool_]:
        """Numbers what supplies must have for processors on boards; which have it, a row for each
        number. Number 0 asks for nothing.
        """
        pool = self._pool
        supplies, chips = pool.supplies.parts, pool.processors.parts
        owned = pool.floors.owned
        keys = [(supply.cpu_8pin, supply.cpu_4pin, supply.id in owned) for supply in supplies]
        kinds = dict(zip(keys, supplies, strict=True))
        index = {kind: i for i, kind in enumerate(kinds)}
        sort_numbers = ints(index[key] for key in keys)
        numbers = {(True,) * len(kinds): 0}
        later = pool.floors.later.chip
        later_w = later.sustained_w if later else 0
        watts = list(dict.fromkeys(max(later_w, chip.sustained_w) for chip in chips))
        by_watts = [
            [
                numbers.setdefault(
                    tuple(pool.floors.leads_do(kind, board, power_w) for kind in kinds.values()),
                    len(numbers),
                )
                for board in pool.sockets
            ]
            for power_w in watts
        ]
        of_watts = np.array(by_watts, dtype=np.int64).reshape(len(watts), len(pool.sockets))
        self.leads = of_watts[ints(watts.index(max(later_w, chip.sustained_w)) for chip in chips)]
        """Numbers by processor and kind of board sockets."""
        return np.array(list(numbers), dtype=bool).reshape(len(numbers), len(kinds))[
            :, sort_numbers
        ]

    def _least(self, sorts: int, able: NDArray[np.bool_], finds: NDArray[np.bool_]) -> Ints:
        """Least cost by sort, leads, plugs, watts and spikes."""
        shape = sorts, len(able), len(finds), self._watts.size + 1, self._spikes.size + 1
        table: Ints = np.full(shape, NEVER, dtype=np.int64)
        for n, cost in enumerate(self._pool.supplies.cost.tolist()):
            index = table[self._sorts[n], :, :, self._own_watts[n], self._own_spikes[n]]
            fits = np.ix_(able[:, n], finds[:, n])
            index[fits] = np.minimum(index[fits], cost)
        for axis in (3, 4):
            table = np.flip(np.minimum.accumulate(np.flip(table, axis), axis=axis), axis)
        return table
