"""One target on several machines: each rate with its interval on one scale."""

from collections.abc import Sequence

from markupsafe import Markup

from wattmetron.drawing import svg

ROW = 18


def compare_row(
    rates: Sequence[tuple[float, float, float] | None], wanted_fps: float, label: str
) -> Markup:
    """A line for each machine from top to bottom: diamond at its rate, whisker over the 80 %
    interval, an upright line at what is wanted.
    """
    most = 1.08 * max([wanted_fps, *(rate[2] for rate in rates if rate is not None)])
    height = ROW * len(rates)
    pieces = [svg.line(0, 100, height - 0.5, height - 0.5, "s-line")]
    for n, fps in enumerate(rates):
        if fps is None:
            continue
        y = ROW * n + ROW / 2
        rate, low, high = (svg.percent(value, most) for value in fps)
        pieces.append(svg.line(low, high, y, y, "s-ink"))
        pieces.append(svg.at(rate, svg.diamond(y, 5, "f-ink-tone")))
    position = svg.percent(wanted_fps, most)
    pieces.append(svg.line(position, position, 0, height, "s-ink"))
    return svg.chart(pieces, height, label)
