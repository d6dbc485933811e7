"""The price line: the cheapest offer as steps over time, the others as a thin band, dashed while
sold out, a gap where nothing is known.
"""

from collections.abc import Sequence
from datetime import date, timedelta

from markupsafe import Markup

from wattmetron.core.values.price_history import PriceStep
from wattmetron.core.values.shops import Sale
from wattmetron.drawing import svg
from wattmetron.words.figures import money, round_money

HEIGHT, TOP, FOOT, LEFT = 132, 10, 22, 9.0
MOST_TICKS = 4
LEAST_SALE, MOST_RIGHT = 0.8, 70.0


class _Scale:
    """Days across, money up."""

    def __init__(self, steps: Sequence[PriceStep], end: date, budget_minor: int | None) -> None:
        prices = [step.least_minor for step in steps if step.least_minor is not None]
        prices += [step.most_minor for step in steps if step.most_minor is not None]
        prices += [budget_minor] if budget_minor is not None else []
        low, high = min(prices), max(prices)
        room = max(100, (high - low) // 5)
        self.low, self.high = max(0, low - room), high + room
        self.start, self.shown_end = steps[0].day, max(end, steps[-1].day)
        days = max(1, (self.shown_end - self.start).days)
        self.end = self.shown_end + timedelta(days=max(1, days // 30))
        self._days = (self.end - self.start).days

    def x(self, day: date) -> float:
        share = max(0, (min(day, self.end) - self.start).days) / self._days
        return round(LEFT + (100 - LEFT - 1) * share, 2)

    def y(self, minor: int) -> float:
        share = (minor - self.low) / (self.high - self.low)
        return round(HEIGHT - FOOT - share * (HEIGHT - FOOT - TOP), 1)

    def ticks(self) -> list[int]:
        step = next(
            100 * digit * 10**power
            for power in range(9)
            for digit in (1, 2, 5)
            if (self.high - self.low) / (100 * digit * 10**power) <= MOST_TICKS
        )
        return list(range(-(-self.low // step) * step, self.high + 1, step))


def price_line(
    steps: Sequence[PriceStep],
    end: date,
    currency: str,
    label: str,
    budget_minor: int | None = None,
    notches: Sequence[tuple[date, str]] = (),
    sales: Sequence[Sale] = (),
) -> Markup:
    """Steps from the first day to the last; ``notches`` are days on which the build changed, with
    their letters, ``sales`` are known sale days. Empty where no day has a price.
    """
    if not any(step.least_minor is not None for step in steps):
        return Markup("")
    scale = _Scale(steps, end, budget_minor)
    inner = [
        piece
        for tick in scale.ticks()
        for piece in (
            svg.line(LEFT, 100, scale.y(tick), scale.y(tick), "pl-grid"),
            svg.text(LEFT - 0.6, scale.y(tick) + 4, round_money(tick, currency), anchor="end"),
        )
    ]
    inner += [piece for sale in sales for piece in _sale(scale, sale)]
    before: PriceStep | None = None
    last: int | None = None
    for n, price_step in enumerate(steps):
        until = steps[n + 1].day if n + 1 < len(steps) else scale.end
        inner += _step(scale, price_step, before, last, until)
        last = price_step.least_minor if price_step.least_minor is not None else last
        before = price_step
    if budget_minor is not None:
        y = scale.y(budget_minor)
        inner += [
            svg.line(LEFT, 100, y, y, "pl-budget"),
            svg.text(99, y - 3, "budget", anchor="end"),
        ]
    for day, letter in notches:
        x = scale.x(day)
        inner += [
            svg.line(x, x, TOP, HEIGHT - FOOT, "pl-notch"),
            svg.text(x, HEIGHT - FOOT + 9, letter),
        ]
    for day in dict.fromkeys((scale.start, scale.shown_end)):
        anchor = "start" if day == scale.start else "end"
        position = LEFT if day == scale.start else 100
        inner.append(svg.text(position, HEIGHT - 4, f"{day:%-d %b %Y}", anchor=anchor))
    return svg.chart(inner, HEIGHT, label)


def _sale(scale: _Scale, sale: Sale) -> list[str]:
    """A sale as a lighter stretch with its name; nothing where it lies outside."""
    if sale.end < scale.start or sale.start > scale.end:
        return []
    x1 = max(LEFT, scale.x(sale.start))
    width = max(LEAST_SALE, scale.x(sale.end) - x1)
    side = "end" if x1 > MOST_RIGHT else "start"
    return [
        svg.box(x1, width, TOP, HEIGHT - FOOT - TOP, "pl-sale"),
        svg.text(x1 + (width if side == "end" else 0), TOP + 9, sale.name, anchor=side),
    ]


def _step(
    scale: _Scale, step: PriceStep, before: PriceStep | None, last: int | None, until: date
) -> list[str]:
    """One stretch: thick while it is to be had, dashed at the last price while sold out."""
    x1, x2 = scale.x(step.day), scale.x(until)
    if step.least_minor is None:
        return (
            [svg.line(x1, x2, scale.y(last), scale.y(last), "pl-out")]
            if step.known and last
            else []
        )
    y = scale.y(step.least_minor)
    shapes = []
    if step.most_minor is not None and step.most_minor > step.least_minor:
        top = scale.y(step.most_minor)
        shapes.append(svg.box(x1, x2 - x1, top, round(y - top, 1), "pl-band"))
    if before is not None and before.least_minor is not None:
        shapes.append(svg.line(x1, x1, scale.y(before.least_minor), y, "pl-step"))
    shapes.append(svg.line(x1, x2, y, y, "pl-step"))
    return shapes


def line_words(steps: Sequence[PriceStep], currency: str, what: str) -> str:
    """The line in a sentence: from what to what, lowest and highest."""
    prices = [step for step in steps if step.least_minor is not None]
    if not prices:
        return f"No price of {what} is known."
    first, last = prices[0], prices[-1]
    lowest = min(prices, key=lambda step: (step.least_minor or 0, step.day))
    sentence = (
        f"{what}: {money(first.least_minor or 0, currency)} on {first.day:%-d %b %Y},"
        f" {money(last.least_minor or 0, currency)} since {last.day:%-d %b %Y};"
        f" lowest {money(lowest.least_minor or 0, currency)} on {lowest.day:%-d %b %Y}."
    )
    return sentence if steps[-1].least_minor is not None else f"{sentence} Sold out now."
