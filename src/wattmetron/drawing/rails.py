"""Requirement rails: two logarithmic rails of speed, processor left and graphics right, with the
tiers between.

A tier is a band from its bar down to the next weaker part on sale, which did not suffice. Listed
parts are ticks, named in the outer gutters; the machine's own parts are markers with their 80 %
interval.
"""

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup, escape

HEIGHT, TOP, BOTTOM = 400, 26, 16
SPACING = 16
Z80 = 1.2816


@dataclass(frozen=True, slots=True)
class Tick:
    """A listed part: ln speed, name, whether it stands out or is left out of the bar."""

    ln: float
    name: str
    odd: bool
    excluded: bool


@dataclass(frozen=True, slots=True)
class Band:
    """A tier on one rail: its bar in ln, the band's width, its place among the tiers."""

    bar: float
    gap: float
    tier: int


@dataclass(frozen=True, slots=True)
class Marker:
    """The machine's part: ln speed with its spread."""

    ln: float
    sd: float
    name: str


@dataclass(frozen=True, slots=True)
class Rail:
    """One side."""

    ticks: tuple[Tick, ...]
    bands: tuple[Band, ...]
    marker: Marker | None


def rails(
    processor: Rail,
    graphics: Rail,
    tiers: tuple[tuple[str, str], ...],
    label: str,
    width: int = 820,
) -> Markup:
    """The chart at a width in px; it scales with its frame. ``tiers`` are names with their
    conditions.
    """
    narrow = width < 600
    gutter = 120 if narrow else 238
    left, right = gutter, width - gutter
    places = (_Scale(processor), _Scale(graphics))
    pieces = [
        _text(left, 14, "processor", "middle", "t-ink"),
        _text(right, 14, "graphics", "middle", "t-ink"),
        *_rail(processor, places[0], left, -1, "o-copper", "url(#hatch)", narrow),
        *_rail(graphics, places[1], right, 1, "o-teal", "url(#dots)", narrow),
        *_names(processor, graphics, places, tiers, left, right, width / 2),
    ]
    return Markup(
        f'<svg role="img" viewBox="0 0 {width} {HEIGHT}" class="rails"'
        f' aria-label="{escape(label)}">{"".join(pieces)}</svg>'
    )


class _Scale:
    """Places on one rail, the fastest at the top."""

    def __init__(self, rail: Rail) -> None:
        values = [tick.ln for tick in rail.ticks] + [band.bar for band in rail.bands]
        values += [band.bar - band.gap for band in rail.bands]
        values += [rail.marker.ln] if rail.marker else []
        values = values or [float(np.log(100))]
        self.low, self.high = min(values) - 0.12, max(values) + 0.12

    def y(self, ln: float) -> float:
        return round(TOP + (HEIGHT - TOP - BOTTOM) * (self.high - ln) / (self.high - self.low), 1)

    def points(self) -> list[int]:
        """Round figures within the scale, at most six."""
        steps = [10, 15, 20, 30, 40, 50, 70, 100, 150, 200, 300, 500]
        points = [step for step in steps if self.low < np.log(step) < self.high]
        return points if len(points) <= 6 else points[:: -(-len(points) // 6)]


def _rail(
    rail: Rail, scale: _Scale, x: int, side: int, hue: str, fill: str, narrow: bool
) -> list[str]:
    pieces = [f'<line x1="{x}" x2="{x}" y1="{TOP}" y2="{HEIGHT - BOTTOM}" class="s-edge"/>']
    for points in scale.points():
        y = scale.y(float(np.log(points)))
        pieces.append(f'<line x1="{x}" x2="{x - 14 * side}" y1="{y}" y2="{y}" class="s-line"/>')
        pieces.append(
            _text(x - 17 * side, y + 4, str(points), "end" if side > 0 else "start", "t-mut")
        )
    for band in rail.bands:
        top, end = scale.y(band.bar), scale.y(band.bar - band.gap)
        label_x = x if side > 0 else x - 12
        pieces.append(
            f'<rect x="{label_x}" y="{top}" width="12" height="{max(3.0, end - top):.1f}"'
            f' class="{hue}" fill="{fill}"/>'
        )
    return pieces + _labels(rail, scale, x, side, narrow)


def _labels(rail: Rail, scale: _Scale, x: int, side: int, narrow: bool) -> list[str]:
    """Ticks and markers with their names in the outer gutter, spaced, with leaders."""
    rows: list[tuple[float, str, str]] = []
    pieces: list[str] = []
    for tick in _merged(rail.ticks):
        y = scale.y(tick.ln)
        pieces.append(_tick(x + 12 * side, y, side, tick))
        odd = " (out of line)" if tick.odd else ""
        rows.append((y, tick.name + (" (left out)" if tick.excluded else odd), "t-ink"))
    if rail.marker is not None:
        pieces += _marker(rail.marker, scale, x, side)
        rows.append((scale.y(rail.marker.ln), f"▸ {rail.marker.name}", "t-own"))
    rows.sort()
    anchor = "start" if side > 0 else "end"
    for (y, words, kind), height in zip(rows, _spaced([row[0] for row in rows]), strict=True):
        start, end = x + 18 * side, x + 30 * side
        pieces.append(f'<path d="M{start} {y}L{end} {height}" class="s-edge"/>')
        pieces.append(_text(end + 4 * side, height + 4, _short(words, narrow), anchor, kind))
    return pieces


def _merged(ticks: tuple[Tick, ...]) -> list[Tick]:
    """The same part in several tiers is one tick."""
    seen: dict[tuple[str, float], Tick] = {}
    for tick in ticks:
        key = (tick.name, round(tick.ln, 3))
        if key not in seen or (tick.odd or tick.excluded):
            seen[key] = tick
    return list(seen.values())


def _tick(x: int, y: float, side: int, tick: Tick) -> str:
    if tick.odd or tick.excluded:
        label_x = x if side > 0 else x - 7
        return f'<rect x="{label_x}" y="{y - 3}" width="7" height="6" class="i-ground s-ink"/>'
    return f'<line x1="{x - 12 * side}" x2="{x + 6 * side}" y1="{y}" y2="{y}" class="s-ink"/>'


def _marker(marker: Marker, scale: _Scale, x: int, side: int) -> list[str]:
    y = scale.y(marker.ln)
    high, low = scale.y(marker.ln + Z80 * marker.sd), scale.y(marker.ln - Z80 * marker.sd)
    inner = x - 6 * side
    return [
        f'<line x1="{inner}" x2="{inner}" y1="{high}" y2="{low}" class="s-ink"/>',
        f'<path d="M{x} {y}L{x - 13 * side} {y - 6}V{y + 6}Z" class="i-ink"/>',
    ]


def _spaced(wanted: list[float], spacing: float = SPACING) -> list[float]:
    """Places at least ``spacing`` apart and within the chart, as near as can be to those wanted
    (sorted).
    """
    places = list(wanted)
    for n in range(1, len(places)):
        places[n] = max(places[n], places[n - 1] + spacing)
    over = places[-1] - (HEIGHT - BOTTOM) if places else 0
    if over > 0:
        places[-1] -= over
        for n in range(len(places) - 2, -1, -1):
            places[n] = min(places[n], places[n + 1] - spacing)
    return [round(position, 1) for position in places]


def _names(
    processor: Rail,
    graphics: Rail,
    places: tuple[_Scale, _Scale],
    tiers: tuple[tuple[str, str], ...],
    left: int,
    right: int,
    middle: float,
) -> list[str]:
    """Tier names in the middle, with slanted connectors to their bars."""
    rows = []
    for number, (name, conditions) in enumerate(tiers):
        ends = [
            (x, scale.y(band.bar))
            for rail, scale, x in ((processor, places[0], left), (graphics, places[1], right))
            for band in rail.bands
            if band.tier == number
        ]
        if ends:
            rows.append((sum(y for _, y in ends) / len(ends), name, ends, conditions))
    rows.sort(key=lambda row: row[0])
    pieces = []
    wide = right - left > 240
    longest = max((max(len(row[1]), len(row[3]) * 0.85 if wide else 0) for row in rows), default=0)
    half = int(min(4 * longest + 6, (right - left) / 2 - (26 if not wide else 34)))
    for (_, name, ends, conditions), y in zip(
        rows, _spaced([row[0] for row in rows], 32 if wide else SPACING), strict=True
    ):
        for x, end in ends:
            inner = x + 40 if x < middle else x - 40
            near = middle - half if x < middle else middle + half
            pieces.append(f'<path d="M{x} {end}H{inner}L{near} {y}" class="s-edge"/>')
        pieces.append(
            _text(middle, y + (-2 if wide else 4), _fitted(name, half), "middle", "t-name")
        )
        if wide:
            pieces.append(_text(middle, y + 12, conditions, "middle", "t-said"))
    return pieces


def _fitted(name: str, half: int) -> str:
    most = max(4, int(2 * half / 7.4))
    return name if len(name) <= most else name[: most - 1] + "…"


def _short(words: str, narrow: bool) -> str:
    """A name that fits its gutter: the maker is dropped first."""
    most = 13 if narrow else 31
    if len(words) > most or narrow:
        pieces = words.split(" ")
        first = 1 if pieces[0] == "▸" else 0
        if len(pieces) > first + 1:
            words = " ".join([*pieces[:first], *pieces[first + 1 :]])
    return words if len(words) <= most else words[: most - 1] + "…"


def _text(x: float, y: float, words: str, anchor: str, kind: str) -> str:
    return f'<text x="{x}" y="{y}" text-anchor="{anchor}" class="{kind}">{escape(words)}</text>'
