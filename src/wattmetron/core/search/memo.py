"""Rows of figures found before, by number: so that no combination is worked out twice for one
question.
"""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]


class Memo:
    """For keys from 0 up to a size a row of so many whole numbers, worked out when first asked
    for.
    """

    def __init__(self, size: int, width: int, compute: Callable[[Ints], Ints]) -> None:
        self._place = np.zeros(size, dtype=np.int32)
        self._rows = np.empty((256, width), dtype=np.int64)
        self._used = 0
        self._compute = compute

    def __getitem__(self, keys: Ints) -> Ints:
        """A row for each key."""
        place = self._place[keys]
        if not place.all():
            self._add(np.unique(keys[place == 0]))
            place = self._place[keys]
        return np.asarray(self._rows[place - 1])

    def _add(self, keys: Ints) -> None:
        needed = self._used + keys.size
        if needed > len(self._rows):
            grown = np.empty((2 * needed, self._rows.shape[1]), dtype=np.int64)
            grown[: self._used] = self._rows[: self._used]
            self._rows = grown
        self._rows[self._used : needed] = self._compute(keys)
        self._place[keys] = np.arange(self._used + 1, needed + 1)
        self._used = needed
