"""Speed of a purchase: 14 parts, 12 shops, thresholds, codes."""

import statistics
from datetime import date

import numpy as np

from tests.bench.questions import timed
from wattmetron.core.buying.basket import Market, PartSource, Want
from wattmetron.core.buying.purchase import by_parcels, purchase
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.core.values.shops import Code, ShopRules

PARTS, SHOPS, SEEDS = 14, 12, 10


def market(seed: int) -> Market:
    rng = np.random.default_rng(seed)
    shops = [f"shop {n}" for n in range(SHOPS)]
    base = rng.integers(2_000, 40_000, PARTS)
    wants = tuple(Want(f"p{n}", ALL_KINDS[n % len(ALL_KINDS)], 1) for n in range(PARTS))
    places = tuple(
        PartSource(want.part_id, shop, int(base[n] * rng.uniform(0.92, 1.12)), 490)
        for n, want in enumerate(wants)
        for shop in shops
        if rng.random() < 0.7
    )
    rules = {
        shop: ShopRules(
            shop=shop,
            region="r",
            parcel_minor=int(rng.integers(3, 9)) * 100 - 10,
            heavy_minor=700,
            free_above_minor=int(rng.choice([5_000, 10_000, 25_000, 50_000])),
            codes=(Code(code="X", percent=5.0, from_minor=20_000),) if rng.random() < 0.3 else (),
        )
        for shop in shops
    }
    return Market(wants, places, rules, date(2026, 11, 29))


def buying():
    markets = [market(seed) for seed in range(SEEDS)]
    times = [timed(purchase, own)[0] for own in markets]
    every = [timed(by_parcels, own)[0] for own in markets]
    print(
        f"\npurchase of {PARTS} parts from {SHOPS} shops: median {statistics.median(times):.2f} s,"
        f" at most {max(times):.2f} s (aim 0.5 s); with each smaller number of parcels"
        f" {statistics.median(every):.2f} s, at most {max(every):.2f} s"
    )
