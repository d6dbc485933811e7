"""Opening the database: pragmas, transactions, and whether the file is still there."""

import os
import sqlite3
import time
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from pathlib import Path
from typing import Any, TypeVar

from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session

from wattmetron.core.errors import StorageError
from wattmetron.store.database_errors import DAMAGED, FOLDER, moved, told
from wattmetron.store.migrating import bring_up
from wattmetron.store.tables import Base

PATIENCE_MS, LOG_WAIT_S = 5000, 0.02
"""So long a change waits for a lock that is held elsewhere."""
MOST_ID = 2**63 - 1
Transaction = Session
"""What use cases hand from one function of the store to another; they do not look inside."""
R = TypeVar("R", bound=Base)
Identity = tuple[tuple[int, int], ...]


_made: ContextVar[list[Path] | None] = ContextVar("made", default=None)


@contextmanager
def changes_watched() -> Iterator[list[Path]]:
    """Collects the databases that are changed within it, once for each change that is kept."""
    made: list[Path] = []
    token = _made.set(made)
    try:
        yield made
    finally:
        _made.reset(token)


class Database:
    """A SQLite file with foreign keys, write-ahead log and one transaction per change.

    One connection stays open (a pool may drop its own), so that the log stays the same file and
    others can tell that the database is in use. Raises BusyError or StorageError, whose sentence
    is fit to show.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self.patience_ms = PATIENCE_MS
        if path.is_dir():
            raise StorageError(FOLDER.format(path))
        with told(path):
            _make_folder(path)
            _remove_leftovers(path)
            self.engine = self._engine()
            bring_up(self.engine, path)
            self._anchor = sqlite3.connect(path, check_same_thread=False)
            self._keep_a_log()
            self._anchor.execute("SELECT count(*) FROM imports").fetchone()
        self._identity = self._present_identity()

    def _keep_a_log(self) -> None:
        """Switch the write-ahead log on. SQLite does not wait for this as it does for other locks,
        so that two first starts at once would get in each other's way.
        """
        ends = time.monotonic() + self.patience_ms / 1000
        while True:
            try:
                self._anchor.execute("PRAGMA journal_mode=WAL").fetchone()
            except sqlite3.OperationalError as error:
                if "locked" not in str(error) or time.monotonic() > ends:
                    raise
                time.sleep(LOG_WAIT_S)
            else:
                return

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session whose changes are thrown away."""
        with told(self.path), Session(self.engine) as session:
            yield session
            session.rollback()

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A session that takes the write lock at once and commits when the block ends without an
        error, to the file that is at the path: never to one that was deleted or replaced.
        """
        self._must_be_there()
        with told(self.path), Session(self.engine) as session:
            session.connection(execution_options={"wattmetron_write": True})
            yield session
            session.flush()
            self._must_be_there()
            session.commit()
        if (made := _made.get()) is not None:
            made.append(self.path)

    def check(self) -> None:
        """Raises StorageError where SQLite finds the file damaged."""
        with self.reading() as session:
            verdict = session.connection().exec_driver_sql("PRAGMA quick_check(1)").scalar()
        if verdict != "ok":
            raise StorageError(DAMAGED.format(self.path))

    def close(self) -> None:
        self.engine.dispose()
        self._anchor.close()

    def _present_identity(self) -> Identity | None:
        """Device and inode of the file and its log; None where one is missing."""
        try:
            stat_results = [path.stat() for path in (self.path, log_of(self.path))]
        except OSError:
            return None
        return tuple((file.st_dev, file.st_ino) for file in stat_results)

    def _must_be_there(self) -> None:
        if self._present_identity() != self._identity:
            raise moved(self.path)

    def _engine(self) -> Engine:
        engine = create_engine(
            f"sqlite:///{self.path}", connect_args={"check_same_thread": False, "timeout": 5}
        )

        @event.listens_for(engine, "connect")
        def prepare(connection: Any, _record: Any) -> None:
            connection.isolation_level = None
            for pragma in ("foreign_keys=ON", "synchronous=FULL"):
                connection.execute(f"PRAGMA {pragma}")

        @event.listens_for(engine, "begin")
        def begin(connection: Any) -> None:
            if connection.get_execution_options().get("wattmetron_write"):
                connection.exec_driver_sql(f"PRAGMA busy_timeout={self.patience_ms}")
                connection.exec_driver_sql("BEGIN IMMEDIATE")
            else:
                connection.exec_driver_sql("BEGIN")

        return engine


def found(session: Session, kind: type[R], row_id: int) -> R | None:
    """A row by its id; none for an id that the database cannot even name."""
    return session.get(kind, row_id) if abs(row_id) <= MOST_ID else None


def log_of(path: Path) -> Path:
    """The write-ahead log beside a database."""
    return path.with_name(path.name + "-wal")


def _make_folder(path: Path) -> None:
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise StorageError(
            f"The database {path} cannot be opened: its folder cannot be made ({error.strerror})."
        ) from error


def _remove_leftovers(path: Path) -> None:
    """What a backup or restore that was killed left beside the database: files named with the
    number of a process that is gone.
    """
    for left in path.parent.glob(f".{path.name}.*.part*"):
        number = left.name.removeprefix(f".{path.name}.").partition(".")[0]
        if number.isdecimal() and not _is_running(int(number)):
            left.unlink(missing_ok=True)


def _is_running(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except (PermissionError, OverflowError):
        return True
    return True
