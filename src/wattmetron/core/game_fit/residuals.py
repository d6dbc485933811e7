"""Residuals of a fit, and how far the likelihood may fall within a band."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

from wattmetron.core.speeds.speed_scale import Standing
from wattmetron.core.values.results import Result

Floats = NDArray[np.float64]
DEGREES = 4.0
"""Student's t: one wrong result in twenty must not move a game."""
SETTLED = 1e-7


@dataclass(frozen=True, slots=True)
class Pair:
    """A result with its parts on the scale."""

    result: Result
    processor: Standing
    graphics: Standing


@dataclass(frozen=True, slots=True, kw_only=True)
class Residual:
    """A result against the model: rates in fps, their ratio less one, and the score in spreads."""

    result: Result
    model_average_fps: float
    model_low_fps: float
    away: float
    score: float
    weight: float


class LogLikelihood(NamedTuple):
    """A term of the log-likelihood, its slope, and the magnitude of its curvature."""

    value: float
    slope: float
    bend: float


def band(x: float, upper: float, gap: float, sigma: float) -> LogLikelihood:
    """ln[Phi((b - x)/s) - Phi((b - gap - x)/s)], its slope in x and the magnitude of its curvature.

    Log-concave in x, so the curvature is never positive; differences of log_ndtr keep the far
    tails.
    """
    high, low = (upper - x) / sigma, (upper - gap - x) / sigma
    if low > 0:
        high, low = -low, -high
        mirrored = True
    else:
        mirrored = False
    top, bottom = float(log_ndtr(high)), float(log_ndtr(low))
    value = top + float(np.log1p(-np.exp(min(bottom - top, -1e-12))))
    a = float(np.exp(-0.5 * high**2 - 0.9189385332046727 - value))
    b = float(np.exp(-0.5 * low**2 - 0.9189385332046727 - value))
    slope = -(a - b) / sigma
    bend = ((a - b) ** 2 + (high * a - low * b)) / sigma**2
    return LogLikelihood(value, -slope if mirrored else slope, max(bend, 1e-9))
