"""Offers of shops and the price book of a region."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import Column

Condition = Literal["new", "used"]
STALE_AFTER = timedelta(days=14)


@dataclass(frozen=True, slots=True, kw_only=True)
class Region:
    """A place to buy in: its money, tax and mains voltage."""

    id: Annotated[str, Column("Region id")]
    name: Annotated[str, Column("Name")]
    currency: Annotated[str, Column("ISO 4217 currency code")]
    tax_percent: Annotated[float, Ge(0), Le(100), Column("Tax included in prices", "%")]
    mains_v: Annotated[int, Ge(90), Le(260), Column("Mains voltage", "V")] = 230
    tariff_per_kwh: Annotated[
        Decimal, Ge(0), Le(1000), Column("Price of a kWh, in the region's currency")
    ] = Decimal("0.30")


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """What a shop asked for a part on a day, tax included; money in minor units."""

    part_id: str
    shop: str
    region: str
    currency: str
    price_minor: int
    shipping_minor: int
    in_stock: bool
    condition: Condition
    seen_on: date

    @property
    def delivered_minor(self) -> int:
        return self.price_minor + self.shipping_minor


class PriceBook:
    """The cheapest delivered offer in stock of every part in a region."""

    def __init__(self, region: Region, offers: Iterable[Offer], allow_used: bool) -> None:
        self.region = region
        self.currency = region.currency
        self._all: dict[str, list[Offer]] = defaultdict(list)
        for offer in offers:
            if offer.region == region.id:
                self._all[offer.part_id].append(offer)
        self._best: dict[str, Offer] = {}
        for part_id, own in self._all.items():
            able = [one for one in own if one.in_stock and (allow_used or one.condition == "new")]
            if able:
                self._best[part_id] = min(able, key=_rank)
        days = {offer.seen_on for own in self._all.values() for offer in own}
        self.newest: date | None = max(days, default=None)

    def best(self, part_id: str) -> Offer | None:
        """The offer that counts for a part, or None where it cannot be bought."""
        return self._best.get(part_id)

    def delivered(self, part_id: str) -> int | None:
        """Delivered price in minor units, or None where the part cannot be bought."""
        offer = self._best.get(part_id)
        return None if offer is None else offer.delivered_minor

    def all_of(self, part_id: str) -> list[Offer]:
        """All offers of a part in the region, the cheapest delivered first."""
        return sorted(self._all.get(part_id, ()), key=_rank)

    def is_stale(self, offer: Offer) -> bool:
        """Whether an offer was seen more than two weeks before the newest of the region."""
        return self.newest is not None and self.newest - offer.seen_on > STALE_AFTER


def _rank(offer: Offer) -> tuple[int, str, str, date]:
    return offer.price_minor + offer.shipping_minor, offer.condition, offer.shop, offer.seen_on
