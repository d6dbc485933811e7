"""Heat against cases: how many fans each case lacks for it, and what they cost.

Fans are bought of one product of the size that nearly every place takes, in as many packs as are
needed and find a place.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import accumulate

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.power.heat import FAN_W, TOO_HOT, case_heat_w
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.ladder import ints
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.parts import Case

Ints = NDArray[np.int64]
FAN_MM = 120


@dataclass(frozen=True, slots=True)
class Packs:
    """So many packs of one product, with what they cost in minor units."""

    fan: Fan | None
    count: int
    cost: int

    @property
    def ids(self) -> tuple[str, ...]:
        return (self.fan.id,) * self.count if self.fan else ()


NO_FANS = Packs(None, 0, 0)


class Airflow:
    """What cases carry off with the fans that stay and with fans bought.

    ``extra[level, case]`` is what the fans cost that a case lacks at a level of heat, NEVER where
    it carries too little with all places taken; an owned case may be heard, but not too hot. Where
    heat is not asked about there is one level, at which nothing is lacking.
    """

    def __init__(
        self,
        cases: Iterable[Case],
        fans: Iterable[tuple[Fan, int]],
        fans_there: int,
        asked: bool,
        owned: frozenset[str] = frozenset(),
    ) -> None:
        self._cases = list(cases)
        self._sorts = sorted(
            ((fan, cost) for fan, cost in fans if fan.size_mm == FAN_MM), key=lambda own: own[0].id
        )
        self._found: dict[tuple[int, int], Packs] = {}
        self._there = [_placed(case, case.fans_included + fans_there) for case in self._cases]
        self._free = [
            0 if case.fan_places is None else max(0, case.fan_places - there)
            for case, there in zip(self._cases, self._there, strict=True)
        ]
        self._carried = [
            int(case_heat_w(case.airflow, there) * (TOO_HOT if case.id in owned else 1))
            for case, there in zip(self._cases, self._there, strict=True)
        ]
        self.steps = self._all_steps() if asked else ints(())
        self._levels = np.searchsorted(self.steps, np.arange(self._top() + 2))
        self.extra = np.zeros((len(self.steps) + 1, len(self._cases)), dtype=np.int64)
        for n, step in enumerate(self.steps.tolist()):
            self.extra[n] = [self.packs(at, step).cost for at in range(len(self._cases))]
        if asked:
            self.extra[-1] = NEVER

    def levels(self, heat_w: Ints) -> Ints:
        """The level of each heat in W."""
        return np.asarray(self._levels[np.minimum(heat_w, self._levels.size - 1)])

    def packs(self, case: int, heat_w: int) -> Packs:
        """The fans that a case lacks for so much heat: the cheapest, of equal ones the first by
        ids.
        """
        lacking = -(-(heat_w - self._carried[case]) // FAN_W)
        if lacking <= 0 or not self.steps.size:
            return NO_FANS
        return self._cheapest(lacking, self._free[case])

    def _cheapest(self, lacking: int, free: int) -> Packs:
        key = lacking, free
        if key not in self._found:
            self._found[key] = min(
                (
                    Packs(fan, count, count * cost)
                    for fan, cost in self._sorts
                    if (count := -(-lacking // fan.pack)) * fan.pack <= free
                ),
                key=lambda packs: packs.cost,
                default=Packs(None, 0, NEVER),
            )
        return self._found[key]

    def _all_steps(self) -> Ints:
        """Every heat at which some case needs one fan more, or carries no more."""
        steps = (
            step
            for carried, free in zip(self._carried, self._free, strict=True)
            for step in accumulate([FAN_W] * free, initial=carried)
        )
        return np.unique(ints(steps))

    def _top(self) -> int:
        return int(self.steps[-1]) if self.steps.size else 0


def _placed(case: Case, fans: int) -> int:
    return fans if case.fan_places is None else min(fans, case.fan_places)
