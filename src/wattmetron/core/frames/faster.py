"""The chance that one machine really is faster than another at the same target.

Both estimates share what is not known of the game's work, and the speed of a part that both have;
all other errors are each machine's own. Given these errors both frame times follow, so the chance
is the share of a fixed even set of points (Sobol, in standard normal scores) at which the first is
the faster one.
"""

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from wattmetron.core.frames import frame_rates
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.joint_chance import shared_errors
from wattmetron.core.values.machine import Machine

Floats = NDArray[np.float64]
POINTS_LOG2 = 12
"""A Sobol sequence is balanced at powers of two."""
LEAST_CHANCE = 2.0 ** -(POINTS_LOG2 + 1)
GAME_C, GAME_G, OWN_C, OWN_G, CHIP, CARD = range(6)
"""Errors by place: the game's two that both share, then the first machine's own four; the second
machine's own four follow."""
ERRORS = 10


def scores() -> Floats:
    """Standard normal scores, shape (4096, 10); the same every time, so whoever asks often keeps
    them. SciPy's statistics take most of a second to be read in, so they are where they are used.
    """
    from scipy.stats import qmc

    points = qmc.Sobol(ERRORS, scramble=True, seed=20261129).random_base2(POINTS_LOG2)
    return np.asarray(ndtri(np.clip(points, 1e-9, 1 - 1e-9)))


def chance_faster(
    first: Estimate, other: Estimate, machines: tuple[Machine, Machine], draws: Floats
) -> float | None:
    """The chance, 0 to 1, that the first machine's judged rate is above the other's, uncapped, by
    ``draws`` of ``scores``; a half where nothing tells them apart, None where one of them cannot
    run the target.
    """
    if first.cannot or other.cannot or not (first.average_fps and other.average_fps):
        return None
    same_chip = _id(machines[0].processor) == _id(machines[1].processor)
    same_card = _id(machines[0].graphics) == _id(machines[1].graphics)
    left = _frame_ms(first, other, machines[0], draws, 0, False, False)
    right = _frame_ms(other, first, machines[1], draws, 4, same_chip, same_card)
    share = float(((left < right) + 0.5 * (left == right)).mean())
    return float(np.clip(share, LEAST_CHANCE, 1 - LEAST_CHANCE))


def _id(part: object) -> str:
    return "" if part is None else str(getattr(part, "id", ""))


def _frame_ms(
    estimate: Estimate,
    other: Estimate,
    machine: Machine,
    draws: Floats,
    offset: int,
    same_chip: bool,
    same_card: bool,
) -> Floats:
    """The judged time of a frame shown of one machine at every point."""
    assert machine.processor is not None
    parts = shared_errors(estimate, machine.processor)
    card_sd = float(np.hypot(parts.raster, parts.ray))
    load, beside = estimate.workload, other.workload
    game_c, rest_c = _split(
        estimate.processor_sd, parts.processor, min(load.processor_sd, beside.processor_sd)
    )
    game_g, rest_g = _split(
        estimate.graphics_sd, card_sd, min(load.graphics_sd, beside.graphics_sd)
    )
    chip = draws[:, CHIP] if same_chip else draws[:, CHIP + offset]
    card = draws[:, CARD] if same_card else draws[:, CARD + offset]
    c = game_c * draws[:, GAME_C] + rest_c * draws[:, OWN_C + offset] + parts.processor * chip
    g = game_g * draws[:, GAME_G] + rest_g * draws[:, OWN_G + offset] + card_sd * card
    statistic = frame_rates.low_ms if estimate.target.measure == "low" else frame_rates.mean_ms
    drawn_ms = statistic(
        estimate.processor_ms * np.exp(c),
        estimate.graphics_ms * np.exp(g),
        load.v_c,
        load.v_g,
    )
    return np.asarray(drawn_ms / estimate.shown)


def _split(all_sd: float, part_sd: float, game_sd: float) -> tuple[float, float]:
    """What of an error is the game's, which both machines share, and what is left beside that and
    the part's.
    """
    beside = np.sqrt(max(0.0, all_sd**2 - part_sd**2))
    common = min(beside, game_sd)
    return float(common), float(np.sqrt(max(0.0, beside**2 - common**2)))
