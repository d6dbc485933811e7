"""From nothing to an adopted build: by a brief in three lines, by a letter, by a chip; light and
dark, wide and narrow.
"""

import re

import pytest
from playwright.sync_api import expect

LETTER = """Hello,

around 1,200, at most 1,400, I have a 1440p 165 Hz display, mostly Gullwing Circuit and some Hollow
Meridian, upscaling is fine, nothing flashy, I still have my drive and case."""


def test_three_lines_by_mouse_answer_beside_and_are_adopted(desk, page):
    desk.open("/briefs")
    page.locator("#new-brief").click()
    expect(page.locator(".answer")).to_contain_text("Add a game")
    page.locator("#add-game").fill("Gullwing Circuit, Hollow Meridian, Lanternfolk")
    page.locator("#add-target").click()
    expect(page.locator(".targetcard")).to_have_count(3)
    desk.field("budget-high").fill("1400")
    desk.field("budget-high").press("Tab")
    desk.field("usual").select_option("2560x1440@144")
    desk.says("3 targets follow it")
    expect(page.locator("#t-t1-size")).to_have_value("2560x1440")
    expect(page.locator(".answer")).to_contain_text(
        re.compile(r"The proposal costs .* meets \d of 3")
    )
    desk.is_accessible()
    page.locator("#adopt-answer").click()
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")
    expect(page.locator(".framerow")).to_have_count(3)


def test_what_is_refused_on_leaving_a_field_is_said_and_can_be_mended(desk, page):
    desk.open("/briefs/1/brief")
    desk.settles()
    for field, typed, said in (
        ("budget-high", "much", "The budget's upper end is “much”"),
        ("size", "1x1", "1x1"),
    ):
        desk.field(field).click()
        page.keyboard.press("Control+a")
        page.keyboard.type(typed)
        page.locator("h1").click()
        desk.refuses(said)
        page.reload()
        desk.settles()


def test_a_letter_becomes_a_brief_after_it_was_corrected(desk, page):
    desk.open("/briefs/letter")
    page.locator("#letter").fill(LETTER)
    page.locator("#read-letter").click()
    marked = page.locator(".lettertext")
    for said in ("165 Hz", "Gullwing Circuit", "upscaling", "flashy"):
        expect(marked.locator("mark", has_text=said)).to_have_count(1)
    expect(page.locator("#l-high")).to_have_value("1400")
    desk.is_accessible()
    page.locator("#l-high").fill("lots")
    page.locator("#make-brief").click()
    desk.refuses("not a number")
    expect(page.locator("#l-high")).to_have_value("lots")
    page.locator("#l-high").fill("1500")
    page.locator("#l-own-case").fill("Boxwood Yard Crate")
    page.locator("#make-brief").click()
    page.wait_for_url(re.compile(r"/briefs/\d+/brief"))
    expect(page.locator(".targetcard")).to_have_count(2)
    expect(desk.field("budget-high")).to_have_value("1500")
    expect(page.locator(".wishes")).to_contain_text("no lights")
    expect(desk.build).to_contain_text("Boxwood Yard Crate")
    said = re.compile("What decides|No wish decides")
    expect(page.locator("[id^=decides-]")).to_contain_text(said)
    page.get_by_role("button", name="Take away: no lights").click()
    expect(page.locator(".wishes")).to_have_count(0)
    desk.undo()
    expect(page.locator(".wishes")).to_contain_text("no lights")


def test_a_letter_that_says_nothing_is_answered_in_words(desk, page):
    desk.open("/briefs/letter")
    page.locator("#read-letter").click()
    desk.refuses("There is no text")
    page.locator("#letter").fill("<script>alert(1)</script> what a day")
    page.locator("#read-letter").click()
    expect(page.locator("main")).to_contain_text("No game of the catalogue was found")
    expect(page.locator("main")).to_contain_text("No budget was found")


def test_graphics_are_chosen_by_chip_on_an_empty_build(desk, page):
    desk.open("/briefs/2/frames?swap=graphics")
    expect(page.locator("#swap")).to_contain_text(
        "is the cheapest chip with which the budget meets"
    )
    desk.is_accessible()
    page.locator("#cheaper-chips > summary").click()
    expect(page.locator("#cheaper-chips [data-candidate]").first).to_be_visible()
    page.get_by_role("link", name=re.compile("Try the complete machine with Orlop Beacon")).click()
    desk.tries("Trying")
    desk.press("a")
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")


def test_a_processor_of_another_socket_is_tried_with_what_it_forces(desk, page):
    desk.open("/briefs/1/frames?swap=processor")
    row = page.locator("tr", has_text="in all").first
    expect(row).to_contain_text("with ")
    row.locator("[data-candidate]").click()
    desk.tries(" changes: EUR")
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")


def test_panels_of_the_balance_remember_whether_they_are_open(desk, page):
    desk.open("/briefs/8/balance")
    for question in ("Which side limits where?", "What buys nothing?"):
        expect(page.locator("#balance")).to_contain_text(question)
    expect(page.locator("#limits table").first).not_to_be_visible()
    desk.unfold("limits")
    page.reload()
    expect(page.locator("#limits table").first).to_be_visible()


def test_what_the_page_moves_to_stands_below_the_strip(desk, page):
    desk.open("/briefs/1/brief")
    page.evaluate("window.scrollTo(0, 700)")
    desk.press("m")
    headline = page.locator("#account h2")
    expect(headline).to_be_in_viewport()
    strip = page.locator(".meters").bounding_box()
    assert headline.bounding_box()["y"] >= strip["y"] + strip["height"]


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (2560, "light"), (1280, "dark")])
def test_the_front_door_fits_and_is_accessible(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    for address in (
        "/briefs",
        "/briefs/letter",
        "/briefs/1/brief",
        "/briefs/1/frames?swap=graphics",
        "/briefs/1/fit?swap=case",
        "/parts?kind=case&again=1",
        "/parts/ampherst-ballast-750",
    ):
        desk.open(address)
        desk.settles()
        desk.is_accessible()
        desk.fits_the_width()
    if width == 390:
        desk.open("/briefs/1/brief")
        assert page.locator(".targetcard").first.bounding_box()["y"] < 220
        page.get_by_role("button", name="Find a part or a game").click()
        page.locator("#finder").type("gust")
        expect(page.get_by_role("region", name="Found")).to_contain_text("Coldreach Gust")


def test_the_menu_of_a_row_marks_a_stand_in_and_closes_again(desk, page):
    desk.open("/briefs/1/frames")
    row = page.locator(".build [data-row]", has=page.locator("[id^=row-graphics-]")).first
    menu = row.locator("summary")
    menu.click()
    field = row.get_by_label("Only here until")
    expect(field).to_be_visible()
    desk.is_accessible()
    field.press("Escape")
    expect(field).not_to_be_visible()
    expect(menu).to_be_focused()
    menu.click()
    page.locator("h1").click()
    expect(field).not_to_be_visible()
    menu.click()
    field.fill("2027-03-01")
    row.get_by_label("then sold for").fill("120")
    row.get_by_role("button", name="Mark as a stand-in").click()
    expect(row).to_contain_text("stand-in until 1 Mar 2027, then perhaps EUR 120 back")
    desk.press("u")
    expect(row).not_to_contain_text("stand-in until")


def test_a_table_sorts_by_its_heads_and_says_so(desk, page):
    desk.open("/briefs")
    table = page.locator("table[x-data=sortable]").first
    head = table.locator("th").first
    names = table.locator("tbody tr td:first-child a:first-child")
    usual = names.all_inner_texts()
    head.locator("button").click()
    expect(head).to_have_attribute("aria-sort", "ascending")
    assert names.all_inner_texts() == sorted(usual, key=str.casefold)
    head.locator("button").click()
    expect(head).to_have_attribute("aria-sort", "descending")
    assert names.all_inner_texts() == sorted(usual, key=str.casefold, reverse=True)
    desk.is_accessible()


def test_a_game_that_is_not_listed_is_read_from_the_brief_and_becomes_its_target(desk, page):
    desk.open("/briefs/1/brief")
    page.locator("#unlisted > summary").click()
    page.get_by_label("Name of the game").fill("Lantern Causeway")
    page.get_by_label("What it asks for").fill(
        "Minimum\nProcessor: Quillon Wherry Flood 4\nGraphics: Pellworth Nacre Bank 12 GB\n"
        "Memory: 8 GB RAM\nRecommended\nProcessor: Quillon Wherry Flood 4\n"
        "Graphics: Pellworth Nacre Bank 12 GB\nMemory: 16 GB RAM"
    )
    desk.is_accessible()
    page.get_by_role("button", name="Read it").click()
    page.locator("#confirm").click()
    expect(page).to_have_url(re.compile("/briefs/1/brief"))
    target = page.get_by_role("button", name="Remove the target Lantern Causeway")
    expect(target).to_be_visible()
    desk.press("u")
    expect(target).not_to_be_attached()
