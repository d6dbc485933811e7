"""What would settle an unsure target: the expected narrowing by one more piece of evidence.

Near the estimate ln of the frame time moves by e_c with the processor's and e_g with the graphics'
time. An observation of noise n that moves by (a_c, a_g) narrows it as a normal update does; how
often the target would then be met or short follows from how far the estimate is likely to move.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.special import ndtr, ndtri

from wattmetron.core.frames.estimate import Estimate

Kind = Literal["own run", "published result", "processor result", "graphics result"]
NOISE: dict[Kind, float] = {
    "own run": 0.04,
    "published result": 0.08,
    "processor result": 0.08,
    "graphics result": 0.08,
}


@dataclass(frozen=True, slots=True)
class Settling:
    """One piece of evidence: spreads of ln of the frame time before and after, and how often it
    settles.
    """

    kind: Kind
    before_sd: float
    after_sd: float
    settles: float


def settlings(estimate: Estimate, sureness: float) -> tuple[Settling, ...]:
    """All kinds of evidence, the one that settles most often first.

    An own run and a published result are of this very machine at these settings; a processor result
    is one in which the processor alone sets the pace, a graphics result likewise.
    """
    e_c = estimate.processor_elasticity
    pull = np.array([e_c, 1 - e_c])
    cov = estimate.workload.side_cov
    cover = np.array([[estimate.processor_sd**2, cov], [cov, estimate.graphics_sd**2]])
    variance = float(pull @ cover @ pull)
    looks: dict[Kind, np.ndarray] = {
        "own run": pull,
        "published result": pull,
        "processor result": np.array([1.0, 0.0]),
        "graphics result": np.array([0.0, 1.0]),
    }
    settlings = []
    for kind, look in looks.items():
        reduction = float(pull @ cover @ look) ** 2 / (
            float(look @ cover @ look) + NOISE[kind] ** 2
        )
        left = max(variance - reduction, 1e-9)
        settlings.append(
            Settling(
                kind,
                variance**0.5,
                left**0.5,
                _settles(estimate.chance, sureness, variance, reduction, left),
            )
        )
    return tuple(sorted(settlings, key=lambda each: -each.settles))


def _settles(
    chance: float, sureness: float, variance: float, reduction: float, left: float
) -> float:
    """P(the chance after is at least the sureness, or at most its complement)."""
    if reduction <= 0:
        return 0.0
    ahead = float(ndtri(np.clip(chance, 1e-9, 1 - 1e-9))) * variance**0.5
    needed = float(ndtri(sureness)) * left**0.5
    return float(ndtr((ahead - needed) / reduction**0.5) + ndtr((-ahead - needed) / reduction**0.5))
