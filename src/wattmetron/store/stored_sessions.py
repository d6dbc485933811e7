"""Browsers that are logged in: the hash of what each was given, when it began and was last used."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from wattmetron.core.errors import NotFoundError
from wattmetron.store.tables import SessionRow

MOST_SESSIONS = 500
"""The oldest end where more begin."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StoredSession:
    """A session without its token; ``door`` names the passphrase that it was begun with."""

    id: int
    token_hash: str
    door: str
    begun_at: datetime
    used_at: datetime
    browser: str
    address: str


class NoSuchSessionError(NotFoundError):
    """A session that has ended already."""

    def __init__(self) -> None:
        super().__init__("This session has ended already.")


def begin(
    session: Session, token_hash: str, door: str, browser: str, address: str, moment: datetime
) -> int:
    """Store a session that begins; returns its id."""
    row = SessionRow(
        token_hash=token_hash,
        door=door,
        begun_at=moment,
        used_at=moment,
        browser=browser,
        address=address,
    )
    session.add(row)
    session.flush()
    oldest = select(SessionRow.id).order_by(SessionRow.id.desc()).offset(MOST_SESSIONS)
    session.execute(delete(SessionRow).where(SessionRow.id.in_(oldest)))
    return row.id


def sessions_of(session: Session, door: str) -> tuple[StoredSession, ...]:
    """The sessions that were begun with a passphrase, the one used last first."""
    rows = session.scalars(
        select(SessionRow)
        .where(SessionRow.door == door)
        .order_by(SessionRow.used_at.desc(), SessionRow.id.desc())
    )
    return tuple(_stored(row) for row in rows)


def used(session: Session, session_id: int, moment: datetime) -> None:
    row = session.get(SessionRow, session_id)
    if row is not None:
        row.used_at = moment


def end(session: Session, session_id: int) -> None:
    """End one session; raises NoSuchSessionError where it has ended."""
    row = session.get(SessionRow, session_id)
    if row is None:
        raise NoSuchSessionError
    session.delete(row)


def end_all(session: Session) -> None:
    session.execute(delete(SessionRow))


def _stored(row: SessionRow) -> StoredSession:
    return StoredSession(
        id=row.id,
        token_hash=row.token_hash,
        door=row.door,
        begun_at=row.begun_at.replace(tzinfo=UTC),
        used_at=row.used_at.replace(tzinfo=UTC),
        browser=row.browser,
        address=row.address,
    )
