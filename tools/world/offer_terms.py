"""What the shops of the made-up world say of an offer beyond its price."""

import random
from dataclasses import replace
from datetime import date

from wattmetron.core.values.offers import Condition, Offer, Terms
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.risk import HIRE, NO_RETURNS, RESOLD_KEY, UNTESTED

FEW_SHARE, ORDERED_SHARE = 0.10, 0.4
WAITING_SHARE, RAFFLE_SHARE, REBATE_SHARE, EXTRA_SHARE = 0.02, 0.01, 0.05, 0.04
REBATE_KINDS: frozenset[Kind] = frozenset({"supply", "storage", "cooler"})
LOOKED_OVER: tuple[tuple[float, Condition, int], ...] = (
    (0.15, "refurbished", 12),
    (0.22, "remanufactured", 6),
)
EXTRA = "a code for Kiteball Arena"


def with_terms(part: Part, offer: Offer) -> Offer:
    """The offer with its terms; the same offer always gets the same."""
    draw = random.Random(f"terms {offer.part_id} {offer.shop} {offer.region} {offer.condition}")
    if offer.condition != "new":
        return _not_new(kind_of(part), offer, draw)
    stock, terms = offer.stock, Terms()
    if stock == "in" and draw.random() < FEW_SHARE:
        stock = "few"
    if stock == "out" and draw.random() < ORDERED_SHARE:
        stock = "ordered"
    kind, chance = kind_of(part), draw.random()
    if kind == "graphics" and chance < WAITING_SHARE + RAFFLE_SHARE:
        terms = Terms(sold_by="waiting list" if chance < WAITING_SHARE else "raffle")
    elif kind in REBATE_KINDS and chance < REBATE_SHARE:
        terms = Terms(rebate_minor=offer.price_minor // 10_00 * 1_00)
    elif kind == "graphics" and chance > 1 - EXTRA_SHARE:
        terms = Terms(extra=EXTRA, extra_minor=15_00 if offer.currency == "EUR" else 180_00)
    return replace(offer, stock=stock, terms=terms)


def _not_new(kind: Kind, offer: Offer, draw: random.Random) -> Offer:
    chance = draw.random()
    for share, condition, months in LOOKED_OVER:
        if chance < share:
            terms = Terms(warranty_months=months, returns=True)
            return replace(offer, condition=condition, terms=terms)
    remarks = [NO_RETURNS] if draw.random() < 0.6 else []
    if kind == "graphics" and draw.random() < 0.25:
        remarks.append(HIRE)
    if kind == "graphics" and draw.random() < 0.12:
        remarks.append(UNTESTED)
    left = draw.choice((None, None, 3, 8))
    return replace(offer, terms=Terms(remarks=tuple(remarks), warranty_months=left))


def free(part: Part, shop: str, region: str) -> Offer:
    """What costs nothing, sending included."""
    return Offer(
        part_id=part.id,
        shop=shop,
        region=region,
        currency="NOK" if region == "overwater" else "EUR",
        price_minor=0,
        shipping_minor=0,
        stock="in",
        condition="new",
        seen_on=SEEN,
    )


SEEN = date(2026, 11, 20)
KEYS = [
    Offer(
        part_id="tidewater-11-home",
        shop="The Second Bench",
        region="vellmouth",
        currency="EUR",
        price_minor=29_00,
        shipping_minor=0,
        stock="in",
        condition="used",
        seen_on=SEEN,
        terms=Terms(remarks=(RESOLD_KEY, NO_RETURNS)),
    )
]
