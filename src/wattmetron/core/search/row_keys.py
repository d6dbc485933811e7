"""Rows of several columns as keys: packed into one number, and those that no other beats."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]


def spread(sizes: Ints) -> tuple[Ints, Ints]:
    """Each index as often as its size says, with its place from 0: ``[2, 1]`` gives ``[0 0 1], [0 1
    0]``.
    """
    index = np.repeat(np.arange(sizes.size), sizes)
    return index, np.arange(index.size) - (np.cumsum(sizes) - sizes)[index]


def packed_rows(*columns: Ints) -> Ints:
    """One number for each row of several columns of whole numbers from 0 up: equal where all are
    equal.
    """
    key, span = np.zeros_like(columns[0]), 1
    for column in columns:
        size = int(column.max(initial=0)) + 1
        if span * size > 1 << 62:
            key = codes_of(key)
            span = int(key.max(initial=0)) + 1
        key, span = key * size + column, span * size
    return key


def codes_of(values: NDArray[Any]) -> Ints:
    """Each value's place among the different ones."""
    return np.asarray(np.unique(values, return_inverse=True)[1], dtype=np.int64)


def group_heads(ordered: Ints) -> Ints:
    """Where a new value begins in an ordered array."""
    return np.flatnonzero(np.append(True, ordered[1:] != ordered[:-1])[: ordered.size])


def alike(*columns: NDArray[Any]) -> Ints:
    """A number for each row of equally long columns, the same where all of them are."""
    return packed_rows(*(codes_of(column) for column in columns))


def undominated_rows(key: Ints, *low: NDArray[Any]) -> Ints:
    """Indices of rows that no other row with the same key beats, less being better; of equal rows
    the first stays.

    The first row left of every key stays and strikes out what it beats, until no row is left.
    """
    order = np.lexsort((*reversed(low), key))
    remaining = [order[:0]]
    while order.size:
        heads = group_heads(key[order])
        remaining.append(order[heads])
        lead = np.repeat(order[heads], np.diff(np.append(heads, order.size)))
        beaten = np.ones(order.size, dtype=bool)
        for column in low[1:]:
            beaten &= column[lead] <= column[order]
        order = order[~beaten]
    return np.concatenate(remaining)
