"""The two journeys of a new user: improving the typical brief, and a build by hand with the
keyboard alone.
"""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.axe import serious
from tests.e2e.places import Desk
from tests.site import Site

REST = re.compile(r"[?&]rest=\d")


def test_typical_brief_from_short_to_adopted(desk, site, page):
    desk.open("/briefs")
    page.get_by_role("link", name="Net loft all-rounder").click()
    expect(page).to_have_title("Net loft all-rounder – Wattmetron")
    short = desk.frames_of("Thousand Towers")
    expect(short).to_contain_text("short")
    expect(short).to_contain_text("Would need a processor")

    page.locator("#view-brief").click()
    desk.settles()
    desk.field("budget-high").fill("1700")
    desk.field("budget-high").press("Tab")
    desk.says("1,700")
    desk.propose("most")
    desk.tries("Trying")
    assert desk.ghosts >= 3
    before = desk.meter_says("money")
    expect(page.locator("#account")).to_contain_text("pairings")
    desk.adopt()
    desk.tries_nothing()
    desk.says("dopted")
    assert desk.meter_says("money") == before
    assert desk.ghosts >= 3
    adopted = desk.part_names()

    desk.build.locator(".row", has_text="GB").first.wait_for()
    desk.swap("graphics")
    expect(page.locator("#swap")).to_be_visible()
    cheaper = desk.candidates
    seen = set()
    for place in (0, 1, 2):
        cheaper.nth(place).click()
        expect(page.locator("tr.tried")).to_have_count(1)
        desk.settles()
        seen.add(desk.meter_says("money"))
    assert len(seen) == 3
    desk.adopt()
    desk.tries_nothing()
    assert desk.part_names() != adopted
    assert page.locator(".framerow .state", has_text=re.compile("short|unsure")).count() >= 1
    after_swap = desk.part_names()

    desk.undo()
    desk.says("Undone: adopted")
    assert desk.part_names() == adopted
    desk.undo()
    assert desk.part_names() != adopted
    desk.redo()
    assert desk.part_names() == adopted
    site.restart()
    page.reload()
    assert desk.part_names() == adopted
    desk.redo()
    assert desk.part_names() == after_swap


@pytest.mark.essential
def test_new_brief_and_build_by_keyboard_alone(desk, page):
    desk.open("/briefs")
    desk.tab_to("new-brief")
    desk.press("Enter")
    page.wait_for_url("**/briefs/9/brief")
    desk.tab_to_and_type("f-budget-high", "900")
    desk.press("Tab")
    desk.says("900")
    desk.tab_to("add-game")
    desk.type("Hollow, Kiteball Arena")
    desk.press("Enter")
    expect(page.locator(".targetcard .game")).to_have_text(["Hollow Meridian", "Kiteball Arena"])
    expect(page.locator(".answer")).to_contain_text("The proposal costs EUR")
    page.locator("#about > summary").focus()
    desk.press("Enter")
    desk.tab_to_and_type("f-name", "Chandler's desk")
    desk.press("Tab")
    desk.says("ame to Chandler's desk")

    desk.press("Escape")
    desk.press("1")
    expect(desk.build.locator(".sum")).to_contain_text("cost at least")
    kinds = ["processor", "graphics", "mainboard", "memory", "storage", "supply", "case"]
    for kind in kinds:
        desk.tab_to(f"row-{kind}-empty")
        desk.press("s")
        expect(page.locator("#swap")).to_contain_text("Choose a")
        expect(page.locator("[data-candidate]:visible").first).to_be_focused()
        if kind == "graphics":
            for _ in range(5):
                desk.press("ArrowDown")
        desk.press("Enter")
        desk.tries("Trying")
        desk.press("a")
        desk.tries_nothing()
        desk.press("1")
        expect(page.locator(f"#row-{kind}-empty")).to_have_count(0)
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")
    expect(desk.build.locator(".sum")).to_contain_text("left")
    assert "over" not in desk.build.locator(".sum").inner_text()
    assert page.locator(".framerow .say b").count() == 2


def test_no_serious_accessibility_finding_in_either_theme(desk, page):
    addresses = (
        "/briefs",
        "/briefs/1/brief",
        "/briefs/1/frames?propose=most",
        "/briefs/7/frames?swap=graphics&place=kitefall-pharos-16-triple&working=money",
        "/briefs/3/frames",
    )
    for scheme, width, look in (
        ("light", 1280, "all"),
        ("dark", 1280, "contrast"),
        ("light", 390, "structure"),
    ):
        page.emulate_media(color_scheme=scheme)
        page.set_viewport_size({"width": width, "height": 800})
        for address in addresses:
            desk.open(address)
            desk.is_accessible(look)
            desk.fits_the_width()


def test_a_page_that_waits_turns_up_by_itself(demo_copy, page, monkeypatch):
    monkeypatch.setattr("wattmetron.shell.computation_queue.PATIENCE_S", 0)
    monkeypatch.setattr("wattmetron.shell.computation_queue.LOOK_S", 0.01)
    cold = Site(demo_copy)
    page.goto(f"{cold.url}/briefs/1/balance")
    expect(page.locator(".meters")).to_be_visible()
    expect(page.locator(".later.tall")).to_be_visible()
    assert serious(page) == []
    expect(page.locator("#pairings")).to_be_visible()
    expect(page.locator("nav.rail")).to_have_count(1)
    expect(page).to_have_title("Net loft all-rounder – Wattmetron")
    cold.stop()


def test_the_rest_of_a_page_can_be_stopped_and_asked_for_again(demo_copy, page):
    cold = Site(demo_copy)
    words = "3 other questions come first"
    page.route(
        REST,
        lambda route: route.fulfill(
            headers={"hx-reswap": "none"},
            content_type="text/html",
            body=f'<div id="rest-words" hx-swap-oob="true">{words}</div>',
        ),
    )
    page.goto(f"{cold.url}/briefs/1/balance")
    expect(page.locator("#rest-words")).to_have_text(words)
    page.get_by_role("button", name="stop").click()
    expect(page.locator(".later.tall")).to_contain_text("Stopped.")
    page.unroute(REST)
    page.get_by_role("button", name="Work it out").click()
    expect(page.locator("#pairings")).to_be_visible()
    expect(page.locator(".later.tall")).to_have_count(0)
    cold.stop()


def test_theme_and_key_list(desk, page):
    desk.open("/briefs/1/frames")
    page.get_by_role("button", name="Theme").click()
    assert page.evaluate("document.documentElement.dataset.theme") == "night"
    page.reload()
    assert page.evaluate("document.documentElement.dataset.theme") == "night"
    desk.press("?")
    expect(page.locator("#keys")).to_be_visible()
    page.get_by_label("Switch single-letter keys off").check()
    page.get_by_role("button", name="Close").click()
    desk.press("0")
    expect(page.locator("#view-frames[aria-current]")).to_have_count(1)
    desk.press("?")
    page.get_by_label("Switch single-letter keys off").uncheck()
    desk.press("Escape")
    expect(page.locator("#keys")).not_to_be_visible()
    desk.press("0")
    expect(page.locator("#view-brief[aria-current]")).to_have_count(1)


def test_two_tabs_do_not_overwrite_each_other(desk, browser):
    desk.open("/briefs/1/brief")
    other = Desk(browser.new_page(), desk.url)
    other.open("/briefs/1/brief")
    desk.field("budget-high").fill("1300")
    desk.field("budget-high").press("Tab")
    desk.says("1,300")
    other.field("budget-high").fill("1400")
    other.field("budget-high").press("Tab")
    other.refuses("another tab")
    other.page.reload()
    expect(other.field("budget-high")).to_have_value("1300")
    other.page.close()


def test_bad_budget_is_said_and_keeps_what_was_typed(desk, page):
    desk.open("/briefs/1/brief")
    for typed, said in (
        ("abc", "not a number"),
        ("-5", "below zero"),
        ("", "empty"),
        ("1e99", "too large"),
    ):
        desk.field("budget-high").fill(typed)
        desk.field("budget-low").focus()
        desk.refuses(said)
        expect(desk.field("budget-high")).to_have_value(typed)
    page.reload()
    expect(desk.field("budget-high")).to_have_value("1250")


def test_finding_keeping_and_filling_the_rest_by_mouse(desk, page):
    desk.open("/briefs/3/frames")
    desk.press("/")
    desk.type("skiff 6")
    found = page.get_by_role("region", name="Found")
    expect(found).to_contain_text("Quillon Skiff Flood 6 Low")
    found.get_by_role("link", name="Quillon Skiff Flood 6 Low").click()
    desk.tries("Trying Quillon Skiff Flood 6 Low")
    page.locator("#leave").click()
    desk.tries_nothing()
    desk.settles()
    page.go_back()
    desk.tries("Trying")
    desk.adopt()
    page.locator("#keep-quillon-skiff-flood-6-low").click()
    expect(page.locator("#keep-quillon-skiff-flood-6-low")).to_have_text("kept")
    page.locator("#fill-rest").click()
    desk.tries("changes")
    desk.adopt()
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")
    desk.propose("most")
    expect(page.locator("#account")).to_contain_text("Kept as you asked", use_inner_text=False)
    assert page.locator("#row-processor-quillon-skiff-flood-6-low").count() == 1


def test_a_remedy_clears_what_blocks_in_a_sent_in_list(desk, page):
    desk.open("/briefs/7/frames")
    expect(desk.meter("fit")).to_contain_text("4 blocks")
    page.get_by_role("link", name=re.compile("Try Boxwood Yard Galley")).first.click()
    expect(desk.meter("fit")).to_contain_text("2 blocks")
    desk.press("Escape")
    expect(desk.meter("fit")).to_contain_text("4 blocks")
    desk.meter("money").click()
    expect(page.locator("#working")).to_contain_text("shipping")
    desk.press("Escape")
    expect(page.locator("#working")).to_have_count(0)


def test_pinned_build_is_what_ghosts_count_from(desk, page):
    desk.open("/briefs/1/frames")
    desk.press("p")
    desk.says("inned this build")
    for place in (0, 1):
        desk.swap("graphics")
        desk.candidates.nth(place).click()
        desk.tries("Trying")
        desk.press("a")
        desk.tries_nothing()
    expect(page.locator("#desk")).to_contain_text("compared with the pinned build")
    assert desk.ghosts >= 2


def test_quick_typing_in_several_fields_loses_nothing(desk, page):
    desk.open("/briefs/1/brief")
    desk.unfold("parts")
    wanted = {
        "#f-budget-high": "1444",
        "#f-refresh-hz": "165",
        "#t-t1-fps": "77",
        "#t-t2-fps": "88",
        "#f-memory-gb": "32",
    }
    for field, value in wanted.items():
        page.locator(field).focus()
        desk.press("Control+a")
        desk.type(value)
    desk.press("Tab")
    desk.says("east memory to 32")
    desk.settles()
    page.reload()
    for field, value in wanted.items():
        expect(page.locator(field)).to_have_value(value)


def test_a_new_brief_is_deleted_and_brought_back(desk, page):
    desk.open("/briefs")
    page.get_by_role("button", name="Delete Ferry bunk").click()
    expect(page.get_by_role("status")).to_contain_text("Deleted “Ferry bunk”")
    expect(page.get_by_role("link", name="Ferry bunk")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Ferry bunk")).to_have_count(1)
    page.get_by_role("button", name="Copy Ferry bunk").click()
    page.wait_for_url("**/briefs/9/brief")
    expect(desk.field("name")).to_have_value("Ferry bunk, copy")


def test_figures_are_read_out_and_copied_as_sentences(desk, page):
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    desk.open("/briefs/1/frames")
    page.locator("#frame-t5").hover()
    expect(page.locator("#readout")).to_contain_text("Thousand Towers: processor 24.6")
    page.locator("#work-t1").focus()
    expect(page.locator("#readout")).to_contain_text("Hollow Meridian: processor 14")
    desk.press("w")
    page.locator("[data-copy]").click()
    expect(page.locator("[data-copy]")).to_have_text("Copied")
    copied = page.evaluate("navigator.clipboard.readText()")
    assert copied == page.locator("#sentence").inner_text()
    assert "prices of 20 Nov 2026" in copied
    desk.press("Escape")
    expect(page.locator("#working")).to_have_count(0)


def test_words_are_explained_on_demand(desk, page):
    desk.open("/briefs/1/brief")
    desk.unfold("power")
    page.get_by_role("button", name="What is meant by headroom").click()
    expect(page.locator("#word-headroom_percent")).to_be_visible()
    desk.is_accessible()
    desk.press("Escape")
    expect(page.locator("#word-headroom_percent")).not_to_be_visible()
    desk.press("?")
    desk.press("Tab")
    page.locator("#words summary").focus()
    desk.press("Enter")
    expect(page.locator("#words dl")).to_contain_text("one frame in a hundred takes longer")
    desk.is_accessible()


def test_wide_screens_list_the_targets_beside_every_view(desk, page):
    desk.open("/briefs/1/brief")
    expect(page.locator(".targets")).not_to_be_visible()
    for width in (1600, 2560):
        page.set_viewport_size({"width": width, "height": 1000})
        expect(page.locator(".targets .aim")).to_have_count(6)
        expect(page.locator(".chips")).not_to_be_visible()
        desk.is_accessible()
    page.locator(".aim", has_text="Thousand Towers").click()
    expect(page.locator("#working")).to_contain_text("Frames of Thousand Towers")


def test_a_server_that_is_gone_is_said_and_nothing_is_lost(desk, site, page):
    desk.open("/briefs/1/frames")
    site.stop()
    page.locator("#keep-lowhum-level-750").click()
    expect(page.locator("#gone")).to_contain_text("does not answer")
    site.start()
    page.locator("#keep-lowhum-level-750").click()
    expect(page.locator("#keep-lowhum-level-750")).to_have_text("kept")
    expect(page.locator("#gone")).not_to_be_visible()


def test_undo_pressed_quickly_undoes_as_often(desk, page):
    desk.open("/briefs/1/brief")
    for amount in ("1300", "1400", "1500"):
        desk.field("budget-high").fill(amount)
        desk.field("budget-high").press("Tab")
        desk.says(f"1,{amount[1:]}")
    page.locator("h1").click()
    for _ in range(3):
        desk.press("u")
    expect(desk.field("budget-high")).to_have_value("1250")
    expect(page.locator("#error")).to_have_count(0)


def test_a_brief_is_saved_and_opened_again(desk, page, tmp_path):
    desk.open("/briefs/7/brief")
    saved = []
    for link in ("#save-brief", "#save-build"):
        with page.expect_download() as waiting:
            page.locator(link).click()
        saved.append(tmp_path / waiting.value.suggested_filename)
        waiting.value.save_as(saved[-1])
    desk.open("/briefs")
    page.get_by_role("button", name="Open").click()
    desk.refuses("No file was chosen")
    page.locator("#open-files").set_input_files(saved)
    page.get_by_role("button", name="Open").click()
    page.wait_for_url("**/briefs/9/brief")
    expect(desk.meter("fit")).to_contain_text("4 blocks")


def test_the_finder_is_left_by_keys_and_nothing_jumps(desk, page):
    desk.open("/briefs/1/frames")
    before = page.locator(".meters").bounding_box()
    desk.press("/")
    desk.type("reef")
    expect(page.locator("#found [data-candidate]").first).to_be_visible()
    assert page.locator(".meters").bounding_box() == before
    desk.press("ArrowDown")
    desk.press("ArrowDown")
    expect(page.locator("#found [data-candidate]").nth(1)).to_be_focused()
    desk.press("/")
    desk.press("Escape")
    expect(page.locator("#found [data-candidate]")).to_have_count(0)
    expect(page.locator("#finder")).to_have_value("")


def test_a_target_that_nothing_reaches_is_loosened_in_a_click(desk, page):
    desk.open("/briefs/2/frames?propose=least")
    expect(page.locator("#account")).to_contain_text("the best in the catalogue reaches 60 fps")
    expect(page.locator("#account")).to_contain_text("within the budget")
    page.get_by_role("button", name="Change the target so").first.click()
    desk.says("Tin Harbour to 2560x1440, high, 55")
    expect(desk.frames_of("Tin Harbour")).to_contain_text("no estimate yet")
    desk.press("l")
    expect(page.locator("#account")).to_contain_text("meets 4 of 4 targets")
    desk.press("Escape")
    desk.press("u")
    expect(desk.frames_of("Tin Harbour")).to_contain_text("wants 75")


def test_generated_frames_are_counted_and_taken_back_by_keyboard(desk, page):
    """The tick keeps the focus, and the keys work from there."""
    desk.open("/briefs/1/brief")
    page.locator("#t-t1-more > summary").focus()
    page.keyboard.press("Enter")
    page.locator("#t-t1-fg").focus()
    page.keyboard.press("Space")
    expect(page.locator("#target-t1")).to_contain_text("fps shown")
    expect(page.locator("#t-t1-fg")).to_be_focused()
    page.keyboard.press("1")
    row = page.locator("#frame-t1")
    expect(row).to_contain_text("drawn before generation, which adds")
    desk.is_accessible()
    page.keyboard.press("u")
    expect(row).not_to_contain_text("drawn before generation")
