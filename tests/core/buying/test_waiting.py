"""Wait or buy: counted by hand, and right as often as it says on years that it has not seen."""

from collections import defaultdict
from datetime import date, timedelta

import pytest

from tests.demo import described
from tests.extent import exhaustive, extent
from wattmetron.core.buying.waiting import LEAST_STRETCHES, Seen, chance_of, stretches, wait_for
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.price_history import PriceStep
from wattmetron.demo import TODAY
from wattmetron.demo.shop_server import feed

START = date(2026, 1, 1)


def line(*prices, every=7):
    return tuple(
        PriceStep(START + timedelta(days=every * n), price, price, known=True)
        for n, price in enumerate(prices)
    )


def test_stretches_by_hand():
    falling = line(1000, 990, 960, 955, 940, 930, 900, 880, 870)
    end = falling[-1].day
    assert stretches(falling, end, 0.05) == Seen(2, 2)
    assert stretches(falling, end, 0.07) == Seen(1, 2)
    assert stretches(falling, end, 0.20) == Seen(0, 2)
    dip = line(1000, 1000, 900, 1000, 1000)
    assert stretches(dip, dip[-1].day, 0.05) == Seen(1, 1), "a sale in between counts"
    gap = (*line(1000, 900), PriceStep(START + timedelta(days=14), None, None, known=True))
    assert stretches(gap, START + timedelta(days=42), 0.05) == Seen(0, 0), "sold out at its begin"
    assert stretches(line(1000), START + timedelta(days=20), 0.05) == Seen()
    assert chance_of(Seen(0, 0), Seen(30, 100)) == pytest.approx(30.5 / 101)
    assert chance_of(Seen(8, 8), Seen(0, 100)) == pytest.approx((8 + 8 * 0.5 / 101) / 16)


def test_nothing_is_said_where_the_history_carries_nothing():
    few = {f"kit {n}": line(1000, 900, 1000, 1000, 1000) for n in range(LEAST_STRETCHES - 1)}
    day = START + timedelta(days=28)
    assert wait_for("kit 0", few, day, 0.05) is None
    enough = {**few, "kit": line(1000, 990, 985, 980, 975)}
    found = wait_for("kit", enough, day, 0.05)
    assert found.kind == Seen(LEAST_STRETCHES - 1, LEAST_STRETCHES) and found.said is None
    assert 0.8 < found.chance < 0.95 and wait_for("none of them", enough, day, 0.05) is None


def year(seed, weeks=34):
    """Weekly price lines of all parts of one shop in a simulated year, by kind."""
    lines = defaultdict(lambda: defaultdict(list))
    for week in range(1, weeks):
        day = TODAY + timedelta(weeks=week)
        for own in feed(described(), "northlight-direct", day, seed)["offers"]:
            price = round(float(own["price"]) * 100) if own["stock"] in ("in", "few") else None
            kind = kind_of(described().parts[own["part"]])
            lines[kind][own["part"]].append(PriceStep(day, price, price, known=True))
    return lines


@exhaustive
def test_what_is_said_comes_true_as_often_on_years_that_were_not_seen():
    then, end = TODAY + timedelta(weeks=28), TODAY + timedelta(weeks=32)
    told = defaultdict(list)
    for seed in range(7, extent(9, 13)):
        for lines in year(seed).values():
            before = {own: [s for s in line if s.day <= then] for own, line in lines.items()}
            for part_id, steps in lines.items():
                found = wait_for(part_id, before, then, 0.03)
                price = before[part_id][-1].least_minor
                if found is None or price is None:
                    continue
                after = [s.least_minor for s in steps if then < s.day <= end and s.least_minor]
                came = min(after, default=price) <= 0.97 * price
                told[int(found.chance * 10)].append((found.chance, came))
    large = [own for own in told.values() if len(own) >= extent(40, 100)]
    assert len(large) >= 5, "from unlikely to near certain"
    for own in large:
        said = sum(one for one, _ in own) / len(own)
        came = sum(one for _, one in own) / len(own)
        assert abs(said - came) <= 0.1, (said, came, len(own))
