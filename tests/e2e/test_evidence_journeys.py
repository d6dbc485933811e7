"""Evidence: three pasted rows narrow a target, change the proposal's mind, are muted and taken
back; settings that meet.
"""

import re

from playwright.sync_api import expect

ROWS = (
    "Ketch Flood 8 Deep; Reef 16 GB; 1440p; high; 30; 24\nKetch Flood 8 Deep; Ness 16 GB; 1440p;"
    " high; 33; 27\nKetch Flood 8 Deep; Bank 12 GB; 1440p; high; 40; 32"
)


def interval(desk) -> tuple[int, int]:
    words = desk.frames_of("Winter Buoy").locator("b.fig, .fig b").first.inner_text()
    low, high = re.search(r"\((\d+)–(\d+)\)", words).groups()
    return int(low), int(high)


def test_three_pasted_rows_narrow_the_frames_and_can_be_muted_and_undone(desk, page):
    desk.open("/briefs/1/frames?game=winter-buoy")
    page.locator("#target-from-3").click()
    desk.says("Added Winter Buoy")
    page.locator("#game-close").click()
    low, high = interval(desk)
    desk.propose("least")
    expect(page.locator("#trybar")).to_be_visible()
    first = desk.part_names()
    desk.press("Escape")

    desk.open("/games/winter-buoy?brief=1")
    if not page.locator("#results-table").is_visible():
        page.locator("#add-results summary").click()
    page.locator("#results-table").fill(ROWS)
    page.locator("#results-source").fill("Harbour Lab")
    page.locator("#store-results").click()
    desk.says("Added 3 results: C ")
    expect(page.locator("#evidence")).to_contain_text("Harbour Lab")
    desk.is_accessible()

    desk.open("/briefs/1/frames")
    narrower = interval(desk)
    assert narrower[1] / narrower[0] < high / low
    desk.propose("least")
    expect(page.locator("#trybar")).to_be_visible()
    second = desk.part_names()
    assert first and second and second != first, "the proposal changes its mind"
    desk.press("Escape")
    row = desk.frames_of("Winter Buoy")
    row.get_by_title("Show the working").click()
    expect(page.locator("#working")).to_contain_text("Work of the game")
    expect(page.locator("#working")).to_contain_text("What would make it surer")
    page.locator("#working-evidence summary").click()
    page.locator("#working-evidence a", has_text="Orlop").or_(
        page.locator("#working-evidence a", has_text="Ness")
    ).first.click()
    expect(page.locator("#result-r2")).to_be_in_viewport()
    assert page.url.endswith("#result-r2")
    page.locator("#mute-r2").click()
    desk.says("Left a result out: C ")
    expect(page.locator("#evidence tr.quiet")).to_have_count(1)
    page.locator("#undo-results").click()
    desk.says("Took back: left a result out")
    expect(page.locator("#evidence tr.quiet")).to_have_count(0)


def test_settings_that_meet_become_the_target_in_a_click(desk, page):
    desk.open("/briefs/1/frames")
    page.locator("#settings-t1").focus()
    desk.press("g")
    expect(page.locator("#settings")).to_be_focused()
    expect(page.locator("#settings h2")).to_contain_text("Hollow Meridian: settings that meet 70")
    desk.is_accessible()
    page.locator("#take-best").click()
    desk.says("Hollow Meridian to 2560x1440, ")
    expect(page.locator("#frame-t1 .state")).to_contain_text("meets")
    desk.press("u")
    desk.says("Undone: Hollow Meridian")
    page.set_viewport_size({"width": 390, "height": 844})
    desk.open("/briefs/1/frames?settings=t3")
    desk.fits_the_width()
    desk.is_accessible()
