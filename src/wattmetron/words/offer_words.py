"""What is remarkable about an offer, in words."""

from wattmetron.core.values.offers import Offer
from wattmetron.core.values.parts import Part
from wattmetron.core.values.risk import SOURCE, SPAN_MONTHS, risk_of
from wattmetron.words.figures import money, percent

STOCK_WORDS = {
    "in": "in stock",
    "few": "the last few",
    "ordered": "on its way to the shop",
    "out": "sold out",
}


def offer_marks(offer: Offer) -> tuple[str, ...]:
    """What a row says of an offer besides shop and day: not new, few, sold otherwise than by
    order, money that comes back.
    """
    marks: list[str] = []
    if offer.condition != "new":
        marks.append(offer.condition)
    if offer.risk_minor:
        marks.append(f"{money(offer.risk_minor, offer.currency)} of it for the risk")
    if offer.stock == "few":
        marks.append("the last few")
    if offer.terms.sold_by != "order":
        marks.append(f"by {offer.terms.sold_by} only")
    if offer.terms.rebate_minor:
        marks.append(f"{money(offer.terms.rebate_minor, offer.currency)} back later")
    return tuple(marks)


def offer_facts(part: Part, offer: Offer) -> tuple[str, ...]:
    """Everything that is said of an offer beyond its price, one sentence each."""
    terms, facts = offer.terms, []
    if terms.sold_by != "order":
        facts.append(f"Had by {terms.sold_by} only: counts where the brief says so.")
    if terms.list_minor:
        facts.append(
            f"List price {money(terms.list_minor, offer.currency)}: for reference only, no measure"
            " of a bargain."
        )
    if terms.rebate_minor:
        facts.append(
            f"{money(terms.rebate_minor, offer.currency)} come back later for a form sent in: not"
            " counted, since it is paid first and often forgotten."
        )
    if terms.extra:
        worth = (
            f", which may sell for {money(terms.extra_minor, offer.currency)}: not counted"
            if terms.extra_minor
            else ""
        )
        facts.append(f"With {terms.extra}{worth}.")
    if offer.condition != "new":
        facts.append(_risk(part, offer))
    return tuple(facts)


def _risk(part: Part, offer: Offer) -> str:
    """The working of a used part's risk."""
    risk = risk_of(part, offer)
    sentences = [*offer.terms.remarks]
    if offer.terms.warranty_months:
        sentences.append(f"{offer.terms.warranty_months} months of warranty left")
    if offer.terms.returns:
        sentences.append("may be sent back")
    sentence = f" ({'; '.join(sentences)})" if sentences else ""
    paid = money(offer.delivered_minor, offer.currency)
    return (
        f"{offer.condition.capitalize()}{sentence}: {money(risk.minor, offer.currency)} for the"
        " risk ="
        f" {paid} paid × {percent(risk.failing)} that fail within"
        f" {SPAN_MONTHS // 12} years × {percent(1 - risk.borne)} that you bear ({SOURCE}); compared"
        f" as {money(offer.cost_minor, offer.currency)}."
    )
