"""Values that are completed when first asked for: by one thread, while the others wait.

They belong to whoever holds them and go with their holder. What has been published is never
changed, so that readers need no lock.
"""

from collections.abc import Callable, Hashable, Sequence
from threading import Lock
from typing import Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

T = TypeVar("T")
K = TypeVar("K", bound=Hashable)
V = TypeVar("V")
Ints = NDArray[np.int64]


class Later(Generic[T]):
    """A value that is worked out when first asked for."""

    __slots__ = ("_compute", "_lock", "_value")
    grows = True

    def __init__(self, compute: Callable[[], T]) -> None:
        self._compute: Callable[[], T] | None = compute
        self._lock = Lock()

    def __call__(self) -> T:
        if self._compute is not None:
            with self._lock:
                if self._compute is not None:
                    self._value = self._compute()
                    self._compute = None
        return self._value


class NumberedRows:
    """For keys from 0 up to a size a row of so many whole numbers, worked out when first asked for.

    A row is written before its place is, and never changed: whoever sees a place finds its row.
    Places are held in pages that are made when first needed. At most ``most`` rows are held; beyond
    that they are worked out for each question.
    """

    grows = True
    page = 1 << 12

    def __init__(
        self, size: int, width: int, compute: Callable[[Ints], Ints], most: int = 1 << 17
    ) -> None:
        self._compute, self._most = compute, most
        self._lock = Lock()
        self._page = np.zeros(-(-size // self.page), dtype=np.int32)
        self._places = np.zeros((1, self.page), dtype=np.int32)
        self._rows = np.empty((256, width), dtype=np.int64)
        self._used = 0

    def __getitem__(self, keys: Ints) -> Ints:
        """A row for each key, shape (keys, width)."""
        index = self._at(keys)
        if not index.all():
            if not self._held(keys):
                distinct, back = np.unique(keys, return_inverse=True)
                return self._compute(distinct)[back]
            index = self._at(keys)
        return np.asarray(self._rows[index - 1])

    def _at(self, keys: Ints) -> NDArray[np.int32]:
        """Places of rows, 0 where there is none yet. Pages are looked up before places: whoever
        sees a page's number finds the page.
        """
        page = self._page[keys // self.page]
        return np.asarray(self._places[page, keys % self.page])

    def _pages_for(self, keys: Ints) -> None:
        fresh = np.unique(keys // self.page)
        fresh = fresh[self._page[fresh] == 0]
        if fresh.size:
            before = len(self._places)
            self._places = np.concatenate(
                [self._places, np.zeros((fresh.size, self.page), dtype=np.int32)]
            )
            self._page[fresh] = np.arange(before, before + fresh.size)

    def _held(self, keys: Ints) -> bool:
        """Works out the rows that are missing; False where they would be too many to hold."""
        with self._lock:
            missing = np.unique(keys[self._at(keys) == 0])
            end = self._used + missing.size
            if end > self._most:
                return False
            if end > len(self._rows):
                grown = np.empty((2 * end, self._rows.shape[1]), dtype=np.int64)
                grown[: self._used] = self._rows[: self._used]
                self._rows = grown
            if missing.size:
                self._rows[self._used : end] = self._compute(missing)
                self._pages_for(missing)
                self._places[self._page[missing // self.page], missing % self.page] = np.arange(
                    self._used + 1, end + 1
                )
                self._used = end
            return True

    @property
    def nbytes(self) -> int:
        return self._page.nbytes + self._places.nbytes + self._rows.nbytes


class GrowingRows(Generic[K, V]):
    """Values by key that may have to be extended; at most ``most`` of them are held."""

    grows = True

    def __init__(self, most: int) -> None:
        self._most = most
        self._lock = Lock()
        self._held: dict[K, V] = {}

    def having(
        self,
        keys: Sequence[K],
        enough: Callable[[V], bool],
        extend: Callable[[list[tuple[K, V | None]]], list[V]],
    ) -> list[V]:
        """A value for each key, each of them enough; ``extend`` makes those that are not."""
        values = self._held
        if not all(key in values and enough(values[key]) for key in keys):
            with self._lock:
                values = self._extended(dict.fromkeys(keys), enough, extend)
        return [values[key] for key in keys]

    def _extended(
        self,
        keys: dict[K, None],
        enough: Callable[[V], bool],
        extend: Callable[[list[tuple[K, V | None]]], list[V]],
    ) -> dict[K, V]:
        values = self._held
        short = [
            (key, values.get(key)) for key in keys if key not in values or not enough(values[key])
        ]
        if not short:
            return values
        made = dict(zip((key for key, _ in short), extend(short), strict=True))
        grown = {**values, **made}
        if len(grown) > self._most:
            grown = {key: grown[key] for key in keys}
        self._held = grown
        return grown

    def __len__(self) -> int:
        return len(self._held)

    def values(self) -> tuple[V, ...]:
        return tuple(self._held.values())
