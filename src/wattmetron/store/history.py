"""What the shops asked over time: every revision of an offer with the days of its imports."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, aliased

from wattmetron.core.values.price_history import OfferSpan
from wattmetron.store.catalogues import TOOK_BACK
from wattmetron.store.offer_terms import read_terms
from wattmetron.store.tables import ImportRow, StoredOffer


@dataclass(frozen=True, slots=True)
class Imported:
    """One import of a catalogue."""

    id: int
    at: datetime
    source: str


def imports_of(session: Session) -> tuple[Imported, ...]:
    """Every import that was neither an edit by hand nor what an undo brought back, the newest
    first.
    """
    query = (
        select(ImportRow)
        .where(ImportRow.by_hand.is_(False), ~ImportRow.source.startswith(TOOK_BACK))
        .order_by(ImportRow.id.desc())
    )
    return tuple(Imported(row.id, row.at, row.source) for row in session.scalars(query))


def offer_spans(session: Session, part_ids: Iterable[str], region: str) -> tuple[OfferSpan, ...]:
    """Every revision of the offers of some parts in a region, the oldest first."""
    began, ended = aliased(ImportRow), aliased(ImportRow)
    query = (
        select(StoredOffer, began.at, ended.at)
        .join(began, began.id == StoredOffer.from_import)
        .outerjoin(ended, ended.id == StoredOffer.until_import)
        .where(StoredOffer.part_id.in_(tuple(part_ids)), StoredOffer.region == region)
        .order_by(StoredOffer.id)
    )
    return tuple(
        OfferSpan(
            part_id=row.part_id,
            shop=row.shop,
            used=row.condition != "new",
            delivered_minor=row.price_minor + row.shipping_minor,
            in_stock=row.stock in ("in", "few") and read_terms(row.terms).sold_by == "order",
            start=start.date(),
            end=None if end is None else end.date(),
        )
        for row, start, end in session.execute(query)
    )
