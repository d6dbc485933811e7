"""Offers of shops and the price book of a region."""

from collections import defaultdict
from collections.abc import Callable, Collection, Iterable
from dataclasses import dataclass, replace
from datetime import date, timedelta
from decimal import Decimal
from typing import Annotated, Literal, NamedTuple

from annotated_types import Ge, Le

from wattmetron.core.values.fields import Column

Condition = Literal["new", "refurbished", "remanufactured", "used"]
Stock = Literal["in", "few", "ordered", "out"]
"""Whether a shop has a part: enough, the last ones, on its way to the shop, sold out."""
SoldBy = Literal["order", "waiting list", "raffle"]
LINKS = ("https://", "http://")
STALE_AFTER = timedelta(days=14)
PLENTY = 1_000


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
class Terms:
    """What a shop says of an offer beyond its price: how it is sold, money that comes back later
    for a form sent in, something that lies in the box with what it may be sold for, remarks on a
    used part, months of warranty that are left, whether it may be sent back, its page, what it
    should cost by the maker's list; money in minor units.
    """

    sold_by: SoldBy = "order"
    rebate_minor: int = 0
    extra: str = ""
    extra_minor: int = 0
    remarks: tuple[str, ...] = ()
    warranty_months: int | None = None
    returns: bool | None = None
    link: str = ""
    list_minor: int = 0


PLAIN = Terms()


class Buys(NamedTuple):
    """What may be bought at all: used parts too, what is had only by raffle or waiting list too,
    from doubtful shops too.
    """

    used: bool = False
    by_list: bool = False
    doubtful: bool = False


NEW_PARTS, USED_TOO, ANY_PARTS = Buys(), Buys(used=True), Buys(True, True, True)


class Supply(NamedTuple):
    """In how many shops of a region a part is in stock, and in how many of them there is more than
    the last few.
    """

    shops: int
    ample: int


AMPLE = Supply(PLENTY, PLENTY)


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """What a shop asked for a part on a day, tax included; ``risk_minor`` is what a part that is
    not new loses on average by failing, counted with its price; money in minor units.
    """

    part_id: str
    shop: str
    region: str
    currency: str
    price_minor: int
    shipping_minor: int
    stock: Stock
    condition: Condition
    seen_on: date
    terms: Terms = PLAIN
    risk_minor: int = 0

    @property
    def in_stock(self) -> bool:
        return self.stock in ("in", "few")

    @property
    def delivered_minor(self) -> int:
        """What is paid."""
        return self.price_minor + self.shipping_minor

    @property
    def cost_minor(self) -> int:
        """What is compared: what is paid, and the risk."""
        return self.price_minor + self.shipping_minor + self.risk_minor

    def may_be_had(self, buys: Buys) -> bool:
        """Whether it can be bought today by who buys so."""
        return (
            self.in_stock
            and (buys.used or self.condition == "new")
            and (buys.by_list or self.terms.sold_by == "order")
        )


class PriceBook:
    """The cheapest delivered offer in stock of every part in a region, the risk of parts that are
    not new counted.
    """

    def __init__(
        self,
        region: Region,
        offers: Iterable[Offer],
        buys: Buys,
        risk: Callable[[Offer], int] = lambda _: 0,
        doubtful: Collection[str] = (),
    ) -> None:
        self.region, self.buys = region, buys
        self.barred = frozenset[str]() if buys.doubtful else frozenset(doubtful)
        self.currency = region.currency
        self._all: dict[str, list[Offer]] = defaultdict(list)
        costs: dict[str, int] = {}
        self._best: dict[str, Offer] = {}
        days: set[date] = set()
        for offer in offers:
            if offer.region != region.id:
                continue
            risky = offer if offer.condition == "new" else replace(offer, risk_minor=risk(offer))
            part_id = risky.part_id
            self._all[part_id].append(risky)
            days.add(risky.seen_on)
            cost, least = risky.cost_minor, costs.get(part_id)
            if (least is None or cost <= least) and self.lets(risky):
                if cost != least or _rank(risky) < _rank(self._best[part_id]):
                    self._best[part_id] = risky
                costs[part_id] = cost
        self.newest: date | None = max(days, default=None)

    def best(self, part_id: str) -> Offer | None:
        """The offer that counts for a part, or None where it cannot be bought."""
        return self._best.get(part_id)

    def lets(self, offer: Offer) -> bool:
        """Whether an offer can be bought today by who buys so, from a shop that is let in."""
        return offer.may_be_had(self.buys) and offer.shop not in self.barred

    def cost(self, part_id: str) -> int | None:
        """Delivered price with its risk in minor units, or None where the part cannot be bought."""
        offer = self._best.get(part_id)
        return None if offer is None else offer.cost_minor

    def supply(self, part_id: str) -> Supply:
        """In how many shops the part can be had today."""
        able = [offer for offer in self._all.get(part_id, ()) if self.lets(offer)]
        ample = {offer.shop for offer in able if offer.stock == "in"}
        return Supply(len({offer.shop for offer in able}), len(ample))

    def all_of(self, part_id: str) -> list[Offer]:
        """All offers of a part in the region, the cheapest delivered first."""
        return sorted(self._all.get(part_id, ()), key=_rank)

    def is_stale(self, offer: Offer, after: timedelta = STALE_AFTER) -> bool:
        """Whether an offer was seen so long before the newest of the region, two weeks unless
        something else is wished.
        """
        return self.newest is not None and self.newest - offer.seen_on > after


def _rank(offer: Offer) -> tuple[int, str, str, date]:
    return offer.cost_minor, offer.condition, offer.shop, offer.seen_on
