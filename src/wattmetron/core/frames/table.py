"""The reliable frame time of whole catalogues, by tables over x = ln(t_c/t_g).

For one game, measure and chance, ``quantile_ln - ln t_g`` depends on x and on both sides' standard
deviations alone. It is tabulated on a fixed grid of x for each pair of standard deviations (so that an
answer never depends on what else is asked) and interpolated by cubics; the error stays below 1e-6 in ln.
Ray tracing makes the graphics side's standard deviation a continuous quantity; there it is interpolated too,
on a fixed grid of its own.
"""

from functools import lru_cache

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray
from scipy.special import ndtri

from wattmetron.core.frames.chance import Curve, Measure, curve, quantile_ln

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
SD_STEP = 0.005
STEPS_PER_SPREAD = {"average": 14, "low": 20}
HALF_WIDTH = 6.0
COARSE = 2
COARSE_NODES = 8


class ReliableTable:
    """Tables of one game; grows as new standard deviations are asked for."""

    def __init__(
        self, v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool, cov: float = 0.0
    ) -> None:
        self.continuous = continuous
        self.cov = cov
        self.line: Curve = curve(v_c, v_g, measure)
        self.chance = chance
        self.z = float(ndtri(chance))
        self.step = min(max(self.line.spread, 0.06), 0.22) / STEPS_PER_SPREAD[measure]
        widest = HALF_WIDTH * np.sqrt(self.line.spread**2 + 2 * 0.45**2)
        self.half = COARSE * (int(np.ceil(widest / self.step / COARSE)) + 1)
        self.x = np.arange(-self.half, self.half + 1) * self.step
        self._nodes: dict[tuple[float, float], Floats] = {}

    def ln_quantile(self, ln_c: Floats, sd_c: Floats, ln_g: Floats, sd_g: Floats) -> Floats:
        """ln of the reliable frame time (ms) of flat, equally long arrays."""
        result = np.full(ln_c.shape, np.inf)
        finite = np.isfinite(ln_g) & np.isfinite(ln_c)
        if not finite.all():
            if finite.any():
                result[finite] = self.ln_quantile(ln_c[finite], sd_c[finite], ln_g[finite], sd_g[finite])
            return result
        cs, at_c = np.unique(sd_c, return_inverse=True)
        gs, at_g = np.unique(sd_g, return_inverse=True)
        rows = self._rows(cs, gs)
        return ln_g + self._along_x(
            rows.reshape(-1, self.x.size), at_c * gs.size + at_g, ln_c - ln_g, sd_c, sd_g
        )

    def _along_x(self, rows: Floats, row: Ints, x: Floats, sd_c: Floats, sd_g: Floats) -> Floats:
        place = np.clip(x / self.step + self.half, 1, 2 * self.half - 2.000001)
        left = place.astype(np.int64)
        t = place - left
        flat = rows.ravel()
        base = row * self.x.size + left
        before, here, there, after = (flat[base + k] for k in (-1, 0, 1, 2))
        inside = _cubic(before, here, there, after, t)
        beyond = np.where(x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g)
        return np.where(np.abs(x) > self.x[-3], beyond, inside)

    def _rows(self, cs: Floats, gs: Floats) -> Floats:
        """Rows over x for every pair of standard deviations; shape (len(cs), len(gs), len(x))."""
        if not self.continuous:
            return self._at(cs, gs)
        left, weight = _stencil(gs)
        needed = np.unique(left[:, None] + np.arange(4))
        spread = np.zeros((gs.size, needed.size))
        for k in range(4):
            spread[np.arange(gs.size), np.searchsorted(needed, left + k)] += weight[:, k]
        return np.asarray(np.einsum("gb,cbx->cgx", spread, self._at(cs, needed * SD_STEP), optimize=True))

    def _at(self, cs: Floats, gs: Floats) -> Floats:
        wanted = [(float(a), float(b)) for a in cs for b in gs]
        missing = [pair for pair in wanted if pair not in self._nodes]
        if missing:
            self._fill(missing)
        return np.array([self._nodes[pair] for pair in wanted]).reshape(cs.size, gs.size, self.x.size)

    def _fill(self, missing: list[tuple[float, float]]) -> None:
        """Solve on every other node and lay polynomials of degree seven between them."""
        sd = np.array(missing)
        sd_c, sd_g = sd[:, :1], sd[:, 1:]
        reach = self.half // COARSE + COARSE_NODES // 2 - 1
        x = np.broadcast_to(np.arange(-reach, reach + 1) * (COARSE * self.step), (sd.shape[0], 2 * reach + 1))
        near = np.abs(x) <= HALF_WIDTH * np.sqrt(self.line.spread**2 + sd_c**2 + sd_g**2)
        coarse = np.where(x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g)
        full_c, full_g = np.broadcast_to(sd_c, x.shape), np.broadcast_to(sd_g, x.shape)
        coarse[near] = quantile_ln(self.line, x[near], full_c[near], 0.0, full_g[near], self.chance, self.cov)
        windows = sliding_window_view(coarse, COARSE_NODES, axis=1)
        fine = (windows @ _FINE_WEIGHTS.T).reshape(sd.shape[0], -1)
        rows = np.append(fine, coarse[:, -COARSE_NODES // 2, None], axis=1)
        self._nodes.update(zip(missing, rows, strict=True))


def _lagrange(places: list[float]) -> Floats:
    """Weights of COARSE_NODES even nodes, 0 lying on the first of the middle two, at places in [0, 1)."""
    nodes = np.arange(COARSE_NODES) - (COARSE_NODES // 2 - 1)
    others = ~np.eye(COARSE_NODES, dtype=bool)
    apart = np.where(others, nodes[:, None] - nodes, 1)
    return np.array([np.where(others, t - nodes, 1).prod(axis=1) / apart.prod(axis=1) for t in places])


_FINE_WEIGHTS = _lagrange([k / COARSE for k in range(COARSE)])


def _stencil(sds: Floats) -> tuple[Ints, Floats]:
    """First grid node and the four Lagrange weights for each standard deviation."""
    place = np.maximum(sds / SD_STEP, 1.0)
    left = np.maximum(place.astype(np.int64) - 1, 1)
    t = place - left
    weights = np.stack(
        (
            -(t - 1) * (t - 2) * (t - 3) / 6,
            t * (t - 2) * (t - 3) / 2,
            -t * (t - 1) * (t - 3) / 2,
            t * (t - 1) * (t - 2) / 6,
        ),
        axis=1,
    )
    return left, weights


def _cubic(before: Floats, here: Floats, there: Floats, after: Floats, t: Floats) -> Floats:
    """Lagrange cubic through four equally spaced values, t in [0, 1) between the middle two."""
    return np.asarray(
        -before * t * (t - 1) * (t - 2) / 6
        + here * (t + 1) * (t - 1) * (t - 2) / 2
        - there * (t + 1) * t * (t - 2) / 2
        + after * (t + 1) * t * (t - 1) / 6
    )


@lru_cache(maxsize=256)
def reliable_table(
    v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool, cov: float = 0.0
) -> ReliableTable:
    """The tables of a game, kept for the next question; ``continuous`` where rays are traced, ``cov`` the
    covariance of both sides' errors."""
    return ReliableTable(v_c, v_g, measure, chance, continuous, cov)
