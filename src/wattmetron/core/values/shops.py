"""How a shop sells in a region: what a parcel costs, from when it is free, codes, parts that are
sold together.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Literal

from wattmetron.core.values.part_kinds import Kind

HEAVY_KINDS: frozenset[Kind] = frozenset({"case", "display"})
"""What a shop asks more for to send."""
LONGEST_CODE = 40
ShopTrust = Literal["proven", "plain", "doubtful"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Code:
    """A code for the basket: so many per cent or so much off what counts, from so much goods on,
    up to and on a day; with ``kinds`` it counts for parts of these alone.
    """

    code: str
    percent: float = 0.0
    minor: int = 0
    from_minor: int = 0
    until: date | None = None
    kinds: tuple[Kind, ...] = ()

    def holds_on(self, day: date) -> bool:
        return self.until is None or day <= self.until


@dataclass(frozen=True, slots=True, kw_only=True)
class BundleOffer:
    """Parts that a shop sells together at one price, up to and on a day."""

    parts: tuple[str, ...]
    price_minor: int
    until: date | None = None

    def holds_on(self, day: date) -> bool:
        return self.until is None or day <= self.until


@dataclass(frozen=True, slots=True, kw_only=True)
class Sale:
    """Days of lower prices, the first and the last counted."""

    name: str
    start: date
    end: date

    @property
    def words(self) -> str:
        same = (self.start.year, self.start.month) == (self.end.year, self.end.month)
        start = f"{self.start:%-d}" if same else f"{self.start:%-d %b}"
        return f"{self.name}, {start}–{self.end:%-d %b %Y}"


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopRules:
    """What holds for one shop in one region; money in minor units of the region's currency.

    A parcel costs ``parcel_minor``, and ``heavy_minor`` more with a case or a display in it; from
    ``free_above_minor`` of goods on (None: never) it is free.
    """

    shop: str
    region: str
    parcel_minor: int
    heavy_minor: int = 0
    free_above_minor: int | None = None
    returns_days: int | None = None
    codes: tuple[Code, ...] = ()
    together: tuple[BundleOffer, ...] = ()
    sales: tuple[Sale, ...] = ()
    trust: ShopTrust = "plain"
    trust_why: str = ""

    @property
    def key(self) -> str:
        return shop_key(self.shop, self.region)

    def shipping_minor(self, goods_minor: int, heavy: bool) -> int:
        """What a parcel with so much goods costs."""
        if self.free_above_minor is not None and goods_minor >= self.free_above_minor:
            return 0
        return self.parcel_minor + (self.heavy_minor if heavy else 0)


def doubtful_in(shops: Mapping[str, ShopRules], region: str) -> frozenset[str]:
    """The names of the shops of a region that are not trusted."""
    return frozenset(
        rules.shop
        for rules in shops.values()
        if rules.region == region and rules.trust == "doubtful"
    )


def shop_key(shop: str, region: str) -> str:
    return f"{shop} · {region}"


def rules_in(rules: Iterable[ShopRules], region: str) -> dict[str, ShopRules]:
    """The rules that hold in a region, by shop."""
    return {rule.shop: rule for rule in rules if rule.region == region}
