"""A database with the demo data, made once and copied for every test that works on one."""

import shutil

import pytest

from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.services.workshop import Workshop


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory):
    path = tmp_path_factory.mktemp("demo") / "demo.sqlite"
    made = Workshop(path)
    made.load_demo(CATALOGUE, BRIEFS)
    made.close()
    return path


@pytest.fixture
def demo_copy(demo_database, tmp_path):
    """The path of a fresh copy."""
    copy = tmp_path / "copy.sqlite"
    for suffix in ("", "-wal", "-shm"):
        if (source := demo_database.with_name(demo_database.name + suffix)).exists():
            shutil.copyfile(source, copy.with_name(copy.name + suffix))
    return copy
