"""Answers that outlive a start: kept by what they rest on, in a file of their own beside the
database.

Nothing else depends on the file: where it cannot be read or written, and where it is deleted,
answers are worked out as if it were not there. It holds what this application wrote, in Python's
own format, and is readable by its owner alone.
"""

import logging
import time
from pathlib import Path

from sqlalchemy import (
    Column,
    Connection,
    Engine,
    Float,
    Integer,
    LargeBinary,
    MetaData,
    String,
    Table,
    create_engine,
    delete,
    func,
    insert,
    select,
    update,
)
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.pool import NullPool
from sqlalchemy.schema import CreateTable

MOST_BYTES = 64_000_000
LARGEST_BYTES = 4_000_000
"""A single answer beyond this is not worth its place."""
ROOM = 0.8
"""To so much of the bound it is brought down where it is reached, the least recently used first."""
WAIT_S = 0.5
SECONDS_A_DAY = 86_400.0
ANSWERS = Table(
    "answers",
    MetaData(),
    Column("key", String(64), primary_key=True),
    Column("value", LargeBinary, nullable=False),
    Column("nbytes", Integer, nullable=False),
    Column("used", Float, nullable=False),
)
log = logging.getLogger(__name__)


class StoredAnswers:
    """Answers by a digest of what they rest on; safe for several processes and threads."""

    def __init__(self, path: Path, most_bytes: int = MOST_BYTES) -> None:
        self.path, self._most_bytes = path, most_bytes
        self._engine: Engine | None = None
        try:
            path.touch(mode=0o600)
            engine = create_engine(
                f"sqlite:///{path}", poolclass=NullPool, connect_args={"timeout": WAIT_S}
            )
            with engine.begin() as connection:
                connection.execute(CreateTable(ANSWERS, if_not_exists=True))
            self._engine = engine
        except (OSError, SQLAlchemyError) as error:
            self._without(error)

    def get(self, key: str) -> bytes | None:
        """What was stored under a key; None where nothing is, or the file cannot be read."""
        if self._engine is None:
            return None
        now = time.time()
        try:
            with self._engine.begin() as connection:
                row = connection.execute(
                    select(ANSWERS.c.value, ANSWERS.c.used).where(ANSWERS.c.key == key)
                ).first()
                if row is None:
                    return None
                if now - row.used > SECONDS_A_DAY:
                    connection.execute(update(ANSWERS).where(ANSWERS.c.key == key).values(used=now))
                return bytes(row.value)
        except (OSError, SQLAlchemyError) as error:
            self._without(error)
            return None

    def put(self, key: str, value: bytes) -> None:
        """Stores a value; what was used longest ago makes room."""
        if self._engine is None or len(value) > LARGEST_BYTES:
            return
        try:
            with self._engine.begin() as connection:
                connection.execute(delete(ANSWERS).where(ANSWERS.c.key == key))
                row = {"key": key, "value": value, "nbytes": len(value), "used": time.time()}
                connection.execute(insert(ANSWERS).values(row))
                total = connection.scalar(select(func.sum(ANSWERS.c.nbytes))) or 0
                if total > self._most_bytes:
                    self._make_room(connection, total - int(ROOM * self._most_bytes))
        except (OSError, SQLAlchemyError) as error:
            self._without(error)

    def _make_room(self, connection: Connection, nbytes: int) -> None:
        oldest = connection.execute(
            select(ANSWERS.c.key, ANSWERS.c.nbytes).order_by(ANSWERS.c.used)
        ).all()
        for row in oldest:
            if nbytes <= 0:
                return
            connection.execute(delete(ANSWERS).where(ANSWERS.c.key == row.key))
            nbytes -= row.nbytes

    def _without(self, error: Exception) -> None:
        """Goes on without the file until the next start; said once. Where it is only busy, the one
        answer is worked out.
        """
        if "locked" in str(error):
            return
        self._engine = None
        log.warning("Answers are not stored: %s cannot be used (%s).", self.path, error)
