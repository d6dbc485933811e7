"""Opening the database: pragmas, transactions and migrations."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session

MIGRATIONS = Path(__file__).with_name("migrations")


class Database:
    """A SQLite file with foreign keys, write-ahead log and one transaction per change."""

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.engine = _engine(path)
        migrate(self.engine)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session whose changes are thrown away."""
        with Session(self.engine) as session:
            yield session
            session.rollback()

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A session that takes the write lock at once and commits when the block ends without an
        error.
        """
        with Session(self.engine) as session:
            session.connection(execution_options={"wattmetron_write": True})
            yield session
            session.commit()

    def close(self) -> None:
        self.engine.dispose()


def _engine(path: Path) -> Engine:
    engine = create_engine(
        f"sqlite:///{path}", connect_args={"check_same_thread": False, "timeout": 30}
    )

    @event.listens_for(engine, "connect")
    def prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = None
        for pragma in (
            "foreign_keys=ON",
            "journal_mode=WAL",
            "synchronous=FULL",
            "busy_timeout=30000",
        ):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def begin(connection: Any) -> None:
        write = connection.get_execution_options().get("wattmetron_write")
        connection.exec_driver_sql("BEGIN IMMEDIATE" if write else "BEGIN")

    return engine


def migrate(engine: Engine, to: str = "head") -> None:
    """Bring the schema to a revision; everything in one transaction."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, to)
