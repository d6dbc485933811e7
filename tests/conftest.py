"""Databases with the demo data, whole or a small part of it, made once and copied for every test
that works on one.
"""

import shutil
from pathlib import Path

import pytest
from hypothesis import settings

from tests import small
from wattmetron.cache import engines, process_memory
from wattmetron.cache.catalogue_cache import studied
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.workshop.workshop import Workshop

LONGEST_FIRST = Path(__file__).with_name("longest_first.txt")
settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")


def pytest_collection_modifyitems(config, items):
    """The files that take longest come first, so that no worker is left with one at the end."""
    order = {name: n for n, name in enumerate(LONGEST_FIRST.read_text().split())}
    root = config.rootpath
    items.sort(key=lambda item: order.get(str(item.path.relative_to(root)), len(order)))


@pytest.fixture(scope="session", autouse=True)
def loaded():
    """As a server does before the first request. Memory is not given back after each answer: to go
    through all that the tests share takes a tenth of their time.
    """
    process_memory.stays()
    engines.give_back = lambda: None


class SharedStudy:
    """What was computed from the demo data serves all tests that begin with them unchanged."""

    def __init__(self) -> None:
        self._shared = []

    def __call__(self, described):
        for earlier, result in self._shared:
            if described == earlier:
                return result
        return studied(described)

    def share(self, described) -> None:
        self._shared.append((described, studied(described)))


@pytest.fixture(scope="session")
def shared_study():
    return SharedStudy()


def _database(path: Path, study: SharedStudy, catalogue: Path, briefs: Path) -> Path:
    made = Workshop(path, study)
    made.load_demo(catalogue, briefs)
    study.share(made.catalogue().described)
    made.close()
    return path


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory, shared_study):
    return _database(
        tmp_path_factory.mktemp("demo") / "demo.sqlite", shared_study, CATALOGUE, BRIEFS
    )


@pytest.fixture(scope="session")
def small_database(tmp_path_factory, shared_study):
    return _database(
        tmp_path_factory.mktemp("small") / "small.sqlite",
        shared_study,
        small.CATALOGUE,
        small.BRIEFS,
    )


def copied(database: Path, folder: Path) -> Path:
    """The path of a fresh copy."""
    copy = folder / "copy.sqlite"
    for suffix in ("", "-wal", "-shm"):
        if (source := database.with_name(database.name + suffix)).exists():
            shutil.copyfile(source, copy.with_name(copy.name + suffix))
    return copy


@pytest.fixture
def demo_copy(demo_database, tmp_path):
    return copied(demo_database, tmp_path)


@pytest.fixture
def small_copy(small_database, tmp_path):
    return copied(small_database, tmp_path)
