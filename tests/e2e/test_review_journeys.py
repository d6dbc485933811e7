"""A list that somebody sent: pasted, corrected, reviewed, some changes taken and one left."""

import re

import pytest
from playwright.sync_api import expect

LIST = """Hi, what do you think of this? I mostly play Hollow Meridian at 1440p, at most 1400.
Marrowgate Heron Dun 6 - 120.80
Pellworth Wharf Full - 101.80
Bramblebyte Plain 16 Single DDR4 - 34
Kitefall Orlop Pharos 16 GB Triple - 719.90
Lowhum Bargain 700 - 35
Lidd & Frame Porthole - 103
Ledgerock Ledge 500 - 43
"""


def test_a_list_is_pasted_reviewed_and_made_better_by_keyboard(desk, page):
    desk.open("/briefs")
    page.get_by_role("link", name="Paste a letter or a list").click()
    page.locator("#letter").fill(LIST)
    page.locator("#read-letter").press("Enter")
    lines = page.get_by_role("region", name="Lines of the list")
    expect(lines.locator("tbody tr")).to_have_count(7)
    expect(page.locator("#l-high")).to_have_value("1400")
    desk.is_accessible()
    page.locator("#make-brief").press("Enter")
    expect(page.locator("#review h2")).to_contain_text("wrong for this brief")
    verdicts = page.get_by_role("region", name="Verdicts")
    expect(verdicts.locator("tr", has_text="Lidd & Frame Porthole").first).to_contain_text("wrong")
    expect(verdicts).to_contain_text("holds back Hollow Meridian")
    desk.is_accessible()
    page.locator("#way-3").press("Enter")
    expect(page.locator("#way-3")).to_have_attribute("aria-current", "true")
    sums = page.locator("#review-sums")
    count = page.get_by_role("checkbox", name=re.compile("^Change ")).count()
    expect(sums).to_contain_text(f"{count} of {count} changes taken")
    page.locator(f"#take-{count}").press("Enter")
    expect(sums).to_contain_text(f"{count - 1} of {count} changes taken")
    page.locator("#try-better").press("Enter")
    expect(page.locator("#trybar")).to_be_visible()
    desk.press("a")
    desk.tries_nothing()
    expect(desk.meter("fit")).to_contain_text("fits")


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_the_review_fits_and_is_accessible(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    desk.open("/briefs/7/review")
    expect(page.locator("#judged")).to_be_visible()
    desk.is_accessible()
    desk.fits_the_width()
    desk.open("/briefs/letter")
    page.locator("#letter").fill(LIST)
    page.locator("#read-letter").click()
    expect(page.locator("#make-brief")).to_be_visible()
    desk.is_accessible()
    desk.fits_the_width()


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_machines_stand_side_by_side_and_fit_the_screen(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    desk.open("/briefs/1/compare")
    page.get_by_role("link", name="Weather ship, all processor").click()
    expect(page.locator("#compare")).to_contain_text("It is surely faster in")
    expect(page.locator("#fixed")).to_contain_text("looks locked at 30")
    desk.is_accessible()
    desk.fits_the_width()
