"""The chance that several targets are met at once: estimates share the errors of the parts.

A part that is slower than its figures say is slower in every game; what is not known of a game or
left open by the model is each game's own. Given the errors of processor, rasterising and ray
tracing the games are independent, so that their chances multiply; the mean over those three errors
is a Gauss-Hermite sum. Targets of one game share its errors too: of these the least chance counts.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.polynomial.hermite_e import hermegauss
from numpy.typing import NDArray

from wattmetron.core.frames.chance import Curves, chance_within, curve
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.parts import Processor

Floats = NDArray[np.float64]
NODES = 9
LEAST_VARIANCE = 1e-6


class SharedErrors(NamedTuple):
    """How far ln t_c and ln t_g of one target move with a standard deviation of each shared error:
    the processor's speed, R, Q.
    """

    processor: float
    raster: float
    ray: float


def chance_of_all(estimates: Sequence[Estimate], chip: Processor, curves: Curves = curve) -> float:
    """The chance, 0 to 1, that all these targets of one machine are met; 1 without any."""
    if any(_cannot(estimate) for estimate in estimates):
        return 0.0
    if not estimates:
        return 1.0
    shared = [shared_errors(estimate, chip) for estimate in estimates]
    nodes, weights = _grid(any(errors.ray for errors in shared))
    by_game: dict[str, Floats] = {}
    for estimate, errors in zip(estimates, shared, strict=True):
        chance = _given(estimate, errors, nodes, curves)
        name = estimate.game.id
        by_game[name] = np.minimum(by_game.get(name, chance), chance)
    return float(np.clip((np.prod(list(by_game.values()), axis=0) * weights).sum(), 0.0, 1.0))


def _cannot(estimate: Estimate) -> bool:
    capped = estimate.cap_fps is not None and estimate.target.fps > estimate.cap_fps
    return capped or bool(estimate.cannot) or not np.isfinite(estimate.graphics_ms)


def _grid(with_rays: bool) -> tuple[Floats, Floats]:
    """Points of the three shared errors in standard deviations, shape (n, 3), with their
    weights.
    """
    points, weight = hermegauss(NODES)
    weight = weight / weight.sum()
    rays = (points, weight) if with_rays else (np.zeros(1), np.ones(1))
    axes = np.meshgrid(points, points, rays[0], indexing="ij")
    weights = np.multiply.outer(np.multiply.outer(weight, weight), rays[1])
    return np.stack([axis.ravel() for axis in axes], axis=1), weights.ravel()


def shared_errors(estimate: Estimate, chip: Processor) -> SharedErrors:
    """How far a target's times move with what its machine's parts share over all games."""
    load, side = estimate.workload, estimate.drawing
    ray_ms, spill_ms = estimate.made_of.ray_ms, estimate.made_of.spill_ms
    total = sum(estimate.made_of)
    return SharedErrors(
        chip.speed_sd * load.processor_open,
        side.speed_sd * load.graphics_open * (total - ray_ms - spill_ms) / total,
        side.ray_sd * ray_ms / total,
    )


def _given(estimate: Estimate, errors: SharedErrors, nodes: Floats, curves: Curves) -> Floats:
    """The chance of one target at each point of the shared errors."""
    load = estimate.workload
    line = curves(load.v_c, load.v_g, estimate.target.measure)
    left_c = max(LEAST_VARIANCE, estimate.processor_sd**2 - errors.processor**2) ** 0.5
    left_g = max(LEAST_VARIANCE, estimate.graphics_sd**2 - errors.raster**2 - errors.ray**2) ** 0.5
    return chance_within(
        line,
        np.log(estimate.processor_ms) + errors.processor * nodes[:, 0],
        left_c,
        np.log(estimate.graphics_ms) + nodes[:, 1] * errors.raster + nodes[:, 2] * errors.ray,
        left_g,
        np.log(estimate.wanted_ms),
        load.side_cov,
    )
