"""Prices over time: every day looked at by itself."""

from datetime import date, timedelta
from itertools import pairwise
from statistics import median_low

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.extent import exhaustive, extent
from wattmetron.core.values.price_history import (
    OfferSpan,
    least_until,
    price_on,
    price_steps,
    total_steps,
    usual_minor,
)

START = date(2026, 8, 1)
DAYS = [START + timedelta(days=n) for n in range(40)]


def test_a_price_that_came_and_went_on_one_day_is_the_last_that_is_known():
    def span(shop, cost, in_stock, end):
        return OfferSpan(
            part_id="kit",
            shop=shop,
            used=False,
            delivered_minor=cost,
            in_stock=in_stock,
            start=START,
            end=end,
        )

    seen = [
        span("near", 700, True, START),
        span("far", 650, True, START),
        span("near", 600, False, START),
        span("near", 800, False, None),
    ]
    assert [step.least_minor for step in price_steps(seen)] == [None]
    assert least_until(seen, START) == 650
    assert least_until(seen, DAYS[1]) is None


@st.composite
def spans(draw, part_id="kit"):
    found = []
    for _ in range(draw(st.integers(0, 5))):
        first = draw(st.integers(0, 30))
        last = draw(st.none() | st.integers(first + 1, 38))
        found.append(
            OfferSpan(
                part_id=part_id,
                shop=draw(st.sampled_from(["near", "far"])),
                used=False,
                delivered_minor=draw(st.integers(100, 900)),
                in_stock=draw(st.booleans()),
                start=DAYS[first],
                end=None if last is None else DAYS[last],
            )
        )
    return found


def least_on(own, day):
    prices = [
        span.delivered_minor
        for span in own
        if span.in_stock and span.start <= day and (span.end is None or span.end > day)
    ]
    return min(prices, default=None)


@exhaustive
@settings(max_examples=extent(50, 600))
@given(spans())
def test_each_day_has_its_cheapest_price(own):
    steps = price_steps(own)
    assert [price_on(steps, day) for day in DAYS] == [least_on(own, day) for day in DAYS]
    assert all(one.day < two.day for one, two in pairwise(steps))


@exhaustive
@settings(max_examples=extent(33, 400))
@given(spans("kit"), spans("card"), st.integers(1, 3))
def test_a_list_on_that_day_is_the_sum_of_its_parts(kits, cards, times):
    steps = total_steps(
        {"kit": price_steps(kits), "card": price_steps(cards)}, {"kit": times, "card": 1}
    )
    for day in DAYS:
        kit, card = least_on(kits, day), least_on(cards, day)
        whole = None if kit is None or card is None else times * kit + card
        assert price_on(steps, day) == whole


@exhaustive
@settings(max_examples=extent(50, 600))
@given(spans(), st.integers(0, 30), st.integers(0, 20))
def test_the_usual_price_is_the_median_over_the_days(own, first, length):
    start = DAYS[first]
    end = start + timedelta(days=length)
    days = [start + timedelta(days=n) for n in range(length + 1)]
    prices = [price for day in days if (price := least_on(own, day)) is not None]
    assert usual_minor(price_steps(own), start, end) == (median_low(prices) if prices else None)


def test_a_list_by_hand():
    def kept(minor, start, end=None, stock=True):
        return OfferSpan(
            part_id="kit",
            shop="near",
            used=False,
            delivered_minor=minor,
            in_stock=stock,
            start=DAYS[start],
            end=None if end is None else DAYS[end],
        )

    own = [kept(7000, 0, 10), kept(6500, 10, 20, stock=False), kept(6000, 20)]
    assert [(step.day, step.least_minor, step.known) for step in price_steps(own)] == [
        (DAYS[0], 7000, True),
        (DAYS[10], None, True),
        (DAYS[20], 6000, True),
    ]
    assert usual_minor(price_steps(own), DAYS[0], DAYS[39]) == 6000
