"""Speeds blended as a game uses them, in ln of points."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
ANCHORS_MPX = (2.0736, 3.6864, 8.2944)
"""1920 x 1080, 2560 x 1440, 3840 x 2160."""
CANNOT = -np.inf


def processor_ln(
    single: Floats | float, all_core: Floats | float, parallel: Floats | float
) -> Floats:
    """ln of the speed in a game: 1 / [(1 - pi)/S + pi/T]."""
    return np.asarray(
        -np.log((1 - parallel) / np.asarray(single) + parallel / np.asarray(all_core))
    )


def graphics_ln(anchors: Floats, ray: Floats, mpx: Floats, ray_share: Floats) -> Floats:
    """ln of 1 / [(1 - q)/R(MP) + q/Q], q the share of ray tracing on the reference part.

    Shapes (n, 3), (n,).
    """
    raster = speed_at_each(anchors, mpx)
    with np.errstate(divide="ignore", invalid="ignore"):
        traced = -np.log((1 - ray_share) / raster + ray_share / ray)
    traced_ms = np.where(np.isnan(traced), CANNOT, traced)
    return np.where(ray_share > 0, traced_ms, np.log(raster))


def speed_at_each(anchors: Floats, mpx: Floats) -> Floats:
    """R at a resolution of its own for each: linear in ln MP between the anchors, constant
    outside.
    """
    ticks = np.log(ANCHORS_MPX)
    position = np.clip(np.log(mpx), ticks[0], ticks[-1])
    low = anchors[:, 0] + (anchors[:, 1] - anchors[:, 0]) * np.clip(
        (position - ticks[0]) / (ticks[1] - ticks[0]), 0, 1
    )
    return np.asarray(
        low
        + (anchors[:, 2] - anchors[:, 1])
        * np.clip((position - ticks[1]) / (ticks[2] - ticks[1]), 0, 1)
    )
