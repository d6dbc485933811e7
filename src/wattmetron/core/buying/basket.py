"""What is to be bought, where it is to be had, and what a choice of shops costs to the cent."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import NamedTuple

from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.shops import HEAVY_KINDS, BundleOffer, Code, ShopRules


class Want(NamedTuple):
    """A part that is to be bought, with its kind, so many times."""

    part_id: str
    kind: Kind
    times: int


class PartSource(NamedTuple):
    """A shop that has a part: what one costs there, its shipping alone, and what is counted for
    the risk of a part that is not new but not paid, in minor units.
    """

    part_id: str
    shop: str
    price_minor: int
    alone_minor: int
    risk_minor: int = 0


class Bought(NamedTuple):
    """So many of a part from a place."""

    source: PartSource
    times: int


class Bundled(NamedTuple):
    """Parts taken together from a shop, so many times."""

    shop: str
    together: BundleOffer
    times: int


@dataclass(frozen=True, slots=True)
class Market:
    """The wants with where each is to be had, the rules of the shops by name, and the day."""

    wants: tuple[Want, ...]
    places: tuple[PartSource, ...]
    rules: Mapping[str, ShopRules]
    day: date

    def kind(self, part_id: str) -> Kind:
        return next(want.kind for want in self.wants if want.part_id == part_id)

    @property
    def shops(self) -> tuple[str, ...]:
        """Every shop that has something that is wanted, in the order of their names."""
        return tuple(
            sorted({source.shop for source in self.places} | {shop for shop, _ in self.bundles()})
        )

    def bundles(self) -> list[tuple[str, BundleOffer]]:
        """What shops sell together today of which every part is wanted."""
        wanted = {want.part_id: want.times for want in self.wants}
        return [
            (shop, bundle)
            for shop, rules in sorted(self.rules.items())
            for bundle in rules.together
            if bundle.holds_on(self.day)
            and all(wanted.get(part, 0) >= n for part, n in Counter(bundle.parts).items())
        ]


@dataclass(frozen=True, slots=True)
class Parcel:
    """What comes from one shop: parts, what they cost, shipping, and the code that is used with
    what it takes off, in minor units.
    """

    shop: str
    bought: tuple[Bought, ...]
    bundled: tuple[Bundled, ...]
    goods_minor: int
    shipping_minor: int
    code: Code | None
    off_minor: int

    @property
    def total_minor(self) -> int:
        return self.goods_minor + self.shipping_minor - self.off_minor

    @property
    def risk_minor(self) -> int:
        return sum(bought_part.source.risk_minor * bought_part.times for bought_part in self.bought)

    def times(self, part_id: str) -> int:
        """How many of a part are in it."""
        alone = sum(
            bought_part.times
            for bought_part in self.bought
            if bought_part.source.part_id == part_id
        )
        lots = (bundle.times * bundle.together.parts.count(part_id) for bundle in self.bundled)
        return alone + sum(lots)

    def shares(self) -> dict[str, int]:
        """What each part comes to, shipping and code shared by price; the shares add up to the
        total, cents that are left over go to the largest remainders.
        """
        worth: Counter[str] = Counter()
        for bought_part in self.bought:
            worth[bought_part.source.part_id] += bought_part.source.price_minor * bought_part.times
        for lot in self.bundled:
            for part_id in lot.together.parts:
                each = lot.together.price_minor * lot.times
                worth[part_id] += each // len(lot.together.parts)
        whole = sum(worth.values()) or 1
        total = self.total_minor
        parts = {part_id: divmod(total * amount, whole) for part_id, amount in worth.items()}
        rest = total - sum(amount for amount, _ in parts.values())
        last = sorted(parts, key=lambda part_id: (-parts[part_id][1], part_id))[:rest]
        return {part_id: amount + (part_id in last) for part_id, (amount, _) in parts.items()}


def parcel(
    market: Market, shop: str, bought: Sequence[Bought], bundled: Sequence[Bundled] = ()
) -> Parcel:
    """A parcel as cheap as the shop makes it: the threshold counts goods before a code, the code
    that takes off most is used, what is sold together gets no code.
    """
    rules = market.rules.get(shop)
    singles = sum(bought_part.source.price_minor * bought_part.times for bought_part in bought)
    goods = singles + sum(bundle.together.price_minor * bundle.times for bundle in bundled)
    kinds = {market.kind(bought_part.source.part_id) for bought_part in bought}
    kinds |= {market.kind(part) for bundle in bundled for part in bundle.together.parts}
    if rules is None:
        shipping = sum(bought_part.source.alone_minor * bought_part.times for bought_part in bought)
        return Parcel(shop, tuple(bought), tuple(bundled), goods, shipping, None, 0)
    shipping = rules.shipping_minor(goods, bool(kinds & HEAVY_KINDS))
    off, code = 0, None
    for offer_code in rules.codes:
        if offer_code.holds_on(market.day) and goods >= offer_code.from_minor:
            counts = counted_minor(market, offer_code, bought)
            took = off_minor(offer_code, counts)
            if took > off:
                off, code = took, offer_code
    return Parcel(shop, tuple(bought), tuple(bundled), goods, shipping, code, off)


def counted_minor(market: Market, code: Code, bought: Sequence[Bought]) -> int:
    """The goods that a code counts for."""
    return sum(
        bought_part.source.price_minor * bought_part.times
        for bought_part in bought
        if not code.kinds or market.kind(bought_part.source.part_id) in code.kinds
    )


def off_minor(code: Code, counted: int) -> int:
    """What a code takes off goods that it counts for; parts of a cent stay with the shop."""
    return min(counted, code.minor + int(counted * round(code.percent * 100) // 10_000))
