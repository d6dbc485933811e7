"""Power supplies: least cost by sort (form and length), connectors, rated watts and spikes."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.pool import Pool
from wattmetron.core.values.parts import Graphics

Ints = NDArray[np.int64]


class Plugs(NamedTuple):
    """PCIe power connectors that a card needs."""

    pcie_8pin: int
    pcie_16pin: int


NO_PLUGS = Plugs(0, 0)


def plugs_of(card: Graphics) -> Plugs:
    return Plugs(card.pcie_8pin, card.pcie_16pin)


class Supplies:
    """Least supply costs, exact for every need."""

    def __init__(
        self, pool: Pool, sorts: NDArray[np.int64], plugs: list[Plugs], most_cpu_8pin: int
    ) -> None:
        """``sorts`` numbers the sort of each supply."""
        self._pool, self._sorts = pool, sorts
        count = int(sorts.max(initial=-1)) + 1
        supplies = pool.supplies.parts
        self._watts, self._own_watts = np.unique(
            np.array([supply.watts for supply in supplies], dtype=np.int64), return_inverse=True
        )
        self._spikes, self._own_spikes = np.unique(
            np.array([supply.spike_w for supply in supplies], dtype=np.int64), return_inverse=True
        )
        self.plugs = {need: i for i, need in enumerate(dict.fromkeys([NO_PLUGS, *plugs]))}
        shape = (
            count,
            most_cpu_8pin + 1,
            len(self.plugs),
            self._watts.size + 1,
            self._spikes.size + 1,
        )
        self._table = np.full(shape, NEVER, dtype=np.int64)
        for sort, eps in np.ndindex(count, most_cpu_8pin + 1):
            for need, place in self.plugs.items():
                self._table[sort, eps, place] = self._least(sort, eps, need)
        self._watts_place = self._places(self._watts)
        self._spike_place = self._places(self._spikes)

    def cost(
        self, sort: int, cpu_8pin: Ints | int, plugs: Ints, needed_w: Ints, spike_w: Ints
    ) -> Ints:
        """Least cost of a supply of this sort; arrays broadcast."""
        watts = self._watts_place[np.minimum(needed_w, self._watts_place.size - 1)]
        spikes = self._spike_place[np.minimum(spike_w, self._spike_place.size - 1)]
        return np.asarray(self._table[sort, cpu_8pin, plugs, watts, spikes])

    @staticmethod
    def _places(steps: Ints) -> Ints:
        """Place of every whole watt among the steps, so that look-ups need no search."""
        top = int(steps[-1]) if steps.size else 0
        return np.searchsorted(steps, np.arange(top + 2)).astype(np.int64)

    def _least(self, sort: int, cpu_8pin: int, need: Plugs) -> Ints:
        table = np.full((self._watts.size + 1, self._spikes.size + 1), NEVER, dtype=np.int64)
        fits = np.array(
            [
                own == sort
                and supply.cpu_8pin >= cpu_8pin
                and supply.pcie_8pin >= need.pcie_8pin
                and supply.pcie_16pin >= need.pcie_16pin
                for supply, own in zip(self._pool.supplies.parts, self._sorts, strict=True)
            ],
            dtype=bool,
        )
        np.minimum.at(
            table, (self._own_watts[fits], self._own_spikes[fits]), self._pool.supplies.cost[fits]
        )
        for axis in (0, 1):
            table = np.flip(np.minimum.accumulate(np.flip(table, axis), axis=axis), axis)
        return table
