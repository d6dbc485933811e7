"""A game after the fit of all its evidence, with the joint spread of its parameters."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.games.model import PRESETS, Game, PresetName

Floats = NDArray[np.float64]

# The order of the parameters: ln C, ln G, ln of three steps of u, ln of three steps of w, logit phi, ln v_c, ln v_g
C, G, U, W, PHI, VC, VG = 0, 1, slice(2, 5), slice(5, 8), 8, 9, 10
COUNT = 11
REFERENCE = PRESETS.index("high")


def steps_between(preset: PresetName) -> Floats:
    """Signs of the three steps that lead from *high* to a preset: minus one below it, plus one above."""
    place = PRESETS.index(preset)
    return np.array([(place > n) * 1.0 - (n < REFERENCE) * 1.0 for n in range(3)])


@dataclass(frozen=True, slots=True, kw_only=True)
class FittedGame(Game):
    """``cover`` is the covariance of the parameters, shape (11, 11); ``steps_u`` and ``steps_w`` the preset steps
    in ln, lowest first."""

    cover: Floats
    steps_u: tuple[float, float, float]
    steps_w: tuple[float, float, float]

    def __hash__(self) -> int:
        return hash((self.id, self.processor_ms, self.graphics_ms, self.processor_work_sd, self.graphics_work_sd))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, FittedGame) and hash(self) == hash(other) and bool((self.cover == other.cover).all())

    def spread(self, preset: PresetName, rendered_mpx: float) -> tuple[float, float, float]:
        """Standard deviations in ln of both sides' work at a preset and resolution, and their covariance."""
        row = np.zeros((2, COUNT))
        row[0, C] = row[1, G] = 1.0
        signs = steps_between(preset)
        row[0, U] = signs * np.array(self.steps_u)
        row[1, W] = signs * np.array(self.steps_w)
        row[1, PHI] = phi_slope(self.fixed_share, rendered_mpx)
        cover = row @ self.cover @ row.T
        return float(np.sqrt(cover[0, 0])), float(np.sqrt(cover[1, 1])), float(cover[0, 1])


def phi_slope(phi: float, mpx: float | Floats) -> Floats:
    """d ln [phi + (1 - phi) MP/2.0736] / d logit phi."""
    ratio = np.asarray(mpx) / 2.0736
    return np.asarray(phi * (1 - phi) * (1 - ratio) / (phi + (1 - phi) * ratio))
