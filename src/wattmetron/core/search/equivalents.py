"""Platform options in groups that bring the same frames, so that a pairing is priced once for each
group.
"""

from collections.abc import Sequence
from dataclasses import fields
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.search.platform_classes import Options
from wattmetron.core.search.row_keys import spread

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]
SPAN = 1 << 44
"""More than any option costs, in minor units."""


class PlatformFigures(NamedTuple):
    """Memory and link as the frame model sees them."""

    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats
    link_gen: Ints
    link_lanes: Ints

    def of(self, rows: Ints) -> "PlatformFigures":
        return PlatformFigures(*(column[rows] for column in self))  # type: ignore[arg-type]


class Groups:
    """The options of every class by what bears on frame rates: groups of a class by rising least
    cost, a group's options the cheapest first.

    ``least`` is each group's least cost, ``figures`` what its options bring; ``best`` the best of
    each figure among the groups of its class up to it.
    """

    def __init__(self, options: Sequence[Options]) -> None:
        self.columns = {
            item.name: np.concatenate(
                [np.empty(0, dtype=np.int64), *(getattr(option, item.name) for option in options)]
            )
            for item in fields(Options)
        }
        kind = np.repeat(np.arange(len(options)), [len(option) for option in options])
        cost, frames = self.columns["cost"], self.columns["frames"]
        by_frames = np.lexsort((cost, frames, kind))
        start = np.flatnonzero(_new(kind[by_frames], frames[by_frames]))
        head, size = by_frames[start], np.diff(np.append(start, cost.size))
        order = np.lexsort((cost[head], kind[head]))
        index, nth = spread(size[order])
        self._option = by_frames[start[order][index] + nth]
        self._start = np.cumsum(size[order]) - size[order]
        self._key = index * SPAN + cost[self._option]
        self.head = head[order]
        self.least = cost[self.head]
        of_kind = kind[self.head]
        self._least_key = of_kind * SPAN + self.least
        self._first = np.searchsorted(of_kind, np.arange(len(options)))
        self.figures = PlatformFigures(
            *(self.columns[name][self.head] for name in PlatformFigures._fields)
        )
        self.best = self._best(of_kind)

    def _best(self, of_kind: Ints) -> PlatformFigures:
        lead = np.append(self._first, of_kind.size)
        best = []
        for name, column in self.figures._asdict().items():
            run = np.minimum if name == "latency_ns" else np.maximum
            best.append(
                np.concatenate(
                    [column[:0], *(run.accumulate(column[a:b]) for a, b in pairwise(lead))]
                )
            )
        return PlatformFigures(*best)

    def count(self, kind: Ints, most: Ints) -> Ints:
        """How many groups of each class have an option that costs at most so much."""
        ends = np.searchsorted(
            self._least_key, kind * SPAN + np.clip(most, -1, SPAN - 1), side="right"
        )
        return np.asarray(np.maximum(ends - self._first[kind], 0))

    def of(self, kind: Ints, most: Ints) -> tuple[Ints, Ints]:
        """These groups: the place of the class in ``kind``, and the group."""
        index, nth = spread(self.count(kind, most))
        return index, self._first[kind[index]] + nth

    def last(self, kind: Ints, most: Ints) -> Ints:
        """The last of these groups; some group where there is none."""
        return np.asarray(
            np.minimum(
                self._first[kind] + np.maximum(self.count(kind, most) - 1, 0), self.least.size - 1
            )
        )

    def dearer(self, group: Ints, under: Ints) -> tuple[Ints, Ints]:
        """The options behind the first of each group that cost less than so much: the place in
        ``group`` and the option.
        """
        ends = np.searchsorted(self._key, group * SPAN + np.clip(under, 0, SPAN - 1))
        start = self._start[group] + 1
        index, nth = spread(np.maximum(ends - start, 0))
        return index, self._option[start[index] + nth]


def _new(*ordered: Ints) -> NDArray[np.bool_]:
    """Where any of the columns takes another value than the row before."""
    size = ordered[0].size
    changes = np.logical_or.reduce([column[1:] != column[:-1] for column in ordered])
    return np.append(True, changes)[:size]
