"""Wait or buy, for one part, in a sentence."""

from collections import defaultdict
from datetime import date

from wattmetron.core.buying.waiting import Wait, wait_for
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.parts import KIND_PLURALS, Kind
from wattmetron.core.values.price_history import OfferSpan, PriceStep, price_steps
from wattmetron.services.words.figures import THIN, percent
from wattmetron.services.workshop import Workshop

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
    for own in workshop.offer_spans([part.id for part in catalogue.by_kind[kind]], region):
        if not own.used:
            spans[own.part_id].append(own)
    return {part_id: price_steps(own) for part_id, own in spans.items()}


def wait_words(
    workshop: Workshop, catalogue: Catalogue, part_id: str, region: str, today: date
) -> str:
    """The chance in words with what it rests on; empty where the history carries nothing."""
    kind = kind_of(catalogue.part(part_id))
    found = wait_for(part_id, lines_of_kind(workshop, catalogue, kind, region), today, SHARE)
    return "" if found is None else _words(found, KIND_PLURALS[kind])


def _words(own: Wait, kind: str) -> str:
    off = f"{own.share * 100:.0f}{THIN}%"
    said = (
        f"Wait or buy: {percent(own.chance)} that it is {off} cheaper within four weeks. So far"
        f" {own.kind.fell} of {own.kind.all} such stretches of {kind} saw that, {own.own.fell} of"
        f" {own.own.all} of this part."
    )
    if own.said is None or own.came is None:
        return f"{said} Whether such a statement comes true is not known yet."
    return (
        f"{said} Four weeks ago the same reckoning said {percent(own.said)} of {kind} on average;"
        f" {percent(own.came)} did."
    )
