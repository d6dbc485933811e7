"""What a display does with the frames: shown as they come, torn, held for the next refresh; and the
lag that waiting for it adds.

With F the distribution of frame times (the slower of both sides) and r the time of a refresh:

- fixed refresh without synchronising: a frame appears wherever the picture is being drawn, so that
  a share min(1, r/E) of refreshes shows parts of two frames; nothing is added to the lag;
- fixed refresh, synchronised: a frame is shown for ceil(t/r) refreshes, E[ceil] = sum over k >= 0
  of 1 - F(k r); frames later than one refresh are 1 - F(r); waiting adds r E[ceil] - E on average;
- variable refresh within [r, r_most]: frames with r <= t <= r_most are shown as they come; quicker
  ones wait for r (adding E[max(0, r - t)]), slower ones are shown again meanwhile.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from wattmetron.core.frames import frame_rates
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.brief import Display

Floats = NDArray[np.float64]
MOST_REFRESHES, NODES = 2000, 400


@dataclass(frozen=True, slots=True, kw_only=True)
class Pacing:
    """Frames on a display, shares within 0–1: quicker than a refresh, within its range (or within
    one refresh of a fixed one), slower than that; refreshes torn without synchronising; with it the
    share of frames that come late, the rate shown in fps and the lag that it adds in ms.
    """

    quicker: float
    inside: float
    slower: float
    torn: float
    late: float
    shown_fps: float
    lag_ms: float
    variable: bool


def pacing(estimate: Estimate, display: Display) -> Pacing | None:
    """Of an estimate, the frames that it shows; None where nothing is drawn."""
    if estimate.cannot or estimate.average_fps <= 0:
        return None
    load = estimate.workload
    shown_ms = (estimate.processor_ms / estimate.shown, estimate.graphics_ms / estimate.shown)
    sides = (*shown_ms, float(load.v_c), float(load.v_g))
    return paced(sides, display.refresh_hz, display.variable_from_hz)


def paced(
    sides: tuple[float, float, float, float], refresh_hz: float, variable_from_hz: float | None
) -> Pacing:
    """Of mean times in ms and coefficients of variation of both sides."""
    refresh = 1000 / refresh_hz
    mean = float(frame_rates.mean_ms(*sides))
    quicker = 1 - _beyond(sides, refresh)
    if variable_from_hz is not None and variable_from_hz < refresh_hz:
        slower = _beyond(sides, 1000 / variable_from_hz)
        waits = _shorter_ms(sides, refresh)
        return Pacing(
            quicker=quicker,
            inside=max(0.0, 1 - quicker - slower),
            slower=slower,
            torn=0.0,
            late=slower,
            shown_fps=1000 / (mean + waits),
            lag_ms=waits,
            variable=True,
        )
    most = min(MOST_REFRESHES, int(20 * mean / refresh) + 20)
    refreshes = 1 + float(frame_rates.late_share(*sides, refresh * np.arange(1, most)).sum())
    return Pacing(
        quicker=quicker,
        inside=0.0,
        slower=1 - quicker,
        torn=min(1.0, refresh / mean),
        late=1 - quicker,
        shown_fps=1000 / (refresh * refreshes),
        lag_ms=max(0.0, refresh * refreshes - mean),
        variable=False,
    )


def _beyond(sides: tuple[float, float, float, float], limit_ms: float) -> float:
    return float(frame_rates.late_share(*sides, limit_ms))


def _shorter_ms(sides: tuple[float, float, float, float], limit_ms: float) -> float:
    """E[max(0, limit - t)], which is the integral of F from 0 to the limit."""
    t_c, t_g, v_c, v_g = sides
    sx, sz = np.sqrt(np.log1p(v_c**2)), np.sqrt(np.log1p(v_g**2))
    index = np.linspace(limit_ms / NODES, limit_ms, NODES) - limit_ms / NODES / 2
    ln = np.log(index)
    waiting = ndtr((ln - np.log(t_c)) / sx + sx / 2) * ndtr((ln - np.log(t_g)) / sz + sz / 2)
    return float(waiting.sum() * limit_ms / NODES)
