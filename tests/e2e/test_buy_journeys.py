"""Bought: shops chosen, ordered, one dearer, one wrong; planned against paid, by mouse and keys."""

import pytest
from playwright.sync_api import expect


def test_a_build_is_bought_and_kept_book_of(desk, page):
    desk.open("/briefs/1/frames")
    desk.press("7")
    expect(page.locator("#buy h2")).to_contain_text("8 parts for")
    desk.is_accessible()
    page.locator("#order").click()
    expect(page.locator("#buy h2")).to_have_text("Everything is bought.")
    expect(page.locator("#bought-sums")).to_contain_text("0 of 8 arrived")
    page.locator("#arrived-ledgerock-ledge-1000").click()
    expect(page.locator("#bought-sums")).to_contain_text("1 of 8 arrived")
    row = page.locator("#bought tbody tr", has_text="Boxwood Yard Crate")
    row.locator("summary").click()
    row.get_by_label("State").select_option("wrong")
    row.get_by_label("What came instead").fill("Boxwood Yard Galley")
    desk.press("Enter")
    expect(page.locator("#bought")).to_contain_text("With what came everything fits.")
    desk.is_accessible()
    page.get_by_role("button", name="Keep Boxwood Yard Galley in the build").click()
    expect(page.locator("#bought-sums")).to_contain_text("2 of 8 arrived")
    desk.press("u")
    expect(page.locator("#bought-sums")).to_contain_text("1 of 8 arrived")


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_buying_fits_and_is_accessible(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    desk.open("/briefs/3/buy")
    desk.is_accessible()
    desk.fits_the_width()
    desk.open("/briefs/1/buy")
    page.locator("#order").click()
    expect(page.locator("#bought")).to_be_visible()
    desk.is_accessible()
    desk.fits_the_width()


def test_a_part_that_is_sold_out_is_replaced_or_waited_for(desk, page):
    card = "pellworth-bank-12-plain"
    for shop in ("Three Gulls Computing", "Northlight Direct"):
        desk.open(f"/parts/{card}")
        page.locator("#o-shop").fill(shop)
        page.locator("#o-price").fill("599")
        page.locator("#o-stock").select_option("ordered")
        page.locator("#add-offer").click()
        desk.says("Noted what")
    desk.open("/briefs/1/buy")
    gone = page.locator(f"#gone-{card}")
    expect(gone).to_contain_text("On its way to Northlight Direct and Three Gulls Computing")
    expect(gone).to_contain_text("Nearest that fit")
    expect(page.locator("#systems")).to_contain_text("does not run Hollow Meridian")
    desk.is_accessible()
    desk.fits_the_width()
    page.locator(f"#watch-{card}").click()
    expect(page.locator("#watches")).to_contain_text("not to be had today")
    desk.open("/briefs/1/buy")
    gone.get_by_role("link", name="Try ").first.focus()
    desk.press("Enter")
    page.locator("#adopt").click()
    desk.says("Adopted")
    expect(page.locator("#buy h2")).to_contain_text("8 parts for")
