"""Platform options in groups that bring the same frames, so that a pairing is priced once for each group."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.platforms import Options, spread

Ints = NDArray[np.int64]
SPAN = 1 << 44
"""More than any option costs, in minor units."""


class Groups:
    """The options of every class by what bears on frame rates; a group's options come the cheapest first.

    ``least`` is each group's least cost, ``head`` the index of that option within its class.
    """

    def __init__(self, options: Sequence[Options]) -> None:
        sizes = [len(one) for one in options]
        kind = np.repeat(np.arange(len(options)), sizes)
        empty = np.empty(0, dtype=np.int64)
        cost = np.concatenate([empty, *(one.cost for one in options)])
        frames = np.concatenate([empty, *(one.frames for one in options)])
        place = np.concatenate([empty, *(np.arange(size) for size in sizes)])
        order = np.lexsort((place, cost, frames, kind))
        new = np.append(True, (np.diff(kind[order]) != 0) | (np.diff(frames[order]) != 0))[: order.size]
        self._option, self._cost = place[order], cost[order]
        self._start = np.flatnonzero(new)
        self._key = (np.cumsum(new) - 1) * SPAN + self._cost
        self.least, self.head = self._cost[self._start], self._option[self._start]
        of_kind = kind[order][self._start]
        self._first = np.searchsorted(of_kind, np.arange(len(options)))
        self._count = np.bincount(of_kind, minlength=len(options))

    def of(self, kind: Ints) -> tuple[Ints, Ints]:
        """All groups of these classes: the place of the class in ``kind`` and the group."""
        at, nth = spread(self._count[kind])
        return at, self._first[kind[at]] + nth

    def dearer(self, group: Ints, under: Ints) -> tuple[Ints, Ints]:
        """The options behind the first of each group that cost less than so much: the place in ``group`` and the option's
        index within its class.
        """
        ends = np.searchsorted(self._key, group * SPAN + np.clip(under, 0, SPAN - 1))
        start = self._start[group] + 1
        at, nth = spread(np.maximum(ends - start, 0))
        return at, self._option[start[at] + nth]
