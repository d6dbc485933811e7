"""A game after the fit of all its evidence, with the joint spread of its parameters."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames.work import REFERENCE_MPX
from wattmetron.core.game_fit.learned_priors import Learnt
from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.games import PRESETS, FromOthers, Game, PresetName, SpreadOfSides
from wattmetron.core.values.published import Side
from wattmetron.core.values.tails import LOW_FORM_SD, tail_slope

Floats = NDArray[np.float64]
Place = tuple[Side, str, str]
"""Side, *part* or *design*, and its key."""

# The order of the parameters: ln C, ln G, ln of three steps of u, ln of three steps of w, logit
# phi, ln v_c, ln v_g, pixel power
C, G, U, W, PHI, VC, VG, POWER = 0, 1, slice(2, 5), slice(5, 8), 8, 9, 10, 11
COUNT = 12
REFERENCE = PRESETS.index("high")


def _steps(position: int) -> Floats:
    return np.array([(position > n) * 1.0 - (n < REFERENCE) * 1.0 for n in range(3)])


_STEPS = {preset: _steps(position) for position, preset in enumerate(PRESETS)}


def steps_between(preset: PresetName) -> Floats:
    """Signs of the three steps that lead from *high* to a preset: minus one below it, plus one
    above.
    """
    return _STEPS[preset]


@dataclass(frozen=True, slots=True, kw_only=True)
class FittedGame(Game):
    """``cover`` is the covariance of the parameters, shape (n, n): twelve of the game, then the
    errors of parts and designs that stand in its results, at ``places`` with the values ``errors``.
    ``steps_u`` and ``steps_w`` are the preset steps in ln, lowest first.
    """

    cover: Floats
    steps_u: tuple[float, float, float]
    steps_w: tuple[float, float, float]
    places: Mapping[Place, int]
    errors: tuple[float, ...]
    learnt: Learnt

    @property
    def from_others(self) -> FromOthers | None:
        learnt = self.learnt
        if not learnt.games:
            return None
        return FromOthers(learnt.results, learnt.games, learnt.margin, learnt.power.mean)

    def __hash__(self) -> int:
        return hash((self.id, self.processor_ms, self.graphics_ms, self.errors))

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, FittedGame)
            and hash(self) == hash(other)
            and self.places == other.places
            and self.learnt == other.learnt
            and bool((self.cover == other.cover).all())
        )

    def affinity(self, side: Side, key: str, design: str) -> Affinity:
        """What the results told about a part: of itself, of its design alone, or what other games'
        results told about the design.
        """
        usual = self.learnt.design(side, design or key)
        single, shared = (
            self.places.get((side, "part", key)),
            self.places.get((side, "design", design or key)),
        )
        places = tuple(position for position in (single, shared) if position is not None)
        shift = sum(self.errors[position - COUNT] for position in places)
        if shared is None:
            shift += usual.mean
        return Affinity(shift, places, single is None, shared is None, usual.between)

    def spread(
        self,
        preset: PresetName,
        rendered_mpx: float,
        chip: Affinity = UNSEEN,
        card: Affinity = UNSEEN,
        low: bool = False,
    ) -> SpreadOfSides:
        """Standard deviations in ln of both sides' work at a preset and resolution, and their
        covariance; for the low with the spread of how much frame times vary.
        """
        row = np.zeros((2, len(self.cover)))
        row[0, C] = row[1, G] = 1.0
        signs = steps_between(preset)
        row[0, U] = signs * np.array(self.steps_u)
        row[1, W] = signs * np.array(self.steps_w)
        row[1, PHI] = phi_slope(self.fixed_share, rendered_mpx, self.pixel_power)
        row[1, POWER] = power_slope(self.fixed_share, rendered_mpx, self.pixel_power)
        if low:
            row[0, VC] = tail_slope(self.processor_variation)
            row[1, VG] = tail_slope(self.graphics_variation)
        row[0, list(chip.places)] = row[1, list(card.places)] = 1.0
        cover = row @ self.cover @ row.T
        form = LOW_FORM_SD**2 if low else 0.0
        first, second = (float(np.sqrt(cover[n, n] + form)) for n in (0, 1))
        return SpreadOfSides(first, second, float(cover[0, 1]))


@dataclass(frozen=True, slots=True, kw_only=True)
class UninformedGame(FittedGame):
    """A game without lists and results: as it is described, with all that is not known of it."""

    def affinity(self, side: Side, key: str, design: str) -> Affinity:
        """Nothing is told of any part."""
        return UNSEEN


def phi_slope(phi: float, mpx: float | Floats, power: float) -> Floats:
    """d ln [phi + (1 - phi) (MP/2.0736)^power] / d logit phi."""
    ratio = (np.asarray(mpx) / REFERENCE_MPX) ** power
    return np.asarray(phi * (1 - phi) * (1 - ratio) / (phi + (1 - phi) * ratio))


def power_slope(phi: float, mpx: float | Floats, power: float) -> Floats:
    """d ln [phi + (1 - phi) (MP/2.0736)^power] / d power."""
    ln = np.log(np.asarray(mpx) / REFERENCE_MPX)
    grown = (1 - phi) * np.exp(power * ln)
    return np.asarray(grown * ln / (phi + grown))
