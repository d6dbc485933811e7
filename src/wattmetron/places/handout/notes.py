"""A builder's own reasons for parts, and whether what held when they were written still holds."""

import re

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.handout import Note
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import Assessment, CostLine, assess
from wattmetron.places.proposal.proposals import reasons_of
from wattmetron.words.figures import money

LEAST_MOVED = 0.05
"""A price that moved by so much may end a reason."""
FIGURES = re.compile(r"[\d.,\u202f\u00a0]+")

Reasons = dict[tuple[Kind, str], str]


def computed_reasons(catalogue: Catalogue, now: Assessment) -> Reasons:
    """The computed reason of each part, by kind and name."""
    return {(reason.kind, reason.name): reason.sentence for reason in reasons_of(catalogue, now)}


def stamped(catalogue: Catalogue, plan: Plan, part_id: str, text: str) -> Note:
    """A note with what holds now of the part."""
    now = assess(catalogue, plan.brief, plan.build)
    line = next((cost_line for cost_line in now.lines if cost_line.part_id == part_id), None)
    if line is None or line.part is None:
        return Note(part_id, text)
    reason = computed_reasons(catalogue, now).get((line.kind, line.part.name), "")
    return Note(part_id, text, _price(line), reason[:600])


def _price(line: CostLine) -> int | None:
    return None if line.owned or line.offer is None else line.offer.cost_minor


def doubt(note: Note, line: CostLine, reason: str, currency: str) -> str:
    """What no longer holds of what a note was written on; empty where nothing is known to have
    changed.
    """
    price = _price(line)
    if note.price_minor is not None and price is None:
        gone = "yours now" if line.owned else "not on sale now"
        return f"written when it cost {money(note.price_minor, currency)}; it is {gone}"
    if note.price_minor and price and abs(price / note.price_minor - 1) >= LEAST_MOVED:
        then, today = money(note.price_minor, currency), money(price, currency)
        return f"written when it cost {then}; it costs {today} now"
    if note.reason and _shape(note.reason) != _shape(reason):
        return f"written when it was computed: {note.reason.rstrip('.')}"
    return ""


def _shape(reason: str) -> str:
    """A reason without its figures, which move from day to day."""
    return FIGURES.sub("#", reason)
