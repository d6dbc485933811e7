"""What published tiers say about a game's work: C on the processor side, G on the graphics side.

A tier bounds the work from one side, as tightly as the market allowed: the listed part's time fits
the frame budget less a margin, and the next weaker part's does not. With b = ln(1000/fps) - 0.09
and gap the log distance to the next weaker part on sale at the time, ln t lies within [b - gap, b]:
its middle b - gap/2 is taken, with the band's width as uncertainty. Where a list names several
parts the weakest of them bounds from above.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.requirements.tiers import Row, TierTable, pixel_factor, raster_ms
from wattmetron.core.speeds.scale import Scale, Standing
from wattmetron.core.values.games import Game, PresetName
from wattmetron.core.values.published import SIDES, Assumed, Settled, Side

Floats = NDArray[np.float64]
MARGIN = 0.09
NOISE = 0.20
OPEN_GAP = 0.7
"""The band's width where nothing weaker was on sale, or the next weaker part is further away than
that.
"""
MOST_LEAD = 0.14
LEAST_RASTER_SHARE = 0.2


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One tier's word on one side: work in ms on the reference part at high, and how it came about.

    Spreads are standard deviations in ln. ``gap`` is how far below the bar the next weaker part on
    sale stands, which did not suffice and is named; ``lead`` is how far the bar stands above the
    weakest listed, which did: ln of the bar's time lies in [b - gap, b - lead].
    """

    side: Side
    row: Row
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


def informed_items(
    game: Game, table: TierTable, scale: Scale, day: date | None
) -> tuple[Item, ...]:
    """What each tier of a game says on either side."""
    return tuple(
        item
        for row in table.of_game(game.id)
        for side in SIDES
        if (item := _item(table, scale, side, row, day)) is not None
    )


def _item(table: TierTable, scale: Scale, side: Side, number: int, day: date | None) -> Item | None:
    bars, row = table.sides[side], table.rows[number]
    bar = float(bars.bar[number])
    if not np.isfinite(bar):
        return None
    weakest = min(
        (float(bars.ln[each_bar]) for each_bar in bars.of_row(number) if bars.used[each_bar]),
        default=bar,
    )
    gap, weaker = _gap(table, scale, side, number, bar, weakest, day)
    settled = row.settled
    budget = 1000 / settled.fps * float(np.exp(-MARGIN))
    share = 1.0
    if side == "processor":
        factor = 100 * float(np.exp(-bar)) * row.game.preset(settled.preset).processor_factor
    else:
        rendered = float(table.rendered_mpx[number])
        share = max(LEAST_RASTER_SHARE, 1 - float(table.ray_share[number]))
        factor = (
            100
            * float(np.exp(-bar))
            * raster_ms(row.game, settled, rendered)
            / row.game.graphics_ms
            / share
        )
    shift, assumed = _assumed(row.game, settled, side)
    factor *= float(np.exp(shift))
    uneven = float(bars.uneven[number])
    lead = min(bar - weakest, gap, MOST_LEAD)
    sd = float(
        np.sqrt(
            NOISE**2 + (gap - lead) ** 2 / 12 + assumed**2 + uneven**2 + bars.bar_sd[number] ** 2
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
    )


def _gap(
    table: TierTable,
    scale: Scale,
    side: Side,
    number: int,
    bar: float,
    weakest: float,
    day: date | None,
) -> tuple[float, str]:
    """The log distance from the bar to the next standing on sale on that day below the weakest
    listed, and its name.
    """
    sold: list[Standing] = [
        standing
        for standing in scale.of(side)
        if standing.placed is None and (day is None or standing.on_sale(day))
    ]
    if not sold:
        return OPEN_GAP, ""
    speeds = table.speeds(side, sold, np.full(len(sold), number))
    below = np.where(speeds < weakest - 1e-9, speeds, -np.inf)
    best = int(np.argmax(below))
    gap = bar - float(below[best])
    return (gap, sold[best].name) if gap < OPEN_GAP else (OPEN_GAP, "")


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
