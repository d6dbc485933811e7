"""What SQLite finds wrong with the file, and rows that belong to nothing."""

from collections.abc import Iterator
from typing import NamedTuple

from sqlalchemy import text
from sqlalchemy.orm import Session

_LOST_CHANGES = text(
    "SELECT DISTINCT changes.brief_id FROM changes"
    " LEFT JOIN briefs ON briefs.id = changes.brief_id WHERE briefs.id IS NULL"
)


class Orphan(NamedTuple):
    """A row that belongs to a row of another table which is gone."""

    table: str
    row_id: int
    parent: str


def file_damage(session: Session) -> Iterator[str]:
    """SQLite's own verdicts, at most twenty; none for a sound file."""
    for (verdict,) in session.execute(text("PRAGMA integrity_check(20)")):
        if verdict != "ok":
            yield verdict


def orphans(session: Session) -> Iterator[Orphan]:
    for table, row_id, parent, _ in session.execute(text("PRAGMA foreign_key_check")):
        yield Orphan(table, row_id, parent)


def changes_of_lost_briefs(session: Session) -> Iterator[int]:
    """The ids of briefs that are gone while changes of them are there."""
    for (brief_id,) in session.execute(_LOST_CHANGES):
        yield brief_id
