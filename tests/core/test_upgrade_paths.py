"""The way through the years against every way."""

from collections import Counter
from itertools import pairwise, product

import numpy as np

from wattmetron.core.balance.upgrade_paths import best_path

PARTS = ("a", "b", "c", "d", "e", "f")


def total(way, builds, there, price, used):
    """What a way costs, bought and sold part by part."""
    had, spent = Counter(there), 0
    for year, n in enumerate(way):
        for part in PARTS:
            more = builds[n][part] - had[part]
            spent += more * price(year, part) if more > 0 else more * used(year, part)
        had = builds[n]
    return spent - sum(used(len(way), part) * n for part, n in had.items())


def test_orders_of_a_hundred_random_cases_equal_brute_force():
    none = changed = kept = 0
    for seed in range(100):
        rng = np.random.default_rng(seed)
        count, years = int(rng.integers(2, 6)), int(rng.integers(1, 5))
        builds = [
            Counter(rng.choice(PARTS, int(rng.integers(2, 5))).tolist()) for _ in range(count)
        ]
        prices = {part: int(rng.integers(20, 400)) for part in PARTS}

        def price(year, part, prices=prices):
            return round(prices[part] * 0.9**year)

        def used(year, part, price=price):
            return price(year, part) * 70 // 100

        holds = (rng.random((years, count)) < 0.6).tolist()
        there = Counter(rng.choice(PARTS, 2).tolist()) if seed % 2 else Counter()
        ways = [
            (total(way, builds, there, price, used), sum(a != b for a, b in pairwise(way)), way)
            for way in product(range(count), repeat=years)
            if all(holds[year][n] for year, n in enumerate(way))
        ]
        got = best_path(builds, holds, price, used, there)
        if not ways:
            assert got is None
            none += 1
            continue
        cost, changes, way = min(ways)
        assert (got.cost, got.builds) == (cost, way), seed
        changed += changes > 0
        kept += changes == 0
    assert none and changed > 10 and kept > 10


def test_a_cheap_card_now_and_another_later_by_hand():
    """A plain card now and the strong one when it is needed; the last one sells for half."""
    prices = {"plain": 100, "strong": 300}

    def price(year, part):
        return round(prices[part] * 0.8**year)

    def used(year, part):
        return price(year, part) // 2

    builds = [Counter({"plain": 1}), Counter({"strong": 1})]
    late = best_path(builds, [[True, True], [False, True]], price, used)
    assert late.builds == (1, 1) and late.cost == 300 - price(2, "strong") // 2
    later = best_path(builds, [[True, True], [True, True], [False, True]], price, used)
    bought = 100 + price(2, "strong") - used(2, "plain") - used(3, "strong")
    assert later.cost == min(bought, 300 - used(3, "strong"))
    assert best_path(builds, [[True, True], [False, False]], price, used) is None
