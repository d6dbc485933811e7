"""Prices over time: what a part, or a whole list, cost delivered on each day that is known."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

USUAL_SPAN = timedelta(days=90)
"""The days before that say what is usual."""


@dataclass(frozen=True, slots=True, kw_only=True)
class OfferSpan:
    """An offer from the day on which it was first seen to the day on which it changed or went
    (None: it stands); money in minor units.
    """

    part_id: str
    shop: str
    used: bool
    delivered_minor: int
    in_stock: bool
    start: date
    end: date | None

    def holds_on(self, day: date) -> bool:
        return self.start <= day and (self.end is None or day < self.end)


@dataclass(frozen=True, slots=True)
class PriceStep:
    """From a day on: the cheapest and the dearest offer that can be had, in minor units (None:
    sold out), and whether there was any offer at all.
    """

    day: date
    least_minor: int | None
    most_minor: int | None
    known: bool


def price_steps(spans: Iterable[OfferSpan]) -> tuple[PriceStep, ...]:
    """The steps of one part, the oldest first; days on which nothing changes are left out."""
    offer_spans = list(spans)
    days = sorted(
        {span.start for span in offer_spans} | {span.end for span in offer_spans if span.end}
    )
    steps: list[PriceStep] = []
    for day in days:
        there = [span for span in offer_spans if span.holds_on(day)]
        prices = [span.delivered_minor for span in there if span.in_stock]
        step = PriceStep(
            day, min(prices, default=None), max(prices, default=None), known=bool(there)
        )
        if not steps or _what(steps[-1]) != _what(step):
            steps.append(step)
    return tuple(steps)


def least_until(spans: Iterable[OfferSpan], day: date) -> int | None:
    """The cheapest offer that could be had until that day, in minor units: also one that came and
    went on the day itself, for which there is no step.
    """
    return min(
        (span.delivered_minor for span in spans if span.in_stock and span.end == day), default=None
    )


def _what(step: PriceStep) -> tuple[int | None, int | None, bool]:
    return step.least_minor, step.most_minor, step.known


def price_on(steps: Sequence[PriceStep], day: date) -> int | None:
    """The cheapest price on a day; None where it is not known or sold out."""
    least = None
    for step in steps:
        if step.day > day:
            break
        least = step.least_minor
    return least


def total_steps(
    parts: Mapping[str, Sequence[PriceStep]], times: Mapping[str, int]
) -> tuple[PriceStep, ...]:
    """What a list cost delivered, part by part, on every day on which one of its prices changed;
    unknown while one of its parts had no price.
    """
    days = sorted({step.day for part_id in times for step in parts.get(part_id, ())})
    steps: list[PriceStep] = []
    for day in days:
        prices = [(price_on(parts.get(part, ()), day), count) for part, count in times.items()]
        known = [price * count for price, count in prices if price is not None]
        total = sum(known) if len(known) == len(prices) else None
        step = PriceStep(day, total, total, known=bool(known))
        if not steps or _what(steps[-1]) != _what(step):
            steps.append(step)
    return tuple(steps)


def days_in_stock(spans: Iterable[OfferSpan], start: date, end: date) -> tuple[int, int]:
    """On how many days of a stretch (both ends counted) one of these offers could be had, and on
    how many anything is known of them.
    """
    offer_spans = list(spans)
    days = [date.fromordinal(day) for day in range(start.toordinal(), end.toordinal() + 1)]
    there = [[span.in_stock for span in offer_spans if span.holds_on(day)] for day in days]
    return sum(any(each) for each in there), sum(bool(each) for each in there)


def usual_minor(steps: Sequence[PriceStep], start: date, end: date) -> int | None:
    """The median over the days of a stretch (from the first up to the last, both counted), of the
    cheapest price; None where no day has one.
    """
    prices: list[tuple[int, int]] = []
    for n, step in enumerate(steps):
        first = max(step.day, start)
        last = steps[n + 1].day if n + 1 < len(steps) else None
        days = ((last or end).toordinal() - first.toordinal()) + (1 if last is None else 0)
        if last is not None and last > end:
            days = end.toordinal() - first.toordinal() + 1
        if step.least_minor is not None and days > 0:
            prices.append((step.least_minor, days))
    whole, passed = sum(days for _, days in prices), 0
    for price, days in sorted(prices):
        passed += days
        if 2 * passed >= whole:
            return price
    return None
