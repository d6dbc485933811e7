"""The application without a browser, over a copy of the small demo, or of the whole one for tests
that are marked ``whole_demo``.
"""

import re

import pytest
from fastapi.testclient import TestClient

from wattmetron.api.app import equip, make_app
from wattmetron.shell.access import Door
from wattmetron.shell.computation_queue import ComputationQueue
from wattmetron.workshop.workshop import Workshop

HTMX = {"HX-Request": "true"}


@pytest.fixture
def database_path(request):
    whole = request.node.get_closest_marker("whole_demo")
    return request.getfixturevalue("demo_copy" if whole else "small_copy")


@pytest.fixture
def workshop(database_path, shared_study):
    opened = Workshop(database_path, shared_study)
    yield opened
    opened.close()


@pytest.fixture(scope="session")
def shared_app():
    """One application for one workshop after another: its many routes are made ready once."""
    return make_app(None)


@pytest.fixture
def client(workshop, shared_app):
    equip(shared_app, workshop, Door(None), ComputationQueue())
    with TestClient(shared_app, base_url="http://127.0.0.1") as client:
        yield client


def form(workshop, brief_id=1, **values):
    """The hidden fields of a change, with more."""
    return {"version": str(workshop.open(brief_id).version), "view": "frames", **values}


def squeezed(page: str) -> str:
    """A page as a browser takes it: however its lines are broken."""
    return re.sub(r"\s*(</?(?:td|th|tr|p)\b[^>]*>)\s*", r"\1", re.sub(r"[ \n\t]+", " ", page))
