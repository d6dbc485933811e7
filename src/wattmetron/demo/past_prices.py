"""What the shops of the made-up world asked in the weeks before: the same shops and parts, other
prices.
"""

import random
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta
from math import exp

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.demo import TODAY, shop_rules

BACK = tuple(timedelta(weeks=weeks) for weeks in (12, 10, 8, 6, 4, 2))
DRIFT: dict[Kind, float] = {
    "memory": 0.030,
    "storage": 0.012,
    "graphics": 0.008,
    "processor": 0.006,
    "supply": -0.009,
}
"""By how much prices of a kind fell in two weeks, on average: below 0 they rose."""
SALES = shop_rules()[0].sales
ON_SALE, BEFORE_SALE = 0.95, 1.02
USUAL_DRIFT, WOBBLE, SOLD_OUT, NOT_YET = 0.002, 0.012, 0.06, 0.03


def earlier(catalogue: Catalogue) -> list[tuple[datetime, tuple[Offer, ...]]]:
    """The offers of some days before, the oldest first, each with its day."""
    return [
        (
            datetime.combine(TODAY - back, time(6), UTC),
            tuple(_offers(catalogue, back)),
        )
        for back in BACK
    ]


def _sale(offer: Offer, day: date) -> float:
    """Dearer in the weeks before sale days, cheaper on them."""
    if offer.region != "vellmouth" or offer.condition != "new":
        return 1.0
    for sale in SALES:
        if sale.start <= day <= sale.end:
            return ON_SALE
        if timedelta(0) < sale.start - day <= timedelta(days=21):
            return BEFORE_SALE
    return 1.0


def _offers(catalogue: Catalogue, back: timedelta) -> Iterator[Offer]:
    fortnights = back.days / 14
    for offer in catalogue.offers:
        draw = random.Random(f"{offer.part_id} {offer.shop} {offer.region} {offer.condition}")
        if draw.random() < NOT_YET and back.days > 28:
            continue
        drift = DRIFT.get(kind_of(catalogue.parts[offer.part_id]), USUAL_DRIFT)
        slow = draw.gauss(drift, WOBBLE / 2)
        day = random.Random(f"{offer.part_id} {offer.shop} {offer.region} {back.days}")
        moved = exp(slow * fortnights + day.gauss(0, WOBBLE)) * _sale(offer, TODAY - back)
        step = 1_000 if offer.currency == "NOK" else 100
        price = max(step, round(offer.price_minor * moved / step) * step - step // 10)
        sold_out = day.random() < SOLD_OUT
        stock = offer.stock if offer.in_stock else "in"
        yield replace(
            offer,
            price_minor=price,
            stock="out" if sold_out else stock,
            seen_on=offer.seen_on - back,
        )
