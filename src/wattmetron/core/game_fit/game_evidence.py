"""What published tiers say about a game's work: C on the processor side, G on the graphics side.

A tier bounds the work from one side, as tightly as the market allowed: the listed part's time fits
the frame budget less a margin, and the next weaker part's does not. With b = ln(1000/fps) - margin
and gap the log distance to the next weaker part on sale at the time, ln t lies within [b - gap, b]:
its middle b - gap/2 is taken, with the band's width as uncertainty. Where a list names several
parts the weakest of them bounds from above.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT, Learnt
from wattmetron.core.requirements.tiers import PlacedTier, TierTable, pixel_factor, raster_ms
from wattmetron.core.speeds.speed_scale import Scale, Standing
from wattmetron.core.values.games import Game, PresetName
from wattmetron.core.values.published import SIDES, Assumed, Settled, Side

Floats = NDArray[np.float64]
OPEN_GAP = 0.7
"""The band's width where nothing weaker was on sale, or the next weaker part is further away than
that.
"""
MOST_LEAD = 0.14
LEAST_GAP, CLEARLY = 0.02, 3
MIXED = "nothing in common"
LEAST_RASTER_SHARE = 0.2


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One tier's word on one side: work in ms on the reference part at high, and how it came about.

    Spreads are standard deviations in ln. ``gap`` is how far below the bar the next weaker part on
    sale stands, which did not suffice and is named; ``lead`` is how far the bar stands above the
    weakest listed, which did: ln of the bar's time lies in [b - gap, b - lead]. ``shift`` is what
    assumed conditions add to ln of the work before any of it is discounted; ``ranked_by`` is the
    published speed by which the list ranks, empty where it does not show.
    """

    side: Side
    row: PlacedTier
    bar: float
    budget_ms: float
    gap: float
    lead: float
    next_weaker: str
    factor: float
    work_ms: float
    sd: float
    assumed_sd: float
    uneven_sd: float
    bar_sd: float
    shift: float
    ranked_by: str


def informed_items(
    game: Game,
    table: TierTable,
    scale: Scale,
    day: date | None,
    learnt: Learnt = NOTHING_LEARNT,
) -> tuple[Item, ...]:
    """What each tier of a game says on either side."""
    return tuple(
        item
        for row in table.of_game(game.id)
        for side in SIDES
        if (item := _item(game, table, scale, side, row, day, learnt)) is not None
    )


def _item(
    game: Game,
    table: TierTable,
    scale: Scale,
    side: Side,
    number: int,
    day: date | None,
    learnt: Learnt,
) -> Item | None:
    bars, row = table.sides[side], table.rows[number]
    bar = float(bars.bar[number])
    if not np.isfinite(bar):
        return None
    weakest = min(
        (float(bars.ln[each_bar]) for each_bar in bars.of_row(number) if bars.used[each_bar]),
        default=bar,
    )
    gap, weaker, ranked = _weaker(
        table, scale, side, number, bar, day, learnt.rankings.get(side, "")
    )
    settled = row.settled
    budget = 1000 / settled.fps * float(np.exp(-learnt.margin))
    share = 1.0
    if side == "processor":
        factor = 100 * float(np.exp(-bar)) * game.preset(settled.preset).processor_factor
    else:
        rendered = float(table.rendered_mpx[number])
        share = max(LEAST_RASTER_SHARE, 1 - float(table.ray_share[number]))
        factor = (
            100
            * float(np.exp(-bar))
            * raster_ms(game, settled, rendered)
            / game.graphics_ms
            / share
        )
    shift, assumed = _assumed(game, settled, side)
    assumed *= learnt.assumed_width
    factor *= float(np.exp(shift * learnt.assumed_share))
    uneven = float(bars.uneven[number])
    lead = min(bar - weakest, gap, MOST_LEAD)
    sd = float(
        np.sqrt(
            learnt.noise**2
            + (gap - lead) ** 2 / 12
            + assumed**2
            + uneven**2
            + bars.bar_sd[number] ** 2
        )
    )
    work_ms = budget * float(np.exp(-(gap + lead) / 2)) / factor
    return Item(
        side=side,
        row=row,
        bar=bar,
        budget_ms=budget,
        gap=gap,
        lead=lead,
        next_weaker=weaker,
        factor=factor,
        work_ms=work_ms,
        sd=sd,
        assumed_sd=assumed,
        uneven_sd=uneven,
        bar_sd=float(bars.bar_sd[number]),
        shift=shift,
        ranked_by=ranked,
    )


class _Weaker(NamedTuple):
    """How far below the bar the next part stands that did not suffice, its name (empty: none), and
    by what the list ranks (empty: that is not known).
    """

    gap: float
    name: str
    ranked_by: str


RANKINGS: Mapping[Side, tuple[str, ...]] = {
    "processor": ("one core", "all cores"),
    "graphics": ("speed",),
}
"""Published speeds by which a publisher may rank, as columns of the speeds."""


def _weaker(
    table: TierTable,
    scale: Scale,
    side: Side,
    number: int,
    bar: float,
    day: date | None,
    usual: str,
) -> _Weaker:
    """The next standing on sale on that day that did not suffice. Where the list shows by which
    speed it ranks, nothing below it in that speed did; else, for publishers rank plainly and not by
    this game's blend, what is slower than everything listed in every published speed.
    """
    sold: list[Standing] = [
        standing
        for standing in scale.of(side)
        if standing.placed is None and (day is None or standing.on_sale(day))
    ]
    if not sold:
        return _Weaker(OPEN_GAP, "", "")
    listed = _listed(table, side, number)
    offered = np.array([standing.speeds for standing in sold], dtype=float)
    ranked = ranking_of(side, listed, offered, usual)
    least = listed.min(axis=0) - 1e-9
    if ranked:
        column = RANKINGS[side].index(ranked)
        slower = offered[:, column] < least[column]
    else:
        slower = (offered < least).all(axis=1)
    speeds = table.speeds(side, sold, np.full(len(sold), number))
    below = np.where(slower, speeds, -np.inf)
    best = int(np.argmax(below))
    gap = max(LEAST_GAP, bar - float(below[best]))
    return (
        _Weaker(gap, sold[best].name, ranked) if gap < OPEN_GAP else _Weaker(OPEN_GAP, "", ranked)
    )


def ranking_of(side: Side, listed: Floats, offered: Floats, usual: str) -> str:
    """By which published speed a list ranks: the one in which its parts stand next to each other on
    the market while in the others many stand between them; ``usual`` where the list itself does not
    say, empty where that is not known; nothing where publishers are known to agree on none (MIXED).
    Speeds of what is listed and of what was on sale, shape
    (n, speeds).
    """
    if usual == MIXED:
        return ""
    names = RANKINGS[side]
    between = skipped(listed, offered)[: len(names)]
    best = int(np.argmin(between))
    others = [count for n, count in enumerate(between) if n != best]
    if len(listed) > 1 and others and min(others) >= 2 * between[best] + CLEARLY:
        return names[best]
    return usual


def skipped(listed: Floats, offered: Floats) -> NDArray[np.int64]:
    """By speed, how many parts on sale stand between the slowest and the fastest of a list."""
    low, high = listed.min(axis=0), listed.max(axis=0)
    return np.asarray(((offered > low + 1e-9) & (offered < high - 1e-9)).sum(axis=0))


def _listed(table: TierTable, side: Side, number: int) -> Floats:
    """The published speeds of what a row lists, shape (n, speeds)."""
    bars = table.sides[side]
    return np.array(
        [
            standing.speeds
            for index in bars.of_row(number)
            if bars.used[index]
            for standing in bars.entries[index].meant
        ],
        dtype=float,
    )


def _assumed(game: Game, settled: Settled, side: Side) -> tuple[float, float]:
    """What assumed conditions add to ln of the work that a tier stands for: mean and spread.

    Each condition is taken as triangular between the ends of its range with its peak at the centre,
    in ln of what it does to the work.
    """
    row = settled.range
    mean, variance = 0.0, 0.0
    for least, centre, most in _ranges(game, settled, side, row):
        low, high = float(np.log(least / centre)), float(np.log(most / centre))
        mean += (low + high) / 3
        variance += (low**2 + high**2 - low * high) / 18
    return mean, float(np.sqrt(variance))


def _ranges(
    game: Game, settled: Settled, side: Side, row: Assumed
) -> Iterator[tuple[float, float, float]]:
    """For every assumed condition the work at the ends of its range and at its centre, in any
    unit.
    """
    if "frame rate" in settled.assumed:
        yield row.least_fps, row.fps, row.most_fps
    if "preset" in settled.assumed:
        low, centre, high = (
            _preset_factor(game, name, side)
            for name in (row.least_preset, row.preset, row.most_preset)
        )
        yield low, centre, high
    if "resolution" in settled.assumed and side == "graphics":
        sizes = (
            (row.least_width_px, row.least_height_px),
            (row.width_px, row.height_px),
            (row.most_width_px, row.most_height_px),
        )
        low, centre, high = (pixel_factor(game, width * height / 1e6) for width, height in sizes)
        yield low, centre, high


def _preset_factor(game: Game, name: PresetName, side: Side) -> float:
    preset = game.preset(name)
    return preset.processor_factor if side == "processor" else preset.graphics_factor
