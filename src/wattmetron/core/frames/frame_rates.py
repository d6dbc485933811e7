"""Frame times as the later of two lognormal times.

Processor time X and graphics time Z of a frame are independent lognormals with means t_c and t_g
(ms) and coefficients of variation v_c and v_g; the frame takes max(X, Z). All functions broadcast.
Source: C. E. Clark, Operations Research 9 (1961); W. Margrabe, Journal of Finance 33 (1978).
"""

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr, ndtri, owens_t

Floats = NDArray[np.float64]
LOW_QUANTILE = 0.99
"""The 1 % low is the rate of the 99th percentile of frame times."""
NEWTON_STEPS = 6
"""From the slower side's own quantile these suffice: each doubles the digits that are right."""


class Shape(NamedTuple):
    """Log standard deviations of X and Z and of their ratio."""

    sx: Floats
    sz: Floats
    s: Floats


def shape(v_c: ArrayLike, v_g: ArrayLike) -> Shape:
    """Log standard deviations from coefficients of variation: ``sqrt(ln(1 + v^2))``."""
    sx2 = np.log1p(np.square(np.asarray(v_c, dtype=float)))
    sz2 = np.log1p(np.square(np.asarray(v_g, dtype=float)))
    return Shape(_floats(np.sqrt(sx2)), _floats(np.sqrt(sz2)), _floats(np.sqrt(sx2 + sz2)))


def _log_means(t_c: ArrayLike, t_g: ArrayLike, form: Shape) -> tuple[Floats, Floats]:
    return _floats(np.log(_floats(t_c)) - form.sx**2 / 2), _floats(
        np.log(_floats(t_g)) - form.sz**2 / 2
    )


def _floats(values: ArrayLike) -> Floats:
    return np.asarray(values, dtype=np.float64)


def mean_ms(t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike) -> Floats:
    """Mean frame time E in ms: ``t_c Phi((mx-mz+sx^2)/s) + t_g Phi((mz-mx+sz^2)/s)``.

    >>> round(float(mean_ms(8, 8, .15, .06)), 4)
    8.5125
    """
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    return np.asarray(
        _floats(t_c) * ndtr((mx - mz + form.sx**2) / form.s)
        + _floats(t_g) * ndtr((mz - mx + form.sz**2) / form.s)
    )


def ln_mean_ms(ln_c: Floats, ln_g: Floats, spread: Floats) -> Floats:
    """ln of ``mean_ms`` from the ln of both times and the spread of their ratio (``shape(...).s``):
    the same formula for very many pairs.
    """
    x = ln_c - ln_g
    position, half = x / spread, spread / 2
    return np.asarray(ln_g + np.log(np.exp(x) * ndtr(position + half) + ndtr(half - position)))


def processor_share(t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike) -> Floats:
    """Share of frames limited by the processor, ``Phi((mx - mz)/s)``; the rest is graphics."""
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    return np.asarray(ndtr((mx - mz) / form.s))


def mean_elasticity(t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike) -> Floats:
    """e_c: a processor 1 % faster shortens the mean frame by e_c %; graphics has ``1 - e_c``."""
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    processor = _floats(t_c) * ndtr((mx - mz + form.sx**2) / form.s)
    return np.asarray(processor / mean_ms(t_c, t_g, v_c, v_g))


def low_ms(t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike) -> Floats:
    """99th percentile of frame time in ms: the t that solves ``Phi(A) Phi(D) = 0.99``.

    Newton's method on the logarithm of that product, which is concave in ln t, from below: from the
    later side's own percentile it rises to the root without passing it.
    """
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    low_z = ndtri(LOW_QUANTILE)
    t = np.maximum(mx + low_z * form.sx, mz + low_z * form.sz)
    for _ in range(NEWTON_STEPS):
        a, d = (t - mx) / form.sx, (t - mz) / form.sz
        under_a, under_d = ndtr(a), ndtr(d)
        slope = _density(a) / (form.sx * under_a) + _density(d) / (form.sz * under_d)
        t = t + (np.log(LOW_QUANTILE) - np.log(under_a * under_d)) / slope
    return np.asarray(np.exp(t))


def _density(x: Floats) -> Floats:
    return np.asarray(np.exp(-x * x / 2) / np.sqrt(2 * np.pi))


def low_elasticity(t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike) -> Floats:
    """e_c of the 99th percentile: ``phi(A)Phi(D)/sx`` over its sum with ``Phi(A)phi(D)/sz``."""
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    t = np.log(low_ms(t_c, t_g, v_c, v_g))
    a, d = (t - mx) / form.sx, (t - mz) / form.sz
    processor = _density(a) * ndtr(d) / form.sx
    graphics = ndtr(a) * _density(d) / form.sz
    return np.asarray(processor / (processor + graphics))


def late_share(
    t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike, limit_ms: ArrayLike
) -> Floats:
    """Share of frames that take longer than ``limit_ms``."""
    form = shape(v_c, v_g)
    mx, mz = _log_means(t_c, t_g, form)
    limit = np.log(_floats(limit_ms))
    return np.asarray(1 - ndtr((limit - mx) / form.sx) * ndtr((limit - mz) / form.sz))


def bivariate_normal(h: ArrayLike, k: ArrayLike, rho: ArrayLike) -> Floats:
    """P(X <= h, Y <= k) of standard normals with correlation rho in (-1, 1).

    Source: D. B. Owen, Annals of Mathematical Statistics 27 (1956), by Owen's T.
    """
    h, k, rho = (_floats(value) for value in (h, k, rho))
    h = _floats(np.where(np.abs(h) < 1e-12, 1e-12, h))
    k = _floats(np.where(np.abs(k) < 1e-12, 1e-12, k))
    root = np.sqrt(1 - rho * rho)
    opposite = np.where(h * k > 0, 0.0, 0.5)
    return np.asarray(
        (ndtr(h) + ndtr(k)) / 2
        - owens_t(h, (k - rho * h) / (h * root))
        - owens_t(k, (h - rho * k) / (k * root))
        - opposite
    )


class Capped(NamedTuple):
    """Mean frame time under a floor K, in ms, split into what each side and the cap contribute."""

    mean_ms: Floats
    processor: Floats
    graphics: Floats
    cap: Floats


def capped(
    t_c: ArrayLike, t_g: ArrayLike, v_c: ArrayLike, v_g: ArrayLike, floor_ms: ArrayLike
) -> Capped:
    """Mean of ``max(X, Z, K)`` and the elasticities of processor, graphics and cap (they sum to
    1).
    """
    form = shape(v_c, v_g)
    sx, sz, s = form
    mx, mz = _log_means(t_c, t_g, form)
    a = _floats(np.log(_floats(floor_ms)))
    processor = _floats(t_c) * bivariate_normal(
        (mx + sx**2 - a) / sx, (mx - mz + sx**2) / s, sx / s
    )
    graphics = _floats(t_g) * bivariate_normal((mz + sz**2 - a) / sz, (mz - mx + sz**2) / s, sz / s)
    cap = _floats(floor_ms) * ndtr((a - mx) / sx) * ndtr((a - mz) / sz)
    mean = processor + graphics + cap
    return Capped(np.asarray(mean), processor / mean, graphics / mean, cap / mean)
