"""The whole machine: drives by role, wireless and a display bought with it; the same frames for
less; what the years want; what a library and money run.
"""

import re

import pytest
from playwright.sync_api import expect


def test_drives_by_role_and_what_else_is_bought_stand_in_the_proposal(desk, page):
    desk.open("/briefs/1/brief")
    desk.unfold("drives")
    for entry, typed in (("#f-system-gb", "240"), ("#f-games-gb", "1000"), ("#f-bulk-gb", "4000")):
        page.locator(entry).fill(typed)
        page.locator(entry).press("Tab")
        expect(page.locator("#drives")).to_have_attribute("open", "")
    expect(page.locator("#drives summary")).to_contain_text("bulk 4,000 GB on hard disk")
    page.locator("#f-drives-apart").check()
    expect(page.locator("#drives summary")).to_contain_text("each on a drive of its own")
    desk.unfold("machine")
    page.locator("#f-wireless").check()
    expect(page.locator("#row-wireless-empty")).to_contain_text("choose a wireless adapter")
    desk.unfold("owned")
    page.locator("#f-buys-display").check()
    expect(page.locator("#row-display-empty")).to_contain_text("choose a display")
    desk.is_accessible()
    page.locator("#f-budget-high").fill("1900")
    page.locator("#f-budget-high").press("Tab")
    page.locator("#propose-most").click()
    expect(page.locator("#account h2")).to_contain_text("The proposal costs")
    for said in ("for the system", "for games", "for bulk", "2560x1440"):
        expect(page.locator("body")).to_contain_text(said)
    desk.press("a")
    desk.tries_nothing()
    expect(desk.meter("fit")).not_to_contain_text("below the brief")


def test_the_same_frames_for_less_are_told_part_by_part(desk, page):
    desk.open("/briefs/1/frames")
    desk.press("e")
    expect(page.locator("#account h2")).to_contain_text(re.compile("same frames"))
    expect(page.locator("#savings tbody tr")).not_to_have_count(0)
    desk.is_accessible()
    desk.open("/briefs/2/frames?propose=same")
    expect(page.locator("#account h2")).to_contain_text("choose one first")


def test_the_years_have_a_path_and_the_library_a_map(desk, page):
    desk.open("/briefs/1/brief")
    desk.unfold("years")
    page.locator("#f-years").fill("3")
    page.locator("#f-years").press("Tab")
    desk.open("/briefs/1/balance")
    desk.unfold("years")
    page.locator("#ask-path").click()
    expect(page.locator("#years")).to_contain_text(re.compile("there is no path|Over . years"))
    desk.unfold("coverage")
    page.get_by_role("link", name=re.compile("of 26 on high at 2560x1440")).click()
    expect(page.locator("#cover-games")).to_contain_text("2560x1440, high")
    desk.is_accessible()
    page.locator("#cover-fps").fill("fast")
    page.locator("#cover-fps").press("Enter")
    expect(page.locator("#cover-error")).to_contain_text("“fast” is no frame rate")


@pytest.mark.parametrize("width", [1280, 390])
def test_what_money_runs_is_read_before_any_brief(desk, page, width):
    page.set_viewport_size({"width": width, "height": 844})
    desk.open("/games")
    page.locator("#money").click()
    expect(page.locator("#by-money tbody tr").first).to_contain_text("EUR")
    desk.is_accessible()
    desk.fits_the_width()
    page.locator("#fps").fill("-3")
    page.get_by_role("button", name="Show").click()
    expect(page.locator("#error")).to_contain_text("must lie within 1–1000 fps")
