"""An offer as a line of offers.csv."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import Column
from wattmetron.core.values.money import to_decimal
from wattmetron.core.values.offers import Condition, Offer, SoldBy

Amount = Annotated[Decimal, Ge(0), Le(10_000_000)]


@dataclass(slots=True, kw_only=True)
class OfferRow:
    """A line of offers.csv."""

    part_id: Annotated[str, Column("Id of the part offered")]
    shop: Annotated[str, Column("Shop")]
    region: Annotated[str, Column("Id of the region it sells to")]
    price: Annotated[Amount, Column("Price with tax", "currency")]
    shipping: Annotated[Amount, Column("Shipping for this part alone", "currency")]
    currency: Annotated[str, Column("ISO 4217 currency code; the region's")]
    in_stock: Annotated[bool, Column("Whether it can be bought on that day")]
    condition: Annotated[Condition, Column("new, refurbished, remanufactured or used")]
    seen_on: Annotated[date, Column("Day on which the offer was seen, ISO 8601")]
    stock: Annotated[
        Literal["", "in", "few", "ordered", "out"],
        Column("in, few, ordered or out; empty: in or out, as in_stock says"),
    ] = ""
    sold_by: Annotated[SoldBy, Column("How it is had: order, waiting list or raffle")] = "order"
    rebate: Annotated[Amount, Column("Money that comes back for a form sent in", "currency")] = (
        Decimal(0)
    )
    extra: Annotated[str, Column("What lies in the box besides")] = ""
    extra_worth: Annotated[Amount, Column("What that may sell for", "currency")] = Decimal(0)
    remarks: Annotated[
        tuple[str, ...],
        Column(
            "Remarks on a part that is not new, separated by ;, such as worked hard for hire,"
            " display output not tested, no returns"
        ),
    ] = ()
    warranty_months: Annotated[
        int | None, Ge(0), Le(600), Column("Warranty that is left; empty: not said", "months")
    ] = None
    returns: Annotated[bool | None, Column("Whether the shop takes it back; empty: not said")] = (
        None
    )
    link: Annotated[str, Column("Its page, https:// or http://")] = ""
    list_price: Annotated[Amount, Column("The maker's list price, for reference", "currency")] = (
        Decimal(0)
    )


def row_of(offer: Offer) -> OfferRow:
    return OfferRow(
        part_id=offer.part_id,
        shop=offer.shop,
        region=offer.region,
        price=to_decimal(offer.price_minor),
        shipping=to_decimal(offer.shipping_minor),
        currency=offer.currency,
        in_stock=offer.in_stock,
        condition=offer.condition,
        seen_on=offer.seen_on,
        stock="" if offer.stock in ("in", "out") else offer.stock,
        sold_by=offer.terms.sold_by,
        rebate=to_decimal(offer.terms.rebate_minor),
        extra=offer.terms.extra,
        extra_worth=to_decimal(offer.terms.extra_minor),
        remarks=offer.terms.remarks,
        warranty_months=offer.terms.warranty_months,
        returns=offer.terms.returns,
        link=offer.terms.link,
        list_price=to_decimal(offer.terms.list_minor),
    )
