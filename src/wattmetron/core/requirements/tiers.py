"""All tiers of a set of games as arrays: their conditions, their listed parts on the scale, their
bars.

A row is one tier; rows of a game are consecutive and in the publisher's order. Speeds are ln of
points.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames import work
from wattmetron.core.speeds.blend import graphics_ln, processor_ln
from wattmetron.core.speeds.speed_scale import Scale, Standing, scale_of
from wattmetron.core.values.games import Game
from wattmetron.core.values.published import (
    SIDES,
    Assumptions,
    Listed,
    Published,
    Settled,
    Side,
    Tier,
    settle,
)

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class PlacedTier:
    """A tier with where it stands in its game and the conditions under which it is read."""

    game: Game
    position: int
    tier: Tier
    settled: Settled


@dataclass(frozen=True, slots=True)
class Entry:
    """A listed part with the standings that it can mean; several where the variant is open."""

    row: int
    position: int
    listed: Listed
    meant: tuple[Standing, ...]


@dataclass(frozen=True, kw_only=True)
class Bars:
    """One side: its entries with ln speed and spread, and per row the bar, a robust middle.

    ``ln`` and ``sd`` have shape (entries,), ``bar``, ``bar_sd``, ``uneven`` and ``count`` shape
    (rows,). ``bar`` is nan where nothing is placed; ``uneven`` is the spread of the list in ln.
    """

    entries: tuple[Entry, ...]
    row: Ints
    ln: Floats
    sd: Floats
    used: NDArray[np.bool_]
    bar: Floats
    bar_sd: Floats
    uneven: Floats
    count: Ints

    def of_row(self, row: int) -> range:
        """The places of a row's entries."""
        return range(
            int(np.searchsorted(self.row, row)), int(np.searchsorted(self.row, row, side="right"))
        )


@dataclass(frozen=True, kw_only=True)
class TierTable:
    """Rows with their conditions and bars; ``first`` and ``last`` give a game's rows."""

    rows: tuple[PlacedTier, ...]
    span: Mapping[str, tuple[int, int]]
    parallel_share: Floats
    rendered_mpx: Floats
    ray_share: Floats
    sides: Mapping[Side, Bars]

    def of_game(self, game_id: str) -> range:
        return range(*self.span.get(game_id, (0, 0)))

    def speeds(self, side: Side, standings: Iterable[Standing], rows: Ints) -> Floats:
        """ln speed of standings at rows, both of shape (n,): with the game's parallel share, at the
        tier's rendered resolution, ray tracing weighed in; minus infinity for what cannot trace the
        rays asked for.
        """
        if side == "processor":
            pairs = np.array([standing.speeds for standing in standings], dtype=float).reshape(
                -1, 2
            )
            return processor_ln(pairs[:, 0], pairs[:, 1], self.parallel_share[rows])
        speeds = list(standings)
        anchors = np.array([standing.speeds for standing in speeds], dtype=float).reshape(-1, 3)
        ray = np.array(
            [np.nan if standing.ray_speed is None else standing.ray_speed for standing in speeds],
            dtype=float,
        )
        return graphics_ln(anchors, ray, self.rendered_mpx[rows], self.ray_share[rows])


def tier_table(
    games: Mapping[str, Game],
    published: Mapping[str, Published],
    scale: Scale,
    assumptions: Assumptions,
) -> TierTable:
    """The table of all games that publish tiers, in the order of the games."""
    rows: list[PlacedTier] = []
    span: dict[str, tuple[int, int]] = {}
    for game_id, game in games.items():
        requirements = published.get(game_id)
        if requirements is None or not requirements.tiers:
            continue
        start = len(rows)
        count = len(requirements.tiers)
        rows += [
            PlacedTier(game, index, tier, settle(tier, index, count, assumptions))
            for index, tier in enumerate(requirements.tiers)
        ]
        span[game_id] = (start, len(rows))
    shown = np.array([row.settled.shown_mpx for row in rows], dtype=float)
    shrink = assumptions.upscaling_scale**2
    rendered = shown * np.array(
        [shrink if row.settled.upscaling else 1.0 for row in rows], dtype=float
    )
    bare = TierTable(
        rows=tuple(rows),
        span=span,
        parallel_share=np.array([row.game.parallel_share for row in rows], dtype=float),
        rendered_mpx=rendered,
        ray_share=_ray_shares(rows, rendered),
        sides={},
    )
    return TierTable(
        rows=bare.rows,
        span=span,
        parallel_share=bare.parallel_share,
        rendered_mpx=rendered,
        ray_share=bare.ray_share,
        sides={side: _bars(bare, side, scale) for side in SIDES},
    )


MOST_AT_ONCE = 400
"""Lists of so many games are placed within a few hundredths of a second."""


def tiers_of(catalogue: Catalogue) -> TierTable:
    """All published tiers of a catalogue with their bars; those of many games are something to wait
    for.
    """
    if len(catalogue.published) > MOST_AT_ONCE:
        return catalogue.ask(placed_tiers)
    return catalogue.keep.once(("tiers",), lambda: placed_tiers(catalogue))


def placed_tiers(catalogue: Catalogue) -> TierTable:
    """All published tiers on the scale of the parts."""
    return tier_table(
        catalogue.games, catalogue.published, scale_of(catalogue), catalogue.assumptions
    )


USUAL_RAY_SHARE = 0.35


def _ray_shares(rows: list[PlacedTier], rendered: Floats) -> Floats:
    """Share of ray tracing in the graphics time of the reference part, 0 where it is off."""
    shares = np.zeros(len(rows))
    for index, row in enumerate(rows):
        if not row.settled.ray_tracing:
            continue
        ray = row.game.ray_tracing_ms_per_mpx
        if ray is None:
            shares[index] = USUAL_RAY_SHARE
            continue
        raster = raster_ms(row.game, row.settled, float(rendered[index]))
        shares[index] = ray * rendered[index] / (ray * rendered[index] + raster)
    return shares


def raster_ms(game: Game, settled: Settled, rendered_mpx: float) -> float:
    """Rasterisation time on the reference part in ms: w G [phi + (1 - phi) MP/2.0736]."""
    return (
        game.graphics_ms
        * game.preset(settled.preset).graphics_factor
        * pixel_factor(game, rendered_mpx)
    )


def pixel_factor(game: Game, rendered_mpx: float) -> float:
    """phi + (1 - phi) (MP/2.0736)^power."""
    return float(work.pixel_factor(game.fixed_share, game.pixel_power, rendered_mpx))


def _bars(table: TierTable, side: Side, scale: Scale) -> Bars:
    entries: list[Entry] = []
    meant: list[Standing] = []
    owner: list[int] = []
    for number, row in enumerate(table.rows):
        for index, listed in enumerate(row.tier.listed(side)):
            wanted = row.tier.video_memory_gb if side == "graphics" else None
            named, memory_gb = listed.part, listed.memory_gb
            standings = scale.meant(named, side, memory_gb, wanted) if named else ()
            owner += [len(entries)] * len(standings)
            meant += standings
            entries.append(Entry(number, index, listed, standings))
    row_of = np.array([entry.row for entry in entries], dtype=np.int64)
    ln, sd = _strictest(table, side, meant, np.array(owner, dtype=np.int64), row_of)
    used = np.isfinite(ln) & np.array([not entry.listed.excluded for entry in entries], dtype=bool)
    bar, bar_sd, uneven, count = _middles(row_of, ln, sd, used, len(table.rows))
    return Bars(
        entries=tuple(entries),
        row=row_of,
        ln=ln,
        sd=sd,
        used=used,
        bar=bar,
        bar_sd=bar_sd,
        uneven=uneven,
        count=count,
    )


def _strictest(
    table: TierTable, side: Side, meant: list[Standing], owner: Ints, row_of: Ints
) -> tuple[Floats, Floats]:
    """Per entry the ln speed and spread of the fastest standing that it can mean; nan where it
    means none.
    """
    ln, sd = np.full(row_of.size, np.nan), np.zeros(row_of.size)
    if not meant:
        return ln, sd
    speeds = table.speeds(side, meant, row_of[owner])
    spreads = np.array([standing.sd for standing in meant])
    for number in np.argsort(speeds, kind="stable"):
        ln[owner[number]], sd[owner[number]] = speeds[number], spreads[number]
    return np.where(np.isfinite(ln), ln, np.nan), sd


def _middles(
    row_of: Ints, ln: Floats, sd: Floats, used: NDArray[np.bool_], rows: int
) -> tuple[Floats, Floats, Floats, Ints]:
    """Per row the median of the entries used, its spread, the spread of the list, and how many
    there are.
    """
    kept_row, kept_ln, kept_sd = row_of[used], ln[used], sd[used]
    order = np.lexsort((kept_ln, kept_row))
    kept_row, kept_ln, kept_sd = kept_row[order], kept_ln[order], kept_sd[order]
    count = np.bincount(kept_row, minlength=rows).astype(np.int64)
    start = np.cumsum(count) - count
    bar = np.full(rows, np.nan)
    bar_sd, uneven = np.zeros(rows), np.zeros(rows)
    some = count > 0
    low, high = start[some] + (count[some] - 1) // 2, start[some] + count[some] // 2
    bar[some] = (kept_ln[low] + kept_ln[high]) / 2
    square = np.bincount(kept_row, kept_sd**2, minlength=rows)[some]
    bar_sd[some] = np.sqrt(square) / count[some] * np.where(count[some] > 2, MEDIAN_LOSS, 1.0)
    mean = np.bincount(kept_row, kept_ln, minlength=rows)[some] / count[some]
    away = np.bincount(kept_row, (kept_ln - np.repeat(mean, count[some])) ** 2, minlength=rows)[
        some
    ]
    uneven[some] = np.sqrt(away / np.maximum(1, count[some] - 1))
    return bar, bar_sd, uneven, count


MEDIAN_LOSS = 1.2533
"""The median's spread over the mean's, for normal errors: sqrt(pi/2)."""
