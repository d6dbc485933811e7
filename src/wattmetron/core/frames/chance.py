"""How sure a frame rate is: chances and quantiles under the errors of both sides.

A frame statistic (mean or 99th percentile) F(t_c, t_g) grows in step with both times, so with x =
ln(t_c/t_g) it is ``ln F = ln t_g + phi(x)``. The errors of ln t_c and ln t_g are independent
normals. The curve F = 1 runs through (u, w) = (x - phi, -phi) in (ln t_c, ln t_g), and the chance
that F stays within a limit is the integral over x of ``density_c(u) Phi_g(w) du/dx`` along it. The
integrand is smooth at the scale of the spreads, so an even sum over x converges like that of a
normal density. (Nodes in one side's error alone would meet a cliff where that side uses up the
limit by itself.)
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr, ndtri

from wattmetron.core.frames import frame_rates
from wattmetron.core.keep import Keep

Floats = NDArray[np.float64]
Measure = Literal["average", "low"]

_REACH_SD = 6.0
"""So many standard deviations on either side are integrated; what lies beyond is below 1e-8."""
_WIDEST_LEAD = 8.0
"""From e^8 on the slower side alone makes the frame: the curve is straight there."""
_MAX_STEPS = 40
MOST_CORRELATION = 0.97
"""Nearer to one the conditional spread vanishes and the sum would need ever smaller steps."""
_TOLERANCE = 1e-6
"""Of a chance; far finer than what is shown."""


@dataclass(frozen=True, kw_only=True)
class Curve:
    """phi(x) = ln F - ln t_g of one game on an even grid, and the curve F = 1 as (u, w) = (ln t_c,
    ln t_g).

    ``slope`` is dphi/dx (the processor's elasticity); beyond the grid phi is ``end_g`` to the left
    and ``x + end_c`` to the right.
    """

    x: Floats
    phi: Floats
    slope: Floats
    u: Floats
    step: float
    scale: float
    spread: float
    end_c: float
    end_g: float

    def at(self, x: ArrayLike) -> Floats:
        """phi(x), by its asymptotes outside the grid."""
        x = np.asarray(x, dtype=float)
        inside = np.interp(x, self.x, self.phi)
        return np.where(x > self.x[-1], x + self.end_c, np.where(x < self.x[0], self.end_g, inside))


def curve(v_c: float, v_g: float, measure: Measure) -> Curve:
    """The curve of a game with these variations of frame time."""
    spread = float(frame_rates.shape(v_c, v_g).s)
    step = min(spread, 0.05) / 8
    x = np.arange(-_WIDEST_LEAD - 4.0, 9 * spread, step)
    average = measure == "average"
    statistic = frame_rates.mean_ms if average else frame_rates.low_ms
    elasticity = frame_rates.mean_elasticity if average else frame_rates.low_elasticity
    near = x > -9 * spread
    phi, slope = np.empty_like(x), np.zeros_like(x)
    phi[near] = np.log(statistic(np.exp(x[near]), 1.0, v_c, v_g))
    slope[near] = elasticity(np.exp(x[near]), 1.0, v_c, v_g)
    phi[~near] = phi[near][0]
    slope[-1] = 1.0
    scale = spread if average else spread / 3
    return Curve(
        x=x,
        phi=phi,
        slope=slope,
        u=x - phi,
        step=step,
        scale=scale,
        spread=spread,
        end_c=float(phi[-1] - x[-1]),
        end_g=float(phi[0]),
    )


Curves = Callable[[float, float, Measure], Curve]
"""Gives ``curve`` of two variations and a measure, perhaps one that was made before."""


def curves_of(keep: Keep) -> Curves:
    """Curves that are kept."""

    def kept(v_c: float, v_g: float, measure: Measure) -> Curve:
        return keep.once(("curve", v_c, v_g, measure), lambda: curve(v_c, v_g, measure))

    return kept


def chance_within(
    line: Curve,
    ln_c: ArrayLike,
    sd_c: ArrayLike,
    ln_g: ArrayLike,
    sd_g: ArrayLike,
    ln_limit: ArrayLike,
    cov: ArrayLike = 0.0,
) -> Floats:
    """P(F <= limit) for best estimates ``ln_c``, ``ln_g`` (ln ms), their standard deviations and
    their covariance; broadcasts. Given the processor's error the graphics side's is normal again.
    """
    c, sc, g, sg, limit, joint = np.broadcast_arrays(
        *(np.asarray(value, dtype=float) for value in (ln_c, sd_c, ln_g, sd_g, ln_limit, cov))
    )
    rho = np.clip(joint / (sc * sg), -MOST_CORRELATION, MOST_CORRELATION)
    drift = rho * sg
    sg = sg * np.sqrt(1 - rho**2)
    c = np.maximum(c, g - _WIDEST_LEAD) - limit
    g = g - limit
    start = np.searchsorted(line.u, c - _REACH_SD * sc)
    end = np.minimum(np.searchsorted(line.u, c + _REACH_SD * sc), line.x.size - 1)
    stride = np.maximum(
        1, (np.minimum(np.minimum(sc, sg), line.scale) / 1.6 / line.step).astype(np.int64)
    )
    count = int(((end - start) // stride).max(initial=0)) + 2
    nodes = np.minimum(start[..., None] + stride[..., None] * np.arange(count), line.x.size - 1)
    score = (line.u[nodes] - c[..., None]) / sc[..., None]
    density = np.exp(-score * score / 2) * (1 - line.slope[nodes])
    within = ndtr((-line.phi[nodes] - g[..., None] - drift[..., None] * score) / sg[..., None])
    width = stride * line.step / (sc * np.sqrt(2 * np.pi))
    return np.asarray(np.clip((density * within).sum(axis=-1) * width, 0.0, 1.0))


def quantile_ln(
    line: Curve,
    ln_c: ArrayLike,
    sd_c: ArrayLike,
    ln_g: ArrayLike,
    sd_g: ArrayLike,
    chance: ArrayLike,
    cov: ArrayLike = 0.0,
) -> Floats:
    """ln of the F (ms) that is not exceeded with this chance; inverts ``chance_within``.

    The reliable frame rate at a chance is ``1000 / exp(quantile_ln)``. Infinite times give inf.
    """
    c, sc, g, sg, p, joint = np.broadcast_arrays(
        *(np.asarray(value, dtype=float) for value in (ln_c, sd_c, ln_g, sd_g, chance, cov))
    )
    result = np.full(c.shape, np.inf)
    finite = np.isfinite(c) & np.isfinite(g)
    if finite.any():
        result[finite] = _solve(
            line, c[finite], sc[finite], g[finite], sg[finite], p[finite], joint[finite]
        )
    return result


def _solve(
    line: Curve, c: Floats, sc: Floats, g: Floats, sg: Floats, p: Floats, joint: Floats
) -> Floats:
    """Regula falsi in normal scores, kept inside a bracket."""
    z = ndtri(p)
    low = np.maximum(c + line.end_c + z * sc, g + line.end_g + z * sg) - 1e-9
    both = ndtri(np.where(joint == 0, np.sqrt(p), (1 + p) / 2))
    high = line.at((c + both * sc) - (g + both * sg)) + g + both * sg + 2e-3
    x = c - g
    tilt = np.clip((line.at(x + 1e-3) - line.at(x - 1e-3)) / 2e-3, 0, 1)
    slope_sd = np.sqrt(
        np.maximum((tilt * sc) ** 2 + ((1 - tilt) * sg) ** 2 + 2 * tilt * (1 - tilt) * joint, 1e-10)
    )
    y = np.clip(line.at(x) + g + z * slope_sd, low, high)
    active = np.arange(y.size)
    step_sd = slope_sd.copy()
    last_y, last_miss = y.copy(), np.full(y.shape, np.nan)
    for _ in range(_MAX_STEPS):
        i = active
        score = ndtri(
            np.clip(chance_within(line, c[i], sc[i], g[i], sg[i], y[i], joint[i]), 1e-15, 1 - 1e-15)
        )
        miss = z[i] - score
        over = miss < 0
        high[i] = np.where(over, np.minimum(high[i], y[i]), high[i])
        low[i] = np.where(over, low[i], np.maximum(low[i], y[i]))
        moved = y[i] - last_y[i]
        change = last_miss[i] - miss
        with np.errstate(invalid="ignore", divide="ignore"):
            secant = moved / change
        usable = np.isfinite(secant) & (secant > 0)
        step_sd[i] = np.where(usable, secant, step_sd[i])
        proposal = y[i] + miss * step_sd[i]
        outside = (proposal <= low[i]) | (proposal >= high[i])
        proposal = np.where(outside, (low[i] + high[i]) / 2, proposal)
        last_y[i], last_miss[i] = y[i], miss
        settled = (np.abs(miss) < _TOLERANCE) | (np.abs(proposal - y[i]) < 1e-10)
        y[i] = np.where(np.abs(miss) < _TOLERANCE, y[i], proposal)
        active = i[~settled]
        if not active.size:
            break
    return y
