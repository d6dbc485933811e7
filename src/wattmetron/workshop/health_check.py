"""What is wrong with a database, and what to do about each of it."""

from collections.abc import Iterator
from pathlib import Path
from tempfile import TemporaryDirectory

from wattmetron.core.errors import StorageError
from wattmetron.store.backup import back_up
from wattmetron.store.catalogues import standing_keys, unreadable_entries
from wattmetron.store.database import Transaction
from wattmetron.store.integrity import changes_of_lost_briefs, file_damage, orphans
from wattmetron.store.migrating import pending_migrations
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


def _of_file(session: Transaction) -> Iterator[str]:
    for verdict in file_damage(session):
        yield f"The file is damaged ({verdict}). {RESTORE}"
    for orphan in orphans(session):
        yield (
            f"Row {orphan.row_id} of {orphan.table} belongs to a row of {orphan.parent} that is"
            f" gone. {RESTORE}"
        )
    for brief_id in changes_of_lost_briefs(session):
        yield f"Changes are kept of brief {brief_id}, which is gone. They do no harm."
    for entry_id, kind, key in unreadable_entries(session):
        yield f"The {kind} “{key}” (entry {entry_id}) cannot be read. {AGAIN}"


def _of_briefs(session: Transaction, workshop: Workshop) -> Iterator[str]:
    for row in workshop.unreadable_briefs():
        yield f"Brief {row.id} cannot be read. {LIST}"
    regions, games = standing_keys(session, "region"), standing_keys(session, "game")
    for brief_id, plan in workshop.stored_plans():
        where = f"Brief {brief_id}, “{plan.brief.name}”,"
        if plan.brief.region not in regions:
            yield f"{where} is for the region “{plan.brief.region}”, which is gone. {REGION}"
        for game_id in sorted({target.game_id for target in plan.brief.targets} - games):
            yield f"{where} wants the game “{game_id}”, which is gone. {TARGETS}"
