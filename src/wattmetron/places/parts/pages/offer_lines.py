"""The offers of a part as its page lists them."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.exchange_rates import Rate, converted
from wattmetron.core.values.offers import ANY_PARTS, Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Part
from wattmetron.core.values.price_history import USUAL_SPAN, OfferSpan, days_in_stock
from wattmetron.core.values.risk import LOOK_AT, LOOK_AT_ANY
from wattmetron.core.values.words import listed
from wattmetron.places.shops.entered_rates import kept_rates
from wattmetron.words.figures import GAP, money, round_money
from wattmetron.words.offer_words import STOCK_WORDS, offer_facts
from wattmetron.workshop.workshop import Workshop

LEAST_KNOWN_DAYS = 14


@dataclass(frozen=True, slots=True, kw_only=True)
class OfferLine:
    """An offer in words."""

    region: str
    shop: str
    price: str
    state: str
    seen: str
    best: bool
    facts: tuple[str, ...]
    link: str
    steady: str


def offer_lines(workshop: Workshop, catalogue: Catalogue, part: Part) -> list[OfferLine]:
    """The offers of a part in every region, the cheapest first in each."""
    lines = []
    home, rates = next(iter(catalogue.regions.values())), kept_rates(workshop)
    for region in catalogue.regions.values():
        book = catalogue.prices(region.id, ANY_PARTS)
        best, spans = book.best(part.id), workshop.offer_spans([part.id], region.id)
        lines += [
            _offer(
                part,
                region.name,
                offer,
                offer is best,
                book.is_stale(offer),
                spans,
                home.currency,
                rates,
            )
            for offer in book.all_of(part.id)
        ]
    return lines


def _offer(
    part: Part,
    region: str,
    offer: Offer,
    best: bool,
    stale: bool,
    spans: tuple[OfferSpan, ...],
    home: str,
    rates: tuple[Rate, ...],
) -> OfferLine:
    shipping = (
        f" with {money(offer.shipping_minor, offer.currency)} shipping"
        if offer.shipping_minor
        else ""
    )
    state = listed([offer.condition, STOCK_WORDS[offer.stock]])
    return OfferLine(
        region=region,
        shop=offer.shop,
        price=f"{money(offer.delivered_minor, offer.currency)}{shipping}",
        state=state,
        seen=f"{offer.seen_on:%-d %b %Y}{', stale' if stale else ''}",
        best=best,
        facts=(*offer_facts(part, offer), *_elsewhere(offer, home, rates)),
        link=offer.terms.link,
        steady=_steady(offer, spans),
    )


def _steady(offer: Offer, spans: tuple[OfferSpan, ...]) -> str:
    """On how many of the days before the offer was in stock; empty where too few are known."""
    end = offer.seen_on
    offer_spans = [
        span
        for span in spans
        if span.shop == offer.shop and span.used == (offer.condition != "new")
    ]
    there, known = days_in_stock(offer_spans, end - USUAL_SPAN, end)
    return f"{there} of {known} days" if known >= LEAST_KNOWN_DAYS else ""


def look_at(kind: Kind, catalogue: Catalogue, part_id: str) -> tuple[str, ...]:
    """What to look at when a used one arrives, where one is offered."""
    used = any(offer.part_id == part_id and offer.condition != "new" for offer in catalogue.offers)
    return (*LOOK_AT.get(kind, ()), *LOOK_AT_ANY) if used else ()


def _elsewhere(offer: Offer, home: str, rates: tuple[Rate, ...]) -> tuple[str, ...]:
    """What another region's price is in the money of the first one, with the day of the rate."""
    if offer.currency == home:
        return ()
    conversion = converted(offer.delivered_minor, offer.currency, home, rates, offer.seen_on)
    if conversion is None:
        return ()
    rate = conversion.rate
    return (
        f"About {round_money(conversion.minor, home)} by the rate of {rate.on:%-d %b %Y}:"
        f" 1{GAP}{rate.base} = {rate.rate}{GAP}{rate.quote}.",
    )
