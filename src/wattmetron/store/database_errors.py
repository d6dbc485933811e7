"""What SQLite reports, as errors with a sentence: what is the matter and what to do."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy.exc import DBAPIError

from wattmetron.core.errors import BusyError, NotFoundError, StorageError, WattmetronError

ASIDE = (
    "end Wattmetron, move the file aside and start again, or put a backup in its place with"
    " “wattmetron restore FILE”"
)
DAMAGED = (
    f"The database {{}} is damaged, and nothing was changed: run “wattmetron doctor”, then {ASIDE}."
)
SENTENCES = {
    sqlite3.SQLITE_READONLY: (
        "The database {} is read-only, so nothing was changed: allow writing to the file and its"
        " folder, then try again."
    ),
    sqlite3.SQLITE_FULL: (
        "The disk with the database {} is full, so nothing was changed: free some space, then try"
        " again."
    ),
    sqlite3.SQLITE_IOERR: (
        "The database {} could not be read or written, so nothing was changed: see whether its disk"
        " is there and has space, then try again."
    ),
    sqlite3.SQLITE_CORRUPT: DAMAGED,
    sqlite3.SQLITE_CANTOPEN: (
        "The database {} cannot be opened: see whether its folder is there and may be written to."
    ),
    sqlite3.SQLITE_NOTADB: (
        "{} is no database, so nothing was done with it: name another file with --database, or put"
        " a backup in its place with “wattmetron restore FILE”."
    ),
}
BUSY = (
    "The database {} is busy: another program holds it, so nothing was changed. Try again in a"
    " moment."
)
MOVED = (
    "The database {} was deleted or replaced while Wattmetron runs, so nothing was changed: what"
    " you see can still be exported. End Wattmetron and start it again to work on the file that is"
    " there now."
)
FOLDER = "{} is a folder: name a database file in it with --database."
FOREIGN = (
    "{} belongs to another program, so nothing was done with it: name another file with --database."
)
NEWER = (
    "The database {} was written by a newer version of Wattmetron, and was left as it is: start"
    " that version, or name another file with --database."
)


def moved(path: Path) -> StorageError:
    return StorageError(MOVED.format(path))


def trouble_of(error: sqlite3.Error, path: Path) -> WattmetronError | None:
    """The error with a sentence; None for what only a mistake of ours can cause."""
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    if code in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return BusyError(BUSY.format(path))
    sentence = SENTENCES.get(code)
    return None if sentence is None else StorageError(sentence.format(path))


@contextmanager
def told(path: Path) -> Iterator[None]:
    """Within it SQLite's errors about a database become errors with a sentence; a number that the
    database cannot even name names nothing in it.
    """
    try:
        yield
    except OverflowError as error:
        if "SQLite" not in str(error):
            raise
        raise NotFoundError("There is nothing of that number here.") from error
    except (DBAPIError, sqlite3.Error) as error:
        cause = error.orig if isinstance(error, DBAPIError) else error
        trouble = trouble_of(cause, path) if isinstance(cause, sqlite3.Error) else None
        if trouble is None:
            raise
        raise trouble from error
