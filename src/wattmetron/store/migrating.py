"""Bringing a database up to this version. Alembic takes half a second to be read in, so it is where
something has to be brought up.
"""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import TYPE_CHECKING

from sqlalchemy import Engine, inspect, text

from wattmetron.core.errors import StorageError
from wattmetron.store.database_errors import FOREIGN, NEWER

if TYPE_CHECKING:
    from alembic.script import ScriptDirectory

MIGRATIONS = Path(__file__).with_name("migrations")
VERSION_TABLE = "alembic_version"


def bring_up(engine: Engine, path: Path) -> None:
    """Migrate a database of ours, or an empty file; raises StorageError for any other."""
    with engine.connect() as connection:
        tables = inspect(connection).get_table_names()
        query = text(f"SELECT version_num FROM {VERSION_TABLE}")
        revision = connection.scalar(query) if VERSION_TABLE in tables else None
    if revision is None and tables:
        raise StorageError(FOREIGN.format(path))
    if revision == _newest():
        return
    if revision is not None and revision not in {
        script.revision for script in _scripts().walk_revisions()
    }:
        raise StorageError(NEWER.format(path))
    migrate(engine)


def _newest() -> str:
    """The revision of the last file; each is named by its own."""
    return max(file.name.split("_")[0] for file in (MIGRATIONS / "versions").glob("[0-9]*.py"))


def _scripts() -> "ScriptDirectory":
    from alembic.script import ScriptDirectory

    return ScriptDirectory(str(MIGRATIONS))


def pending_migrations(path: Path) -> tuple[str, ...]:
    """What bringing a database up to this version would do, a phrase for each step; nothing is
    changed. Empty where it is up to date, or is no database of ours.
    """
    scripts = _scripts()
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as connection:
        try:
            row = connection.execute(f"SELECT version_num FROM {VERSION_TABLE}").fetchone()
        except sqlite3.DatabaseError:
            return ()
    steps = {script.revision: script for script in scripts.walk_revisions()}
    if row is None or row[0] not in steps:
        return ()
    later = []
    for script in scripts.walk_revisions():
        if script.revision == row[0]:
            break
        later.append(script.doc.rstrip("."))
    return tuple(reversed(later))


def migrate(engine: Engine, to: str = "head") -> None:
    """Bring the schema to a revision; everything in one transaction that others wait for."""
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.connect() as connection:
        connection = connection.execution_options(wattmetron_write=True)
        with connection.begin():
            config.attributes["connection"] = connection
            command.upgrade(config, to)
