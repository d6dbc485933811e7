"""Papers: the house texts, sets of dated builds and watches, each a versioned document whose last
change can be taken back.
"""

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from sqlalchemy import select
from sqlalchemy.orm import Session

from wattmetron.core.errors import BriefError, ConflictError, NotFoundError, NotPossibleError
from wattmetron.store.database import found
from wattmetron.store.tables import PaperRow

PaperKind = Literal[
    "house", "set", "watches", "feeds", "aside", "names", "rates", "columns", "meters"
]
MOST_PAPERS = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class Paper:
    """A paper as stored; without a document it was taken out."""

    id: int
    version: int
    document: str | None
    can_undo: bool
    changed_at: datetime


class NoSuchPaperError(NotFoundError):
    """A set that is not there."""

    def __init__(self) -> None:
        super().__init__("There is no such set: it may have been taken out; see the list of sets.")


def papers_of(session: Session, kind: PaperKind) -> tuple[Paper, ...]:
    """The papers of a kind that are there, in the order in which they were made."""
    query = select(PaperRow).where(PaperRow.kind == kind, PaperRow.document.is_not(None))
    return tuple(_paper(row) for row in session.scalars(query.order_by(PaperRow.id)))


def only(session: Session, kind: PaperKind) -> str | None:
    """The document of a kind of which there is one; None while there is none."""
    papers = papers_of(session, kind)
    return papers[0].document if papers else None


def put_only(session: Session, kind: PaperKind, document: str) -> None:
    """Put a document of a kind of which there is one, whatever stood there."""
    papers = papers_of(session, kind)
    if papers:
        change(session, kind, papers[0].id, papers[0].version, document)
    else:
        add(session, kind, document)


def get(session: Session, kind: PaperKind, paper_id: int) -> Paper:
    """A paper that is there; raises NoSuchPaperError."""
    row = found(session, PaperRow, paper_id)
    if row is None or row.kind != kind or row.document is None:
        raise NoSuchPaperError
    return _paper(row)


def add(session: Session, kind: PaperKind, document: str) -> int:
    """Store a paper and return its id; raises BriefError for one too many."""
    if len(papers_of(session, kind)) >= MOST_PAPERS:
        raise BriefError(f"There are {MOST_PAPERS} sets already: take one out first.")
    row = PaperRow(kind=kind, version=1, document=document, before=None, changed_at=_now())
    session.add(row)
    session.flush()
    return row.id


def change(
    session: Session, kind: PaperKind, paper_id: int, version: int, document: str | None
) -> None:
    """Put another document in the place of the present one, None to take it out."""
    row = _row(session, kind, paper_id, version)
    if row.document != document:
        _put(row, document)


def take_back(session: Session, kind: PaperKind, paper_id: int, version: int) -> None:
    """Take the last change back; taking back twice makes it again."""
    row = _row(session, kind, paper_id, version)
    if row.before is None:
        raise NotPossibleError("There is nothing to undo here.")
    _put(row, row.before)


def _row(session: Session, kind: PaperKind, paper_id: int, version: int) -> PaperRow:
    row = found(session, PaperRow, paper_id)
    if row is None or row.kind != kind:
        raise NoSuchPaperError
    if row.version != version:
        raise ConflictError(
            "This was changed in another tab or window, so this change was not made: look at what"
            " it says now and make the change again."
        )
    return row


def _put(row: PaperRow, document: str | None) -> None:
    row.before, row.document = row.document, document
    row.version, row.changed_at = row.version + 1, _now()


def _paper(row: PaperRow) -> Paper:
    return Paper(
        id=row.id,
        version=row.version,
        document=row.document,
        can_undo=row.before is not None,
        changed_at=row.changed_at,
    )


def _now() -> datetime:
    return datetime.now(UTC)
