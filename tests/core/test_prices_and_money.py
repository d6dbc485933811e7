"""Money and price books: exact amounts, the offer that counts, what is stale."""

from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.worlds import REGION
from wattmetron.core.errors import BriefError, InvalidError
from wattmetron.core.values.exchange_rates import converted, read_rates, with_rates
from wattmetron.core.values.money import MoneyError, to_decimal, to_minor
from wattmetron.core.values.offers import Buys, Offer, PriceBook
from wattmetron.core.values.words import listed
from wattmetron.words.figures import GAP, money, round_money, style_of, write_as

DAY = date(2026, 11, 20)
OFFER = Offer(
    part_id="p",
    shop="Quayside Parts",
    region="town",
    currency="EUR",
    price_minor=10000,
    shipping_minor=500,
    stock="in",
    condition="new",
    seen_on=DAY,
)


@given(st.integers(0, 1_000_000_000))
def test_amounts_round_trip_exactly(minor):
    assert to_minor(to_decimal(minor)) == minor
    assert to_minor(f"{to_decimal(minor):,}") == minor
    assert to_decimal(minor) == Decimal(minor) / 100


@pytest.mark.parametrize(
    ("typed", "minor"),
    [
        ("1200", 120000),
        ("1,200", 120000),
        ("1 200.5", 120050),
        ("12,50", 1250),
        ("0", 0),
        ("1,234,567.89", 123456789),
        ("1.284,50", 128450),
        ("1.234.567,8", 123456780),
    ],
)
def test_amounts_as_people_type_them(typed, minor):
    assert to_minor(typed) == minor


@pytest.mark.parametrize("typed", ["", "abc", "-1", "nan", "inf", "1.234", "1e12", "--5", "1.2.3"])
def test_what_is_no_amount_is_refused_in_words(typed):
    with pytest.raises(MoneyError, match=r"The budget .*: enter"):
        to_minor(typed, "The budget")


def test_money_in_words():
    assert money(128400, "EUR") == f"EUR{GAP}1,284"
    assert money(128450, "EUR") == f"EUR{GAP}1,284.50"
    assert money(-100, "NOK") == f"−NOK{GAP}1"
    assert round_money(128450, "EUR") == f"EUR{GAP}1,284"
    assert listed(["a", "b", "c"]) == "a, b and c"
    assert listed(["a"]) == "a"


def book(*offers, used=False):
    return PriceBook(REGION, offers, Buys(used))


def test_the_cheapest_delivered_offer_in_stock_counts():
    cheap_but_far = replace(OFFER, shop="A", price_minor=9800, shipping_minor=1500)
    sold_out = replace(OFFER, shop="B", price_minor=100, stock="out")
    elsewhere = replace(OFFER, shop="C", price_minor=100, region="abroad")
    second_hand = replace(OFFER, shop="D", price_minor=100, condition="used")
    offers = (cheap_but_far, OFFER, sold_out, elsewhere, second_hand)
    assert book(*offers).best("p") == OFFER
    assert book(*offers).cost("p") == 10500
    assert book(*offers, used=True).best("p") == second_hand
    assert book(sold_out).cost("p") is None
    assert [item.shop for item in book(*offers).all_of("p")] == ["B", "D", "Quayside Parts", "A"]


def test_equal_prices_go_to_the_first_shop_by_name_whatever_the_order():
    other = replace(OFFER, shop="Northlight Direct")
    assert book(OFFER, other).best("p") == book(other, OFFER).best("p") == other


def test_stale_is_measured_against_the_newest_price_of_the_region():
    old = replace(OFFER, shop="Old", seen_on=DAY - timedelta(days=15))
    edge = replace(OFFER, shop="Edge", seen_on=DAY - timedelta(days=14))
    prices = book(OFFER, old, edge)
    assert prices.newest == DAY
    assert [prices.is_stale(item) for item in (OFFER, old, edge)] == [False, True, False]


@pytest.mark.parametrize(
    ("locale", "said"),
    [
        ("en", "EUR\u00a01,284.50"),
        ("de_DE.UTF-8", "EUR\u00a01.284,50"),
        ("nb_NO", "EUR\u00a01\u202f284,50"),
        ("fr-FR", "EUR\u00a01\u202f284,50"),
        ("de_CH", "EUR\u00a01'284.50"),
    ],
)
def test_amounts_are_written_as_in_the_locale(locale, said):
    write_as(locale)
    try:
        assert money(128450, "EUR") == said
        assert round_money(128400, "EUR").startswith(said[:-3])
    finally:
        write_as("en")
    with pytest.raises(InvalidError, match="not known: name one such as"):
        style_of("xx_nowhere")


def test_rates_convert_either_way_by_the_newest_day_and_never_without():
    rates = with_rates(
        read_rates("2026-10-01 EUR NOK 10.00\n2026-11-01;eur;nok;12,50\n"),
        read_rates("2026-11-01 EUR NOK 12.00"),
    )
    assert len(rates) == 2
    for day, minor in ((date(2026, 11, 20), 1200), (date(2026, 10, 31), 1000)):
        assert converted(100, "EUR", "NOK", rates, day).minor == minor
        assert converted(minor, "NOK", "EUR", rates, day).minor == 100
    assert converted(100, "EUR", "NOK", rates, date(2026, 9, 30)) is None
    assert converted(100, "EUR", "SEK", rates, DAY) is None
    for odd in (
        "",
        "EUR NOK 1",
        "2026-02-30 EUR NOK 1",
        "2026-02-03 EUR EUR 1",
        "2026-02-03 EUR NOK 0",
        "2026-02-03 EUR NOK -1",
    ):
        with pytest.raises(BriefError, match=r"rate|cannot be|day that"):
            read_rates(odd)
