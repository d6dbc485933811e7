"""Snapshots: a plan as it was on a day, the catalogue's import of that day, what was computed."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from wattmetron.core.errors import BriefError, NotFoundError
from wattmetron.store.tables import SnapshotRow

MOST_SNAPSHOTS, LONGEST_NAME = 100, 80


@dataclass(frozen=True, slots=True, kw_only=True)
class Snapshot:
    """One snapshot; ``figures`` is what was computed then, as JSON, ``as_of`` the import of its day
    (None: that is not here).
    """

    id: int
    brief_id: int
    name: str
    made_at: datetime
    document: str
    as_of: int | None
    figures: str


class NoSuchSnapshotError(NotFoundError):
    """A snapshot that is not there."""

    def __init__(self) -> None:
        super().__init__("There is no such snapshot any more: load the page again.")


def freeze(
    session: Session,
    brief_id: int,
    name: str,
    document: str,
    as_of: int | None,
    figures: str,
    made_at: datetime | None = None,
) -> int:
    """Store a snapshot; raises BriefError for one too many."""
    if len(snapshots_of(session, brief_id)) >= MOST_SNAPSHOTS:
        raise BriefError(f"This brief has {MOST_SNAPSHOTS} snapshots: take one out first.")
    row = SnapshotRow(
        brief_id=brief_id,
        name=name.strip()[:LONGEST_NAME],
        made_at=made_at or datetime.now(UTC),
        document=document,
        as_of=as_of,
        figures=figures,
    )
    session.add(row)
    session.flush()
    return row.id


def snapshots_of(session: Session, brief_id: int) -> tuple[Snapshot, ...]:
    """A brief's snapshots, the newest first."""
    query = (
        select(SnapshotRow).where(SnapshotRow.brief_id == brief_id).order_by(SnapshotRow.id.desc())
    )
    return tuple(_snapshot(row) for row in session.scalars(query))


def drop(session: Session, brief_id: int, snapshot_id: int) -> None:
    """Take a snapshot out; raises NoSuchSnapshotError."""
    query = select(SnapshotRow).where(
        SnapshotRow.brief_id == brief_id, SnapshotRow.id == snapshot_id
    )
    row = session.scalar(query)
    if row is None:
        raise NoSuchSnapshotError
    session.delete(row)


def _snapshot(row: SnapshotRow) -> Snapshot:
    return Snapshot(
        id=row.id,
        brief_id=row.brief_id,
        name=row.name,
        made_at=row.made_at,
        document=row.document,
        as_of=row.as_of,
        figures=row.figures,
    )
