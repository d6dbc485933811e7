"""Limits as steps: a size goes into a room where its level is no higher than the room's."""

from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]


def ints(values: Iterable[int]) -> Ints:
    """An array of whole numbers."""
    return np.array(list(values), dtype=np.int64)


class Ladder:
    """The different limits that occur, in rising order.

    Sizes and limits that are not known fit everything.
    """

    def __init__(self, limits: Iterable[int | None]) -> None:
        self.steps: Ints = np.unique(ints(limit for limit in limits if limit is not None))
        self.top = int(self.steps.size)

    def __len__(self) -> int:
        return self.top + 1

    def levels(self, sizes: Iterable[int | None]) -> Ints:
        """For each size the lowest step that holds it; ``top`` where none does."""
        known = list(sizes)
        level = np.searchsorted(self.steps, ints(size or 0 for size in known))
        return np.where(np.array([size is None for size in known], dtype=bool), 0, level)

    def rooms(self, limits: Iterable[int | None]) -> Ints:
        """For each limit its own step; ``top`` where it is not known."""
        known = list(limits)
        level = np.searchsorted(self.steps, ints(limit or 0 for limit in known))
        return np.where(np.array([limit is None for limit in known], dtype=bool), self.top, level)
