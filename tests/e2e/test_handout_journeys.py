"""The result handed over: opened with one's own words, printed, linked, read elsewhere, taken
back.
"""

import re

import pytest
from playwright.sync_api import expect


@pytest.mark.essential
def test_a_handout_is_written_linked_read_elsewhere_and_taken_back(desk, page, browser):
    desk.open("/briefs/1/frames")
    desk.press("6")
    expect(page.locator(".handout h2").first).to_have_text("What it is for")
    page.locator("#opening").fill("For the room under the roof.")
    page.locator("#keep-opening").click()
    expect(page.locator(".handout .opening")).to_have_text("For the room under the roof.")
    page.locator("#handout-sections summary").click()
    page.get_by_role("button", name="Leave out Words").click()
    expect(page.locator(".handout .of-words")).to_have_count(0)
    page.locator("#handout-notes summary").click()
    desk.is_accessible()
    page.locator("#handout-links summary").click()
    page.locator("#make-link").click()
    link = page.locator("#fresh-link").input_value()
    assert re.search(r"/h/[\w-]{22}$", link)
    stranger = browser.new_context()
    reader = stranger.new_page()
    reader.goto(link)
    expect(reader.locator(".handout .opening")).to_have_text("For the room under the roof.")
    assert reader.locator("a").count() == 0
    page.get_by_role("button", name=re.compile("^Take back the link")).click()
    expect(page.locator("#handout-links")).to_contain_text("taken back")
    assert reader.goto(link).status == 404
    stranger.close()


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_it_prints_on_paper_of_either_size(desk, page, paper):
    desk.open("/briefs/1/handout/page")
    expect(page.locator(".handout")).to_be_visible()
    data = page.pdf(format=paper, print_background=True)
    pages = len(re.findall(rb"/Type\s*/Page\b", data))
    assert data.startswith(b"%PDF") and 3 <= pages <= 9
    page.emulate_media(media="print")
    wide = page.evaluate("document.documentElement.scrollWidth - innerWidth")
    assert wide <= 0


def test_the_file_opens_from_a_disk_without_the_application(desk, page, tmp_path):
    desk.open("/briefs/1/handout")
    with page.expect_download() as waited:
        page.locator("#handout-html").click()
    path = tmp_path / "handout.html"
    waited.value.save_as(path)
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(path.as_uri())
    expect(page.locator(".handout h1")).to_have_text("Net loft all-rounder")
    assert [own for own in asked if not own.startswith("data:")] == [path.as_uri()]
    wide = page.locator(".handout").evaluate("own => getComputedStyle(own).maxWidth")
    assert wide == "900px", "the styles that the file carries apply"


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_the_handout_fits_and_is_accessible(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    for address in ("/briefs/1/handout", "/briefs/1/handout/page"):
        desk.open(address)
        expect(page.locator(".handout")).to_be_visible()
        desk.is_accessible()
        desk.fits_the_width()


def test_a_set_is_made_handed_over_and_a_brief_started_from_it(desk, page, browser):
    desk.open("/briefs/1/steps?amounts=900+1250+1600")
    page.locator("#keep-set").click()
    expect(page.locator("h1")).to_have_text("Net loft all-rounder")
    page.locator("#set-opening").fill("Three machines for the club.")
    page.locator("#keep-set-text").click()
    expect(page.get_by_role("status")).to_contain_text("are kept")
    page.get_by_role("button", name="EUR 1,600 earlier").click()
    expect(page.locator("tbody tr").nth(1)).to_contain_text("EUR 1,600")
    desk.press("u")
    expect(page.locator("tbody tr").nth(2)).to_contain_text("EUR 1,600")
    page.locator("#make-link").click()
    stranger = browser.new_context()
    reader = stranger.new_page()
    reader.goto(page.locator("#fresh-link").input_value())
    expect(reader.locator(".handout .opening")).to_have_text("Three machines for the club.")
    expect(reader.locator(".handout section")).to_have_count(4)
    assert reader.locator("a").count() == 0
    stranger.close()
    for width, scheme in ((390, "dark"), (1280, "light")):
        page.emulate_media(color_scheme=scheme)
        page.set_viewport_size({"width": width, "height": 844})
        for address in (page.url, "/sets"):
            desk.open(address.removeprefix(desk.url))
            desk.is_accessible()
            desk.fits_the_width()
    page.get_by_role("link", name="Net loft all-rounder").click()
    page.locator("#start-1").click()
    expect(page.locator("h1")).to_contain_text("EUR 1,250")


def test_house_texts_are_typed_once_and_a_changed_copy_comes_back(desk, page, tmp_path):
    desk.open("/house")
    page.locator("#rules").fill("Two nights of tests before anything is handed over.")
    page.locator("#lines0").fill("Keyboard, EUR 25\nMouse, EUR 15")
    page.locator("#keep-house").click()
    expect(page.get_by_role("status")).to_contain_text("Kept")
    desk.is_accessible()
    desk.open("/briefs/1/handout")
    page.locator("#handout-house summary").click()
    page.get_by_role("button", name="Show Modest").click()
    expect(page.locator(".handout .of-beside")).to_contain_text("EUR 40 in all")
    expect(page.locator(".handout .of-house")).to_contain_text("Two nights of tests")
    with page.expect_download() as download:
        page.locator("#handout-json").click()
    path = tmp_path / "back.json"
    download.value.save_as(path)
    text = path.read_text()
    path.write_text(
        text.replace('"fps": 70.0', '"fps": 75.0').replace("bank-12-plain", "bank-12-pale")
    )
    assert path.read_text() != text
    page.locator("#handout-returned summary").click()
    page.locator("#returned-file").set_input_files(path)
    page.locator("#bring-back").click()
    expect(page.locator("#returned-sums")).to_contain_text("2 of 2 taken")
    desk.is_accessible()
    page.locator("#take-1").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#returned-sums")).to_contain_text("1 of 2 taken")
    page.set_viewport_size({"width": 390, "height": 844})
    desk.fits_the_width()
    page.set_viewport_size({"width": 1280, "height": 800})
    page.locator("#take-over").click()
    expect(page.get_by_role("status").first).to_contain_text("Took over")
    expect(page.locator("#desk")).to_contain_text("Nacre Bank 12 GB Pale")
