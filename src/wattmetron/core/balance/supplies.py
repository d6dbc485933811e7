"""Power supplies: least cost by form, connectors, rated watts and spikes."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.answer import NEVER
from wattmetron.core.balance.pool import Pool
from wattmetron.core.parts import SUPPLY_FORMS, Graphics

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

    def __init__(self, pool: Pool, plugs: list[Plugs], most_cpu_8pin: int) -> None:
        self._pool = pool
        supplies = pool.supplies.parts
        self._watts, self._own_watts = np.unique(
            np.array([supply.watts for supply in supplies], dtype=np.int64), return_inverse=True
        )
        self._spikes, self._own_spikes = np.unique(
            np.array([supply.spike_w for supply in supplies], dtype=np.int64), return_inverse=True
        )
        self.plugs = {need: i for i, need in enumerate(dict.fromkeys([NO_PLUGS, *plugs]))}
        self._table = np.stack(
            [
                np.stack([self._least(form, eps, need) for need in self.plugs])
                for form in SUPPLY_FORMS
                for eps in range(most_cpu_8pin + 1)
            ]
        ).reshape(
            len(SUPPLY_FORMS), most_cpu_8pin + 1, len(self.plugs), self._watts.size + 1, self._spikes.size + 1
        )
        self._watts_place = self._places(self._watts)
        self._spike_place = self._places(self._spikes)

    def cost(self, form: int, cpu_8pin: Ints | int, plugs: Ints, needed_w: Ints, spike_w: Ints) -> Ints:
        """Least cost of a supply of this form; arrays broadcast."""
        watts = self._watts_place[np.minimum(needed_w, self._watts_place.size - 1)]
        spikes = self._spike_place[np.minimum(spike_w, self._spike_place.size - 1)]
        return np.asarray(self._table[form, cpu_8pin, plugs, watts, spikes])

    @staticmethod
    def _places(steps: Ints) -> Ints:
        """Place of every whole watt among the steps, so that look-ups need no search."""
        top = int(steps[-1]) if steps.size else 0
        return np.searchsorted(steps, np.arange(top + 2)).astype(np.int64)

    def _least(self, form: str, cpu_8pin: int, need: Plugs) -> Ints:
        table = np.full((self._watts.size + 1, self._spikes.size + 1), NEVER, dtype=np.int64)
        fits = np.array(
            [
                supply.form == form
                and supply.cpu_8pin >= cpu_8pin
                and supply.pcie_8pin >= need.pcie_8pin
                and supply.pcie_16pin >= need.pcie_16pin
                for supply in self._pool.supplies.parts
            ],
            dtype=bool,
        )
        np.minimum.at(table, (self._own_watts[fits], self._own_spikes[fits]), self._pool.supplies.cost[fits])
        for axis in (0, 1):
            table = np.flip(np.minimum.accumulate(np.flip(table, axis), axis=axis), axis)
        return table
