"""Robust weighted least squares in ln over parts and one offset per source.

A value of part i in source k is ``ln v = s_i + o_k + e`` with e of the source's own spread. What
the catalogue says of a part is one more source without an offset: its value with its own spread.
Weights follow Student's t with four degrees of freedom, scaled to one for a value that fits; a
source's spread follows its fit, held by a prior. Parts are eliminated first (they do not couple but
through offsets), so the cost grows with the number of sources, not of parts.

K. L. Lange, R. J. A. Little, J. M. G. Taylor, "Robust statistical modeling using the t
distribution", Journal of the American Statistical Association 84 (1989).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from wattmetron.core.values.charts import Chart, Disagreement, Reconciled, Source

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
DEGREES = 4.0
"""Student's t with few degrees of freedom: a slip of a source pulls little."""
PRIOR_ROWS = 4.0
"""A source's stated noise counts as if so many of its rows had shown it."""
LEAST_NOISE = 0.005
"""No source is believed to measure better than half a per cent."""
ROUNDS = 25
SETTLED = 1e-7
"""In ln of the speeds; the rounds end earlier when they move no more than this."""


@dataclass(frozen=True, slots=True)
class SpeedPrior:
    """What is known of a part before any chart: ln of its speed and its spread."""

    ln: float
    sd: float


def reconcile(known: Mapping[str, SpeedPrior], charts: Sequence[Chart]) -> Reconciled:
    """One scale from what is known and all charts that are not muted, of one measure.

    ``known`` gives ln of speed and spread by part key; an infinite spread is no knowledge.
    """
    used = [chart for chart in charts if not chart.muted and len(chart.rows) > 1]
    keys = list(dict.fromkeys([*known, *(row.part for chart in used for row in chart.rows)]))
    position = {key: n for n, key in enumerate(keys)}
    part = np.array([position[row.part] for chart in used for row in chart.rows], dtype=np.int64)
    source = np.array([n for n, chart in enumerate(used) for _ in chart.rows], dtype=np.int64)
    value = np.log([row.value for chart in used for row in chart.rows]) if used else np.empty(0)
    tied, groups = _tied(len(keys), {position[key] for key in known}, part, source)
    prior_ln = np.array([known[key].ln if key in known else 0.0 for key in keys])
    prior_weight = np.array([1 / known[key].sd ** 2 if key in known else 0.0 for key in keys])
    fit = _solve(
        prior_ln, prior_weight, part, source, value, np.array([chart.noise for chart in used]), tied
    )
    names = [key for n, key in enumerate(keys) if tied[n]]
    return Reconciled(
        ln={key: float(fit.ln[position[key]]) for key in names},
        sd={key: float(fit.sd[position[key]]) for key in names},
        sources=_sources(charts, used, fit, tied, part, source),
        disagreements=_disagreements(used, fit, tied, part, source, value),
        loose=tuple(tuple(keys[n] for n in group) for group in groups),
        tie=_ties(keys, groups, tied, part),
    )


@dataclass(frozen=True, kw_only=True)
class _Fit:
    ln: Floats
    sd: Floats
    offset: Floats
    noise: Floats
    residual: Floats
    weight: Floats


def _solve(
    prior_ln: Floats,
    prior_weight: Floats,
    part: Ints,
    source: Ints,
    value: Floats,
    noise: Floats,
    tied: NDArray[np.bool_],
) -> _Fit:
    """Alternate weights, spreads and the linear solution until the speeds settle."""
    sources = noise.size
    anchored = tied[part] if part.size else np.empty(0, dtype=bool)
    weight = np.ones(value.size) * anchored
    spread = noise.copy()
    ln, offset = prior_ln.copy(), np.zeros(sources)
    sd = np.where(prior_weight > 0, 1 / np.sqrt(np.maximum(prior_weight, 1e-300)), np.inf)
    residual = np.zeros(value.size)
    if not anchored.any():
        return _Fit(ln=ln, sd=sd, offset=offset, noise=spread, residual=residual, weight=weight)
    for _ in range(ROUNDS):
        before = ln
        ln, sd, offset = _linear(
            prior_ln, prior_weight, part, source, value, weight / spread[source] ** 2
        )
        residual = np.where(anchored, value - ln[part] - offset[source], 0.0)
        score = residual / spread[source]
        weight = anchored * DEGREES / (DEGREES + score**2)
        rows = np.bincount(source, anchored, minlength=sources)
        square = (
            np.bincount(source, weight * residual**2, minlength=sources) * (DEGREES + 1) / DEGREES
        )
        taken = np.bincount(source, weight * (sd[part] / spread[source]) ** 2, minlength=sources)
        free = np.maximum(rows - 1 - taken, 0.0)
        spread = np.maximum(
            LEAST_NOISE, np.sqrt((PRIOR_ROWS * noise**2 + square) / (PRIOR_ROWS + free))
        )
        if np.abs(ln - before).max() < SETTLED:
            break
    return _Fit(ln=ln, sd=sd, offset=offset, noise=spread, residual=residual, weight=weight)


def _linear(
    prior_ln: Floats, prior_weight: Floats, part: Ints, source: Ints, value: Floats, weight: Floats
) -> tuple[Floats, Floats, Floats]:
    """Weighted least squares: parts eliminated, offsets solved, spreads of the parts from the
    inverse.
    """
    parts, sources = prior_ln.size, int(source.max()) + 1
    total = prior_weight + np.bincount(part, weight, minlength=parts)
    inverse = np.where(total > 0, 1 / np.maximum(total, 1e-300), 0.0)
    right = prior_weight * prior_ln + np.bincount(part, weight * value, minlength=parts)
    cross = np.zeros((parts, sources))
    np.add.at(cross, (part, source), weight)
    weights = np.bincount(source, weight, minlength=sources)
    reduced = np.diag(weights) - cross.T @ (inverse[:, None] * cross)
    wanted = np.bincount(source, weight * value, minlength=sources) - cross.T @ (inverse * right)
    cover = np.linalg.pinv(reduced, rcond=1e-13, hermitian=True)
    offset = cover @ wanted
    ln = inverse * (right - cross @ offset)
    reach = inverse[:, None] * cross
    variance = inverse + np.einsum("ij,jk,ik->i", reach, cover, reach, optimize=True)
    return ln, np.sqrt(np.maximum(variance, 0.0)), offset


def _tied(
    parts: int, known: set[int], part: Ints, source: Ints
) -> tuple[NDArray[np.bool_], list[list[int]]]:
    """Which parts hang together with what is known, and the groups that do not."""
    sources = int(source.max()) + 1 if source.size else 0
    root = parts + sources
    anchors = np.array(sorted(known) or [0] * bool(parts), dtype=np.int64)
    ends = (
        np.concatenate([part, anchors]),
        np.concatenate([parts + source, np.full(anchors.size, root)]),
    )
    links = coo_array((np.ones(ends[0].size), ends), shape=(root + 1, root + 1))
    group = connected_components(links, directed=False)[1]
    tied = group[:parts] == group[root]
    loose: dict[int, list[int]] = {}
    for number in np.flatnonzero(~tied).tolist():
        loose.setdefault(int(group[number]), []).append(number)
    return tied, list(loose.values())


def _sources(
    charts: Sequence[Chart],
    used: list[Chart],
    fit: _Fit,
    tied: NDArray[np.bool_],
    part: Ints,
    source: Ints,
) -> tuple[Source, ...]:
    anchored = {n: bool(tied[part[source == n]].all()) for n in range(len(used))}
    position = {chart.id: n for n, chart in enumerate(used)}
    return tuple(
        (
            Source(chart, float(fit.offset[n]), float(fit.noise[n]), anchored[n])
            if (n := position.get(chart.id)) is not None
            else Source(chart, 0.0, chart.noise, False)
        )
        for chart in charts
    )


def _disagreements(
    used: list[Chart], fit: _Fit, tied: NDArray[np.bool_], part: Ints, source: Ints, value: Floats
) -> tuple[Disagreement, ...]:
    """Values more than two of their source's spreads away, the largest first."""
    if not value.size:
        return ()
    start = np.concatenate([[0], np.cumsum([len(chart.rows) for chart in used])])
    score = fit.residual / fit.noise[source]
    order = np.argsort(-np.abs(score), kind="stable")
    return tuple(
        Disagreement(
            chart=used[source[n]],
            position=int(n - start[source[n]]),
            away=float(fit.residual[n]),
            score=float(score[n]),
            weight=float(fit.weight[n]),
        )
        for n in order
        if tied[part[n]] and abs(score[n]) > 2
    )


def _ties(
    keys: list[str], groups: list[list[int]], tied: NDArray[np.bool_], part: Ints
) -> tuple[tuple[str, str], ...]:
    """For each loose group the comparison that would tie it in: the parts with the most values on
    either side.
    """
    counts = (
        np.bincount(part, minlength=len(keys)) if part.size else np.zeros(len(keys), dtype=np.int64)
    )
    if not tied.any():
        return ()
    home = int(np.argmax(np.where(tied, counts, -1)))
    return tuple(
        (keys[max(group, key=lambda number: (counts[number], -number))], keys[home])
        for group in groups
    )
