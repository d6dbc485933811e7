"""Backup and restore of a database file; both are checked before they count."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from sqlalchemy import create_engine

from wattmetron.core.errors import BusyError, StorageError
from wattmetron.store.database import log_of
from wattmetron.store.database_errors import told
from wattmetron.store.migrating import bring_up

IN_USE = (
    "The database {} is in use, so nothing was changed: end Wattmetron and whatever else has it"
    " open, then try again."
)
UNSOUND = "{} is damaged, so nothing was {}: {}."
PAGES_AT_ONCE = 1000


@dataclass(frozen=True, slots=True)
class DatabaseContents:
    """What a database holds."""

    briefs: int
    changes: int
    imports: int

    def __str__(self) -> str:
        return f"{self.briefs} briefs, {self.changes} changes, {self.imports} imports and edits"


def back_up(path: Path, target: Path) -> DatabaseContents:
    """Copy a database, in use or not, into a new file; raises StorageError where there is none or
    the target is taken.
    """
    if target.exists():
        raise StorageError(f"{target} is already there: name a new file for the backup.")
    with _written_whole(target) as part:
        with told(path), _opened(path) as source, closing(sqlite3.connect(part)) as copy:
            source.backup(copy, pages=PAGES_AT_ONCE)
            copy.execute("PRAGMA journal_mode=DELETE").fetchone()
        return _checked(part, path, "written", "run “wattmetron doctor”")


def restore(backup: Path, path: Path) -> tuple[DatabaseContents, Path | None]:
    """Put a backup in the place of a database that nobody uses; returns what it holds, and where
    the database that stood there is kept now.
    """
    with _written_whole(path) as part:
        with told(backup), _opened(backup) as source, closing(sqlite3.connect(part)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE").fetchone()
        revision = _checked(part, backup, "restored", "take another backup")
        return revision, _put_aside(path)


def _put_aside(path: Path) -> Path | None:
    """Renames a database that stands at a path; raises BusyError where somebody uses it."""
    if not path.exists():
        return None
    try:
        with told(path), closing(sqlite3.connect(path, timeout=1)) as standing:
            standing.execute("PRAGMA journal_mode=DELETE").fetchone()
    except BusyError as error:
        raise BusyError(IN_USE.format(path)) from error
    except StorageError:
        pass  # What is damaged is put aside as it is.
    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S-%f")
    aside = path.with_name(f"{path.stem}.before-restore-{stamp}{path.suffix}")
    if log_of(path).exists():
        log_of(path).rename(log_of(aside))
    path.rename(aside)
    return aside


@contextmanager
def _written_whole(target: Path) -> Iterator[Path]:
    """A file beside the target, which takes its name when the block ends without an error."""
    part = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        with told(target):
            yield part
        with part.open("rb") as file:
            os.fsync(file.fileno())
        part.replace(target)
    finally:
        for path in (part, log_of(part), part.with_name(part.name + "-journal")):
            path.unlink(missing_ok=True)


@contextmanager
def _opened(path: Path) -> Iterator[sqlite3.Connection]:
    """A database that is there, for reading; its WAL, if any, included."""
    if not path.is_file():
        raise StorageError(f"There is no database at {path}, so nothing was done: name the file.")
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True)) as connection:
        yield connection


def _checked(part: Path, origin: Path, done: str, remedy: str) -> DatabaseContents:
    """What a copy holds; raises StorageError where it is damaged, foreign or newer."""
    unsound = StorageError(UNSOUND.format(origin, done, remedy))
    with told(origin), closing(sqlite3.connect(part)) as copy:
        verdict = copy.execute("PRAGMA integrity_check(1)").fetchone()[0]
    if verdict != "ok":
        raise unsound
    engine = create_engine(f"sqlite:///{part}")
    try:
        with told(origin):
            bring_up(engine, origin)
    finally:
        engine.dispose()
    with told(origin), closing(sqlite3.connect(part)) as copy:
        counts = [
            copy.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
            for table in ("briefs WHERE document IS NOT NULL", "changes", "imports")
        ]
    return DatabaseContents(*counts)
