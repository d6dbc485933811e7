"""The scale by mouse and keyboard: a loose chart is tied in, a source left out, a chain opened."""

import re

import pytest
from playwright.sync_api import expect


def test_a_loose_chart_is_tied_in_and_a_source_left_out(desk, page):
    desk.open("/briefs")
    page.get_by_role("link", name="Parts").click()
    page.get_by_role("link", name="The scale of speeds").click()
    expect(page.locator("h1")).to_have_text("Scale")
    expect(page.get_by_label("Not comparable yet")).to_contain_text(
        "One comparison of Nacre Spit 6 GB with"
    )
    page.get_by_label("Part", exact=True).fill("Nacre Spit 6 GB")
    page.get_by_label("is by %").fill("8")
    page.get_by_label("this one").fill("Nacre Inlet 8 GB")
    page.locator("#add-comparison").click()
    desk.says("Added a comparison of Nacre Spit 6 GB")
    expect(page.get_by_label("Not comparable yet")).to_have_count(0)
    expect(page.locator("table.scale")).to_contain_text("Orlop Cinder 4 GB")
    desk.is_accessible()
    page.locator("#mute-harbour-lab-1080p").click()
    desk.says("Harbour Lab left out. Moved:")
    desk.press("u")
    desk.says("Undone")
    expect(page.locator("#mute-harbour-lab-1080p")).to_have_text("leave out")


def test_measure_reference_comparison_and_chain_by_keyboard(desk, page):
    desk.open("/parts/scale")
    page.locator("#measure").select_option("one core")
    expect(page.locator("table.scale")).to_contain_text("Quillon Ketch Flood 8 Deep")
    page.locator("#reference").select_option(label="Quillon Cutter Ebb 6")
    expect(page.locator("table.scale tr", has_text="Quillon Cutter Ebb 6")).to_contain_text("100.0")
    page.locator("#first").fill("Quillon Ketch Flood 8 Deep")
    page.locator("#second").fill("Heron Dun 6")
    page.locator("#second").press("Tab")
    expect(page.locator("#comparison")).to_have_text(
        re.compile(r"is \d+\s% faster than Marrowgate Heron Dun 6, between \d+ and \d+\s%\.")
    )
    desk.press("/")
    desk.type("neap")
    expect(page.locator("table.scale tbody tr")).to_have_count(3)
    page.locator("table.scale a").first.focus()
    desk.press("w")
    expect(page.locator("#chain")).to_be_focused()
    expect(page.locator("#chain")).to_contain_text("The Second Bench")
    desk.press("Escape")
    expect(page.locator("#chain")).to_have_count(0)


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_the_scale_is_accessible_and_fits(desk, width, scheme):
    desk.page.emulate_media(color_scheme=scheme)
    desk.page.set_viewport_size({"width": width, "height": 844})
    for path in (
        "/parts/scale?part=nacre-reef%4016",
        "/parts/scale?measure=ray+tracing&words=nothing",
    ):
        desk.open(path)
        desk.is_accessible()
        desk.fits_the_width()
