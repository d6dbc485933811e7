"""A running application with demo data, and a Chromium to walk through it."""

import shutil

import pytest
from playwright.sync_api import expect, sync_playwright

from tests.e2e.places import Desk
from tests.site import Site

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


@pytest.fixture
def site(demo_copy, shared_study):
    running = Site(demo_copy, shared_study)
    yield running
    running.stop()


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
