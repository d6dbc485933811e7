"""A brief's page is shown at once with what is known; the rest comes by itself, by a link, or with
the page where nobody looks on.
"""

import html
import re

import pytest
from fastapi.testclient import TestClient

from tests.pages.conftest import HTMX
from wattmetron.api.app import make_app
from wattmetron.cache.catalogue_cache import studied
from wattmetron.shell.address import VIEWS
from wattmetron.workshop.workshop import Workshop

NAVIGATES = {"Sec-Fetch-Mode": "navigate"}
WAITING = ("/briefs/1/balance", "/briefs/1/frames?propose=most", "/briefs/1/frames?swap=graphics")


@pytest.fixture
def cold(small_copy):
    """An application that has worked nothing out yet."""
    workshop = Workshop(small_copy, studied)
    yield TestClient(make_app(workshop), base_url="http://127.0.0.1")
    workshop.close()


def rest_of(page: str) -> str | None:
    """Where the rest of a page comes from."""
    match = re.search(r'class="later[^"]*" id="rest-\d+".*?hx-get="([^"]+)"', page, re.DOTALL)
    return html.unescape(match[1]) if match else None


def working_part(page: str) -> str:
    """The part of a page that is put in place, but for what is asked for after it."""
    return re.sub(r"\s+", " ", page[page.index("<main") : page.index("</main>")])


def brought(cold, rest: str):
    """The rest, asked for until it is there, as the piece that waits for it does."""
    for _ in range(60):
        came = cold.get(rest, headers=HTMX)
        if "hx-reswap" not in came.headers:
            return came
        assert came.headers["hx-reswap"] == "none" and 'id="rest-words"' in came.text
    raise AssertionError("it waits for ever")


@pytest.mark.parametrize("address", WAITING)
def test_what_is_known_comes_first_and_the_rest_is_the_whole_page(cold, address):
    first = cold.get(address, headers=NAVIGATES).text
    assert 'id="view-balance"' in first and 'class="meters"' in first and 'id="build"' in first
    rest = rest_of(first)
    assert rest is not None and f'href="{html.escape(rest.removesuffix("&rest=1"))}"' in first
    whole = cold.get(address)
    assert rest_of(whole.text) is None
    came = brought(cold, rest)
    assert working_part(came.text) == working_part(whole.text)
    assert rest_of(cold.get(address, headers=NAVIGATES).text) is None, "now it is known"


def test_without_scripts_the_link_brings_the_whole_page(cold):
    rest = rest_of(cold.get("/briefs/1/balance", headers=NAVIGATES).text)
    whole = cold.get(rest.removesuffix("&rest=1"), headers=NAVIGATES).text
    assert rest_of(whole) is None
    assert 'id="pairings"' in whole or "Working it out" in whole


@pytest.mark.parametrize("view", VIEWS)
def test_no_view_keeps_a_browser_from_the_build(cold, view):
    page = cold.get(f"/briefs/2/{view}", headers=NAVIGATES)
    assert page.status_code == 200 and "Working it out" not in page.text
    assert 'class="meters"' in page.text


def test_links_of_the_page_do_not_carry_what_asked_for_the_rest(cold):
    rest = rest_of(cold.get("/briefs/1/balance", headers=NAVIGATES).text)
    came = brought(cold, rest).text
    assert "whole=1" not in came and "&rest=1" not in came and "&amp;rest=1" not in came
