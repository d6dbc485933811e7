"""Where to buy: against every choice there is on small markets, and by hand."""

from collections import Counter
from datetime import date
from itertools import combinations_with_replacement, product

import numpy as np
import pytest

from tests.extent import exhaustive, extent
from wattmetron.core.buying.basket import Bought, Market, PartSource, Want, parcel
from wattmetron.core.buying.purchase import Purchase, _Program, by_parcels, purchase
from wattmetron.core.values.shops import BundleOffer, Code, ShopRules

DAY = date(2026, 11, 29)
KINDS = ("processor", "case", "memory", "fan", "supply", "display")


def drawn(seed: int) -> Market:
    """A small market with thresholds, heavy parts, codes and parts sold together."""
    rng = np.random.default_rng(seed)
    pick = lambda *values: values[int(rng.integers(len(values)))]  # noqa: E731
    wants = tuple(
        Want(f"p{n}", KINDS[n], int(pick(1, 1, 1, 2))) for n in range(int(rng.integers(2, 5)))
    )
    shops = [f"shop {n}" for n in range(int(rng.integers(1, 4)))]
    places = tuple(
        PartSource(
            want.part_id,
            shop,
            int(rng.integers(10, 120)) * 100 + pick(0, 90, 37),
            pick(0, 490),
            pick(0, 0, 450),
        )
        for want in wants
        for shop in shops
        if rng.random() < 0.75
    )
    rules = {}
    for shop in shops:
        if rng.random() < 0.2:
            continue
        codes = tuple(
            Code(
                code=f"C{n}",
                percent=float(pick(0, 3, 7.5, 10)),
                minor=int(pick(0, 500, 1500)),
                from_minor=int(pick(0, 6000, 15000)),
                until=pick(None, None, date(2026, 11, 28), date(2026, 11, 29)),
                kinds=pick((), (), ("processor", "memory")),
            )
            for n in range(int(rng.integers(0, 3)))
        )
        several = tuple(
            BundleOffer(
                parts=tuple(want.part_id for want in wants if rng.random() < 0.6) or ("p0",),
                price_minor=int(rng.integers(20, 200)) * 100,
                until=pick(None, date(2026, 11, 1)),
            )
            for _ in range(int(rng.integers(0, 2)))
        )
        rules[shop] = ShopRules(
            shop=shop,
            region="r",
            parcel_minor=int(pick(490, 790)),
            heavy_minor=int(pick(0, 900)),
            free_above_minor=pick(None, 5000, 15000, 25000),
            codes=codes,
            together=several,
        )
    return Market(wants, places, rules, DAY)


def every_choice(market: Market):
    """Each way to buy everything, as (shop -> [part, price, alone], shop -> bundles)."""
    bundles = [
        (shop, own)
        for shop, rules in market.rules.items()
        for own in rules.together
        if own.until is None or own.until >= DAY
    ]
    for counts in product(range(3), repeat=len(bundles)):
        left = Counter({own.part_id: own.times for own in market.wants})
        for times, (_, own) in zip(counts, bundles, strict=True):
            left.subtract({part: times * n for part, n in Counter(own.parts).items()})
        if min(left.values()) < 0 or set(left) != {own.part_id for own in market.wants}:
            continue
        ways = [
            list(
                combinations_with_replacement(
                    [place for place in market.places if place.part_id == part], times
                )
            )
            for part, times in left.items()
        ]
        for way in product(*ways):
            yield [place for several in way for place in several], counts, bundles


def price_of(market: Market, singles, counts, bundles):
    """Total, risk counted, and number of parcels by the shops' rules, written out."""
    kind = {own.part_id: own.kind for own in market.wants}
    total, parcels = sum(place.risk_minor for place in singles), 0
    for shop in {own.shop for own in market.places} | {shop for shop, _ in bundles}:
        mine = [place for place in singles if place.shop == shop]
        lots = [
            (own, times)
            for times, (name, own) in zip(counts, bundles, strict=True)
            if name == shop and times
        ]
        if not mine and not lots:
            continue
        parcels += 1
        goods = sum(place.price_minor for place in mine)
        goods += sum(own.price_minor * times for own, times in lots)
        rules = market.rules.get(shop)
        if rules is None:
            total += goods + sum(place.alone_minor for place in mine)
            continue
        inside = [kind[place.part_id] for place in mine]
        inside += [kind[part] for own, _ in lots for part in own.parts]
        free = rules.free_above_minor is not None and goods >= rules.free_above_minor
        shipping = rules.parcel_minor + rules.heavy_minor * bool({"case", "display"} & {*inside})
        takes_off = [0]
        for code in rules.codes:
            if (code.until is None or code.until >= DAY) and goods >= code.from_minor:
                counted = sum(
                    place.price_minor
                    for place in mine
                    if not code.kinds or kind[place.part_id] in code.kinds
                )
                percent = counted * round(code.percent * 100) // 10_000
                takes_off.append(min(counted, code.minor + percent))
        total += goods + (0 if free else shipping) - max(takes_off)
    return total, parcels


@exhaustive
@pytest.mark.parametrize("seed", range(extent(20, 60)))
def test_equals_every_choice_on_small_markets(seed):
    market = drawn(seed)
    ways = [price_of(market, *way) for way in every_choice(market)]
    found = purchase(market)
    if not ways:
        assert found is None
        return
    assert (found.cost_minor, len(found.parcels)) == min(ways)
    for own in by_parcels(market):
        few = [total for total, parcels in ways if parcels <= len(own.parcels)]
        assert own.cost_minor == min(few)
    least = min(parcels for _, parcels in ways)
    assert len(by_parcels(market)[-1].parcels) == least
    for own in found.parcels:
        assert own.total_minor == own.goods_minor + own.shipping_minor - own.off_minor
    had = Counter()
    for own in found.parcels:
        had.update({one.source.part_id: one.times for one in own.bought})
        for lot in own.bundled:
            had.update({part: lot.times * n for part, n in Counter(lot.together.parts).items()})
    assert had == Counter({want.part_id: want.times for want in market.wants})


def test_a_threshold_is_worth_a_dearer_part():
    wants = (Want("chip", "processor", 1), Want("kit", "memory", 1))
    places = (
        PartSource("chip", "near", 24_000, 490),
        PartSource("kit", "near", 1_200, 490),
        PartSource("kit", "far", 1_000, 490),
    )
    rules = {
        "near": ShopRules(shop="near", region="r", parcel_minor=490, free_above_minor=25_000),
        "far": ShopRules(shop="far", region="r", parcel_minor=490),
    }
    found = purchase(Market(wants, places, rules, DAY))
    assert found.total_minor == 25_200 and [own.shop for own in found.parcels] == ["near"]
    exact = (places[0], PartSource("kit", "near", 1_000, 490), places[2])
    assert purchase(Market(wants, exact, rules, DAY)).total_minor == 25_000, "free from 250.00 on"
    dear = (*places[:1], PartSource("kit", "near", 1_900, 490), places[2])
    split = purchase(Market(wants, dear, rules, DAY))
    assert split.total_minor == 25_900, "free shipping beats a kit for 14.90"
    dearer = (*places[:1], PartSource("kit", "near", 3_000, 490), places[2])
    both = by_parcels(Market(wants, dearer, rules, DAY))
    assert [(own.total_minor, len(own.parcels)) for own in both] == [(25_980, 2), (27_000, 1)]


def test_of_equally_cheap_ways_the_one_with_fewest_parcels_counts(monkeypatch):
    """Also where the solver comes upon the one with more parcels first."""
    wants = (Want("chip", "processor", 1), Want("kit", "memory", 1))
    places = tuple(
        PartSource(part, shop, 1_000, 0) for part in ("chip", "kit") for shop in ("a", "b")
    )
    rules = {shop: ShopRules(shop=shop, region="r", parcel_minor=0) for shop in ("a", "b")}
    ways = by_parcels(Market(wants, places, rules, DAY))
    assert [(own.total_minor, len(own.parcels)) for own in ways] == [(2_000, 1)]
    one = ways[0]
    two = Purchase(
        tuple(
            parcel(Market(wants, places, rules, DAY), own.shop, [Bought(own, 1)])
            for own in (places[0], places[3])
        )
    )
    assert two.cost_minor == one.cost_minor and len(two.parcels) == 2
    monkeypatch.setattr(_Program, "cheapest", lambda self, most: {1: one, 2: two}.get(most))
    assert by_parcels(Market(wants, places, rules, DAY)) == (one,)


def test_nothing_wanted_costs_nothing_and_what_nobody_has_cannot_be_bought():
    assert purchase(Market((), (), {}, DAY)).total_minor == 0
    assert purchase(Market((Want("chip", "processor", 1),), (), {}, DAY)) is None
