"""Power on one axis in W: the supply's efficiency, games as a rug, and a stacked bar for each
state.
"""

from collections.abc import Sequence

from markupsafe import Markup, escape

from wattmetron.core.power.account import Span
from wattmetron.core.power.efficiency import efficiency, test_points
from wattmetron.core.values.housing import PowerSupply
from wattmetron.drawing import svg
from wattmetron.drawing.ticks import round_step
from wattmetron.words.figures import THIN

LEAST_PERCENT = 60.0
MOST_TICKS = 9


def axis_end_w(spans: Sequence[Span], supply: PowerSupply | None) -> float:
    """A round end of the axis beyond the supply and the spikes."""
    most = max([100.0, *(span.total_w for span in spans), float(supply.watts) if supply else 0.0])
    return float(-(-most * 1.1 // 50) * 50)


def bar(span: Span, most_w: float, supply: PowerSupply | None) -> Markup:
    """One state: processor, card, rest; a line where the supply's rated output (for spikes its
    spike limit) ends.
    """
    pieces = [svg.box(0, 100, 4, 16, "f-well")]
    x = 0.0
    for watts, kind, fill in (
        (span.processor_w, "o-copper", "url(#hatch)"),
        (span.graphics_w, "o-teal", "url(#dots)"),
        (span.rest_w, "o-rest", ""),
    ):
        wide = svg.percent(watts, most_w)
        pieces.append(svg.box(x, wide, 6, 12, kind, fill))
        x += wide
    if supply:
        limit = supply.spike_w if span.state == "spike" else supply.watts
        position = svg.percent(limit, most_w)
        if limit <= most_w:
            pieces.append(svg.line(position, position, 0, 24, "s-ink"))
    label = (
        f"{span.name}: processor {span.processor_w:.0f}, card {span.graphics_w:.0f}, rest"
        f" {span.rest_w:.0f}, together {span.total_w:.0f} W"
    )
    return svg.chart(pieces, 24, label)


def curve(supply: PowerSupply, mains_v: int, most_w: float, spans: Sequence[Span]) -> Markup:
    """Efficiency from 60 to 100 % over the load, with the published test points and the states but
    spikes.
    """
    steps = [supply.watts * share / 100 for share in range(2, 101)]
    path = " ".join(
        f"{'M' if n == 0 else 'L'}{100 * watts / most_w:.2f}"
        f" {_height(efficiency(supply.efficiency, mains_v, watts / supply.watts)):.2f}"
        for n, watts in enumerate(steps)
    )
    pieces = [svg.box(0, 100, 0, 72, "f-well")]
    for mark in (70, 80, 90):
        height = _height(mark / 100) * 0.72
        pieces += [
            svg.line(0, 100, height, height, "s-line"),
            svg.text(100, height - 3, f"{mark}{THIN}%", "t-said", "end"),
        ]
    pieces.append(
        '<svg width="100%" height="72" viewBox="0 0 100 100" preserveAspectRatio="none">'
        f'<path d="{path}" class="s-ink" vector-effect="non-scaling-stroke"/></svg>'
    )
    for load, percent in test_points(supply.efficiency, mains_v).items():
        x, y = svg.percent(supply.watts * load / 100, most_w), _height(percent / 100) * 0.72
        pieces.append(
            svg.at(x, f'<rect x="-2.5" y="{y - 2.5:.1f}" width="5" height="5" class="i-ink"/>')
        )
    for span in spans:
        if span.efficiency is not None and span.state != "game":
            x, y = svg.percent(span.total_w, most_w), _height(span.efficiency) * 0.72
            pieces.append(svg.at(x, svg.diamond(round(y, 1), 5, "s-ink-fill")))
    games = [span for span in spans if span.state == "game"]
    pieces += [
        svg.at(svg.percent(span.total_w, most_w), '<path d="M0 62V72" class="s-ink"/>')
        for span in games
    ]
    position = svg.percent(supply.watts, most_w)
    pieces.append(svg.line(position, position, 0, 72, "s-edge"))
    rates = "; ".join(
        f"{load} % load {percent} %"
        for load, percent in test_points(supply.efficiency, mains_v).items()
    )
    return svg.chart(pieces, 72, f"Efficiency of {supply.name} over its load: {escape(rates)}")


def scale(most_w: float) -> Markup:
    """The axis in W."""
    step = round_step(most_w, MOST_TICKS)
    pieces = []
    for watts in range(0, int(most_w) + 1, step):
        x = svg.percent(watts, most_w)
        if watts == 0:
            anchor = "start"
        elif x > 97:
            anchor = "end"
        else:
            anchor = "middle"
        pieces += [svg.line(x, x, 0, 5, "s-edge"), svg.text(x, 17, f"{watts}", "t-mut", anchor)]
    return svg.chart(pieces, 20, f"Axis from 0 to {most_w:.0f} W")


def _height(share: float) -> float:
    """Place from the top, 0 to 100, on the scale from 60 to 100 %."""
    return max(0.0, min(100.0, 100 - (100 * share - LEAST_PERCENT) / (100 - LEAST_PERCENT) * 100))
