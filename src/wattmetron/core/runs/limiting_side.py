"""Which side limited a run: from both sides' times, else from their use, else from the shape of the
trace, each with how sure that is.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import uniform_filter1d
from scipy.special import ndtr

from wattmetron.core.values.runs import Trace

Floats = NDArray[np.float64]
Evidence = Literal["times of both sides", "use of both sides", "shape of the trace"]
HELD_USE = 0.9
"""Where neither side is busier than this, something else holds the frames back."""
USE_SD = 0.02
LN_SPREAD_SD = 0.45
"""How well the spread of frame times tells the sides apart, in ln."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """Shares of frames limited by the processor, by the graphics, and by neither (a cap, the
    display), how sure it is that the side with more is the one, within 0.5–1, and what says so.
    """

    processor: float
    graphics: float
    neither: float
    sure: float
    evidence: Evidence

    @property
    def side(self) -> Literal["processor", "graphics", "neither"]:
        if self.neither > max(self.processor, self.graphics):
            return "neither"
        return "processor" if self.processor > self.graphics else "graphics"


def limits(trace: Trace, usual: tuple[float, float]) -> Limits:
    """Of a trace; ``usual`` are the coefficients of variation of the processor's and the graphics'
    times that are known of the game.
    """
    processor, graphics = trace.channel("processor_ms"), trace.channel("graphics_ms")
    if processor is not None and graphics is not None:
        return _by_times(trace.frame_ms, processor, graphics)
    busy_c, busy_g = trace.channel("processor_use"), trace.channel("graphics_use")
    if busy_g is not None:
        return _by_use(trace, busy_c, busy_g)
    return _by_shape(trace.frame_ms, usual)


def _by_times(frame: Floats, processor: Floats, graphics: Floats) -> Limits:
    known = np.isfinite(processor) & np.isfinite(graphics)
    frame, processor, graphics = frame[known], processor[known], graphics[known]
    capped = np.maximum(processor, graphics) < HELD_USE * frame
    by_processor = ~capped & (processor > graphics)
    share_c, share_n = float(by_processor.mean()), float(capped.mean())
    share_g = 1 - share_c - share_n
    apart = abs(share_c - share_g)
    return Limits(
        processor=share_c,
        graphics=share_g,
        neither=share_n,
        sure=0.5 + 0.49 * min(1.0, apart / 0.1 + 0.2),
        evidence="times of both sides",
    )


def _by_use(trace: Trace, busy_c: Floats | None, busy_g: Floats) -> Limits:
    """Frames are limited by the side that is busy nearly all the time; where the processor's use
    is not known, by the graphics' alone.
    """
    known = np.isfinite(busy_g)
    own_g = busy_g[known]
    if busy_c is None:
        graphics = ndtr((own_g - 0.95) / USE_SD)
        share = float(graphics.mean())
        return Limits(
            processor=1 - share,
            graphics=share,
            neither=0.0,
            sure=0.5 + 0.4 * abs(2 * share - 1),
            evidence="use of both sides",
        )
    own_c = np.where(np.isfinite(busy_c), busy_c, 0.0)[known]
    capped = np.maximum(own_c, own_g) < HELD_USE
    leads = ndtr((own_c - own_g) / (USE_SD * np.sqrt(2)))
    share_n = float(capped.mean())
    share_c = float((leads * ~capped).mean())
    share_g = 1 - share_n - share_c
    return Limits(
        processor=share_c,
        graphics=share_g,
        neither=share_n,
        sure=0.5 + 0.45 * min(1.0, abs(share_c - share_g) / 0.2),
        evidence="use of both sides",
    )


def _by_shape(frame: Floats, usual: tuple[float, float]) -> Limits:
    """Frames that the processor limits vary as its times do in this game, the others as the
    graphics' do; a hint, no more. Slow changes of the scene are taken out first.
    """
    calm = np.log(frame) - uniform_filter1d(np.log(frame), min(301, frame.size))
    middle = np.quantile(calm, (0.1, 0.9))
    spread = max(1e-4, float(np.ptp(middle)) / 2.563)
    far_c = np.log(spread / usual[0]) / LN_SPREAD_SD
    far_g = np.log(spread / usual[1]) / LN_SPREAD_SD
    odds = 0.5 * (far_g**2 - far_c**2)
    share = float(1 / (1 + np.exp(-np.clip(odds, -2.2, 2.2))))
    return Limits(
        processor=share,
        graphics=1 - share,
        neither=0.0,
        sure=min(0.75, max(share, 1 - share)),
        evidence="shape of the trace",
    )
