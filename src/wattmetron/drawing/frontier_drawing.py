"""The frontier: the worst target's share stepped over money, and below it a strip for each target,
filled where met.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup, escape

from wattmetron.drawing import svg
from wattmetron.drawing.ticks import round_step
from wattmetron.words.figures import THIN, round_money

HEIGHT = 190
TOP, LEFT = 8, 0
MOST_TICKS = 7


@dataclass(frozen=True, slots=True)
class FrontierMark:
    """A step that is drawn: its cost in minor units, the worst target's share in %, its address and
    words.
    """

    cost_minor: int
    worst_percent: float
    url: str
    words: str


@dataclass(frozen=True, slots=True)
class Axis:
    """Money from one amount to another, in minor units."""

    low: int
    high: int
    currency: str

    def x(self, minor: float) -> float:
        return svg.percent(minor - self.low, self.high - self.low)

    def ticks(self) -> list[int]:
        """Round amounts, from 50 on."""
        step = 100 * round_step((self.high - self.low) / 100, MOST_TICKS)
        return list(range(-(-self.low // step) * step, self.high + 1, step))


def steps(
    marks: Sequence[FrontierMark],
    axis: Axis,
    budget: tuple[int, int],
    knee_minor: int | None,
    own: tuple[int, float] | None,
    tried: tuple[int, float] | None,
) -> Markup:
    """The stepped line with its steps as links; the budget's range and the knee as bands, the
    present build a filled diamond, one that is being tried an open one.
    """
    most = max([110.0, *(mark.worst_percent for mark in marks)])

    def y(percent: float) -> float:
        return round(TOP + (HEIGHT - TOP) * (1 - min(most, max(0.0, percent)) / most), 1)

    low, high = axis.x(max(budget[0], axis.low)), axis.x(budget[1])
    pieces = [
        svg.box(low, max(0.4, high - low), TOP, HEIGHT - TOP, "f-well"),
        svg.line(high, high, TOP, HEIGHT, "s-edge"),
    ]
    if knee_minor is not None:
        pieces.append(svg.box(axis.x(knee_minor) - 0.6, 1.2, TOP, HEIGHT - TOP, "f-line"))
    for percent in (50, 100):
        pieces += [
            svg.line(0, 100, y(percent), y(percent), "s-ink" if percent == 100 else "s-line"),
            svg.text(0, y(percent) - 3, f"{percent}{THIN}%", "t-said", "start"),
        ]
    for mark, after in zip(marks, [*marks[1:], None], strict=True):
        until = axis.x(after.cost_minor) if after else 100.0
        pieces.append(
            svg.line(
                axis.x(mark.cost_minor),
                until,
                y(mark.worst_percent),
                y(mark.worst_percent),
                "s-ink",
            )
        )
        if after:
            pieces.append(
                svg.line(until, until, y(mark.worst_percent), y(after.worst_percent), "s-line")
            )
    for mark in (each_mark for each_mark in marks if each_mark.cost_minor >= axis.low):
        square = (
            f'<rect x="-4" y="{y(mark.worst_percent) - 4}" width="8" height="8"'
            f' class="s-ink-fill"/><title>{escape(mark.words)}</title>'
        )
        inner = (
            f'<a href="{escape(mark.url)}" tabindex="-1"'
            f' aria-label="{escape(mark.words)}">{square}</a>'
        )
        pieces.append(svg.at(axis.x(mark.cost_minor), inner))
    if own is not None:
        pieces.append(svg.at(axis.x(own[0]), svg.diamond(y(own[1]), 7, "i-ink")))
    if tried is not None:
        pieces.append(svg.at(axis.x(tried[0]), svg.diamond(y(tried[1]), 8, "s-ink-fill")))
    return Markup(
        f'<svg height="{HEIGHT + 2}" aria-label="Worst target over money">{"".join(pieces)}</svg>'
    )


def _anchor(percent: float) -> str:
    """At either end a label keeps within the drawing."""
    if percent < 3:
        return "start"
    return "end" if percent > 96 else "middle"


def scale(axis: Axis) -> Markup:
    """The axis of money."""
    pieces = []
    for minor in axis.ticks():
        x = axis.x(minor)
        pieces += [
            svg.line(x, x, 0, 5, "s-edge"),
            svg.text(
                x,
                17,
                f"{minor // 100:,}",
                "t-mut",
                _anchor(x),
            ),
        ]
    return svg.chart(
        pieces,
        20,
        f"Axis from {round_money(axis.low, axis.currency)} to"
        f" {round_money(axis.high, axis.currency)}",
    )


def strip(spans: Sequence[tuple[int, int]], axis: Axis, words: str) -> Markup:
    """One target: filled over the costs at which the frontier's builds meet it."""
    pieces = [svg.box(0, 100, 2, 10, "f-well")]
    pieces += [
        svg.box(axis.x(low), axis.x(high) - axis.x(low), 2, 10, "i-ink") for low, high in spans
    ]
    return svg.chart(pieces, 14, words)
