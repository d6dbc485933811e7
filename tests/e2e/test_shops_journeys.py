"""Prices brought in, what changed, a brief put right, a near miss watched, the round over a set."""

from datetime import timedelta

import pytest
from playwright.sync_api import expect

from wattmetron.demo import TODAY
from wattmetron.demo.shop_server import ShopServer
from wattmetron.places.shops.feeds import change_feeds

TABLE = """part;shop;price;shipping
Pellworth Nacre Bank 12 GB Plain;Northlight Direct;699;0
Pellworth Nacre Bank 12 GB Plain;Three Gulls Computing;709;0
Quillon Cutter Flood 6 Bare;Northlight Direct;129;4.90
"""


@pytest.mark.essential
def test_new_prices_are_brought_in_and_the_brief_is_put_right(desk, page):
    desk.open("/shops")
    page.locator("#prices").click()
    page.locator("#table").fill(TABLE)
    page.locator("#look").click()
    expect(page.locator("#preview h2")).to_contain_text("3 prices can be brought in")
    desk.is_accessible()
    page.locator("#bring").click()
    expect(page.locator("h1")).to_contain_text("What changed since")
    row = page.locator("#briefs-now tr", has_text="Net loft all-rounder")
    expect(row).to_contain_text("look again")
    expect(row).to_contain_text("Pellworth Nacre Bank 12 GB Plain is dearer than then")
    desk.is_accessible()
    page.locator("#brief-1").click()
    page.locator("#try-better").click()
    page.locator("#adopt").click()
    desk.says("Adopted")
    desk.open("/parts/pellworth-bank-12-plain")
    page.locator("#below-vellmouth").fill("700")
    page.locator("#watch-vellmouth").click()
    expect(page.locator("#watches")).to_contain_text("Pellworth Nacre Bank 12 GB Plain")
    desk.open("/briefs")
    expect(page.locator("#fired-1")).to_contain_text("700")
    page.locator("#fired-1").get_by_role("button", name="away").click()
    expect(page.locator("h1")).to_have_text("Shops")
    desk.open("/briefs")
    expect(page.locator("#fired-1")).to_have_count(0)


def test_feeds_are_refreshed_with_progress_and_what_changed_is_opened(desk, site, page):
    shops = ShopServer(site.workshop.catalogue().described, day=TODAY + timedelta(days=8)).start()
    change_feeds(site.workshop, lambda _: (*shops.addresses, f"{shops.url}/feed/nobody"))
    desk.open("/shops")
    page.locator("#refresh-now").click()
    expect(page.locator("#see-changes")).to_be_visible(timeout=30_000)
    expect(page.locator("#refresh")).to_contain_text("Quayside Parts:")
    expect(page.locator("#refresh")).to_contain_text("it refuses (404)")
    desk.is_accessible()
    page.locator("#see-changes").click()
    expect(page.locator("#by-kind")).to_be_visible(timeout=60_000)
    shops.close()


def test_a_round_makes_the_next_edition_by_keyboard(desk, page):
    desk.open("/briefs/1/steps?amounts=900+1250+1600")
    page.locator("#keep-set").click()
    page.locator("#round").click()
    expect(page.locator("#publish")).to_be_visible(timeout=60_000)
    desk.is_accessible()
    page.locator("#pick-0-keep").focus()
    desk.press("Space")
    page.locator("#edition-name").fill("Net loft, next month")
    desk.press("Enter")
    expect(page.locator("h1")).to_have_text("Net loft, next month")
    expect(page.locator("#set-opening")).to_contain_text("What changed since")


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark"), (1280, "light")])
def test_shops_fit_and_are_accessible(desk, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    for address in ("/shops", "/shops/changes", "/shops/prices", "/parts/lowhum-level-750"):
        desk.open(address)
        desk.is_accessible()
        desk.fits_the_width()


def test_lines_that_a_feed_cannot_place_are_settled_by_keyboard(desk, site, page):
    shops = ShopServer(site.workshop.catalogue().described, day=TODAY + timedelta(days=8)).start()
    change_feeds(site.workshop, lambda _: (f"{shops.url}/feed/quayside-parts?fault=wrong",))
    desk.open("/shops")
    page.locator("#refresh-now").click()
    expect(page.locator("#see-changes")).to_be_visible(timeout=30_000)
    desk.open("/shops")
    expect(page.locator("#aside h2")).to_contain_text("2 lines of feeds wait")
    desk.is_accessible()
    desk.fits_the_width()
    page.locator("#aside").get_by_label("Another part that").fill("Boxwood Yard Crate")
    desk.press("Enter")
    said = "Boxwood Yard Crate of Quayside Parts is brought in"
    expect(page.locator("#desk > .note")).to_contain_text(said)
    page.locator("#take-1").focus()
    desk.press("Enter")
    expect(page.locator("#aside")).to_have_count(0)
    page.locator("#rates summary").click()
    page.locator("#rate-lines").fill("2026-11-28 EUR NOK 11,81")
    page.locator("#note-rates").click()
    expect(page.locator("#rates")).to_contain_text("1 EUR = 11.81 NOK")
    shops.close()
