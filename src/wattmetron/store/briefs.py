"""Briefs as versioned documents with a change log; undo and redo survive restarts."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import NamedTuple

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from wattmetron.core.errors import ConflictError, NotFoundError, NotPossibleError
from wattmetron.store.database import found
from wattmetron.store.tables import BriefRow, ChangeRow

KEPT_CHANGES = 500


class NoSuchBriefError(NotFoundError):
    """A brief that does not exist or was deleted."""

    def __init__(self) -> None:
        super().__init__(
            "There is no such brief: it may have been deleted; see the list of briefs."
        )


class NothingToUndoError(NotPossibleError):
    """Undo or redo with nothing left to do."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Stored:
    """A brief's document with what can be undone and redone, and the document before the last
    change.
    """

    id: int
    version: int
    document: str
    changed_at: datetime
    undo: str | None
    redo: str | None
    before: str | None


class BriefRecord(NamedTuple):
    """A brief as it is stored."""

    brief_id: int
    version: int
    document: str
    changed_at: datetime


def all_briefs(session: Session) -> list[BriefRecord]:
    """Id, version, document and time of change of every brief that is there."""
    query = select(BriefRow).where(BriefRow.document.is_not(None)).order_by(BriefRow.id)
    return [
        BriefRecord(row.id, row.version, row.document or "", row.changed_at)
        for row in session.scalars(query)
    ]


def is_there(session: Session, brief_id: int) -> bool:
    """Whether a brief exists and was not deleted."""
    row = found(session, BriefRow, brief_id)
    return row is not None and row.document is not None


def get(session: Session, brief_id: int) -> Stored:
    row = found(session, BriefRow, brief_id)
    if row is None or row.document is None:
        raise NoSuchBriefError
    undo, redo = _last(session, brief_id), _next(session, brief_id)
    return Stored(
        id=row.id,
        version=row.version,
        document=row.document,
        changed_at=row.changed_at,
        undo=undo.summary if undo else None,
        redo=redo.summary if redo else None,
        before=undo.before if undo else None,
    )


@dataclass(frozen=True, slots=True)
class BriefChange:
    """A change of a brief that stands: when, in which words, its documents before and after."""

    at: datetime
    summary: str
    before: str | None
    after: str | None


def changes_of(session: Session, brief_id: int) -> tuple[BriefChange, ...]:
    """The changes of a brief that are not undone, the oldest first."""
    query = (
        select(ChangeRow)
        .where(ChangeRow.brief_id == brief_id, ChangeRow.undone.is_(False))
        .order_by(ChangeRow.id)
    )
    return tuple(BriefChange(r.at, r.summary, r.before, r.after) for r in session.scalars(query))


def create(session: Session, document: str, summary: str) -> int:
    row = BriefRow(version=1, document=document, changed_at=_now())
    session.add(row)
    session.flush()
    session.add(_change(row, summary, None, document))
    return row.id


def change(
    session: Session, brief_id: int, version: int, summary: str, edit: Callable[[str], str | None]
) -> None:
    """Replace the document by what ``edit`` makes of it (None deletes); raises ConflictError on a
    stale version.
    """
    row = _row(session, brief_id, version)
    if row.document is None:
        raise NoSuchBriefError
    before, after = row.document, edit(row.document)
    if after == before:
        return
    session.execute(
        delete(ChangeRow).where(ChangeRow.brief_id == brief_id, ChangeRow.undone.is_(True))
    )
    row.version, row.document, row.changed_at = row.version + 1, after, _now()
    session.add(_change(row, summary, before, after))
    _forget_oldest(session, brief_id)


def _row(session: Session, brief_id: int, version: int) -> BriefRow:
    row = found(session, BriefRow, brief_id)
    if row is None:
        raise NoSuchBriefError
    if row.version != version:
        raise ConflictError(
            "This brief was changed in another tab or window, so this change was not made: "
            "look at what it says now and make the change again."
        )
    return row


def undo(session: Session, brief_id: int, version: int) -> str:
    """Take the last change back; returns its summary; raises ConflictError on a stale version."""
    row = _row(session, brief_id, version)
    last = _last(session, brief_id)
    if last is None:
        raise NothingToUndoError("There is nothing to undo here.")
    return _apply(row, last, last.before, True)


def redo(session: Session, brief_id: int, version: int) -> str:
    """Make the change again that was undone last; returns its summary; raises ConflictError on a
    stale version.
    """
    row = _row(session, brief_id, version)
    upcoming = _next(session, brief_id)
    if upcoming is None:
        raise NothingToUndoError("There is nothing to redo here.")
    return _apply(row, upcoming, upcoming.after, False)


def _apply(row: BriefRow, entry: ChangeRow, document: str | None, undone: bool) -> str:
    row.version, row.document, row.changed_at = row.version + 1, document, _now()
    entry.undone = undone
    return entry.summary


def _last(session: Session, brief_id: int) -> ChangeRow | None:
    """The change that undo would take back; the making of the brief itself stays."""
    return session.scalar(
        select(ChangeRow)
        .where(
            ChangeRow.brief_id == brief_id,
            ChangeRow.undone.is_(False),
            ChangeRow.before.is_not(None),
        )
        .order_by(ChangeRow.id.desc())
        .limit(1)
    )


def _next(session: Session, brief_id: int) -> ChangeRow | None:
    return session.scalar(
        select(ChangeRow)
        .where(ChangeRow.brief_id == brief_id, ChangeRow.undone.is_(True))
        .order_by(ChangeRow.id)
        .limit(1)
    )


def _change(row: BriefRow, summary: str, before: str | None, after: str | None) -> ChangeRow:
    return ChangeRow(
        brief_id=row.id,
        version=row.version,
        summary=summary[:300],
        before=before,
        after=after,
        undone=False,
        at=_now(),
    )


def _forget_oldest(session: Session, brief_id: int) -> None:
    oldest = session.scalar(
        select(ChangeRow.id)
        .where(ChangeRow.brief_id == brief_id)
        .order_by(ChangeRow.id.desc())
        .offset(KEPT_CHANGES)
        .limit(1)
    )
    if oldest is not None:
        session.execute(
            delete(ChangeRow).where(ChangeRow.brief_id == brief_id, ChangeRow.id <= oldest)
        )


def _now() -> datetime:
    return datetime.now(UTC)
