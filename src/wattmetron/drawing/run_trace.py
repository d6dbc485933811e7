"""A run drawn: frame times over time with what happened, both sides' use, how frame times spread,
and how honest promises were.
"""

from collections.abc import Sequence

import numpy as np
from markupsafe import Markup
from scipy.special import ndtri

from wattmetron.core.runs.drawn import SHARES, RunPicture
from wattmetron.core.runs.events import Happening
from wattmetron.core.runs.phases import Phase
from wattmetron.core.values.runs import Channel
from wattmetron.drawing import svg

LEFT, RIGHT, TOP, FOOT = 7.0, 0.5, 12, 20
HEIGHT, STRIP, SPREAD_HEIGHT, LINE_PX = 210, 74, 170, 15
STEPS_MS = (1, 2, 4, 5, 8, 10, 16.7, 20, 33.3, 50, 66.7, 100, 200, 500, 1000, 2000, 5000)
WIDE = 100 - LEFT - RIGHT


class _Up:
    """Milliseconds up on a logarithmic axis."""

    def __init__(self, low: float, high: float, height: int) -> None:
        self.low, self.high = np.log(low), np.log(max(high, low * 1.3))
        self.height = height

    def y(self, ms: float) -> float:
        share = (np.log(max(ms, 1e-3)) - self.low) / (self.high - self.low)
        return round(float(self.height - FOOT - share * (self.height - FOOT - TOP)), 1)

    def ticks(self) -> list[float]:
        """Round steps within the axis, no two closer than a line of text."""
        points: list[float] = []
        for ms in STEPS_MS:
            if self.low <= np.log(ms) <= self.high and (
                not points or self.y(points[-1]) - self.y(ms) >= LINE_PX
            ):
                points.append(ms)
        return points


def trace_chart(
    drawn: RunPicture,
    seconds: float,
    happenings: Sequence[Happening],
    phases: Sequence[Phase],
    target_ms: float | None,
) -> Markup:
    """Frame times over time: a band from the least to the most of each piece, the usual one as a
    line; stretches of what happened above, scenes as marks, the frame time of a target as a line.
    """
    most = [most_m for most_m in drawn.most_ms if most_m is not None]
    least = [least_m for least_m in drawn.least_ms if least_m is not None]
    edges = [*most, *([target_ms] if target_ms else [])]
    scale = _Up(max(0.2, 0.9 * min(least)), 1.1 * max(edges), HEIGHT)
    inner = [piece for ms in scale.ticks() for piece in _tick(scale, ms)]
    inner.append(_band(drawn, scale))
    inner.append(_line(drawn.usual_ms, scale))
    if target_ms:
        inner.append(
            svg.line(LEFT, 100 - RIGHT, scale.y(target_ms), scale.y(target_ms), "pl-budget")
        )
    for event in happenings:
        inner += _stretches(event, seconds)
    for phase in phases[1:]:
        x = _x(phase.from_s, seconds)
        inner.append(svg.line(x, x, TOP, HEIGHT - FOOT, "pl-notch"))
    inner += _times(seconds, HEIGHT)
    words = (
        f"Frame times over {seconds:.0f} s: half below"
        f" {drawn.percentiles_ms[SHARES.index(0.5)]:.1f} ms, one in a hundred above"
        f" {drawn.percentiles_ms[SHARES.index(0.99)]:.1f} ms."
    )
    return svg.chart(inner, HEIGHT, words)


def _x(at_s: float, seconds: float) -> float:
    return round(LEFT + WIDE * min(1.0, max(0.0, at_s / max(seconds, 1e-9))), 3)


def _tick(scale: _Up, ms: float) -> list[str]:
    y = scale.y(ms)
    return [
        svg.line(LEFT, 100 - RIGHT, y, y, "pl-grid"),
        svg.text(LEFT - 0.5, y + 4, f"{ms:g} ms", anchor="end"),
    ]


def _times(seconds: float, height: int) -> list[str]:
    return [
        svg.text(LEFT, height - 4, "0 s", anchor="start"),
        svg.text(LEFT + WIDE / 2, height - 4, f"{seconds / 2:.0f} s"),
        svg.text(100 - RIGHT, height - 4, f"{seconds:.0f} s", anchor="end"),
    ]


def _band(drawn: RunPicture, scale: _Up) -> str:
    """The least and the most of each piece as one shape, stretched over the chart."""
    tops = [
        (n, scale.y(high), scale.y(low))
        for n, (low, high) in enumerate(zip(drawn.least_ms, drawn.most_ms, strict=True))
        if low is not None and high is not None
    ]
    up = "L".join(f"{n} {top}" for n, top, _ in tops)
    down = "L".join(f"{n} {bottom}" for n, _, bottom in reversed(tops))
    return _stretched(f'<path d="M{up}L{down}Z" class="tr-band"/>', len(drawn.most_ms), HEIGHT)


def _line(values: Sequence[float | None], scale: _Up) -> str:
    return _stretched(
        f'<path d="{_path([None if value is None else scale.y(value) for value in values])}"'
        ' class="tr-line" vector-effect="non-scaling-stroke"/>',
        len(values),
        scale.height,
    )


def _path(values: Sequence[float | None]) -> str:
    """Points from piece to piece, with gaps where nothing is known."""
    sentences, down = [], False
    for n, y in enumerate(values):
        if y is None:
            down = False
            continue
        sentences.append(f"{'L' if down else 'M'}{n} {y}")
        down = True
    return "".join(sentences) or "M0 0"


def _stretched(inner: str, pieces: int, height: int) -> str:
    """Shapes drawn in pieces across and pixels up, spread over the width of the chart."""
    return (
        f'<svg x="{LEFT}%" width="{WIDE}%" height="{height}" y="0"'
        f' viewBox="0 0 {max(1, pieces - 1)} {height}" preserveAspectRatio="none">{inner}</svg>'
    )


def _stretches(event: Happening, seconds: float) -> list[str]:
    shapes = []
    for n, (start, end) in enumerate(event.stretches[:60]):
        x = _x(start, seconds)
        width = max(0.25, _x(end, seconds) - x)
        shapes.append(svg.box(x, width, 3, 5, "tr-happens"))
        if not n:
            side = "end" if x > 80 else "start"
            shapes.append(svg.text(x, TOP + 10, event.what, anchor=side))
    return shapes


# --- channels -------------------------------------------------------------------------------------

PAIRS: tuple[tuple[str, tuple[tuple[Channel, str], ...], str], ...] = (
    ("use", (("processor_use", "tr-c"), ("graphics_use", "tr-g")), "%"),
    ("power", (("watts", "tr-ink"),), "W"),
    ("temperature", (("processor_c", "tr-c"), ("graphics_c", "tr-g")), "°C"),
    ("clock", (("processor_mhz", "tr-c"), ("graphics_mhz", "tr-g")), "MHz"),
    ("fans", (("fan_rpm", "tr-ink"),), "1/min"),
    ("video memory", (("video_memory_gb", "tr-g"),), "GB"),
    ("other programs", (("other_use", "tr-ink"),), "%"),
)


def channel_strips(drawn: RunPicture, seconds: float) -> list[tuple[str, Markup]]:
    """A strip for each thing that was logged, processor and graphics together, with its name."""
    strips = []
    for name, lines, unit in PAIRS:
        there = [(key, kind) for key, kind in lines if key in drawn.channels]
        if there:
            strips.append((f"{name}, {unit}", _strip(drawn, there, unit, seconds, name)))
    return strips


def _strip(
    drawn: RunPicture, lines: Sequence[tuple[Channel, str]], unit: str, seconds: float, name: str
) -> Markup:
    factor = 100.0 if unit == "%" else 1.0
    values = [
        channel * factor
        for key, _ in lines
        for channel in drawn.channels[key]
        if channel is not None
    ]
    low, high = min(values), max(values)
    low = 0.0 if unit == "%" else low
    high = 100.0 if unit == "%" else max(high, low + 1e-3)
    room = 0.08 * (high - low)
    low, high = (low, high) if unit == "%" else (max(0.0, low - room), high + room)

    def y(value: float) -> float:
        return round(STRIP - 6 - (value * factor - low) / (high - low) * (STRIP - 14), 1)

    inner = [
        svg.line(LEFT, 100 - RIGHT, y(low / factor), y(low / factor), "pl-grid"),
        svg.line(LEFT, 100 - RIGHT, y(high / factor), y(high / factor), "pl-grid"),
        svg.text(LEFT - 0.5, y(high / factor) + 8, _figure(high, high - low), anchor="end"),
        svg.text(LEFT - 0.5, y(low / factor), _figure(low, high - low), anchor="end"),
    ]
    for key, kind in lines:
        path = _path([None if channel is None else y(channel) for channel in drawn.channels[key]])
        inner.append(
            _stretched(
                f'<path d="{path}" class="{kind}" vector-effect="non-scaling-stroke"/>',
                len(drawn.channels[key]),
                STRIP,
            )
        )
    return svg.chart(
        inner, STRIP, f"{name} over {seconds:.0f} s, from {low:.0f} to {high:.0f} {unit}"
    )


def _figure(value: float, span: float) -> str:
    return f"{value:,.0f}" if span >= 5 else f"{value:,.2f}"


# --- spread ---------------------------------------------------------------------------------------


def spread_chart(drawn: RunPicture) -> Markup:
    """How many frames took how long: columns over frame times on a logarithmic axis."""
    most = max(drawn.counts) or 1
    edges = np.log(drawn.edges_ms)
    span = float(edges[-1] - edges[0])
    inner = []
    for n, count in enumerate(drawn.counts):
        x = LEFT + WIDE * float(edges[n] - edges[0]) / span
        width = WIDE * float(edges[n + 1] - edges[n]) / span
        height = round((SPREAD_HEIGHT - FOOT - TOP) * count / most, 1)
        if count:
            inner.append(
                svg.box(
                    round(x, 3),
                    max(0.1, width - 0.15),
                    SPREAD_HEIGHT - FOOT - height,
                    height,
                    "tr-bar",
                )
            )
    for ms in STEPS_MS:
        if edges[0] <= np.log(ms) <= edges[-1]:
            x = round(LEFT + WIDE * (float(np.log(ms)) - float(edges[0])) / span, 3)
            inner.append(svg.line(x, x, TOP, SPREAD_HEIGHT - FOOT, "pl-grid"))
            inner.append(svg.text(x, SPREAD_HEIGHT - 5, f"{ms:g} ms"))
    return svg.chart(inner, SPREAD_HEIGHT, "How many frames took how long")


def percentile_chart(drawn: RunPicture) -> Markup:
    """Frame times below which a share of the frames lie: the slowest tenth and hundredth wide."""
    places = [_far(share) for share in SHARES]
    low, high = min(drawn.percentiles_ms), max(drawn.percentiles_ms)
    scale = _Up(0.95 * low, 1.05 * high, SPREAD_HEIGHT)
    inner = [piece for ms in scale.ticks() for piece in _tick(scale, ms)]
    span = places[-1] - places[0]
    points = [
        (round(1000 * (position - places[0]) / span, 1), scale.y(ms))
        for position, ms in zip(places, drawn.percentiles_ms, strict=True)
    ]
    path = "L".join(f"{x} {y}" for x, y in points)
    inner.append(
        f'<svg x="{LEFT}%" width="{WIDE}%" height="{SPREAD_HEIGHT}" y="0"'
        f' viewBox="0 0 1000 {SPREAD_HEIGHT}" preserveAspectRatio="none"><path d="M{path}"'
        ' class="tr-line" vector-effect="non-scaling-stroke"/></svg>'
    )
    for share, words in (
        (0.01, "1 %"),
        (0.5, "half"),
        (0.9, "90 %"),
        (0.99, "99 %"),
        (0.999, "99.9 %"),
    ):
        x = round(LEFT + WIDE * (_far(share) - places[0]) / span, 3)
        inner.append(svg.line(x, x, TOP, SPREAD_HEIGHT - FOOT, "pl-grid"))
        inner.append(
            svg.text(x, SPREAD_HEIGHT - 5, words, anchor="end" if share > 0.99 else "middle")
        )
    return svg.chart(inner, SPREAD_HEIGHT, "Frame times below which a share of the frames lie")


def _far(share: float) -> float:
    """Where a share stands: the ends drawn out, as shares of a normal are."""
    return float(ndtri(share))


# --- honesty --------------------------------------------------------------------------------------


def honesty_chart(steps: Sequence[tuple[float, float]], runs: int) -> Markup:
    """How often intervals held against how often they say that they do."""
    height = 190

    def x(share: float) -> float:
        return round(LEFT + WIDE * share, 2)

    def y(share: float) -> float:
        return round(height - FOOT - share * (height - FOOT - TOP), 1)

    inner = []
    for share in (0, 0.25, 0.5, 0.75, 1.0):
        inner.append(svg.line(LEFT, 100 - RIGHT, y(share), y(share), "pl-grid"))
        inner.append(svg.text(LEFT - 0.5, y(share) + 4, f"{share:.0%}", anchor="end"))
        inner.append(
            svg.text(x(share), height - 5, f"{share:.0%}", anchor="end" if share else "start")
        )
    inner.append(svg.line(x(0), x(1), y(0), y(1), "pl-budget"))
    for nominal, hit in steps:
        inner.append(svg.at(x(nominal), svg.diamond(y(hit), 5, "i-ink")))
    return svg.chart(
        inner,
        height,
        f"Of {runs} promises: intervals that say 80 % held in"
        f" {dict(steps).get(0.8, 0):.0%}; on the line they would hold as often as they say",
    )
