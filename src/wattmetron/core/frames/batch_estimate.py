"""Many machines at once for one target: rate and chance as arrays, for lists of candidates."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames import chance, frame_rates
from wattmetron.core.frames.caps import JUST_SHORT, held_by_cap, within_cap
from wattmetron.core.frames.chance import Curves, curve
from wattmetron.core.frames.estimate import INTERVAL, State, state_of
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.games import Game

Floats = NDArray[np.float64]
LEAST_LN_RATIO = float(np.log(0.01))
MOST_COUNTED = 1.5


@dataclass(frozen=True, kw_only=True)
class BatchEstimate:
    """Judged rate (fps shown) with the ends of its 80 % interval, chance of the target and state
    per machine; nan and "short" where nothing runs.
    """

    fps: Floats
    low_fps: Floats
    high_fps: Floats
    chance: Floats
    states: tuple[State, ...]
    ln_ratio: Floats
    """ln r: the rate reached with the brief's sureness over the target's, counted no further than
    it counts.
    """


def glance(
    lineup: Lineup,
    game: Game,
    target: Target,
    brief: Brief,
    curves: Curves = curve,
    *,
    with_ratio: bool = False,
) -> BatchEstimate:
    """The same figures as ``estimate`` for several machines; with ``with_ratio`` the ratio in the
    place of the interval.
    """
    t_c, t_g, sd_c, sd_g, cov, every_v_c, shown = lineup.sides(game, target)
    n = len(lineup)
    fps, probability, ends = np.full(n, np.nan), np.zeros(n), np.full((2, n), np.nan)
    ln_ratio = np.full(n, LEAST_LN_RATIO)
    run = np.isfinite(t_g) & np.isfinite(t_c)
    for v_c in np.unique(every_v_c[run]).tolist():
        runs, v_g = run & (every_v_c == v_c), game.graphics_variation
        statistic = frame_rates.low_ms if target.measure == "low" else frame_rates.mean_ms
        ms_shown = 1000 * shown[runs]
        fps[runs] = ms_shown / statistic(t_c[runs], t_g[runs], v_c, v_g)
        line = curves(v_c, v_g, target.measure)
        errors = (np.log(t_c[runs]), sd_c[runs], np.log(t_g[runs]), sd_g[runs])
        wanted = np.log(ms_shown / target.fps)
        probability[runs] = chance.chance_within(line, *errors, wanted, cov[runs])
        for row, share in zip(ends, () if with_ratio else INTERVAL, strict=not with_ratio):
            row[runs] = ms_shown / np.exp(chance.quantile_ln(line, *errors, share, cov[runs]))
        if with_ratio:
            most = np.log(max(1.0, min(MOST_COUNTED, brief.display.refresh_hz / target.fps)))
            reached = wanted - chance.quantile_ln(line, *errors, brief.chance, cov[runs])
            ln_ratio[runs] = np.clip(reached, LEAST_LN_RATIO, most)
    for each in np.unique(shown).tolist():
        if not within_cap(game, target, int(each)):
            probability[shown == each] = 0.0
        if held_by_cap(game, target, int(each)):
            ln_ratio[shown == each] = np.minimum(ln_ratio[shown == each], JUST_SHORT)
    return BatchEstimate(
        fps=fps,
        low_fps=ends[1],
        high_fps=ends[0],
        chance=probability,
        states=tuple(state_of(float(p), brief.chance) for p in probability),
        ln_ratio=ln_ratio,
    )
