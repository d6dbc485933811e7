"""The result handed over: opened with one's own words, printed, linked, read elsewhere, taken
back.
"""

import re

import pytest
from playwright.sync_api import expect


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
