"""What all games with results teach about games in general: the usual margin of publishers, how
uneven their lists are, the power with which work grows with pixels, preset steps, the spread of
frame times, how far games take to designs in their own way.

An empirical Bayes fit. Every game with results is fitted to them alone; what its results say of a
parameter beyond its prior (the prior is divided out of the posterior) is one look at how games are.
The looks make the mean and the spread of the parameter over games, drawn towards their priors.
Margins come from where the listed parts of tiers stand against those fits. Tiers are never used
twice: what is learnt rests on results. The same evidence always teaches the same.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.values.games import PRESETS, Game, Preset
from wattmetron.core.values.published import Side

Floats = NDArray[np.float64]
STEPS = 3


@dataclass(frozen=True, slots=True)
class Shift:
    """How games differ from what is taken for granted about them: on average, and between them,
    both in the parameter's own measure (ln, logit).
    """

    mean: float
    between: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Learnt:
    """What is taken for granted about games, as evidence has moved it; by default nothing has.

    ``margin`` is ln of what publishers leave to spare, ``noise`` how unevenly they do it, in ln.
    ``assumed_share`` and ``assumed_width``: so much of the shift and of the spread counts that
    follow from assumed conditions. ``models``: the spread with which games take to designs in their
    own way, by side; ``designs``: by side and design how far all games take to it otherwise than
    its published speed says, in ln, with the spread of that. ``rankings``: by which published speed
    lists rank, by side. ``movers``: by what is learnt the ids of the games that moved it most.
    """

    margin: float = 0.09
    noise: float = 0.20
    assumed_share: float = 1 / 3
    assumed_width: float = 1.0
    power: Shift = Shift(1.0, 0.05)
    steps_u: tuple[Shift, ...] = (Shift(0.0, 0.4),) * STEPS
    steps_w: tuple[Shift, ...] = (Shift(0.0, 0.4),) * STEPS
    phi: Shift = Shift(0.0, 0.5)
    v_c: Shift = Shift(0.0, 0.5)
    v_g: Shift = Shift(0.0, 0.5)
    models: Mapping[Side, float] = field(
        default_factory=lambda: {"processor": 0.05, "graphics": 0.06}
    )
    designs: Mapping[tuple[Side, str], Shift] = field(default_factory=dict)
    rankings: Mapping[Side, str] = field(default_factory=dict)
    movers: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    games: int = 0
    results: int = 0
    tiers: int = 0

    def design(self, side: Side, design: str) -> Shift:
        """How a game takes to a design, before its own results: in ln, mean and spread."""
        known = self.designs.get((side, design))
        if known is None:
            return Shift(0.0, self.models[side])
        return Shift(known.mean, float(np.hypot(known.between, self.models[side])))


NOTHING_LEARNT = Learnt()


def as_learnt(game: Game, learnt: Learnt) -> Game:
    """A game as it is described, with what is learnt of games in the place of what is usual."""
    if not learnt.games:
        return game
    named = [game.preset(name) for name in PRESETS]
    u = _moved([preset.processor_factor for preset in named], learnt.steps_u)
    w = _moved([preset.graphics_factor for preset in named], learnt.steps_w)
    presets: tuple[Preset, ...] = tuple(
        replace(preset, name=name, processor_factor=float(u[n]), graphics_factor=float(w[n]))
        for n, (name, preset) in enumerate(zip(PRESETS, named, strict=True))
    )
    phi = min(max(game.fixed_share, 0.02), 0.98)
    logit = np.log(phi / (1 - phi)) + learnt.phi.mean
    return replace(
        game,
        presets=presets,
        fixed_share=float(1 / (1 + np.exp(-logit))),
        pixel_power=learnt.power.mean,
        processor_variation=float(min(0.9, game.processor_variation * np.exp(learnt.v_c.mean))),
        graphics_variation=float(min(0.9, game.graphics_variation * np.exp(learnt.v_g.mean))),
    )


def _moved(factors: Sequence[float], shifts: Sequence[Shift]) -> Floats:
    """Preset factors with their steps longer or shorter, 1 at high."""
    steps = np.maximum(np.diff(np.log(factors)), 1e-3) * np.exp([shift.mean for shift in shifts])
    ln = np.concatenate([[0.0], np.cumsum(steps)])
    return np.asarray(np.exp(ln - ln[PRESETS.index("high")]))


@dataclass(frozen=True, slots=True)
class ParameterEvidence:
    """What one game's results say of a parameter, apart from its prior: its distance from what is
    usual, and the variance of that.
    """

    away: float
    variance: float


def look(
    mean: float, variance: float, prior_mean: float, prior_variance: float
) -> ParameterEvidence | None:
    """A posterior with its prior divided out; None where the results say nothing of it."""
    precision = 1 / variance - 1 / prior_variance
    if precision <= 0.02 / prior_variance:
        return None
    return ParameterEvidence(
        (mean / variance - prior_mean / prior_variance) / precision, 1 / precision
    )


def shift_of(
    looks: Iterable[ParameterEvidence | None], usual: Shift, mean_sd: float, weight: float
) -> Shift:
    """Mean and spread over games. The mean is drawn to the usual one with a spread of ``mean_sd``,
    the spread to the usual one as if so many games (``weight``) had shown that. On a grid: the
    marginal likelihood of the looks, whose true values are normal around the mean.
    """
    seen = [each_look for each_look in looks if each_look is not None]
    if not seen:
        return usual
    y = np.array([each_look.away for each_look in seen])
    v = np.array([each_look.variance for each_look in seen])
    spreads = usual.between * np.exp(np.linspace(-1.5, 1.0, 26))
    best, shift = -np.inf, usual
    for spread in spreads:
        w = 1 / (v + spread**2)
        mean = (w @ y + usual.mean / mean_sd**2) / (w.sum() + 1 / mean_sd**2)
        robust = 2.5 * np.log1p(w * (y - mean) ** 2 / 4)
        value = (
            0.5 * np.log(w).sum()
            - robust.sum()
            - 0.5 * ((mean - usual.mean) / mean_sd) ** 2
            - 0.5 * weight * ((usual.between / spread) ** 2 + 2 * np.log(spread))
        )
        if value > best:
            weigh = w / (1 + w * (y - mean) ** 2 / 4)
            mean = (weigh @ y + usual.mean / mean_sd**2) / (weigh.sum() + 1 / mean_sd**2)
            best, shift = value, Shift(float(mean), float(spread))
    return shift
