"""The reliable frame time of whole catalogues, by tables over x = ln(t_c/t_g).

For one game, measure and chance, ``quantile_ln - ln t_g`` depends on x, both sides' standard
deviations and their covariance alone. It is tabulated on a fixed grid of x for each such triple (so
that an answer never depends on what else is asked) and interpolated by cubics; the error stays
below 1e-6 in ln. Ray tracing and too little video memory make the graphics side's standard
deviation a continuous quantity; there it is interpolated too, on a fixed grid of its own.
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
LOT = 16
"""Coarse nodes are solved in lots of so many."""
Triple = tuple[float, ...]
"""Both spreads and the covariance."""


class ReliableTable:
    """Tables of one game; grows as new standard deviations are asked for."""

    def __init__(
        self, v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool
    ) -> None:
        self.continuous = continuous
        self.line: Curve = curve(v_c, v_g, measure)
        self.chance = chance
        self.z = float(ndtri(chance))
        self.step = min(max(self.line.spread, 0.06), 0.22) / STEPS_PER_SPREAD[measure]
        widest = HALF_WIDTH * np.sqrt(self.line.spread**2 + 2 * 0.45**2)
        self.half = COARSE * (int(np.ceil(widest / self.step / COARSE)) + 1)
        self.x = np.arange(-self.half, self.half + 1) * self.step
        self._reach = self.half // COARSE + COARSE_NODES // 2 - 1
        self._rows_known: dict[Triple, _Row] = {}

    def ln_quantile(
        self, ln_c: Floats, sd_c: Floats, ln_g: Floats, sd_g: Floats, cov: Floats
    ) -> Floats:
        """ln of the reliable frame time (ms) of flat, equally long arrays; ``cov`` is that of both
        errors.
        """
        result = np.full(ln_c.shape, np.inf)
        finite = np.isfinite(ln_g) & np.isfinite(ln_c)
        if not finite.all():
            if finite.any():
                result[finite] = self.ln_quantile(
                    *(one[finite] for one in (ln_c, sd_c, ln_g, sd_g, cov))
                )
            return result
        if not ln_c.size:
            return result
        x = ln_c - ln_g
        rows, at = self._rows(sd_c, sd_g, cov, self._span(float(x.min()), float(x.max())))
        return ln_g + self._along_x(rows, at, ln_c - ln_g, sd_c, sd_g)

    def _along_x(self, rows: Floats, row: Ints, x: Floats, sd_c: Floats, sd_g: Floats) -> Floats:
        place = np.clip(x / self.step + self.half, 1, 2 * self.half - 2.000001)
        left = place.astype(np.int64)
        t = place - left
        flat = rows.ravel()
        base = row * self.x.size + left
        before, here, there, after = (flat[base + k] for k in (-1, 0, 1, 2))
        inside = _cubic(before, here, there, after, t)
        beyond = np.where(
            x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g
        )
        return np.where(np.abs(x) > self.x[-3], beyond, inside)

    def _span(self, low: float, high: float) -> tuple[int, int]:
        """The coarse nodes that values of x from low to high need, in whole lots."""
        first, last = (
            int(np.floor(np.clip(x / self.step, -self.half, self.half) / COARSE)) + self._reach
            for x in (low, high)
        )
        margin = COARSE_NODES // 2 + 1
        return max(0, (first - margin) // LOT * LOT), min(
            2 * self._reach + 1, -(-(last + margin + 1) // LOT) * LOT
        )

    def _rows(
        self, sd_c: Floats, sd_g: Floats, cov: Floats, span: tuple[int, int]
    ) -> tuple[Floats, Ints]:
        """Rows over x for every triple of spreads and covariance that occurs, and the row of each
        element; known within the span of coarse nodes at least.
        """
        if not self.continuous:
            triples, at = _distinct(sd_c, sd_g, cov)
            return self._at(triples, span), at
        pairs, of_pair = _distinct(sd_c, cov)
        gs, of_g = np.unique(sd_g, return_inverse=True)
        left, weight = _stencil(gs)
        needed = np.unique(left[:, None] + np.arange(4))
        spread = np.zeros((gs.size, needed.size))
        for k in range(4):
            spread[np.arange(gs.size), np.searchsorted(needed, left + k)] += weight[:, k]
        wanted: list[Triple] = [
            (c, g * SD_STEP, joint) for c, joint in pairs for g in needed.tolist()
        ]
        nodes = self._at(wanted, span).reshape(len(pairs), needed.size, self.x.size)
        rows = np.einsum("gb,cbx->cgx", spread, nodes, optimize=True)
        return rows.reshape(-1, self.x.size), of_pair * gs.size + of_g

    def _at(self, wanted: list[Triple], span: tuple[int, int]) -> Floats:
        missing = [
            one
            for one in dict.fromkeys(wanted)
            if not (one in self._rows_known and self._rows_known[one].covers(span))
        ]
        if missing:
            self._fill(missing, span)
        return np.array([self._rows_known[one].fine for one in wanted])

    def _fill(self, missing: list[Triple], span: tuple[int, int]) -> None:
        """Solve on every other node of the span and lay polynomials of degree seven between
        them.
        """
        rows = [self._rows_known.get(one) or self._new_row(one) for one in missing]
        fresh = [row.extended(span) for row in rows]
        x = (np.concatenate(fresh) - self._reach) * (COARSE * self.step)
        sd_c, sd_g, cov = np.repeat(np.array(missing), [one.size for one in fresh], axis=0).T
        near = np.abs(x) <= HALF_WIDTH * np.sqrt(self.line.spread**2 + sd_c**2 + sd_g**2)
        found = np.where(
            x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g
        )
        found[near] = quantile_ln(
            self.line, x[near], sd_c[near], 0.0, sd_g[near], self.chance, cov[near]
        )
        at = 0
        for triple, row, own in zip(missing, rows, fresh, strict=True):
            row.coarse[own] = found[at : at + own.size]
            at += own.size
            row.lay()
            self._rows_known[triple] = row

    def _new_row(self, triple: Triple) -> "_Row":
        return _Row(np.full(2 * self._reach + 1, np.nan))


class _Row:
    """One triple's values: on coarse nodes as far as they are known (else nan), and laid between
    them.
    """

    def __init__(self, coarse: Floats) -> None:
        self.coarse = coarse
        self.known = (0, 0)
        self.fine = coarse

    def covers(self, span: tuple[int, int]) -> bool:
        return self.known[0] <= span[0] and span[1] <= self.known[1]

    def extended(self, span: tuple[int, int]) -> Ints:
        """The nodes that become known when the span does; what is known stays in one piece."""
        low, high = self.known if self.known[1] else (span[0], span[0])
        self.known = min(low, span[0]), max(high, span[1])
        return np.concatenate([np.arange(self.known[0], low), np.arange(high, self.known[1])])

    def lay(self) -> None:
        windows = sliding_window_view(self.coarse, COARSE_NODES)
        self.fine = np.append((windows @ _FINE_WEIGHTS.T).ravel(), self.coarse[-COARSE_NODES // 2])


def frame_ms(t_c: Floats, t_g: Floats, v_c: float, v_g: float, measure: Measure) -> Floats:
    """Mean or 99th percentile of frame time in ms for many pairings of one game; arrays of one
    shape.

    By cubics over ln(t_c/t_g) on the game's curve, within 1e-5 of ``rates.mean_ms`` and
    ``rates.low_ms``.
    """
    line = curve(v_c, v_g, measure)
    ln_g = np.log(t_g)
    x = np.log(t_c) - ln_g
    place = np.clip((x - line.x[0]) / line.step, 1, line.x.size - 2.000001)
    left = place.astype(np.int64)
    before, here, there, after = (line.phi[left + k] for k in (-1, 0, 1, 2))
    inside = _cubic(before, here, there, after, place - left)
    found = np.where(x > line.x[-3], x + line.end_c, np.where(x < line.x[2], line.end_g, inside))
    return np.asarray(np.exp(ln_g + found))


def _lagrange(places: list[float]) -> Floats:
    """Weights of COARSE_NODES even nodes, 0 lying on the first of the middle two, at places in [0,
    1).
    """
    nodes = np.arange(COARSE_NODES) - (COARSE_NODES // 2 - 1)
    others = ~np.eye(COARSE_NODES, dtype=bool)
    apart = np.where(others, nodes[:, None] - nodes, 1)
    return np.array(
        [np.where(others, t - nodes, 1).prod(axis=1) / apart.prod(axis=1) for t in places]
    )


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


def _distinct(*columns: Floats) -> tuple[list[tuple[float, ...]], Ints]:
    """The distinct rows of equally long columns, and which of them each row is."""
    codes = np.zeros(columns[0].size, dtype=np.int64)
    for column in columns:
        if (column == column[:1]).all():
            continue
        _, code = np.unique(column, return_inverse=True)
        codes = codes * (int(code.max(initial=0)) + 1) + code
    _, first, at = np.unique(codes, return_index=True, return_inverse=True)
    return [tuple(float(column[n]) for column in columns) for n in first], at


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
    v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool
) -> ReliableTable:
    """The tables of a game, kept for the next question; ``continuous`` where rays are traced or
    video memory may be short.
    """
    return ReliableTable(v_c, v_g, measure, chance, continuous)
