"""Before and after: by how much two sets of runs differ, and how surely that is real.

Each run's average has an error of its own (from its frames) and runs differ from one to the next;
how much is estimated from the runs themselves, drawn towards what is usual as if four degrees of
freedom had shown it. The difference of the means over its spread follows Student's t.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import stdtr, stdtrit

from wattmetron.core.runs.statistics import COVER, MeasuredRate

USUAL_RUN_SD, USUAL_DEGREES = 0.012, 4.0
"""In ln: how far runs of one machine differ, before there are any of this one."""
SETTLED, MOST_MORE = 0.95, 30


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """What changed from one set of runs to another, in shares: the change, the ends of its 80 %
    interval, the chance within 0.5–1 that it is real (has this sign), and how many more runs on
    either side would settle that; 0 where it is settled, None where no sensible number would.
    """

    change: float
    least: float
    most: float
    chance: float
    more_runs: int | None


def difference(before: Sequence[MeasuredRate], after: Sequence[MeasuredRate]) -> Difference:
    """Of two sets of runs, each at least one."""
    means = [np.log([estimate.fps for estimate in side]) for side in (before, after)]
    within = [np.array([estimate.ln_sd**2 for estimate in side]) for side in (before, after)]
    residual = sum(float(((side - side.mean()) ** 2).sum()) for side in means)
    free = sum(side.size - 1 for side in means)
    expected = sum(float((runs * (1 - 1 / runs.size)).sum()) for runs in within)
    between = (USUAL_DEGREES * USUAL_RUN_SD**2 + max(0.0, residual - expected)) / (
        USUAL_DEGREES + free
    )
    degrees = USUAL_DEGREES + free
    ln = float(means[1].mean() - means[0].mean())

    more = np.arange(MOST_MORE + 1)
    spreads = np.sqrt(
        sum(
            (float(runs.mean()) + between) / (side.size + more)
            for runs, side in zip(within, means, strict=True)
        )
    )
    sd = float(spreads[0])
    chance = float(stdtr(degrees, abs(ln) / sd))
    reach = float(stdtrit(degrees, (1 + COVER) / 2)) * sd
    settled = np.flatnonzero(stdtr(degrees + 2 * more, abs(ln) / spreads) >= SETTLED)
    return Difference(
        change=float(np.expm1(ln)),
        least=float(np.expm1(ln - reach)),
        most=float(np.expm1(ln + reach)),
        chance=chance,
        more_runs=int(settled[0]) if settled.size else None,
    )
