"""Measured runs as stored: documents with versions whose last change can be taken back; frames."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session, defer

from wattmetron.core.errors import BriefError, ConflictError, NotFoundError, NotPossibleError
from wattmetron.core.values.runs import MOST_RUNS
from wattmetron.store.database import found
from wattmetron.store.tables import RunRow

MOST_BYTES = 2_000_000_000
"""What the frames of all runs may take."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StoredRun:
    """A run as stored, without its frames."""

    id: int
    version: int
    document: str
    figures: str
    can_undo: bool
    has_frames: bool


@dataclass(frozen=True, slots=True)
class WorkedOut:
    """What a run's frames say and what is drawn of them, as documents; nothing is drawn of a
    reading by hand.
    """

    figures: str
    drawing: str | None = None


class NoSuchRunError(NotFoundError):
    """A run that is not there."""

    def __init__(self) -> None:
        super().__init__("There is no such run: it may have been taken out; see the list of runs.")


def runs_of(session: Session, brief_id: int | None = None) -> tuple[StoredRun, ...]:
    """All runs that are there, or those of a brief's machine, the newest first."""
    query = (
        select(RunRow)
        .where(RunRow.document.is_not(None))
        .options(defer(RunRow.frames), defer(RunRow.drawing))
    )
    if brief_id is not None:
        query = query.where(RunRow.brief_id == brief_id)
    with_frames = set(session.scalars(select(RunRow.id).where(RunRow.frames.is_not(None))))
    rows = session.scalars(query.order_by(RunRow.id.desc()))
    return tuple(_stored(row, row.id in with_frames) for row in rows)


def get(session: Session, run_id: int, version: int | None = None) -> StoredRun:
    """A run that is there, at a version if one is given; raises NoSuchRunError, ConflictError."""
    row = found(session, RunRow, run_id) if version is None else _row(session, run_id, version)
    if row is None or row.document is None:
        raise NoSuchRunError
    return _stored(row, row.frames is not None)


def drawing(session: Session, run_id: int) -> str | None:
    """What is drawn of a run; None for one without frames."""
    return session.scalar(select(RunRow.drawing).where(RunRow.id == run_id))


def frames(session: Session, run_id: int) -> bytes | None:
    """The packed frames of a run; None for one that has none."""
    return session.scalar(select(RunRow.frames).where(RunRow.id == run_id))


def add(
    session: Session,
    *,
    game: str,
    brief_id: int,
    document: str,
    worked_out: WorkedOut,
    packed: bytes | None,
) -> int:
    """Store a run and return its id; raises BriefError for one too many."""
    count = session.scalar(select(func.count()).where(RunRow.document.is_not(None))) or 0
    taken = session.scalar(select(func.sum(func.length(RunRow.frames)))) or 0
    if count >= MOST_RUNS or taken + len(packed or b"") > MOST_BYTES:
        raise BriefError(
            f"There are {count:,} runs already, as many as are kept: take some out first."
        )
    row = RunRow(
        version=1,
        game=game,
        brief_id=brief_id,
        document=document,
        before=None,
        figures=worked_out.figures,
        drawing=worked_out.drawing,
        frames=packed,
        changed_at=_now(),
    )
    session.add(row)
    session.flush()
    return row.id


def change(
    session: Session,
    run_id: int,
    version: int,
    document: str | None,
    worked_out: WorkedOut | None = None,
    brief_id: int | None = None,
) -> None:
    """Put another document in the place of the present one, None to take the run out."""
    row = _row(session, run_id, version)
    if row.document == document:
        return
    row.before, row.document = row.document, document
    if worked_out is not None:
        row.figures, row.drawing = worked_out.figures, worked_out.drawing
    row.brief_id = row.brief_id if brief_id is None else brief_id
    row.version, row.changed_at = row.version + 1, _now()


def taken_back(session: Session, run_id: int, version: int) -> str:
    """Take the last change back and return what the document now is; twice makes it again."""
    row = _row(session, run_id, version)
    if row.before is None:
        raise NotPossibleError("There is nothing to undo here.")
    row.before, row.document = row.document, row.before
    row.version, row.changed_at = row.version + 1, _now()
    return row.document or ""


def worked_out_again(session: Session, run_id: int, worked_out: WorkedOut) -> None:
    """Put what was worked out of a run anew in the place of the old."""
    row = found(session, RunRow, run_id)
    if row is not None:
        row.figures, row.drawing = worked_out.figures, worked_out.drawing


def _row(session: Session, run_id: int, version: int) -> RunRow:
    row = found(session, RunRow, run_id)
    if row is None:
        raise NoSuchRunError
    if row.version != version:
        raise ConflictError(
            "This run was changed in another tab or window, so this change was not made: look at"
            " what it says now and make the change again."
        )
    return row


def _stored(row: RunRow, has_frames: bool) -> StoredRun:
    return StoredRun(
        id=row.id,
        version=row.version,
        document=row.document or "",
        figures=row.figures,
        can_undo=row.before is not None,
        has_frames=has_frames,
    )


def _now() -> datetime:
    return datetime.now(UTC)
