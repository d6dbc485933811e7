"""Small pictures beside a sentence: shares of limits, steps, gains, money."""

from collections.abc import Sequence

from markupsafe import Markup

from wattmetron.drawing import svg

ROW, BAR = 12, 8
HEIGHT = 40


def limit_shares(shares: Sequence[float], label: str) -> Markup:
    """A bar for each target: which part of its frames the processor limits, which graphics."""
    pieces = []
    for n, share in enumerate(shares[: HEIGHT // ROW + 3]):
        y, cut = n * ROW, round(100 * share, 1)
        pieces.append(svg.box(0, cut, y, BAR, "o-copper", "url(#hatch)"))
        pieces.append(svg.box(cut, 100 - cut, y, BAR, "o-teal", "url(#dots)"))
    return svg.chart(pieces, max(ROW, ROW * len(shares[: HEIGHT // ROW + 3])), label)


def stairs(values: Sequence[float], most: float, label: str) -> Markup:
    """A column for each value, as high as its part of the most; a line where all is reached."""
    count = max(1, len(values))
    wide = 100 / count
    pieces = [svg.line(0, 100, 1, 1, "s-line")]
    for n, value in enumerate(values):
        high = 0.0 if most <= 0 else max(1.0, (HEIGHT - 2) * min(1.0, value / most))
        pieces.append(
            svg.box(round(n * wide + wide * 0.15, 2), wide * 0.7, HEIGHT - high, high, "f-edge")
        )
    pieces.append(svg.line(0, 100, HEIGHT - 0.5, HEIGHT - 0.5, "s-ink"))
    return svg.chart(pieces, HEIGHT, label)


def money_share(share: float, label: str) -> Markup:
    """A bar of money, of which a part is drawn empty."""
    percent = round(100 * (1 - max(0.0, min(1.0, share))), 1)
    pieces = [
        svg.box(0, percent, 6, 16, "f-edge"),
        svg.box(percent, 100 - percent, 6, 16, "s-ink-fill"),
    ]
    return svg.chart(pieces, 28, label)
