"""A database with the demo data, made once and copied for every test that works on one."""

import shutil

import pytest
from hypothesis import settings

from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.services.workshop import Workshop
from wattmetron.study import memory
from wattmetron.study.study import studied

settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")


@pytest.fixture(scope="session", autouse=True)
def loaded():
    """As a server does before the first request."""
    memory.stays()


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory, shared_study):
    path = tmp_path_factory.mktemp("demo") / "demo.sqlite"
    made = Workshop(path, shared_study)
    made.load_demo(CATALOGUE, BRIEFS)
    made.catalogue()
    made.close()
    return path


class SharedStudy:
    """What was computed from the demo data serves all tests that begin with them unchanged."""

    def __init__(self) -> None:
        self.described = self.result = None

    def __call__(self, described):
        if described == self.described:
            return self.result
        result = studied(described)
        if self.described is None:
            self.described, self.result = described, result
        return result


@pytest.fixture(scope="session")
def shared_study():
    return SharedStudy()


@pytest.fixture
def demo_copy(demo_database, tmp_path):
    """The path of a fresh copy."""
    copy = tmp_path / "copy.sqlite"
    for suffix in ("", "-wal", "-shm"):
        if (source := demo_database.with_name(demo_database.name + suffix)).exists():
            shutil.copyfile(source, copy.with_name(copy.name + suffix))
    return copy
