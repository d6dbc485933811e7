"""What published tiers say about a game's work: C on the processor side, G on the graphics side.

A tier bounds the work from one side, as tightly as the market allowed: the listed part's time fits the frame
budget less a margin, and the next weaker part's does not. With b = ln(1000/fps) - 0.09 and gap the log
distance to the next weaker part on sale at the time, ln t lies within [b - gap, b]: its middle b - gap/2 is
taken, with the band's width as uncertainty.
"""

from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.games.model import Game, PresetName
from wattmetron.core.games.published import SIDES, Settled, Side
from wattmetron.core.games.tiers import Row, TierTable, pixel_factor, raster_ms
from wattmetron.core.scale import Scale, Standing

Floats = NDArray[np.float64]
MARGIN = 0.09
NOISE = 0.20
OPEN_GAP = 0.7
"""The band's width where nothing weaker was on sale, or the next weaker part is further away than that."""
RANGE_SDS = 4.0
LEAST_RASTER_SHARE = 0.2


@dataclass(frozen=True, slots=True)
class Item:
    """One tier's word on one side: work in ms on the reference part at high, and how it came about.

    Spreads are standard deviations in ln; ``gap`` is the band's width in ln; ``next_weaker`` names the part
    that did not suffice, if any was on sale.
    """

    side: Side
    row: Row
    bar: float
    budget_ms: float
    gap: float
    next_weaker: str
    factor: float
    work_ms: float
    sd: float
    assumed_sd: float
    uneven_sd: float


@dataclass(frozen=True, slots=True)
class Informed:
    """A game after the evidence: its workload with what was known before and what the tiers add."""

    game: Game
    before: Game
    items: tuple[Item, ...]


def informed(game: Game, table: TierTable, scale: Scale, day: date | None) -> Informed:
    """The game with C and G weighed between what was known before and its tiers, by inverse variance in ln."""
    items = tuple(
        item
        for row in table.of_game(game.id)
        for side in SIDES
        if (item := _item(table, scale, side, row, day)) is not None
    )
    c, sd_c = _weighed(game.processor_ms, game.processor_work_sd, items, "processor")
    g, sd_g = _weighed(game.graphics_ms, game.graphics_work_sd, items, "graphics")
    after = replace(game, processor_ms=c, processor_work_sd=sd_c, graphics_ms=g, graphics_work_sd=sd_g)
    return Informed(after, game, items)


def _weighed(work_ms: float, sd: float, items: tuple[Item, ...], side: Side) -> tuple[float, float]:
    own = [item for item in items if item.side == side]
    if not own or sd == 0:
        return work_ms, sd
    weights = np.array([1 / sd**2, *(1 / item.sd**2 for item in own)])
    values = np.log([work_ms, *(item.work_ms for item in own)])
    return float(np.exp((weights * values).sum() / weights.sum())), float(1 / np.sqrt(weights.sum()))


def _item(table: TierTable, scale: Scale, side: Side, number: int, day: date | None) -> Item | None:
    bars, row = table.sides[side], table.rows[number]
    bar = float(bars.bar[number])
    if not np.isfinite(bar):
        return None
    gap, weaker = _gap(table, scale, side, number, bar, day)
    settled = row.settled
    budget = 1000 / settled.fps * float(np.exp(-MARGIN))
    share = 1.0
    if side == "processor":
        factor = 100 * float(np.exp(-bar)) * row.game.preset(settled.preset).processor_factor
    else:
        rendered = float(table.rendered_mpx[number])
        share = max(LEAST_RASTER_SHARE, 1 - float(table.ray_share[number]))
        factor = 100 * float(np.exp(-bar)) * raster_ms(row.game, settled, rendered) / row.game.graphics_ms / share
    assumed = _assumed_sd(row.game, settled, side)
    uneven = float(bars.uneven[number])
    sd = float(np.sqrt(NOISE**2 + gap**2 / 12 + assumed**2 + uneven**2 + bars.bar_sd[number] ** 2))
    work_ms = budget * float(np.exp(-gap / 2)) / factor
    return Item(side, row, bar, budget, gap, weaker, factor, work_ms, sd, assumed, uneven)


def _gap(
    table: TierTable, scale: Scale, side: Side, number: int, bar: float, day: date | None
) -> tuple[float, str]:
    """The log distance to the next weaker standing on sale on that day, and its name."""
    sold: list[Standing] = [
        one for one in scale.of(side) if one.placed is None and (day is None or one.on_sale(day))
    ]
    if not sold:
        return OPEN_GAP, ""
    speeds = table.speeds(side, sold, np.full(len(sold), number))
    below = np.where(speeds < bar - 1e-9, speeds, -np.inf)
    best = int(np.argmax(below))
    gap = bar - float(below[best])
    return (gap, sold[best].name) if gap < OPEN_GAP else (OPEN_GAP, "")


def _assumed_sd(game: Game, settled: Settled, side: Side) -> float:
    """The spread in ln that assumed conditions leave: each range counted as four standard deviations."""
    spreads = []
    row = settled.range
    if "frame rate" in settled.assumed:
        spreads.append(np.log(row.most_fps / row.least_fps))
    if "preset" in settled.assumed:
        factors = [_preset_factor(game, name, side) for name in (row.least_preset, row.most_preset)]
        spreads.append(np.log(factors[1] / factors[0]))
    if "resolution" in settled.assumed and side == "graphics":
        pixels = [row.least_width_px * row.least_height_px / 1e6, row.most_width_px * row.most_height_px / 1e6]
        least, most = (pixel_factor(game, one) for one in pixels)
        spreads.append(np.log(most / least))
    return float(np.sqrt(sum((spread / RANGE_SDS) ** 2 for spread in spreads)))


def _preset_factor(game: Game, name: PresetName, side: Side) -> float:
    preset = game.preset(name)
    return preset.processor_factor if side == "processor" else preset.graphics_factor
