"""A table of prices brought in: matched to the catalogue, looked at, held back where it is odd."""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta
from decimal import Decimal
from typing import Literal

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.offers import ANY_PARTS, NEW_PARTS, Offer
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.shops import HEAVY_KINDS, shop_key
from wattmetron.formats.prices_table import PriceRow, read_prices
from wattmetron.words.figures import money
from wattmetron.workshop.workshop import Workshop

AGAIN = timedelta(days=7)
ODD = 3.0
"""A price so many times above or below what the part costs elsewhere is held back."""
Key = tuple[str, str, str, str]
NO_PART = "no part of the catalogue is surely meant"
TWICE = "the same part from the same shop stands above"
NO_NAMES: Mapping[str, str] = {}


def name_key(shop: str, text: str) -> str:
    """Under what the part is remembered that a shop means by a name."""
    return f"{shop} · {text}"


@dataclass(frozen=True, slots=True)
class Taken:
    """A line that will be brought in: the offer, and the shop's price before (None: new)."""

    line: int
    offer: Offer
    before_minor: int | None


@dataclass(frozen=True, slots=True)
class HeldBackLine:
    """A line that is not brought in by itself, with why; ``offer`` where it can be allowed.
    ``fix``: what would mend it, a word on its price or on the part that is meant; empty for
    nothing.
    """

    line: int
    text: str
    why: str
    row: PriceRow
    offer: Offer | None = None
    fix: Literal["", "price", "part"] = ""


@dataclass(frozen=True, slots=True)
class PricePreview:
    """What a table would do: lines that are taken, held back for a word, and left out."""

    taken: tuple[Taken, ...]
    set_aside: tuple[HeldBackLine, ...]
    left: tuple[HeldBackLine, ...]
    gone: tuple[Offer, ...]
    """Offers of the table's shops that it no longer lists: sold out if that is wished."""


def preview_prices(
    catalogue: Catalogue, text: str, shop: str, region: str, today: date
) -> PricePreview:
    """Reads a table; ``shop`` and ``region`` stand in where it names none. Raises PricesError."""
    return preview_rows(catalogue, read_prices(text), shop, region, today)


def preview_rows(
    catalogue: Catalogue,
    rows: Iterable[PriceRow],
    shop: str,
    region: str,
    today: date,
    names: Mapping[str, str] = NO_NAMES,
) -> PricePreview:
    """What rows of prices would do; ``names``: which part a shop means by a name."""
    known = {_key(offer): offer for offer in catalogue.offers}
    taken: dict[Key, Taken] = {}
    set_aside, left = [], []
    for row in rows:
        price_row = replace(row, shop=row.shop or shop, region=row.region or region)
        known_as = names.get(name_key(price_row.shop, price_row.part), price_row.part)
        made = made_offer(catalogue, replace(price_row, part=known_as), shop, region, today)
        if isinstance(made, str):
            fix: Literal["", "part"] = "part" if made == NO_PART and row.part else ""
            left.append(HeldBackLine(row.line, row.part or "no part", made, price_row, fix=fix))
            continue
        before = known.get(_key(made))
        if row.shipping_minor is None:
            made = replace(made, shipping_minor=_shipping(catalogue, before, made))
        if _key(made) in taken:
            left.append(HeldBackLine(row.line, row.part, TWICE, price_row))
            continue
        why = _odd(catalogue, made, before)
        if why:
            far = made.price_minor > 0 and not (before and made.seen_on < before.seen_on)
            set_aside.append(
                HeldBackLine(row.line, row.part, why, price_row, made, "price" if far else "")
            )
        else:
            price = None if before is None else before.delivered_minor
            taken[_key(made)] = Taken(row.line, made, price)
    shops = {(taken_offer.offer.shop, taken_offer.offer.region) for taken_offer in taken.values()}
    listed = {*taken, *(_key(line.offer) for line in set_aside if line.offer)}
    gone = tuple(
        offer
        for key, offer in known.items()
        if (offer.shop, offer.region) in shops and key not in listed and offer.in_stock
    )
    return PricePreview(tuple(taken.values()), tuple(set_aside), tuple(left), gone)


def _key(offer: Offer) -> Key:
    return offer.part_id, offer.shop, offer.region, offer.condition


def made_offer(
    catalogue: Catalogue, row: PriceRow, shop: str, region: str, today: date
) -> Offer | str:
    """The offer of a line, or why there is none."""
    where = row.region or region
    shop = row.shop or shop
    if row.wrong:
        return row.wrong
    if where not in catalogue.regions:
        return f"there is no region “{where[:40]}”"
    if not shop:
        return "it says no shop: add a column, or name the shop above"
    currency = catalogue.region(where).currency
    if row.currency not in ("", currency):
        return f"its price is in {row.currency}, prices there are in {currency}"
    if row.seen_on is not None and row.seen_on > today:
        return f"its date, {row.seen_on:%-d %b %Y}, is still to come"
    price, shipping = (
        _with_tax(minor or 0, row, catalogue.region(where).tax_percent)
        for minor in (row.price_minor, row.shipping_minor)
    )
    part_id = _part(catalogue, row.part)
    if not part_id:
        return NO_PART
    return Offer(
        part_id=part_id,
        shop=shop[:120],
        region=where,
        currency=currency,
        price_minor=price,
        shipping_minor=shipping,
        stock=row.stock,
        condition=row.condition,
        seen_on=row.seen_on or today,
        terms=row.terms,
    )


def _with_tax(minor: int, row: PriceRow, percent: float) -> int:
    """A price as it is paid in the region: where the row's is without tax, that is added."""
    return minor if row.taxed else round(Decimal(minor) * (100 + Decimal(str(percent))) / 100)


def _part(catalogue: Catalogue, text: str) -> str:
    """The part that a text surely names; empty where none is."""
    if text in catalogue.parts:
        return text
    if not text:
        return ""
    sent_parts = read_list(catalogue, text).parts
    sure = sent_parts[0].best if len(sent_parts) == 1 and sent_parts[0].sure else None
    return sure.part_id if sure else ""


def _shipping(catalogue: Catalogue, before: Offer | None, made: Offer) -> int:
    """Shipping of a part alone where the table says none: as the shop sends, or as before."""
    rules = catalogue.shops.get(shop_key(made.shop, made.region))
    if rules is not None:
        heavy = kind_of(catalogue.part(made.part_id)) in HEAVY_KINDS
        return rules.shipping_minor(made.price_minor, heavy)
    return 0 if before is None else before.shipping_minor


def _odd(catalogue: Catalogue, made: Offer, before: Offer | None) -> str:
    """Why a price is held back: older than what is known, nothing, or far from what it costs."""
    if before and made.seen_on < before.seen_on:
        sentence, known = f"{made.seen_on:%-d %b %Y}", f"{before.seen_on:%-d %b %Y}"
        return f"it is of {sentence}, the price that is known is of {known}"
    book = catalogue.prices(made.region, ANY_PARTS if made.condition != "new" else NEW_PARTS)
    usual = before.price_minor if before else None
    if usual is None:
        best = book.best(made.part_id)
        usual = best.price_minor if best else None
    if made.price_minor <= 0:
        return "its price is 0"
    if usual and not usual / ODD <= made.price_minor <= usual * ODD:
        price, usually = money(made.price_minor, made.currency), money(usual, made.currency)
        return f"{price} is far from the {usually} that is known"
    return ""


def bring_prices_in(
    workshop: Workshop, preview: PricePreview, allowed: Collection[int], sold_out: bool
) -> int:
    """Store what is taken and what is allowed of what is held, as prices of a new day; returns how
    many offers changed. Raises BriefError where nothing does.
    """
    offers = [taken_offer.offer for taken_offer in preview.taken]
    offers += [line.offer for line in preview.set_aside if line.offer and line.line in allowed]
    if sold_out:
        offers += [replace(offer, stock="out") for offer in preview.gone]
    if not offers:
        raise BriefError("Nothing of this table can be brought in: look at what is said of it.")
    store_offers(workshop, offers, "prices brought in")
    return len(offers)


def store_offers(workshop: Workshop, offers: Iterable[Offer], source: str) -> int:
    """Put offers in the place of those of the same part, shop, region and condition, as prices of a
    new day; returns how many say something else than before. What was seen with the same price less
    than a week ago is left as it is; where nothing else is left, nothing is stored.
    """
    described = workshop.catalogue().described
    before = {_key(offer): offer for offer in described.offers}
    new = {_key(offer): offer for offer in offers if not _as_before(before.get(_key(offer)), offer)}
    moved = sum(not _same(before.get(key), offer) for key, offer in new.items())
    if new:
        merged = [*_replaced(described.offers, new), *new.values()]
        workshop.import_prices(merged, source)
    return moved


def _same(before: Offer | None, offer: Offer) -> bool:
    return before is not None and replace(before, seen_on=offer.seen_on) == offer


def _as_before(before: Offer | None, offer: Offer) -> bool:
    return before is not None and _same(before, offer) and offer.seen_on - before.seen_on < AGAIN


def _replaced(offers: Iterable[Offer], new: dict[Key, Offer]) -> list[Offer]:
    """The offers with the new ones in their places; what is left in ``new`` was not there."""
    return [new.pop(_key(offer), offer) for offer in offers]
