"""What is wrong with a database, and what to do about each of it."""

from collections.abc import Iterator
from pathlib import Path
from tempfile import TemporaryDirectory

from sqlalchemy import text
from sqlalchemy.orm import Session

from wattmetron.core.errors import StorageError
from wattmetron.store.backup import back_up
from wattmetron.store.catalogues import standing_keys, unreadable_entries
from wattmetron.store.database import pending_migrations
from wattmetron.workshop.workshop import Workshop

RESTORE = "Put a backup in its place with “wattmetron restore FILE”."
AGAIN = "Import the catalogue again with “wattmetron import FOLDER”."
LIST = "Save it as it is, or delete it, in the list of briefs."
REGION = "Open it and choose one."
TARGETS = "Open it and take that target out, or import a catalogue that has the game."


def examine(path: Path) -> list[str]:
    """One sentence for each thing that is wrong, with what to do; raises StorageError where the
    database cannot even be opened.
    """
    if not path.is_file():
        raise StorageError(f"There is no database at {path}: name the file with --database.")
    steps = pending_migrations(path)
    if not steps:
        return _examined(path)
    with TemporaryDirectory() as folder:
        copy = Path(folder) / "copy.sqlite"
        back_up(path, copy)
        return [
            "The database is of an earlier version. The next start changes it:"
            f" {'; '.join(steps)}. To keep it as it is, make a backup with “wattmetron backup"
            " FILE” first.",
            *_examined(copy),
        ]


def _examined(path: Path) -> list[str]:
    workshop = Workshop(path)
    try:
        with workshop.database.reading() as session:
            return [*_of_file(session), *_of_briefs(session, workshop)]
    finally:
        workshop.close()


def _of_file(session: Session) -> Iterator[str]:
    for (verdict,) in session.execute(text("PRAGMA integrity_check(20)")):
        if verdict != "ok":
            yield f"The file is damaged ({verdict}). {RESTORE}"
    for table, row_id, parent, _ in session.execute(text("PRAGMA foreign_key_check")):
        yield f"Row {row_id} of {table} belongs to a row of {parent} that is gone. {RESTORE}"
    lost = text(
        "SELECT DISTINCT changes.brief_id FROM changes"
        " LEFT JOIN briefs ON briefs.id = changes.brief_id WHERE briefs.id IS NULL"
    )
    for (brief_id,) in session.execute(lost):
        yield f"Changes are kept of brief {brief_id}, which is gone. They do no harm."
    for entry_id, kind, key in unreadable_entries(session):
        yield f"The {kind} “{key}” (entry {entry_id}) cannot be read. {AGAIN}"


def _of_briefs(session: Session, workshop: Workshop) -> Iterator[str]:
    for row in workshop.unreadable_briefs():
        yield f"Brief {row.id} cannot be read. {LIST}"
    regions, games = standing_keys(session, "region"), standing_keys(session, "game")
    for brief_id, plan in workshop.stored_plans():
        where = f"Brief {brief_id}, “{plan.brief.name}”,"
        if plan.brief.region not in regions:
            yield f"{where} is for the region “{plan.brief.region}”, which is gone. {REGION}"
        for game_id in sorted({target.game_id for target in plan.brief.targets} - games):
            yield f"{where} wants the game “{game_id}”, which is gone. {TARGETS}"
