"""A running application with demo data, and a Chromium to walk through it."""

import shutil
import socket
import threading
import time

import pytest
import uvicorn
from playwright.sync_api import expect, sync_playwright

from tests.e2e.places import Desk
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.services.workshop import Workshop
from wattmetron.web.app import make_app

EXPECTED = (
    "status of 4",
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

expect.set_options(timeout=15_000)


class Site:
    """An application on a free port over its own database."""

    def __init__(self, path):
        self.path = path
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self):
        self.workshop = Workshop(self.path)
        self.workshop.load_demo(CATALOGUE, BRIEFS)
        config = uvicorn.Config(make_app(self.workshop), port=self.port, log_level="warning")
        self.server = uvicorn.Server(config)
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        while not self.server.started:
            time.sleep(0.02)

    def stop(self):
        self.server.should_exit = True
        self.thread.join(timeout=10)
        self.workshop.close()

    def restart(self):
        self.stop()
        self.start()


@pytest.fixture
def site(demo_copy):
    running = Site(demo_copy)
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
    context = browser.new_context(viewport={"width": 1280, "height": 800}, color_scheme="light")
    opened = context.new_page()
    trouble = []
    opened.on("pageerror", lambda error: trouble.append(str(error)))
    opened.on(
        "console", lambda message: trouble.append(message.text) if message.type == "error" else None
    )
    opened.set_default_timeout(20_000)
    yield opened
    context.close()
    assert [one for one in trouble if not any(word in one for word in EXPECTED)] == []


@pytest.fixture
def desk(site, page):
    return Desk(page, site.url)
