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
    with TestClient(make_app(workshop), base_url="http://127.0.0.1") as client:
        yield client
    workshop.close()


def rest_of(page: str) -> str | None:
    """Where the rest of a page comes from."""
    match = re.search(r'class="later[^"]*" id="rest-\d+".*?hx-get="([^"]+)"', page, re.DOTALL)
    return html.unescape(match[1]) if match else None


def working_part(page: str) -> str:
    """The part of a page that is put in place, but for what is asked for after it."""
    return re.sub(r"\s+", " ", page[page.index("<main") : page.index("</main>")])


def whole_url(rest: str) -> str:
    """The address of the whole page, for those without scripts."""
    return re.sub(r"&(rest|of)=\d+", "", rest)


def brought(cold, rest: str | None):
    """The rest, asked for until all of it is there, as the piece that waits for it does: part by
    part, in ever fewer.
    """
    left = []
    for _ in range(600):
        came = cold.get(rest, headers=HTMX)
        if "hx-reswap" in came.headers:
            assert came.headers["hx-reswap"] == "none" and 'id="rest-words"' in came.text
            continue
        left.append(int(re.search(r"rest=(\d+)", rest)[1]))
        rest = rest_of(came.text)
        if rest is None:
            assert left == sorted(set(left), reverse=True)
            return came
    raise AssertionError("it waits for ever")


@pytest.mark.parametrize("address", WAITING)
def test_what_is_known_comes_first_and_the_rest_is_the_whole_page(cold, address):
    first = cold.get(address, headers=NAVIGATES).text
    assert 'id="view-balance"' in first and 'class="meters"' in first and 'id="build"' in first
    rest = rest_of(first)
    assert rest is not None and f'href="{html.escape(whole_url(rest))}"' in first
    whole = cold.get(address)
    assert rest_of(whole.text) is None
    came = brought(cold, rest)
    assert working_part(came.text) == working_part(whole.text)
    assert rest_of(cold.get(address, headers=NAVIGATES).text) is None, "now it is known"


def test_without_scripts_the_link_brings_the_whole_page(cold):
    rest = rest_of(cold.get("/briefs/1/balance", headers=NAVIGATES).text)
    whole = cold.get(whole_url(rest), headers=NAVIGATES).text
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
    assert not re.search(r"whole=1|(&|&amp;)(rest|of)=", came)


def test_findings_are_shown_while_their_remedies_are_looked_for(cold):
    first = cold.get("/briefs/7/fit", headers=NAVIGATES).text
    assert 'id="cure-is-looked-for"' in first and "No change of parts on sale" not in first
    whole = cold.get("/briefs/7/fit").text
    assert 'id="cure"' in whole and "Looking for changes" not in whole
    headings = re.compile(r'<h3 class="fitgroup">.*?</h3>', re.DOTALL)
    assert headings.findall(first) == headings.findall(whole) != []
