"""The feed of a shop: what it asks today, as JSON."""

import json
from datetime import UTC, date, datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from wattmetron.core.errors import InvalidError
from wattmetron.core.texts.messages.money_amounts import minor_of
from wattmetron.core.values.offers import Condition, SoldBy, Stock, Terms
from wattmetron.core.values.text import clean
from wattmetron.formats.prices_table import PriceRow

FEED_FORMAT = "wattmetron-feed/1"
MOST_OFFERS = 20_000
Amount = Annotated[str, Field(pattern=r"^\d{1,9}(?:\.\d{1,2})?$")]

ShopName = Annotated[
    str,
    StringConstraints(
        strip_whitespace=True, min_length=1, max_length=120, pattern=r"^[^\x00-\x1f\x7f]+$"
    ),
]


class FeedError(InvalidError):
    """What a shop sent is no feed."""


class FeedHead(BaseModel):
    """What a feed says of itself."""

    model_config = ConfigDict(extra="ignore")
    format: Literal["wattmetron-feed/1"]
    shop: ShopName
    region: Annotated[str, Field(min_length=1, max_length=80)]
    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")]
    tax: Literal["included", "not included"] = "included"
    at: datetime
    offers: Annotated[list[Any], Field(max_length=MOST_OFFERS)]


class FeedOffer(BaseModel):
    """One offer of a feed."""

    model_config = ConfigDict(extra="ignore")
    part: Annotated[str, Field(min_length=1, max_length=200)]
    price: Amount
    shipping: Amount | None = None
    stock: Stock = "in"
    condition: Condition = "new"
    sold_by: SoldBy = "order"
    rebate: Amount | None = None
    list_price: Amount | None = None
    extra: Annotated[str, Field(max_length=120)] = ""
    extra_worth: Amount | None = None
    remarks: Annotated[tuple[Annotated[str, Field(max_length=80)], ...], Field(max_length=8)] = ()
    warranty_months: Annotated[int, Field(ge=0, le=600)] | None = None
    returns: bool | None = None
    link: Annotated[str, Field(max_length=400, pattern=r"^(?:https?://\S+)?$")] = ""

    @property
    def terms(self) -> Terms:
        return Terms(
            sold_by=self.sold_by,
            rebate_minor=_minor(self.rebate),
            extra=clean(self.extra),
            extra_minor=_minor(self.extra_worth),
            remarks=tuple(clean(remark) for remark in self.remarks),
            warranty_months=self.warranty_months,
            returns=self.returns,
            link=self.link,
            list_minor=_minor(self.list_price),
        )


def _minor(amount: str | None) -> int:
    return 0 if amount is None else minor_of(amount)


class Feed(BaseModel):
    """A feed that was read: whose it is, of which day, and its rows; the line of a row is its
    place.
    """

    shop: str
    region: str
    day: date
    rows: tuple[PriceRow, ...]


def read_feed(data: bytes) -> Feed:
    """Raises FeedError with a sentence for what is no feed; an offer that cannot be read becomes a
    row that says so.
    """
    try:
        document = json.loads(data)
    except (ValueError, RecursionError) as error:
        start = data.lstrip()[:1]
        kind = "a page, not a feed" if start == b"<" else "no JSON, or only a part of it"
        raise FeedError(f"it sent {kind}") from error
    try:
        head = FeedHead.model_validate(document)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        location = " ".join(str(step) for step in first["loc"]) or "the whole"
        raise FeedError(
            f"it sent no feed that is known here ({location}: {first['msg']})"
        ) from error
    try:
        day = head.at.astimezone(UTC).date()
    except (OverflowError, ValueError) as error:
        raise FeedError("it says a day that there is not (at)") from error
    rows = tuple(_row(n, offer, head, day) for n, offer in enumerate(head.offers, 1))
    return Feed(shop=head.shop, region=head.region, day=day, rows=rows)


def _row(index: int, entry: Any, head: FeedHead, day: date) -> PriceRow:
    try:
        feed_offer = FeedOffer.model_validate(entry)
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        where = " ".join(str(step) for step in first["loc"]) or "it"
        part = str(entry.get("part", ""))[:80] if isinstance(entry, dict) else ""
        return PriceRow(line=index, part=part, wrong=f"its {where} cannot be read")
    return PriceRow(
        line=index,
        part=feed_offer.part,
        shop=head.shop,
        region=head.region,
        price_minor=minor_of(feed_offer.price),
        shipping_minor=None if feed_offer.shipping is None else minor_of(feed_offer.shipping),
        currency=head.currency,
        stock=feed_offer.stock,
        condition=feed_offer.condition,
        seen_on=day,
        terms=feed_offer.terms,
        taxed=head.tax == "included",
    )
