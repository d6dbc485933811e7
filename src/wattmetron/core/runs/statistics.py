"""Average, lows, spread and correlation of a trace, with intervals that respect that frames come in
runs of like ones.

Intervals by a block bootstrap (H. R. Künsch, "The Jackknife and the Bootstrap for General
Stationary Observations", Annals of Statistics 17 (1989)): whole blocks of neighbouring frames are
drawn again and again. How long a block is follows from how long the trace remembers (D. N. Politis
and H. White, "Automatic Block-Length Selection for the Dependent Bootstrap", Econometric Reviews 23
(2004), in the corrected form of 2009). Percentiles of a drawn sample come from counts of frames
beyond a grid of thresholds, block by block, so that a million frames take a fraction of a second.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.fft import irfft, next_fast_len, rfft

Floats = NDArray[np.float64]
DRAWS, SEED = 400, 20261130
"""Draws of the block bootstrap; the seed is fixed, so that a run's figures never change."""
MOST_BLOCKS, LEAST_BLOCKS = 1500, 6
LOW, LOWEST = 0.99, 0.999
"""The quantiles of frame times behind the 1 % and the 0.1 % low."""
COVER = 0.8
"""Every interval shown is meant to hold in so many cases."""
MOST_REMEMBERED = 200_000
"""Frames at most of which the memory of a trace is worked out."""
GRID = 160
MEAN_SHORT, LOW_SHORT = 0.6, 1.5
"""Few blocks show less than there is: intervals are so much wider over the root of their number, as
simulated traces of known truth ask for.
"""


@dataclass(frozen=True, slots=True)
class MeasuredRate:
    """A rate in fps with the ends of its 80 % interval and its standard deviation in ln."""

    fps: float
    least_fps: float
    most_fps: float
    ln_sd: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Summary:
    """A stretch of frames in figures: rates in fps, times in ms, spread as a coefficient of
    variation, correlation from frame to frame, and after how many frames it is forgotten.
    """

    frames: int
    seconds: float
    average: MeasuredRate
    low: MeasuredRate
    lowest_fps: float
    median_ms: float
    spread: float
    correlation: float
    block_frames: int


def summary(frame_ms: Floats, draws: int = DRAWS) -> Summary:
    """Of frame times in ms, shape (n,), n at least 2; all above 0."""
    times = np.asarray(frame_ms, dtype=float)
    block = block_length(times)
    means, lows = _drawn(times, block, draws)
    mean, low, lowest = (
        float(times.mean()),
        *(float(value) for value in np.quantile(times, (LOW, LOWEST))),
    )
    centred = times - mean
    variance = float(centred @ centred) / times.size
    correlation = float(centred[1:] @ centred[:-1]) / times.size / variance if variance else 0.0
    return Summary(
        frames=int(times.size),
        seconds=float(times.sum()) / 1000,
        average=_estimate(mean, means, 1 + MEAN_SHORT * (block / times.size) ** 0.5),
        low=_estimate(low, lows, 1 + LOW_SHORT * (block / times.size) ** 0.5),
        lowest_fps=1000 / lowest,
        median_ms=float(np.median(times)),
        spread=float(np.sqrt(variance)) / mean,
        correlation=correlation,
        block_frames=block,
    )


def _estimate(value_ms: float, drawn_ms: Floats, wider: float) -> MeasuredRate:
    away = np.log(drawn_ms) - np.log(drawn_ms).mean()
    ln = wider * away + np.log(value_ms)
    few, many = np.quantile(ln, ((1 - COVER) / 2, (1 + COVER) / 2))
    return MeasuredRate(
        1000 / value_ms, 1000 / float(np.exp(many)), 1000 / float(np.exp(few)), float(ln.std())
    )


def _drawn(times: Floats, block: int, draws: int) -> tuple[Floats, Floats]:
    """Mean times and 99th percentiles of so many samples drawn block by block, in ms."""
    count = max(LEAST_BLOCKS, min(MOST_BLOCKS, times.size // block))
    edges = np.linspace(0, times.size, count + 1).astype(int)
    lengths = np.diff(edges).astype(float)
    sums = np.add.reduceat(times, edges[:-1])
    thresholds = np.quantile(times, np.linspace(0.9, 1.0, GRID))
    position = np.searchsorted(thresholds, times, side="left")
    owner = np.repeat(np.arange(count), np.diff(edges))
    counts = np.bincount(owner * (GRID + 1) + position, minlength=count * (GRID + 1))
    beyond = counts.reshape(count, GRID + 1)[:, ::-1].cumsum(axis=1)[:, ::-1][:, 1:].astype(float)
    source = np.random.default_rng(SEED)
    weights = source.multinomial(count, np.full(count, 1 / count), draws).astype(float)
    total = weights @ lengths
    means = weights @ sums / total
    share = weights @ beyond / total[:, None]
    lows = np.array([_crossing(row, thresholds, 1 - LOW) for row in share])
    return means, lows


def _crossing(share: Floats, thresholds: Floats, wanted: float) -> float:
    """The threshold beyond which so large a share lies."""
    return float(np.interp(-wanted, -share, thresholds))


def block_length(times: Floats) -> int:
    """Frames in a block for a trace; at least 1, at most a sixth of it."""
    whole = np.log(times[:MOST_REMEMBERED])
    n = whole.size
    most = max(1, times.size // LEAST_BLOCKS)
    if n < 12 or not np.ptp(whole):
        return most
    reach = min(n - 1, max(20, 8 * int(np.ceil(np.sqrt(np.log10(n))) + np.sqrt(n) / 2)))
    autocovariance = _autocovariance(whole, reach)
    if autocovariance[0] <= 0:
        return most
    bound = 2 * np.sqrt(np.log10(n) / n)
    quiet = max(5, int(np.sqrt(np.log10(n))))
    small = np.abs(autocovariance[1:] / autocovariance[0]) < bound
    runs = np.convolve(small, np.ones(quiet), "valid")
    calm = np.flatnonzero(runs == quiet)
    memory = 2 * (int(calm[0]) + 1 if calm.size else reach // 2)
    lags = np.arange(1, min(memory, reach) + 1)
    taper = np.clip(2 * (1 - lags / max(memory, 1)), 0, 1)
    covariance = autocovariance[lags]
    slope = 2 * float((taper * lags * covariance).sum())
    level = float(autocovariance[0]) + 2 * float((taper * covariance).sum())
    if level <= 0:
        return min(most, max(1, memory))
    length = (2 * slope**2 / (4 / 3 * level**2)) ** (1 / 3) * n ** (1 / 3)
    return int(min(most, max(1, np.ceil(length * (times.size / n) ** (1 / 3)))))


def _autocovariance(values: Floats, reach: int) -> Floats:
    """Autocovariances for lags 0 to ``reach``, shape (reach + 1,)."""
    n = values.size
    size = next_fast_len(n + reach + 1, real=True)
    spectrum = rfft(values - values.mean(), size)
    return np.asarray(irfft(np.abs(spectrum) ** 2, size)[: reach + 1] / n, dtype=float)
