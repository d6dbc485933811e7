"""What money would buy outside the machine."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import FURTHER_KINDS
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.words.figures import money


def outside_words(catalogue: Catalogue, now: Assessment, minor: int) -> str:
    """Of each further kind that a build lacks the dearest that the money pays, in one sentence;
    empty where it pays none.
    """
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    sentences = []
    for kind in FURTHER_KINDS:
        priced = [
            (price, part.name)
            for part in catalogue.by_kind[kind]
            if (price := book.cost(part.id)) is not None and price <= minor
        ]
        if priced and not now.build.of(kind):
            price, name = max(priced)
            sentences.append(f"{name} ({money(price, now.currency)})")
    if not sentences:
        return ""
    paid = money(minor, now.currency)
    return f"Outside the machine {paid} would pay for {listed(sentences, 'or')}."
