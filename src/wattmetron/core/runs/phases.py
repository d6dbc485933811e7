"""Scenes of a run: stretches between which the usual frame time changes.

Exact segmentation of window means with a price for each change (optimal partitioning: B. Jackson
and others, "An Algorithm for Optimal Partitioning of Data on an Interval", IEEE Signal Processing
Letters 12 (2005)); the price follows from how much the means of windows vary from one to the next.
"""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.values.runs import Trace

Floats = NDArray[np.float64]
WINDOW_S, MOST_WINDOWS, LEAST_WINDOWS = 1.0, 900, 5
PRICE, LEAST_CHANGE = 12.0, 0.06
"""What a change costs in variances of a window, and how far at least levels differ, in ln."""


@dataclass(frozen=True, slots=True)
class Phase:
    """A stretch of a run from and to in s, with its average in fps and the share of the run."""

    from_s: float
    to_s: float
    average_fps: float
    share: float


def phases(trace: Trace) -> tuple[Phase, ...]:
    """The scenes of a trace; a single one where nothing changes for long."""
    if trace.count < 2 or trace.seconds < 2 * LEAST_WINDOWS * WINDOW_S:
        return _spans(trace, [0.0, trace.seconds])
    width = max(WINDOW_S, trace.seconds / MOST_WINDOWS)
    begin = trace.start_s - trace.start_s[0]
    window = (begin / width).astype(int)
    counts = np.bincount(window)
    there = np.flatnonzero(counts)
    level = np.log(np.bincount(window, trace.frame_ms)[there] / counts[there])
    cuts = _joined(level, _cuts(level))
    bounds = [0.0, *(float(there[index] * width) for index in cuts), trace.seconds]
    return _spans(trace, bounds)


def _cuts(level: Floats) -> list[int]:
    """Where the level changes, as indices of windows."""
    n = level.size
    steps = np.diff(level)
    noise = max(1e-4, float(np.median(np.abs(steps - np.median(steps)))) / 0.6745 / np.sqrt(2))
    price = PRICE * noise**2 * np.log(n)
    sums, squares = (
        np.concatenate([[0], np.cumsum(level)]),
        np.concatenate([[0], np.cumsum(level**2)]),
    )
    best, last = np.full(n + 1, np.inf), np.zeros(n + 1, dtype=int)
    best[0] = -price
    for end in range(LEAST_WINDOWS, n + 1):
        starts = np.arange(0, end - LEAST_WINDOWS + 1)
        size = end - starts
        cost = (squares[end] - squares[starts]) - (sums[end] - sums[starts]) ** 2 / size
        total = best[starts] + cost + price
        index = int(np.argmin(total))
        best[end], last[end] = total[index], starts[index]
    cuts, end = [], n
    while end > 0:
        end = int(last[end])
        if end:
            cuts.append(end)
    return cuts[::-1]


def _joined(level: Floats, cuts: list[int]) -> list[int]:
    """Without changes that nobody would notice."""
    borders: list[int] = []
    bounds = [0, *cuts, level.size]
    for before, index, after in zip(bounds, cuts, bounds[2:], strict=False):
        if borders:
            first = borders[-1]
        elif before == 0:
            first = before
        else:
            first = 0
        if abs(level[first:index].mean() - level[index:after].mean()) >= LEAST_CHANGE:
            borders.append(index)
    return borders


def _spans(trace: Trace, bounds: list[float]) -> tuple[Phase, ...]:
    begin = trace.start_s - (trace.start_s[0] if trace.count else 0.0)
    stretches = []
    for start, end in pairwise(bounds):
        inside = trace.frame_ms[(begin >= start) & (begin < end)]
        if inside.size:
            share = float(inside.sum() / trace.frame_ms.sum())
            stretches.append(Phase(start, end, 1000 / float(inside.mean()), share))
    return tuple(stretches)
