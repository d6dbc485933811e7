"""The lopsided list read from the Balance view alone, with mouse and keyboard; the map on a phone;
budget steps.
"""

import re

from playwright.sync_api import expect


def test_the_lopsided_list_is_put_right_from_the_view_alone(desk, page):
    desk.open("/briefs/8/frames")
    desk.press("2")
    expect(page.locator("#balance")).to_contain_text("For this budget the best build meets 4 of 4")
    expect(page.locator("#balance")).to_contain_text("Graphics limit in Hollow Meridian")
    expect(page.locator("#idle")).to_contain_text("Quillon Cutter Flood 6 Bare")
    expect(page.locator("#more")).to_contain_text("EUR\u00a050 more")
    page.get_by_role("link", name="part by part").click()
    expect(page.locator("#idle > summary")).to_be_focused()
    desk.is_accessible()
    page.locator("#idle-1").click()
    desk.tries("less")
    expect(desk.meter("money")).to_contain_text("−EUR")
    desk.press("Escape")
    desk.tries_nothing()
    page.locator("#try-best").click()
    desk.tries("4 of 4 targets met (was 0)")
    desk.press("a")
    expect(page.locator("#balance")).to_contain_text(
        "This build is what the aim of most frames answers"
    )
    expect(desk.meter("frames")).to_contain_text("4 of 4 met")
    expect(desk.meter("money")).to_contain_text("left")
    desk.press("u")
    expect(desk.meter("frames")).to_contain_text("0 of 4 met")


def test_the_map_and_the_frontier_are_walked_with_the_keyboard(desk, page):
    desk.open("/briefs/1/balance")
    first = page.locator("[data-cell][tabindex='0']")
    expect(first).to_have_count(1)
    first.focus()
    for key in ("ArrowDown", "ArrowDown", "ArrowRight", "ArrowRight", "ArrowLeft"):
        desk.press(key)
    expect(page.locator("[data-cell][tabindex='0']")).to_have_count(1)
    said = desk.focused("aria-label")
    assert re.search(r"with .*: \d of 6 met for EUR", said)
    beside = page.locator("#map-cell")
    expect(beside).to_contain_text(said.split(":")[0].split(" with ")[0])
    expect(beside).to_contain_text(re.search(r"EUR\s[\d,.]+\d", said)[0])
    desk.press("Enter")
    desk.tries("Trying")
    expect(page.locator("td.tried")).to_have_count(1)
    desk.press("Escape")
    desk.tries_nothing()
    desk.unfold("frontier")
    page.locator("#frontier-table summary").click()
    page.locator("#frontier-table").get_by_text("try it").last.click()
    desk.tries("more")
    desk.settles()
    desk.unfold("prices")
    page.locator("#ask-prices").click()
    expect(page.locator("#prices")).to_contain_text(
        "still the pick up to this price", timeout=60_000
    )
    desk.is_accessible()


def test_the_picture_of_all_pairings_is_drawn_walked_and_tried(desk, page):
    desk.open("/briefs/1/balance")
    desk.unfold("picture")
    page.locator("#ask-picture").click()
    bins = page.locator("#picture svg.bins [data-cell]")
    expect(bins.first).to_be_attached(timeout=20_000)
    assert bins.count() > 200
    stop = page.locator("#picture [data-cell][tabindex='0']")
    expect(stop).to_have_count(1)
    stop.focus()
    for key in ("ArrowDown", "ArrowDown", "ArrowRight", "ArrowRight", "ArrowUp"):
        desk.press(key)
    expect(stop).to_have_count(1)
    assert re.fullmatch(r"\d+,\d+", page.evaluate("document.activeElement.dataset.cell"))
    assert re.search(
        r"with .*: \d of 6 met for EUR",
        desk.focused("aria-label"),
    )
    assert [
        page.locator(f"#picture line.{kind}").count() > 0
        for kind in ("s-budget-line", "s-limit-line")
    ] == [True, True]
    desk.press("Enter")
    desk.tries("Trying")
    expect(page.locator("#picture path.s-ink-fill")).to_have_count(1)
    desk.is_accessible()
    desk.press("Escape")
    desk.tries_nothing()


def test_a_preference_is_typed_priced_and_insisted_on_by_keyboard(desk, page):
    desk.open("/briefs/1/brief")
    desk.unfold("preferred")
    page.locator("#prefer-wish").select_option("wireless")
    page.locator("#prefer-value").press("Enter")
    expect(page.locator("#preferred")).to_contain_text("1. wireless")
    page.locator("#prefer-wish").select_option("noise_limit_dba")
    page.locator("#prefer-value").fill("quiet")
    page.locator("#prefer-value").press("Enter")
    desk.refuses("enter a number above 0")
    expect(page.locator("#prefer-value")).to_have_value("quiet")
    page.locator("#prefer-value").fill("42")
    page.locator("#prefer-value").press("Enter")
    expect(page.locator("#preferred")).to_contain_text("2. at most 42")
    page.locator("#insist-2").press("Enter")
    expect(desk.field("noise-limit-dba")).to_have_value("42")
    expect(page.locator("#preferred ol")).not_to_contain_text("dB(A)")
    desk.is_accessible("structure")
    desk.press("m")
    expect(page.locator("main")).to_contain_text("Preferred and granted: wireless; it costs EUR ")
    desk.press("Escape")
    desk.press("2")
    expect(page.locator("#wishes")).to_contain_text("Preferred and granted: wireless")


def test_balance_on_a_phone_and_budget_steps(desk, page):
    page.set_viewport_size({"width": 390, "height": 844})
    desk.open("/briefs/8/balance")
    expect(page.locator("#pairings .paircard")).to_have_count(12)
    desk.fits_the_width()
    desk.is_accessible()
    page.locator("#pairings .paircard").first.click()
    desk.tries("Trying")
    desk.open("/briefs/8/steps")
    expect(page.locator(".stepcards .panel")).to_have_count(5)
    desk.fits_the_width()
    page.locator("#steps-amounts").fill("900 1200 1500")
    page.locator("#steps-rise").fill("10")
    page.locator("#steps-go").click()
    expect(page.locator(".stepcards .panel")).to_have_count(3)
    expect(page.locator(".stepcards")).to_contain_text("asked 21")
    desk.is_accessible()
    page.locator("#steps-amounts").fill("900 800")
    page.locator("#steps-go").click()
    desk.refuses("need 3 to 6 budgets")
    expect(page.locator("#steps-amounts")).to_have_value("900 800")
