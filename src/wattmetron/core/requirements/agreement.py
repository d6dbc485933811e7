"""Does a game's list agree with itself? Each finding is one sentence with figures."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.tiers import Bars, Entry, TierTable, tiers_of
from wattmetron.core.values.published import SIDES, Assumptions, Side

Rule = Literal[
    "out of line",
    "far apart",
    "below the tier under it",
    "tiers out of order",
    "too little video memory",
    "variant open",
    "figures alone",
    "not placed",
    "conditions unstated",
]
BEYOND_SDS = 2.0
"""Further than two standard deviations apart two statements are called a contradiction."""
SIDE_WORDS: dict[Side, str] = {"processor": "processor", "graphics": "graphics part"}
AMOUNTS = (("memory_gb", "memory"), ("video_memory_gb", "video memory"), ("storage_gb", "storage"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Doubt:
    """A place where a list contradicts itself or leaves something open.

    ``tier`` is the tier's place; ``side`` and ``place`` name the listed part where one is meant.
    """

    rule: Rule
    tier: int
    sentence: str
    side: Side | None = None
    position: int | None = None


def doubts(table: TierTable, game_id: str, assumptions: Assumptions) -> tuple[Doubt, ...]:
    """All doubts about a game's tiers, those that change the bar first."""
    rows = table.of_game(game_id)
    doubts: list[Doubt] = []
    for side in SIDES:
        bars = table.sides[side]
        disordered = set(_disordered(table, bars, side, rows, assumptions, doubts))
        for row in rows:
            doubts += _uneven(table, bars, side, row, assumptions)
            if row not in disordered:
                doubts += _below(table, bars, side, row, rows.start, assumptions)
            doubts += _open(table, bars, side, row)
    doubts += _amounts_out_of_order(table, rows)
    doubts += _unstated(table, rows)
    return tuple(doubts)


def doubts_of(catalogue: Catalogue, game_id: str) -> tuple[Doubt, ...]:
    """Where a game's list contradicts itself."""
    return catalogue.keep.once(
        ("doubts", game_id), lambda: doubts(tiers_of(catalogue), game_id, catalogue.assumptions)
    )


def _percent(ratio: float) -> str:
    """``18 % above`` or ``12 % below``."""
    return f"{abs(ratio - 1) * 100:.0f}\u202f% {'above' if ratio >= 1 else 'below'}"


def _name(entry: Entry) -> str:
    return entry.meant[-1].name if len(entry.meant) == 1 else entry.listed.text


def _used(bars: Bars, row: int) -> list[int]:
    return [bar for bar in bars.of_row(row) if bars.used[bar]]


def _uneven(
    table: TierTable, bars: Bars, side: Side, row: int, assumptions: Assumptions
) -> Iterator[Doubt]:
    """Entries away from the robust middle by more than the speeds' uncertainty and natural
    unevenness explain.
    """
    used = _used(bars, row)
    tier = table.rows[row].tier.label or "The list"
    index = table.rows[row].position
    if len(used) == 2:
        low, high = sorted(used, key=lambda bar: bars.ln[bar])
        apart = float(bars.ln[high] - bars.ln[low])
        limit = BEYOND_SDS * float(
            np.sqrt(bars.sd[low] ** 2 + bars.sd[high] ** 2 + 2 * assumptions.unevenness_sd**2)
        )
        if apart > limit:
            yield Doubt(
                rule="far apart",
                tier=index,
                sentence=f"{tier}: {_name(bars.entries[high])} is {_percent(float(np.exp(apart)))}"
                f" {_name(bars.entries[low])}, though the list names them as equals (up to"
                f" {np.expm1(limit) * 100:.0f}\u202f% would be no surprise); the tier asks for the"
                " middle.",
                side=side,
                position=bars.entries[high].position,
            )
    if len(used) < 3:
        return
    for bar in used:
        others = [bars.ln[other] for other in used if other != bar]
        middle = float(np.median(others))
        away = float(bars.ln[bar]) - middle
        limit = BEYOND_SDS * float(
            np.sqrt(bars.sd[bar] ** 2 + bars.bar_sd[row] ** 2 + assumptions.unevenness_sd**2)
        )
        if abs(away) > limit and abs(away) > 2 * _spread_without(bars, used, bar, middle):
            yield Doubt(
                rule="out of line",
                tier=index,
                sentence=f"{tier}: {_name(bars.entries[bar])} is {_percent(float(np.exp(away)))}"
                " the middle"
                f" of the {SIDE_WORDS[side]}s listed beside it; up to"
                f" {np.expm1(limit) * 100:.0f}\u202f% would be no surprise.",
                side=side,
                position=bars.entries[bar].position,
            )


def _spread_without(bars: Bars, used: list[int], left_out: int, middle: float) -> float:
    """How far the others reach from their own middle: an entry among scattered ones is not the odd
    left_out.
    """
    return max(abs(float(bars.ln[other]) - middle) for other in used if other != left_out)


def _disordered(
    table: TierTable,
    bars: Bars,
    side: Side,
    rows: range,
    assumptions: Assumptions,
    doubts: list[Doubt],
) -> Iterator[int]:
    """Rows whose bar lies below that of the tier before."""
    for row in rows[1:]:
        fall = float(bars.bar[row - 1] - bars.bar[row])
        sd = float(np.hypot(bars.bar_sd[row], bars.bar_sd[row - 1]))
        if np.isfinite(fall) and fall > BEYOND_SDS * sd + assumptions.unevenness_sd:
            lower, upper = table.rows[row - 1].tier, table.rows[row].tier
            doubts.append(
                Doubt(
                    rule="tiers out of order",
                    tier=table.rows[row].position,
                    sentence=f"{upper.label or 'The higher tier'} asks for {SIDE_WORDS[side]}s"
                    f" {_percent(float(np.exp(-fall)))} those of"
                    f" {lower.label or 'the tier before'}.",
                    side=side,
                )
            )
            yield row


def _below(
    table: TierTable, bars: Bars, side: Side, row: int, first: int, assumptions: Assumptions
) -> Iterator[Doubt]:
    """Parts of a tier that are slower than the bar of the tier before it."""
    if row == first or not np.isfinite(bars.bar[row - 1]):
        return
    lower = table.rows[row - 1].tier.label or "the tier before"
    for number in _used(bars, row):
        away = float(bars.ln[number] - bars.bar[row - 1])
        if away < -BEYOND_SDS * float(np.hypot(bars.sd[number], bars.bar_sd[row - 1])):
            entry = bars.entries[number]
            yield Doubt(
                rule="below the tier under it",
                tier=table.rows[row].position,
                sentence=f"{table.rows[row].tier.label or 'The higher tier'} lists"
                f" {_name(entry)}, which is "
                f"{_percent(float(np.exp(away)))} what {lower} asks for.",
                side=side,
                position=entry.position,
            )


def _open(table: TierTable, bars: Bars, side: Side, row: int) -> Iterator[Doubt]:
    """Listed parts with too little video memory, with an open variant, not placed, or nothing but
    figures.
    """
    tier = table.rows[row].tier
    label, index = tier.label or "The list", table.rows[row].position
    for bar in bars.of_row(row):
        entry = bars.entries[bar]
        if entry.listed.figures_only:
            yield Doubt(
                rule="figures alone",
                tier=index,
                sentence=f"{label} names no {SIDE_WORDS[side]}, only “{entry.listed.text}”:"
                " clocks and cores"
                " do not compare across designs, so no speed follows from them.",
                side=side,
                position=entry.position,
            )
        elif not entry.meant:
            yield Doubt(
                rule="not placed",
                tier=index,
                sentence=f"{label}: “{entry.listed.text}” is not in the catalogue; place it by one"
                " comparison and it counts.",
                side=side,
                position=entry.position,
            )
        elif side == "graphics":
            yield from _variants(entry, tier.video_memory_gb, label, index)


def _variants(entry: Entry, wanted_gb: float | None, label: str, index: int) -> Iterator[Doubt]:
    if len(entry.meant) > 1:
        amounts = " and ".join(f"{standing.memory_gb:g}" for standing in entry.meant)
        fastest = max(
            entry.meant, key=lambda standing: (standing.speeds[0], standing.memory_gb or 0)
        )
        yield Doubt(
            rule="variant open",
            tier=index,
            sentence=f"{label}: {entry.listed.text} is sold with {amounts}\u202fGB and the list"
            " does not say"
            f" which is meant; the stricter one counts, {fastest.name}.",
            side="graphics",
            position=entry.position,
        )
    has = max((standing.memory_gb or np.inf for standing in entry.meant), default=np.inf)
    if wanted_gb is not None and has < wanted_gb:
        yield Doubt(
            rule="too little video memory",
            tier=index,
            sentence=f"{label} asks for {wanted_gb:g}\u202fGB of video memory, but {_name(entry)}"
            " has"
            f" {has:g}\u202fGB.",
            side="graphics",
            position=entry.position,
        )


def _amounts_out_of_order(table: TierTable, rows: range) -> Iterator[Doubt]:
    for row in rows[1:]:
        lower, upper = table.rows[row - 1].tier, table.rows[row].tier
        for name, word in AMOUNTS:
            before, after = getattr(lower, name), getattr(upper, name)
            if before is not None and after is not None and after < before:
                yield Doubt(
                    rule="tiers out of order",
                    tier=table.rows[row].position,
                    sentence=f"{upper.label or 'The higher tier'} asks for {after:g}\u202fGB of"
                    f" {word}, "
                    f"{lower.label or 'the tier before'} for {before:g}\u202fGB.",
                )


def _unstated(table: TierTable, rows: range) -> Iterator[Doubt]:
    for row in rows:
        settled, tier = table.rows[row].settled, table.rows[row].tier
        if len(settled.assumed) == 3:
            yield Doubt(
                rule="conditions unstated",
                tier=table.rows[row].position,
                sentence=f"{tier.label or 'The list'} states neither resolution, preset nor frame"
                " rate: it"
                f" is read as {settled.width_px}x{settled.height_px}, {settled.preset},"
                f" {settled.fps:g}\u202ffps.",
            )
