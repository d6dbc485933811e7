"""The two journeys of a new user: improving the typical brief, and a build by hand with the
keyboard alone.
"""

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import serious, settled


def meter(page: Page, name: str) -> str:
    return page.locator(f"#meter-{name} .value").inner_text()


def pick(page: Page, selector: str) -> None:
    page.locator(selector).click()
    settled(page)


def test_typical_brief_from_short_to_adopted(site, page):
    page.goto(f"{site.url}/briefs")
    page.get_by_role("link", name="Net loft all-rounder").click()
    short = page.locator(".framerow", has_text="Thousand Towers")
    expect(short).to_contain_text("short")
    expect(short).to_contain_text("Would need a processor")

    pick(page, "#view-brief")
    page.locator("#f-budget-high").fill("1700")
    page.locator("#f-budget-high").press("Tab")
    expect(page.locator("#notice")).to_contain_text("1,700")
    page.locator("#propose-most").click()
    expect(page.locator("#trybar")).to_contain_text("Trying")
    assert page.locator(".meters .ghost").count() >= 3
    before = meter(page, "money")
    expect(page.locator("#account")).to_contain_text("pairings")
    page.locator("#adopt").click()
    expect(page.locator("#trybar")).to_have_count(0)
    expect(page.locator("#notice")).to_contain_text("dopted")
    assert meter(page, "money") == before
    assert page.locator(".meters .ghost").count() >= 3
    adopted = page.locator("#build .name").all_inner_texts()

    page.locator("#build .row", has_text="GB").first.wait_for()
    page.locator("[id^=row-graphics-]").click()
    expect(page.locator("#swap")).to_be_visible()
    cheaper = page.locator("tr:not(.present) [data-candidate]")
    seen = set()
    for place in (0, 1, 2):
        cheaper.nth(place).click()
        expect(page.locator("tr.tried")).to_have_count(1)
        settled(page)
        seen.add(meter(page, "money"))
    assert len(seen) == 3
    page.locator("#adopt").click()
    expect(page.locator("#trybar")).to_have_count(0)
    assert page.locator("#build .name").all_inner_texts() != adopted
    assert page.locator(".framerow .state", has_text=re.compile("short|unsure")).count() >= 1
    after_swap = page.locator("#build .name").all_inner_texts()

    pick(page, "#undo")
    expect(page.locator("#notice")).to_contain_text("Undone: adopted")
    assert page.locator("#build .name").all_inner_texts() == adopted
    pick(page, "#undo")
    assert page.locator("#build .name").all_inner_texts() != adopted
    pick(page, "#redo")
    assert page.locator("#build .name").all_inner_texts() == adopted
    site.restart()
    page.reload()
    assert page.locator("#build .name").all_inner_texts() == adopted
    pick(page, "#redo")
    assert page.locator("#build .name").all_inner_texts() == after_swap


def type_into(page: Page, element: str, text: str) -> None:
    """Reach an element with the Tab key and type."""
    tab_to(page, element)
    page.keyboard.press("Control+a")
    page.keyboard.type(text)


def tab_to(page: Page, element: str) -> None:
    for _ in range(150):
        if page.evaluate(
            "id => document.activeElement && document.activeElement.id === id", element
        ):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"the Tab key does not reach {element}")


def test_new_brief_and_build_by_keyboard_alone(site, page):
    page.goto(f"{site.url}/briefs")
    tab_to(page, "new-brief")
    page.keyboard.press("Enter")
    page.wait_for_url("**/briefs/9/brief")
    type_into(page, "f-name", "Chandler's desk")
    type_into(page, "f-budget-high", "900")
    page.keyboard.press("Tab")
    expect(page.locator("#notice")).to_contain_text("900")
    for game in ("Hol", "Kite"):
        tab_to(page, "add-game")
        page.keyboard.type(game)
        tab_to(page, "add-target")
        page.keyboard.press("Enter")
        expect(
            page.locator(".targetcard select[name=game] option:checked", has_text=game)
        ).to_have_count(1)
    assert page.locator(".targetcard").count() == 2

    page.keyboard.press("Escape")
    page.keyboard.press("1")
    expect(page.locator("#build .sum")).to_contain_text("cost at least")
    kinds = ["processor", "graphics", "mainboard", "memory", "storage", "supply", "case"]
    for kind in kinds:
        tab_to(page, f"row-{kind}-empty")
        page.keyboard.press("s")
        expect(page.locator("#swap")).to_contain_text("Choose a")
        expect(page.locator("[data-candidate]").first).to_be_focused()
        if kind == "graphics":
            for _ in range(5):
                page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(page.locator("#trybar")).to_contain_text("Trying")
        page.keyboard.press("a")
        expect(page.locator("#trybar")).to_have_count(0)
        page.keyboard.press("1")
        expect(page.locator(f"#row-{kind}-empty")).to_have_count(0)
    expect(page.locator("#meter-fit .value")).to_have_text("fits")
    expect(page.locator("#build .sum")).to_contain_text("left")
    assert page.locator("#build .sum .inverse").count() == 0
    assert page.locator(".framerow .say b").count() == 2


def test_no_serious_accessibility_finding_in_either_theme(site, page):
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
            page.goto(site.url + address)
            assert serious(page, look) == [], (scheme, width, address)
            wide = page.evaluate("document.documentElement.scrollWidth - window.innerWidth")
            assert wide <= 0, (width, address)


def test_theme_and_key_list(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    page.get_by_role("button", name="Theme").click()
    assert page.evaluate("document.documentElement.dataset.theme") == "night"
    page.reload()
    assert page.evaluate("document.documentElement.dataset.theme") == "night"
    page.keyboard.press("?")
    expect(page.locator("#keys")).to_be_visible()
    page.get_by_label("Switch single-letter keys off").check()
    page.get_by_role("button", name="Close").click()
    page.keyboard.press("0")
    expect(page.locator("#view-frames[aria-current]")).to_have_count(1)
    page.keyboard.press("?")
    page.get_by_label("Switch single-letter keys off").uncheck()
    page.keyboard.press("Escape")
    expect(page.locator("#keys")).not_to_be_visible()
    page.keyboard.press("0")
    expect(page.locator("#view-brief[aria-current]")).to_have_count(1)


def test_two_tabs_do_not_overwrite_each_other(site, page, browser):
    page.goto(f"{site.url}/briefs/1/brief")
    other = browser.new_page()
    other.goto(f"{site.url}/briefs/1/brief")
    page.locator("#f-budget-high").fill("1300")
    page.locator("#f-budget-high").press("Tab")
    expect(page.locator("#notice")).to_contain_text("1,300")
    other.locator("#f-budget-high").fill("1400")
    other.locator("#f-budget-high").press("Tab")
    expect(other.locator("#error")).to_contain_text("another tab")
    other.reload()
    expect(other.locator("#f-budget-high")).to_have_value("1300")
    other.close()


def test_bad_budget_is_said_and_keeps_what_was_typed(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    for typed, said in (
        ("abc", "not a number"),
        ("-5", "below zero"),
        ("", "empty"),
        ("1e99", "too large"),
    ):
        page.locator("#f-budget-high").fill(typed)
        page.locator("#f-name").focus()
        expect(page.locator("#error")).to_contain_text(said)
        expect(page.locator("#f-budget-high")).to_have_value(typed)
    page.reload()
    expect(page.locator("#f-budget-high")).to_have_value("1250")


def test_finding_keeping_and_filling_the_rest_by_mouse(site, page):
    page.goto(f"{site.url}/briefs/3/frames")
    page.keyboard.press("/")
    page.keyboard.type("skiff 6")
    found = page.get_by_role("region", name="Found")
    expect(found).to_contain_text("Quillon Skiff Flood 6 Low")
    found.get_by_role("link", name="Quillon Skiff Flood 6 Low").click()
    expect(page.locator("#trybar")).to_contain_text("Trying Quillon Skiff Flood 6 Low")
    page.locator("#leave").click()
    expect(page.locator("#trybar")).to_have_count(0)
    page.go_back()
    expect(page.locator("#trybar")).to_contain_text("Trying")
    page.locator("#adopt").click()
    page.locator("#keep-quillon-skiff-flood-6-low").click()
    expect(page.locator("#keep-quillon-skiff-flood-6-low")).to_have_text("kept")
    page.locator("#fill-rest").click()
    expect(page.locator("#trybar")).to_contain_text("changes")
    page.locator("#adopt").click()
    expect(page.locator("#meter-fit .value")).to_have_text("fits")
    page.locator("#propose-most").click()
    expect(page.locator("#account")).to_contain_text("Kept as you asked", use_inner_text=False)
    assert page.locator("#row-processor-quillon-skiff-flood-6-low").count() == 1


def test_a_remedy_clears_what_blocks_in_a_sent_in_list(site, page):
    page.goto(f"{site.url}/briefs/7/frames")
    expect(page.locator("#meter-fit")).to_contain_text("4 blocks")
    page.get_by_role("link", name=re.compile("Try Boxwood Yard Hold")).first.click()
    expect(page.locator("#meter-fit")).to_contain_text("2 blocks")
    page.keyboard.press("Escape")
    expect(page.locator("#meter-fit")).to_contain_text("4 blocks")
    page.locator("#meter-money").click()
    expect(page.locator("#working")).to_contain_text("shipping")
    page.keyboard.press("Escape")
    expect(page.locator("#working")).to_have_count(0)


def test_pinned_build_is_what_ghosts_count_from(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    page.keyboard.press("p")
    expect(page.locator("#notice")).to_contain_text("inned this build")
    for _ in range(2):
        page.locator("[id^=row-graphics-]").click()
        page.locator("tr:not(.present) [data-candidate]").first.click()
        expect(page.locator("#trybar")).to_contain_text("Trying")
        page.keyboard.press("a")
        expect(page.locator("#trybar")).to_have_count(0)
    expect(page.locator("#desk")).to_contain_text("compared with the pinned build")
    assert page.locator(".meters .ghost").count() >= 2


def test_quick_typing_in_several_fields_loses_nothing(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    wanted = {
        "#f-budget-high": "1444",
        "#f-refresh-hz": "165",
        "#t-t1-fps": "77",
        "#t-t2-fps": "88",
        "#f-memory-gb": "32",
    }
    for field, value in wanted.items():
        page.locator(field).focus()
        page.keyboard.press("Control+a")
        page.keyboard.type(value)
    page.keyboard.press("Tab")
    expect(page.locator("#notice")).to_contain_text("east memory to 32")
    settled(page)
    page.reload()
    for field, value in wanted.items():
        expect(page.locator(field)).to_have_value(value)


def test_a_new_brief_is_deleted_and_brought_back(site, page):
    page.goto(f"{site.url}/briefs")
    page.get_by_role("button", name="Delete Ferry bunk").click()
    expect(page.get_by_role("status")).to_contain_text("Deleted “Ferry bunk”")
    expect(page.get_by_role("link", name="Ferry bunk")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Ferry bunk")).to_have_count(1)
    page.get_by_role("button", name="Copy Ferry bunk").click()
    page.wait_for_url("**/briefs/9/brief")
    expect(page.locator("#f-name")).to_have_value("Ferry bunk, copy")


def test_figures_are_read_out_and_copied_as_sentences(site, page):
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.goto(f"{site.url}/briefs/1/frames")
    page.locator("#frame-t5").hover()
    expect(page.locator("#readout")).to_contain_text("Thousand Towers: processor 25.8")
    page.locator("#work-t1").focus()
    expect(page.locator("#readout")).to_contain_text("Hollow Meridian: processor 14")
    page.keyboard.press("w")
    page.locator("[data-copy]").click()
    expect(page.locator("[data-copy]")).to_have_text("Copied")
    copied = page.evaluate("navigator.clipboard.readText()")
    assert copied == page.locator("#sentence").inner_text()
    assert "prices of 20 Nov 2026" in copied
    page.keyboard.press("Escape")
    expect(page.locator("#working")).to_have_count(0)


def test_words_are_explained_on_demand(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    page.get_by_role("button", name="What is meant by headroom").click()
    expect(page.locator("#word-headroom")).to_be_visible()
    assert serious(page) == []
    page.keyboard.press("Escape")
    expect(page.locator("#word-headroom")).not_to_be_visible()
    page.keyboard.press("?")
    page.keyboard.press("Tab")
    page.locator("#words summary").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#words dl")).to_contain_text("one frame in a hundred takes longer")
    assert serious(page) == []


def test_wide_screens_list_the_targets_beside_every_view(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    expect(page.locator(".targets")).not_to_be_visible()
    for width in (1600, 2560):
        page.set_viewport_size({"width": width, "height": 1000})
        expect(page.locator(".targets .aim")).to_have_count(6)
        expect(page.locator(".chips")).not_to_be_visible()
        assert serious(page) == []
    page.locator(".aim", has_text="Thousand Towers").click()
    expect(page.locator("#working")).to_contain_text("Frames of Thousand Towers")


def test_a_server_that_is_gone_is_said_and_nothing_is_lost(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    site.stop()
    page.locator("#keep-lowhum-level-750").click()
    expect(page.locator("#gone")).to_contain_text("does not answer")
    site.start()
    page.locator("#keep-lowhum-level-750").click()
    expect(page.locator("#keep-lowhum-level-750")).to_have_text("kept")
    expect(page.locator("#gone")).not_to_be_visible()


def test_undo_pressed_quickly_undoes_as_often(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    for amount in ("1300", "1400", "1500"):
        page.locator("#f-budget-high").fill(amount)
        page.locator("#f-budget-high").press("Tab")
        expect(page.locator("#notice")).to_contain_text(f"1,{amount[1:]}")
    page.locator("h1").click()
    for _ in range(3):
        page.keyboard.press("u")
    expect(page.locator("#f-budget-high")).to_have_value("1250")
    expect(page.locator("#error")).to_have_count(0)


def test_a_brief_is_saved_and_opened_again(site, page, tmp_path):
    page.goto(f"{site.url}/briefs/7/brief")
    saved = []
    for link in ("#save-brief", "#save-build"):
        with page.expect_download() as waiting:
            page.locator(link).click()
        saved.append(tmp_path / waiting.value.suggested_filename)
        waiting.value.save_as(saved[-1])
    page.goto(f"{site.url}/briefs")
    page.get_by_role("button", name="Open").click()
    expect(page.locator("#error")).to_contain_text("No file was chosen")
    page.locator("#open-files").set_input_files(saved)
    page.get_by_role("button", name="Open").click()
    page.wait_for_url("**/briefs/9/brief")
    expect(page.locator("#meter-fit")).to_contain_text("4 blocks")


def test_the_finder_is_left_by_keys_and_nothing_jumps(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    before = page.locator(".meters").bounding_box()
    page.keyboard.press("/")
    page.keyboard.type("reef")
    expect(page.locator("#found [data-candidate]").first).to_be_visible()
    assert page.locator(".meters").bounding_box() == before
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(page.locator("#found [data-candidate]").nth(1)).to_be_focused()
    page.keyboard.press("/")
    page.keyboard.press("Escape")
    expect(page.locator("#found [data-candidate]")).to_have_count(0)
    expect(page.locator("#finder")).to_have_value("")


def test_a_target_that_nothing_reaches_is_loosened_in_a_click(site, page):
    page.goto(f"{site.url}/briefs/2/frames?propose=least")
    expect(page.locator("#account")).to_contain_text("the best in the catalogue reaches 62 fps")
    expect(page.locator("#account")).to_contain_text("within the budget")
    page.get_by_role("button", name="Change the target so").first.click()
    expect(page.locator("#notice")).to_contain_text("Tin Harbour to 2560x1440, high, 55")
    expect(page.locator(".framerow", has_text="Tin Harbour")).to_contain_text("no estimate yet")
    page.keyboard.press("l")
    expect(page.locator("#account")).to_contain_text("meets 4 of 4 targets")
    page.keyboard.press("Escape")
    page.keyboard.press("u")
    expect(page.locator(".framerow", has_text="Tin Harbour")).to_contain_text("wants 75")
