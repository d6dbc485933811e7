"""Wait or buy, for one part, in a sentence."""

from collections import defaultdict
from datetime import date

from wattmetron.core.buying.waiting import Wait, wait_for
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import KIND_PLURALS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.price_history import OfferSpan, PriceStep, price_steps
from wattmetron.words.figures import THIN, percent
from wattmetron.workshop.workshop import Workshop

SHARE = 0.05
"""By how much cheaper it is asked after."""
Lines = dict[str, tuple[PriceStep, ...]]


def lines_of_kind(workshop: Workshop, catalogue: Catalogue, kind: Kind, region: str) -> Lines:
    """The price lines of all parts of a kind, new, kept with the catalogue."""
    return catalogue.keep.once(
        ("price lines", kind, region), lambda: _lines(workshop, catalogue, kind, region)
    )


def _lines(workshop: Workshop, catalogue: Catalogue, kind: Kind, region: str) -> Lines:
    spans: dict[str, list[OfferSpan]] = defaultdict(list)
    for offer_span in workshop.offer_spans([part.id for part in catalogue.by_kind[kind]], region):
        if not offer_span.used:
            spans[offer_span.part_id].append(offer_span)
    return {part_id: price_steps(offer_spans) for part_id, offer_spans in spans.items()}


def wait_words(
    workshop: Workshop, catalogue: Catalogue, part_id: str, region: str, today: date
) -> str:
    """The chance in words with what it rests on; empty where the history carries nothing."""
    kind = kind_of(catalogue.part(part_id))
    wait = wait_for(part_id, lines_of_kind(workshop, catalogue, kind, region), today, SHARE)
    return "" if wait is None else _words(wait, KIND_PLURALS[kind])


def _words(wait: Wait, kind: str) -> str:
    off = f"{wait.share * 100:.0f}{THIN}%"
    sentence = (
        f"Wait or buy: {percent(wait.chance)} that it is {off} cheaper within four weeks. So far"
        f" {wait.kind.fell} of {wait.kind.all} such stretches of {kind} saw that, {wait.own.fell}"
        " of"
        f" {wait.own.all} of this part."
    )
    if wait.said is None or wait.came is None:
        return f"{sentence} Whether such a statement comes true is not known yet."
    return (
        f"{sentence} Four weeks ago the same reckoning said {percent(wait.said)} of {kind} on"
        " average;"
        f" {percent(wait.came)} did."
    )
