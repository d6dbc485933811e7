"""Offers beyond their price: what counts as being had, what a used part risks, in stock surely."""

from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_prices_and_money import OFFER, book
from tests.demo import plans, world
from tests.extent import exhaustive, extent
from tests.worlds import REGION
from wattmetron.cache.cache import Keeper
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.offers import Buys, PriceBook, Terms
from wattmetron.core.values.price_history import OfferSpan, days_in_stock
from wattmetron.core.values.risk import HIRE, NO_RETURNS, UNTESTED, risk_of
from wattmetron.core.values.shops import ShopRules
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.wish_costs import wish_costs
from wattmetron.words.offer_words import offer_facts, offer_marks

CASE = "boxwood-yard-crate"
USED = replace(OFFER, part_id="used", price_minor=195_00, shipping_minor=5_00, condition="used")


def a_card():
    return world().by_kind["graphics"][0]


@pytest.mark.parametrize(
    ("condition", "terms", "minor"),
    [
        ("new", Terms(), 0),
        ("used", Terms(), 16_00),
        ("refurbished", Terms(), 8_00),
        ("remanufactured", Terms(), 11_20),
        ("used", Terms(remarks=(HIRE,)), 32_00),
        ("used", Terms(remarks=(UNTESTED,)), 46_00),
        ("used", Terms(remarks=(HIRE, UNTESTED)), 62_00),
        ("used", Terms(warranty_months=6), 12_00),
        ("used", Terms(warranty_months=30), 0),
        ("used", Terms(returns=True), 10_67),
        ("used", Terms(returns=True, remarks=(NO_RETURNS,)), 16_00),
        ("used", Terms(returns=True, warranty_months=12), 8_00),
        ("used", Terms(remarks=("a scratch",)), 16_00),
    ],
)
def test_the_risk_of_a_card_by_hand(condition, terms, minor):
    """200 paid x 8 % that fail, doubled by hire, 15 points more untested; a third shows at once."""
    assert risk_of(a_card(), replace(USED, condition=condition, terms=terms)).minor == minor


def test_a_used_offer_is_compared_with_its_risk_and_paid_without():
    part = replace(OFFER, part_id=a_card().id)
    catalogue = replace(
        world(),
        offers=(
            replace(part, region="vellmouth", price_minor=212_00, shipping_minor=0),
            replace(USED, part_id=a_card().id, region="vellmouth", shop="Bench"),
        ),
    )
    prices = catalogue.prices("vellmouth", Buys(used=True))
    best = prices.best(a_card().id)
    assert best.condition == "new" and prices.cost(a_card().id) == 212_00
    (bench,) = [own for own in prices.all_of(a_card().id) if own.condition == "used"]
    assert (bench.delivered_minor, bench.risk_minor, bench.cost_minor) == (200_00, 16_00, 216_00)
    assert offer_marks(bench) == ("used", "EUR\u00a016 of it for the risk")
    (said,) = offer_facts(a_card(), bench)
    assert "EUR\u00a0200 paid × 8" in said and "assumed" in said and "EUR\u00a0216" in said


def test_what_cannot_simply_be_ordered_is_left_out_unless_asked_for():
    listed = replace(OFFER, shop="A", price_minor=100, terms=Terms(sold_by="raffle"))
    ordered = replace(OFFER, shop="B", price_minor=100, stock="ordered")
    few = replace(OFFER, shop="C", price_minor=9_000, stock="few")
    plain = book(listed, ordered, few, OFFER)
    assert plain.best("p") == few and plain.supply("p") == (2, 1)
    asked = PriceBook(REGION, (listed, ordered, few, OFFER), Buys(by_list=True))
    assert asked.best("p") == listed and asked.supply("p") == (3, 2)
    assert offer_marks(listed) == ("by raffle only",) and offer_marks(few) == ("the last few",)
    back = replace(OFFER, terms=Terms(rebate_minor=20_00, extra="a game", extra_minor=5_00))
    assert book(back).cost("p") == book(OFFER).cost("p")
    assert [words.split(",")[0] for words in offer_facts(a_card(), back)] == [
        "EUR\u00a020 come back later for a form sent in: not counted",
        "With a game",
    ]


AVAILABLE = {
    "not few": lambda offers: any(own.stock == "in" for own in offers),
    "two shops": lambda offers: len({own.shop for own in offers}) > 1,
}


@pytest.mark.parametrize("wish", AVAILABLE)
@exhaustive
@pytest.mark.parametrize(
    "name", extent(["harbour-hall"], ["net-loft", "harbour-hall", "old-bench-machine"])
)
def test_surely_in_stock_is_the_same_as_a_market_without_the_rest(name, wish):
    """The other way to the answer: take out of the shops what the wish does not let in."""
    brief, _ = plans()[name]
    had: dict[str, list] = {}
    for own in world().offers:
        if own.region == brief.region and own.may_be_had(brief.may_buy):
            had.setdefault(own.part_id, []).append(own)
    sure = {part_id for part_id, offers in had.items() if AVAILABLE[wish](offers)}
    less = replace(world(), offers=tuple(own for own in world().offers if own.part_id in sure))
    for aim in ("most frames", "least money"):
        asked = propose(world(), replace(brief, availability=wish), aim)
        other = propose(less.kept_by(Keeper()), brief, aim)
        assert asked.build == other.build and asked.cost_minor == other.cost_minor
        bought = {part_id for _, part_id in asked.build.ids()} - {*brief.owned}
        assert bought <= sure


def test_the_wish_is_named_where_a_part_misses_it_and_has_its_price():
    brief, _ = plans()["net-loft"]
    build = propose(world(), brief, "most frames").build
    few = build.supply
    offers = tuple(
        replace(own, stock="few" if own.stock == "in" else own.stock) if own.part_id == few else own
        for own in world().offers
    )
    catalogue = replace(world(), offers=offers).kept_by(Keeper())
    wishing = replace(brief, availability="not few")
    (said,) = [own for own in assess(catalogue, wishing, build).floors if "last few" in own]
    assert catalogue.part(few).name in said
    sure = propose(catalogue, wishing, "least money").build
    assert any(own.wish.name == "availability" for own in wish_costs(catalogue, wishing, sure))


@given(st.lists(st.tuples(st.integers(0, 40), st.integers(1, 20), st.booleans()), max_size=6))
def test_days_in_stock_counted_one_by_one(drawn):
    start = date(2026, 9, 1)
    spans = [
        OfferSpan(
            part_id="p",
            shop="A",
            used=False,
            delivered_minor=1,
            in_stock=there,
            start=start + timedelta(days=first),
            end=start + timedelta(days=first + length),
        )
        for first, length, there in drawn
    ]
    stretch = [start + timedelta(days=n) for n in range(5, 36)]
    there = sum(any(s.start <= d < s.end and s.in_stock for s in spans) for d in stretch)
    known = sum(any(s.start <= d < s.end for s in spans) for d in stretch)
    assert days_in_stock(spans, stretch[0], stretch[-1]) == (there, known)


def test_a_doubtful_shop_counts_only_where_anything_is_taken():
    region = replace(OFFER, part_id=CASE, region="vellmouth", shop="Backdoor", price_minor=1_00)
    rules = ShopRules(shop="Backdoor", region="vellmouth", parcel_minor=0, trust="doubtful")
    catalogue = replace(
        world(), offers=(*world().offers, region), shops={**world().shops, rules.key: rules}
    ).kept_by(Keeper())
    careful = catalogue.prices("vellmouth", Buys())
    assert careful.best(CASE).shop != "Backdoor" and not careful.lets(region)
    assert catalogue.prices("vellmouth", Buys(doubtful=True)).best(CASE).shop == "Backdoor"
    brief, _ = plans()["net-loft"]
    assert not brief.may_buy.doubtful
    assert replace(brief, trust_floor="anything").may_buy.doubtful
    assert "Backdoor" in {own.shop for own in careful.all_of(CASE)}, "listed all the same"
