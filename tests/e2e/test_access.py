"""Every kind of page: no serious finding of axe in either theme, and none wider than the window."""

import pytest
from playwright.sync_api import expect

from tests.e2e.places import Desk
from tests.extent import extent

KINDS = (
    "/briefs",
    "/briefs/letter",
    "/briefs/1/brief",
    "/briefs/1/frames?propose=most",
    "/briefs/7/frames?swap=graphics&working=money",
    "/briefs/8/balance",
    "/briefs/7/fit",
    "/briefs/7/review",
    "/briefs/1/compare?beside=8",
    "/briefs/1/handout",
    "/briefs/1/handout/page",
    "/briefs/1/buy",
    "/briefs/1/measured",
    "/games?brief=1",
    "/games/hollow-meridian?brief=1",
    "/games/read",
    "/parts?kind=graphics&brief=1",
    "/parts/lowhum-level-750",
    "/parts/scale",
    "/shops",
    "/measured/new?brief=1",
)


MAIN = ("/briefs/1/brief", "/briefs/8/balance", "/briefs/7/fit", "/games/hollow-meridian?brief=1")
"""Looked at in the dark theme too; the others in ``make journeys``."""


@pytest.mark.essential
@pytest.mark.parametrize("address", KINDS)
def test_every_kind_of_page_in_both_themes(small_site, page, address):
    desk = Desk(page, small_site.url)
    desk.open(address)
    desk.has_no_serious_finding()
    desk.fits_the_width()
    if extent(few=address in MAIN, everything=True):
        page.emulate_media(color_scheme="dark")
        desk.has_no_serious_finding("contrast")


@pytest.mark.essential
def test_without_scripts_a_brief_is_read_changed_and_built(small_site, browser):
    """Links and forms alone: what htmx does in place is a page of its own."""
    context = browser.new_context(java_script_enabled=False)
    page = context.new_page()
    page.goto(f"{small_site.url}/briefs")
    page.get_by_role("link", name="Net loft all-rounder").click()
    expect(page.locator("h1")).to_contain_text("Net loft all-rounder")
    page.goto(f"{small_site.url}/briefs/1/frames?propose=most")
    expect(page.locator("#account h2")).to_contain_text("The proposal costs")
    page.locator("#adopt").click()
    expect(page.locator("#trybar")).to_have_count(0)
    expect(page.locator("#build .sum")).to_contain_text("left")
    context.close()
