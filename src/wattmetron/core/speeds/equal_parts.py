"""As good for less: parts at or above the speed of a given one, with the chance that they really
are.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from wattmetron.core.speeds.blend import graphics_ln, processor_ln
from wattmetron.core.speeds.speed_scale import Scale, Standing, anchors_of
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.core.values.published import Side

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Use:
    """What the comparison is for: a game's parallel share and the share of rays, rendered
    megapixels.
    """

    parallel_share: float = 0.32
    rendered_mpx: float = 2.0736
    ray_share: float = 0.0


@dataclass(frozen=True, slots=True)
class Equal:
    """A part at or above the speed asked for: ratio of speeds, chance that it is at least as fast,
    and whether it is what was named.
    """

    part: Part
    ratio: float
    chance: float
    named: bool


def equals(wanted: Standing, parts: Iterable[Part], scale: Scale, use: Use) -> tuple[Equal, ...]:
    """Parts of the side whose best estimate reaches the standing's, or that are what is named.

    The chance is P(ln speed of the part >= ln speed wanted) under both spreads as independent
    normals; a card of the very chip that is named is as good by definition.
    """
    equals = [
        part
        for part in parts
        if isinstance(part, (Processor, Graphics)) and _side(part) == wanted.side
    ]
    if not equals:
        return ()
    ln = _ln_speeds(
        wanted.side, [_speeds(part) for part in equals], [_ray(part) for part in equals], use
    )
    base = float(_ln_speeds(wanted.side, [wanted.speeds], [wanted.ray_speed], use)[0])
    same = np.array([scale.of_part.get(part.id) == wanted.key for part in equals])
    spreads = np.array([part.speed_sd for part in equals])
    away = ln - base
    chance = np.where(same, 1.0, ndtr(away / np.maximum(np.hypot(spreads, wanted.sd), 1e-9)))
    return tuple(
        Equal(part, float(np.exp(away[n])), float(chance[n]), bool(same[n]))
        for n, part in enumerate(equals)
        if away[n] >= 0 or same[n]
    )


def _side(part: Part) -> Side:
    return "processor" if isinstance(part, Processor) else "graphics"


def _speeds(part: Processor | Graphics) -> tuple[float, ...]:
    return (
        (part.single_speed, part.all_core_speed)
        if isinstance(part, Processor)
        else anchors_of(part)
    )


def _ray(part: Processor | Graphics) -> float | None:
    return part.ray_speed or None if isinstance(part, Graphics) else None


def _ln_speeds(
    side: Side, speeds: list[tuple[float, ...]], rays: list[float | None], use: Use
) -> Floats:
    table = np.array(speeds, dtype=float)
    if side == "processor":
        return processor_ln(table[:, 0], table[:, 1], use.parallel_share)
    ray = np.array([np.nan if each_ray is None else each_ray for each_ray in rays], dtype=float)
    n = len(speeds)
    return graphics_ln(table, ray, np.full(n, use.rendered_mpx), np.full(n, use.ray_share))
