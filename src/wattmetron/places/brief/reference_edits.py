"""Machines to compare with, by hand."""

import re
from collections.abc import Iterable

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.references import LONGEST, MOST_REFERENCES, ReachedRate, Reference
from wattmetron.store import catalogue_edits
from wattmetron.workshop.workshop import Workshop

KIND = "reference"


def add_reference(
    workshop: Workshop,
    catalogue: Catalogue,
    typed: Reference,
    reached: Iterable[ReachedRate],
) -> str:
    """Store a machine to compare with under an id of its own; returns the id."""
    name = typed.name.strip()[:LONGEST]
    if not name:
        raise BriefError("The machine has no name: say what it is called.")
    if len(catalogue.references) >= MOST_REFERENCES:
        raise BriefError(f"There are {MOST_REFERENCES} machines already: take one out first.")
    base = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60] or "machine"
    free = (base if n == 1 else f"{base}-{n}" for n in range(1, 1000))
    own_id = next(candidate for candidate in free if candidate not in catalogue.references)
    entry = Reference(
        id=own_id,
        name=name,
        price_minor=typed.price_minor,
        currency=typed.currency,
        reached=tuple(reached),
        includes=typed.includes.strip()[:300],
        lacks=typed.lacks.strip()[:300],
        source=typed.source.strip()[:LONGEST],
        seen_on=typed.seen_on,
    )
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, {(KIND, own_id): entry}, f"added {name} to compare with")
    return own_id


def drop_reference(workshop: Workshop, catalogue: Catalogue, own_id: str) -> None:
    """Take a machine out again."""
    if own_id not in catalogue.references:
        raise BriefError("There is no such machine any more: load the page again.")
    name = catalogue.references[own_id].name
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, {(KIND, own_id): None}, f"took out {name}")
