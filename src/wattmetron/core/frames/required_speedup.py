"""How much faster one side would have to be for a target to be met at a given sureness."""

from typing import NamedTuple

import numpy as np

from wattmetron.core.frames import chance
from wattmetron.core.frames.estimate import Estimate

MOST = 4.0
"""Four times as fast as today's part is not for sale."""


class Needed(NamedTuple):
    """Factors by which a side would have to be faster, the other left as it is; None: not by any up
    to four.
    """

    processor: float | None
    graphics: float | None


def needed_speedup(estimate: Estimate, sureness: float) -> Needed:
    """The least factor for either side alone, from the chance along a grid of factors."""
    if estimate.cannot:
        return Needed(None, None)
    gains = np.linspace(0.0, np.log(MOST), 160)
    line = chance.curve(estimate.workload.v_c, estimate.workload.v_g, estimate.target.measure)
    limit = np.log(estimate.wanted_ms)
    ln_c, ln_g = np.log(estimate.processor_ms), np.log(estimate.graphics_ms)
    gains_needed = []
    for shifted in ((ln_c - gains, ln_g), (ln_c, ln_g - gains)):
        chances = chance.chance_within(
            line,
            shifted[0],
            estimate.processor_sd,
            shifted[1],
            estimate.graphics_sd,
            limit,
            estimate.workload.side_cov,
        )
        enough = chances >= sureness
        gains_needed.append(
            float(np.exp(np.interp(sureness, chances, gains))) if enough.any() else None
        )
    return Needed(*gains_needed)
