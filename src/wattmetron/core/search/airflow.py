"""Heat against cases: how many fans each case lacks for it, and what they cost.

Fans are bought of one product of the size that nearly every place takes, in as many packs as are
needed and find a place; splitters come along, so that the mainboard needs no header more for them.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import accumulate

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.power.heat import FAN_MM, FAN_W, TOO_HOT, case_heat_w
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.thresholds import ints
from wattmetron.core.values.fan_places import free_for, placed
from wattmetron.core.values.further_parts import Fan, FanSplitter
from wattmetron.core.values.housing import Case
from wattmetron.core.values.part_kinds import Kind

Ints = NDArray[np.int64]
ANY_HEAT_W = 20_000
"""More than any machine draws."""


@dataclass(frozen=True, slots=True)
class Packs:
    """So many packs of one product, the splitters that join them with a fan of the case, and what
    all cost in minor units.
    """

    fan: Fan | None
    count: int
    cost: int
    splitters: tuple[str, ...] = ()

    @property
    def ids(self) -> tuple[tuple[Kind, str], ...]:
        if self.fan is None:
            return ()
        fans: tuple[tuple[Kind, str], ...] = (("fan", self.fan.id),) * self.count
        return fans + tuple(("splitter", part_id) for part_id in self.splitters)


NO_FANS = Packs(None, 0, 0)


def joined_by(
    splitters: Iterable[tuple[FanSplitter, int]], fans: int
) -> tuple[int, tuple[str, ...]]:
    """Cost in minor units and ids of the splitters of one product that join so many fans with one
    more: the cheapest, of equal ones the first by ids; nothing where none is on sale.
    """
    ways = (
        (cost * (count := -(-fans // (part.joins - 1))), (part.id,) * count)
        for part, cost in splitters
    )
    return min(ways, default=(0, ()))


class Airflow:
    """What cases carry off with the fans that stay and with fans bought.

    ``extra[level, case]`` is what the fans cost that a case lacks at a level of heat, NEVER where
    it carries too little with all places taken; an owned case may be heard, but not too hot; a case
    whose fans are not known is not judged. Where
    heat is not asked about there is one level, at which nothing is lacking.
    """

    def __init__(
        self,
        cases: Iterable[Case],
        fans: Iterable[tuple[Fan, int]],
        fans_there: Mapping[int, int],
        asked: bool,
        owned: frozenset[str] = frozenset(),
        splitters: Iterable[tuple[FanSplitter, int]] = (),
    ) -> None:
        self._cases = list(cases)
        self._splitters = list(splitters)
        self._sorts = sorted(
            ((fan, cost) for fan, cost in fans if fan.size_mm == FAN_MM),
            key=lambda fans: fans[0].id,
        )
        self._found: dict[tuple[int, int], Packs] = {}
        self._free = [free_for(case, fans_there, FAN_MM) or 0 for case in self._cases]
        self._carried = [_carried(case, fans_there, case.id in owned) for case in self._cases]
        self.steps = self._all_steps() if asked else ints(())
        self._levels = np.searchsorted(self.steps, np.arange(self._top() + 2))
        self.extra = np.zeros((len(self.steps) + 1, len(self._cases)), dtype=np.int64)
        for n, step in enumerate(self.steps.tolist()):
            self.extra[n] = [self.packs(index, step).cost for index in range(len(self._cases))]
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
                    self._joined(fan, count, cost)
                    for fan, cost in self._sorts
                    if (count := -(-lacking // fan.pack)) * fan.pack <= free
                ),
                key=lambda packs: packs.cost,
                default=Packs(None, 0, NEVER),
            )
        return self._found[key]

    def _joined(self, fan: Fan, count: int, cost: int) -> Packs:
        more, splitters = joined_by(self._splitters, count * fan.pack)
        return Packs(fan, count, count * cost + more, splitters)

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


def _carried(case: Case, fans_there: Mapping[int, int], owned: bool) -> int:
    """Heat in W that a case counts for; any at all where it is not known how many fans it has."""
    if case.fans_included is None:
        return ANY_HEAT_W
    return int(case_heat_w(case.airflow, placed(case, fans_there)) * (TOO_HOT if owned else 1))
