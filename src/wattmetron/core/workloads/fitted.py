"""A game after the fit of all its evidence, with the joint spread of its parameters."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.games import PRESETS, Game, PresetName
from wattmetron.core.values.published import Side

Floats = NDArray[np.float64]
Place = tuple[Side, str, str]
"""Side, *part* or *design*, and its key."""

# The order of the parameters: ln C, ln G, ln of three steps of u, ln of three steps of w, logit
# phi, ln v_c, ln v_g
C, G, U, W, PHI, VC, VG = 0, 1, slice(2, 5), slice(5, 8), 8, 9, 10
COUNT = 11
REFERENCE = PRESETS.index("high")


def _steps(place: int) -> Floats:
    return np.array([(place > n) * 1.0 - (n < REFERENCE) * 1.0 for n in range(3)])


_STEPS = {preset: _steps(place) for place, preset in enumerate(PRESETS)}


def steps_between(preset: PresetName) -> Floats:
    """Signs of the three steps that lead from *high* to a preset: minus one below it, plus one
    above.
    """
    return _STEPS[preset]


@dataclass(frozen=True, slots=True, kw_only=True)
class FittedGame(Game):
    """``cover`` is the covariance of the parameters, shape (n, n): eleven of the game, then the
    errors of parts and designs that stand in its results, at ``places`` with the values ``errors``.
    ``steps_u`` and ``steps_w`` are the preset steps in ln, lowest first.
    """

    cover: Floats
    steps_u: tuple[float, float, float]
    steps_w: tuple[float, float, float]
    places: Mapping[Place, int]
    errors: tuple[float, ...]

    def __hash__(self) -> int:
        return hash((self.id, self.processor_ms, self.graphics_ms, self.errors))

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, FittedGame)
            and hash(self) == hash(other)
            and self.places == other.places
            and bool((self.cover == other.cover).all())
        )

    def affinity(self, side: Side, key: str, design: str) -> Affinity:
        """What the results told about a part: of itself, or of its design alone."""
        own, shared = (
            self.places.get((side, "part", key)),
            self.places.get((side, "design", design or key)),
        )
        places = tuple(place for place in (own, shared) if place is not None)
        if not places:
            return UNSEEN
        shift = sum(self.errors[place - COUNT] for place in places)
        return Affinity(shift, places, own is None, shared is None)

    def spread(
        self,
        preset: PresetName,
        rendered_mpx: float,
        chip: Affinity = UNSEEN,
        card: Affinity = UNSEEN,
    ) -> tuple[float, float, float]:
        """Standard deviations in ln of both sides' work at a preset and resolution, and their
        covariance.
        """
        row = np.zeros((2, len(self.cover)))
        row[0, C] = row[1, G] = 1.0
        signs = steps_between(preset)
        row[0, U] = signs * np.array(self.steps_u)
        row[1, W] = signs * np.array(self.steps_w)
        row[1, PHI] = phi_slope(self.fixed_share, rendered_mpx)
        row[0, list(chip.places)] = row[1, list(card.places)] = 1.0
        cover = row @ self.cover @ row.T
        return float(np.sqrt(cover[0, 0])), float(np.sqrt(cover[1, 1])), float(cover[0, 1])


def phi_slope(phi: float, mpx: float | Floats) -> Floats:
    """d ln [phi + (1 - phi) MP/2.0736] / d logit phi."""
    ratio = np.asarray(mpx) / 2.0736
    return np.asarray(phi * (1 - phi) * (1 - ratio) / (phi + (1 - phi) * ratio))
