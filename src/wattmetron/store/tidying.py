"""What is kept for how long, and making a database smaller by what is past that.

Prices older than two years become weekly: of each week the last import stays, and with it whatever
a link, a snapshot or a set of builds was worked out from, what was typed by hand, and every import
that something which still stands came with. At every import that stays the catalogue is the same as
before.
"""

import json
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from sqlalchemy import ColumnElement, and_, column, delete, func, or_, select, table, text
from sqlalchemy.orm import Session

from wattmetron.store.database_errors import told
from wattmetron.store.tables import (
    EntryRow,
    ImportRow,
    LinkRow,
    PaperRow,
    PictureRow,
    RunRow,
    SessionRow,
    SnapshotRow,
    StoredOffer,
)

DAILY = timedelta(days=731)
"""So long prices are kept as they came; older ones by the week."""
DEAD_LINKS = timedelta(days=366)
"""So long links that open nothing any more stay in the list."""
DELETED_RUNS = timedelta(days=90)
"""So long a measured run can be brought back."""
SESSIONS = timedelta(days=7)
REVISED = (EntryRow, StoredOffer, PictureRow)
"""What has a revision for each import that changed it."""
KEPT = table("kept_imports", column("id"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Tidied:
    """What tidying removes: imports that become one with a later one of their week, revisions that
    stood at none that stays, dead links, deleted runs, ended sessions.
    """

    imports: int
    revisions: int
    links: int
    runs: int
    sessions: int

    @property
    def nothing(self) -> bool:
        return not (self.imports or self.revisions or self.links or self.runs or self.sessions)


def tidy(session: Session, now: datetime) -> Tidied:
    """Remove what is past its time, in the transaction of the session."""
    now = now.astimezone(UTC)
    dropped = _note_kept(session, now)
    revisions = sum(_thinned(session, kind) for kind in REVISED) if dropped else 0
    if dropped:
        session.execute(delete(ImportRow).where(ImportRow.id.not_in(select(KEPT.c.id))))
    return Tidied(
        imports=dropped,
        revisions=revisions,
        links=_removed(session, LinkRow, _dead_links(now)),
        runs=_removed(session, RunRow, _deleted_runs(now)),
        sessions=_removed(session, SessionRow, SessionRow.begun_at < _plain(now - SESSIONS)),
    )


def _note_kept(session: Session, now: datetime) -> int:
    """Notes the imports that stay in a table of this connection; returns how many go."""
    session.execute(text("CREATE TEMP TABLE IF NOT EXISTS kept_imports (id INTEGER PRIMARY KEY)"))
    session.execute(text("DELETE FROM kept_imports"))
    staying_ids = {*_recent_or_weekly(session, now), *_depended_on(session)}
    if staying_ids:
        rows = [{"id": number} for number in sorted(staying_ids)]
        session.execute(text("INSERT INTO kept_imports VALUES (:id)"), rows)
    return (session.scalar(select(func.count()).select_from(ImportRow)) or 0) - len(staying_ids)


def _recent_or_weekly(session: Session, now: datetime) -> Iterator[int]:
    """Imports of the last two years, what was typed, and the last of each earlier week."""
    limit = _plain(now - DAILY)
    last: dict[tuple[int, int], int] = {}
    for row in session.scalars(select(ImportRow).order_by(ImportRow.at, ImportRow.id)):
        moment = _plain(row.at)
        if moment >= limit or row.by_hand:
            yield row.id
        else:
            year, week, _ = moment.isocalendar()
            last[year, week] = max(row.id, last.get((year, week), 0))
    yield from last.values()


def _depended_on(session: Session) -> Iterator[int]:
    """Imports that past answers were worked out from, that what still stands came with, and the
    newest.
    """
    there = set(session.scalars(select(ImportRow.id)))
    for query in (select(LinkRow.as_of), select(SnapshotRow.as_of)):
        yield from there & {number for number in session.scalars(query) if number is not None}
    for documents in session.execute(select(PaperRow.document, PaperRow.before)):
        for document in documents:
            yield from there & {*_imports_in(json.loads(document or "null"))}
    for kind in REVISED:
        standing = select(kind.from_import).where(kind.until_import.is_(None)).distinct()
        yield from session.scalars(standing)
    if there:
        yield max(there)


def _imports_in(document: object) -> Iterator[int]:
    """Every ``as_of`` of a document, however deep."""
    if isinstance(document, dict):
        if isinstance(number := document.get("as_of"), int):
            yield number
        for value in document.values():
            yield from _imports_in(value)
    elif isinstance(document, list):
        for value in document:
            yield from _imports_in(value)


def _thinned(session: Session, kind: type[EntryRow | StoredOffer | PictureRow]) -> int:
    """Ended revisions move to the imports that stay; those that stood at none go."""
    rows = kind.__table__
    for name in ("from_import", "until_import"):
        keyed_column_element = rows.c[name]
        later = (
            select(func.min(KEPT.c.id)).where(KEPT.c.id >= keyed_column_element).scalar_subquery()
        )
        gone = and_(
            keyed_column_element.is_not(None), keyed_column_element.not_in(select(KEPT.c.id))
        )
        session.execute(rows.update().where(gone).values({name: later}))  # type: ignore[attr-defined]
    return _removed(session, kind, kind.from_import >= kind.until_import)


def _dead_links(now: datetime) -> ColumnElement[bool]:
    limit = now - DEAD_LINKS
    ended = and_(LinkRow.ends_on.is_not(None), LinkRow.ends_on < limit.date())
    return or_(ended, and_(LinkRow.revoked.is_(True), LinkRow.made_at < _plain(limit)))


def _deleted_runs(now: datetime) -> ColumnElement[bool]:
    return and_(RunRow.document.is_(None), RunRow.changed_at < _plain(now - DELETED_RUNS))


def _removed(
    session: Session,
    kind: type[EntryRow | StoredOffer | PictureRow | LinkRow | RunRow | SessionRow],
    where: ColumnElement[bool],
) -> int:
    count = session.scalar(select(func.count()).select_from(kind).where(where)) or 0
    if count:
        session.execute(delete(kind).where(where))
    return count


def _plain(moment: datetime) -> datetime:
    """A time as the database holds it: in UTC, without saying so."""
    return moment.astimezone(UTC).replace(tzinfo=None) if moment.tzinfo else moment


def shrink(path: Path) -> tuple[int, int]:
    """Give the file's free pages back; its size in bytes before and after."""
    before = path.stat().st_size
    with told(path), closing(sqlite3.connect(path, timeout=5)) as connection:
        connection.execute("VACUUM")
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
    return before, path.stat().st_size
