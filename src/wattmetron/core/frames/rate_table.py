"""The reliable frame time of whole catalogues, by tables over x = ln(t_c/t_g).

For one game, measure and chance, ``quantile_ln - ln t_g`` depends on x, both sides' standard
deviations and their covariance alone. It is tabulated on a fixed grid of x for each such triple (so
that an answer never depends on what else is asked) and interpolated by cubics; the error stays
below 1e-6 in ln. Ray tracing and too little video memory make the graphics side's standard
deviation a continuous quantity; there it is interpolated too, on a fixed grid of its own.
"""

from dataclasses import dataclass

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray
from scipy.special import ndtri

from wattmetron.core.frames.chance import Curve, Measure, curve, curves_of, quantile_ln
from wattmetron.core.keep import Keep
from wattmetron.core.lazy import GrowingRows

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
SD_STEP = 0.005
STEPS_PER_SPREAD = {"average": 14, "low": 20}
HALF_WIDTH = 6.0
COARSE = 2
COARSE_NODES = 8
LOT = 16
"""Coarse nodes are solved in lots of so many."""
MOST_ROWS = 4096
"""So many rows are kept for a game at most."""
Triple = tuple[float, ...]
"""Both spreads and the covariance."""
Span = tuple[int, int]
"""The first coarse node and the one after the last."""


class ReliableTable:
    """Tables of one game; rows are added and lengthened as questions need them."""

    grows = True

    def __init__(
        self, line: Curve, v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool
    ) -> None:
        self.continuous = continuous
        self.line = line
        self.chance = chance
        self.z = float(ndtri(chance))
        self.step = min(max(self.line.spread, 0.06), 0.22) / STEPS_PER_SPREAD[measure]
        widest = HALF_WIDTH * np.sqrt(self.line.spread**2 + 2 * 0.45**2)
        self.half = COARSE * (int(np.ceil(widest / self.step / COARSE)) + 1)
        self.x = np.arange(-self.half, self.half + 1) * self.step
        self._reach = self.half // COARSE + COARSE_NODES // 2 - 1
        self._rows: GrowingRows[Triple, TableRow] = GrowingRows(MOST_ROWS)

    @property
    def nbytes(self) -> int:
        """Bytes of the rows known so far."""
        return len(self._rows) * (self.x.size + 2 * self._reach) * 8 + self.x.nbytes

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
                known = (column[finite] for column in (ln_c, sd_c, ln_g, sd_g, cov))
                result[finite] = self.ln_quantile(*known)
            return result
        if not ln_c.size:
            return result
        x = ln_c - ln_g
        span = self._span(float(x.min()), float(x.max()))
        rows, index = self._rows_at(sd_c, sd_g, cov, span)
        return ln_g + self._along_x(rows, index, x, sd_c, sd_g)

    def _along_x(self, rows: Floats, row: Ints, x: Floats, sd_c: Floats, sd_g: Floats) -> Floats:
        position = np.clip(x / self.step + self.half, 1, 2 * self.half - 2.000001)
        left = position.astype(np.int64)
        t = position - left
        flat = rows.ravel()
        base = row * self.x.size + left
        before, here, there, after = (flat[base + k] for k in (-1, 0, 1, 2))
        inside = _cubic(before, here, there, after, t)
        beyond = np.where(
            x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g
        )
        return np.where(np.abs(x) > self.x[-3], beyond, inside)

    def _span(self, low: float, high: float) -> Span:
        """The coarse nodes that values of x from low to high need, in whole lots."""
        first, last = (
            int(np.floor(np.clip(x / self.step, -self.half, self.half) / COARSE)) + self._reach
            for x in (low, high)
        )
        margin = COARSE_NODES // 2 + 1
        return max(0, (first - margin) // LOT * LOT), min(
            2 * self._reach + 1, -(-(last + margin + 1) // LOT) * LOT
        )

    def _rows_at(self, sd_c: Floats, sd_g: Floats, cov: Floats, span: Span) -> tuple[Floats, Ints]:
        """Rows over x for every triple of spreads and covariance that occurs, and the row of each
        element; known within the span of coarse nodes at least.
        """
        if not self.continuous:
            triples, index = _distinct(sd_c, sd_g, cov)
            return self._fine(triples, span), index
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
        nodes = self._fine(wanted, span).reshape(len(pairs), needed.size, self.x.size)
        rows = np.einsum("gb,cbx->cgx", spread, nodes, optimize=True)
        return rows.reshape(-1, self.x.size), of_pair * gs.size + of_g

    def _fine(self, wanted: list[Triple], span: Span) -> Floats:
        """The rows of these triples on the fine grid, shape (triples, nodes)."""
        rows = self._rows.having(
            wanted, lambda row: row.covers(span), lambda short: self._solved(short, span)
        )
        return np.array([row.fine for row in rows])

    def _solved(
        self, short: list[tuple[Triple, "TableRow | None"]], span: Span
    ) -> list["TableRow"]:
        """Solve on every other node of the span and lay polynomials of degree seven between
        them.
        """
        bare = TableRow.bare(2 * self._reach + 1)
        rows = [known or bare for _, known in short]
        fresh = [row.lacking(span) for row in rows]
        x = (np.concatenate(fresh) - self._reach) * (COARSE * self.step)
        triples = np.array([triple for triple, _ in short])
        sd_c, sd_g, cov = np.repeat(triples, [nodes.size for nodes in fresh], axis=0).T
        near = np.abs(x) <= HALF_WIDTH * np.sqrt(self.line.spread**2 + sd_c**2 + sd_g**2)
        solved = np.where(
            x > 0, x + self.line.end_c + self.z * sd_c, self.line.end_g + self.z * sd_g
        )
        solved[near] = quantile_ln(
            self.line, x[near], sd_c[near], 0.0, sd_g[near], self.chance, cov[near]
        )
        ends = np.cumsum([nodes.size for nodes in fresh])[:-1]
        pieces = zip(rows, fresh, np.split(solved, ends), strict=True)
        return [row.lengthened(span, nodes, rates) for row, nodes, rates in pieces]


@dataclass(frozen=True, slots=True)
class TableRow:
    """One triple's values: on coarse nodes as far as they are known (else nan), and laid between
    them.
    """

    coarse: Floats
    known: Span
    fine: Floats

    @classmethod
    def bare(cls, nodes: int) -> "TableRow":
        """A row of which nothing is known yet."""
        nothing = np.full(nodes, np.nan)
        return cls(nothing, (0, 0), nothing)

    def covers(self, span: Span) -> bool:
        return self.known[0] <= span[0] and span[1] <= self.known[1]

    def lacking(self, span: Span) -> Ints:
        """The nodes that become known when the span does; what is known stays in one piece."""
        low, high = self.known if self.known[1] else (span[0], span[0])
        first, end = min(low, span[0]), max(high, span[1])
        return np.concatenate([np.arange(first, low), np.arange(high, end)])

    def lengthened(self, span: Span, nodes: Ints, values: Floats) -> "TableRow":
        """A row with these values at these nodes besides."""
        low, high = self.known if self.known[1] else (span[0], span[0])
        coarse = self.coarse.copy()
        coarse[nodes] = values
        windows = sliding_window_view(coarse, COARSE_NODES)
        fine = np.append((windows @ _FINE_WEIGHTS.T).ravel(), coarse[-COARSE_NODES // 2])
        return TableRow(coarse, (min(low, span[0]), max(high, span[1])), fine)


def frame_ms(t_c: Floats, t_g: Floats, v_c: float, v_g: float, measure: Measure) -> Floats:
    """Mean or 99th percentile of frame time in ms for many pairings of one game; arrays of one
    shape.

    By cubics over ln(t_c/t_g) on the game's curve, within 1e-5 of ``rates.mean_ms`` and
    ``rates.low_ms``.
    """
    line = curve(v_c, v_g, measure)
    ln_g = np.log(t_g)
    x = np.log(t_c) - ln_g
    position = np.clip((x - line.x[0]) / line.step, 1, line.x.size - 2.000001)
    left = position.astype(np.int64)
    before, here, there, after = (line.phi[left + k] for k in (-1, 0, 1, 2))
    inside = _cubic(before, here, there, after, position - left)
    ln_ms = np.where(x > line.x[-3], x + line.end_c, np.where(x < line.x[2], line.end_g, inside))
    return np.asarray(np.exp(ln_g + ln_ms))


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
    position = np.maximum(sds / SD_STEP, 1.0)
    left = np.maximum(position.astype(np.int64) - 1, 1)
    t = position - left
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
    _, first, index = np.unique(codes, return_index=True, return_inverse=True)
    return [tuple(float(column[n]) for column in columns) for n in first], index


def _cubic(before: Floats, here: Floats, there: Floats, after: Floats, t: Floats) -> Floats:
    """Lagrange cubic through four equally spaced values, t in [0, 1) between the middle two."""
    return np.asarray(
        -before * t * (t - 1) * (t - 2) / 6
        + here * (t + 1) * (t - 1) * (t - 2) / 2
        - there * (t + 1) * t * (t - 2) / 2
        + after * (t + 1) * t * (t - 1) / 6
    )


def reliable_table(
    keep: Keep, v_c: float, v_g: float, measure: Measure, chance: float, continuous: bool
) -> ReliableTable:
    """The tables of a game; ``continuous`` where rays are traced or video memory may be short."""
    line = curves_of(keep)(v_c, v_g, measure)
    return keep.once(
        ("table", v_c, v_g, measure, chance, continuous),
        lambda: ReliableTable(line, v_c, v_g, measure, chance, continuous),
    )
