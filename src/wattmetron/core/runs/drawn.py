"""A trace made small for drawing: the least, usual and most frame time of each piece of the run,
its distribution, and its percentiles.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.values.runs import Channel, Trace

Floats = NDArray[np.float64]
PIECES, STEPS = 600, 64
SHARES = (0.001, 0.01, 0.05, 0.1, 0.25, 0.5, 0.75, 0.9, 0.95, 0.99, 0.995, 0.999)


@dataclass(frozen=True, slots=True, kw_only=True)
class RunPicture:
    """Pieces of equal length in time: frame times in ms with how each channel stood there, None
    where nothing was logged; counts of frames between ``edges`` in ms; frame times in ms below
    which each of ``SHARES`` of the frames lie.
    """

    piece_s: float
    least_ms: tuple[float | None, ...]
    usual_ms: tuple[float | None, ...]
    most_ms: tuple[float | None, ...]
    channels: Mapping[Channel, tuple[float | None, ...]]
    edges_ms: tuple[float, ...]
    counts: tuple[int, ...]
    percentiles_ms: tuple[float, ...]


def drawn(trace: Trace) -> RunPicture:
    """Of a trace of at least two frames."""
    pieces = min(PIECES, max(1, trace.count // 4))
    begin = trace.start_s - trace.start_s[0]
    width = max(trace.seconds / pieces, 1e-6)
    position = np.minimum((begin / width).astype(int), pieces - 1)
    order = np.argsort(position, kind="stable")
    times, owner = trace.frame_ms[order], position[order]
    first = np.flatnonzero(np.diff(np.concatenate([[-1], owner])))
    there = owner[first]
    count = np.bincount(position, minlength=pieces)
    with np.errstate(divide="ignore", invalid="ignore"):
        mean = np.bincount(position, trace.frame_ms, pieces) / count
    low, high = np.quantile(trace.frame_ms, (0.0005, 0.9995))
    edges = np.geomspace(max(low * 0.95, 1e-3), max(high * 1.05, low * 1.2), STEPS + 1)
    counts, _ = np.histogram(np.clip(trace.frame_ms, edges[0], edges[-1]), edges)
    return RunPicture(
        piece_s=float(width),
        least_ms=_filled(np.minimum.reduceat(times, first), there, pieces),
        usual_ms=_told(mean),
        most_ms=_filled(np.maximum.reduceat(times, first), there, pieces),
        channels={
            name: _channel(values, position, pieces)
            for name, values in trace.channels.items()
            if np.isfinite(values).any()
        },
        edges_ms=tuple(np.round(edges, 4).tolist()),
        counts=tuple(int(count) for count in counts),
        percentiles_ms=tuple(np.round(np.quantile(trace.frame_ms, SHARES), 4).tolist()),
    )


def _channel(values: Floats, position: NDArray[np.int64], pieces: int) -> tuple[float | None, ...]:
    known = np.isfinite(values)
    count = np.bincount(position[known], minlength=pieces)
    with np.errstate(divide="ignore", invalid="ignore"):
        return _told(np.bincount(position[known], values[known], pieces) / count)


def _filled(values: Floats, there: NDArray[np.int64], pieces: int) -> tuple[float | None, ...]:
    whole = np.full(pieces, np.nan)
    whole[there] = values
    return _told(whole)


def _told(values: Floats) -> tuple[float | None, ...]:
    return tuple(None if not np.isfinite(value) else round(float(value), 4) for value in values)
