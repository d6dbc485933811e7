"""A running application with demo data, and a Chromium to walk through it."""

import shutil
from pathlib import Path

import pytest
from playwright.sync_api import expect, sync_playwright

from tests.conftest import copied
from tests.e2e.places import Desk
from tests.site import Server, Site

HERE = Path(__file__).parent
EXPECTED = (
    "status of 4",
    "status of 5",
    "ERR_CONNECTION_REFUSED",
    "htmx:sendError",
    "htmx:sendAbort",
    "htmx:afterRequest",
)
"""What the console says where a test means it: refusals, a server that is gone, a request that a
newer one replaced.
"""
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
]

expect.set_options(timeout=45_000)


def pytest_collection_modifyitems(items):
    for item in items:
        if item.path.is_relative_to(HERE):
            item.add_marker(pytest.mark.journey)


@pytest.fixture(scope="session")
def server():
    """One for all journeys of a worker; each serves its own copy of the database there."""
    running = Server()
    yield running
    running.stop()


@pytest.fixture
def site(demo_copy, shared_study, server):
    running = Site(demo_copy, shared_study, server=server)
    yield running
    running.leave()


@pytest.fixture(scope="module")
def small_site(small_database, tmp_path_factory, shared_study, server):
    """Over the small demo, for journeys that change nothing that the next one meets."""
    path = copied(small_database, tmp_path_factory.mktemp("site"))
    running = Site(path, shared_study, server=server)
    yield running
    running.leave()


def chromium() -> str:
    """Where the system's Chromium lies."""
    path = (
        shutil.which("chromium")
        or shutil.which("chromium-browser")
        or shutil.which("google-chrome")
    )
    assert path, "Chromium is missing: run “apt-get install chromium” as root"
    return path


@pytest.fixture(scope="session")
def browser():
    path = chromium()
    with sync_playwright() as play:
        running = play.chromium.launch(executable_path=path, args=FLAGS)
        yield running
        running.close()


@pytest.fixture
def page(browser):
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, color_scheme="light", reduced_motion="reduce"
    )
    opened = context.new_page()
    trouble = []
    opened.on("pageerror", lambda error: trouble.append(str(error)))
    opened.on(
        "console", lambda message: trouble.append(message.text) if message.type == "error" else None
    )
    opened.set_default_timeout(20_000)
    yield opened
    context.close()
    assert [item for item in trouble if not any(word in item for word in EXPECTED)] == []


@pytest.fixture
def desk(site, page):
    return Desk(page, site.url)
