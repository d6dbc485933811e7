"""A row of the scale: a bar up to the speed with its 80 % interval."""

from markupsafe import Markup

from wattmetron.drawing import svg


def scale_row(
    speed: float, low: float, high: float, most: float, processor: bool, label: str
) -> Markup:
    """The bar of one part on an axis from 0 to ``most``."""
    hue, fill = ("o-copper", "url(#hatch)") if processor else ("o-teal", "url(#dots)")
    left, right = svg.percent(low, most), svg.percent(high, most)
    pieces = [
        svg.box(0, svg.percent(speed, most), 4, 8, hue, fill),
        svg.line(left, right, 8, 8, "s-ink"),
        svg.line(left, left, 5, 11, "s-ink"),
        svg.line(right, right, 5, 11, "s-ink"),
    ]
    return svg.chart(pieces, 16, label)
