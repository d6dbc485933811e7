"""The lopsided list read from the Balance view alone, with mouse and keyboard; the map on a phone;
budget steps.
"""

import re

from playwright.sync_api import expect

from tests.e2e.conftest import serious, settled


def test_the_lopsided_list_is_put_right_from_the_view_alone(site, page):
    page.goto(f"{site.url}/briefs/8/frames")
    page.keyboard.press("2")
    expect(page.locator("#balance")).to_contain_text("For this budget the best build meets 4 of 4")
    expect(page.locator("#balance")).to_contain_text("Graphics limit in Hollow Meridian")
    expect(page.locator("#idle")).to_contain_text("Quillon Wherry Flood 4")
    expect(page.locator("#more")).to_contain_text("EUR\u00a050 more")
    assert serious(page) == []
    page.locator("#idle-1").click()
    expect(page.locator("#trybar")).to_contain_text("less")
    expect(page.locator("#meter-money")).to_contain_text("−EUR")
    page.keyboard.press("Escape")
    expect(page.locator("#trybar")).to_have_count(0)
    page.locator("#try-best").click()
    expect(page.locator("#trybar")).to_contain_text("4 of 4 targets met (was 0)")
    page.keyboard.press("a")
    expect(page.locator("#balance")).to_contain_text(
        "This build is what the aim of most frames answers"
    )
    expect(page.locator("#meter-frames")).to_contain_text("4 of 4 met")
    expect(page.locator("#meter-money")).to_contain_text("left")
    page.keyboard.press("u")
    expect(page.locator("#meter-frames")).to_contain_text("0 of 4 met")


def test_the_map_and_the_frontier_are_walked_with_the_keyboard(site, page):
    page.goto(f"{site.url}/briefs/1/balance")
    first = page.locator("[data-cell][tabindex='0']")
    expect(first).to_have_count(1)
    first.focus()
    for key in ("ArrowDown", "ArrowDown", "ArrowRight", "ArrowRight", "ArrowLeft"):
        page.keyboard.press(key)
    expect(page.locator("[data-cell][tabindex='0']")).to_have_count(1)
    said = page.evaluate("document.activeElement.getAttribute('aria-label')")
    assert re.search(r"with .*: \d of 6 met for EUR", said)
    page.keyboard.press("Enter")
    expect(page.locator("#trybar")).to_contain_text("Trying")
    expect(page.locator("td.tried")).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.locator("#trybar")).to_have_count(0)
    page.locator("#frontier-table summary").click()
    page.locator("#frontier-table").get_by_text("try it").last.click()
    expect(page.locator("#trybar")).to_contain_text("more")
    settled(page)
    assert serious(page) == []
    page.locator("#ask-prices").click()
    expect(page.locator("#prices")).to_contain_text(
        "still the pick up to this price", timeout=20_000
    )
    assert serious(page) == []


def test_the_picture_of_all_pairings_is_drawn_walked_and_tried(site, page):
    page.goto(f"{site.url}/briefs/1/balance")
    page.locator("#ask-picture").click()
    bins = page.locator("#picture svg.bins [data-cell]")
    expect(bins.first).to_be_attached(timeout=20_000)
    assert bins.count() > 200
    stop = page.locator("#picture [data-cell][tabindex='0']")
    expect(stop).to_have_count(1)
    stop.focus()
    for key in ("ArrowDown", "ArrowDown", "ArrowRight", "ArrowRight", "ArrowUp"):
        page.keyboard.press(key)
    expect(stop).to_have_count(1)
    assert page.evaluate("document.activeElement.dataset.cell") == "1,2"
    assert re.search(
        r"with .*: \d of 6 met for EUR",
        page.evaluate("document.activeElement.getAttribute('aria-label')"),
    )
    assert [
        page.locator(f"#picture line.{kind}").count() > 0
        for kind in ("s-budget-line", "s-limit-line")
    ] == [True, True]
    page.keyboard.press("Enter")
    expect(page.locator("#trybar")).to_contain_text("Trying")
    expect(page.locator("#picture path.s-ink-fill")).to_have_count(1)
    assert serious(page) == []
    page.keyboard.press("Escape")
    expect(page.locator("#trybar")).to_have_count(0)


def test_a_preference_is_typed_priced_and_insisted_on_by_keyboard(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    page.locator("#prefer-wish").select_option("wireless")
    page.locator("#prefer-value").press("Enter")
    expect(page.locator("#preferred")).to_contain_text("1. wireless")
    page.locator("#prefer-wish").select_option("noise_limit_dba")
    page.locator("#prefer-value").fill("quiet")
    page.locator("#prefer-value").press("Enter")
    expect(page.locator("#error")).to_contain_text("enter a number above 0")
    expect(page.locator("#prefer-value")).to_have_value("quiet")
    page.locator("#prefer-value").fill("25")
    page.locator("#prefer-value").press("Enter")
    expect(page.locator("#preferred")).to_contain_text("2. cooler at most 25")
    page.locator("#insist-2").press("Enter")
    expect(page.locator("#f-noise-limit-dba")).to_have_value("25")
    expect(page.locator("#preferred ol")).not_to_contain_text("cooler")
    assert serious(page, "structure") == []
    page.keyboard.press("m")
    expect(page.locator("main")).to_contain_text("Preferred and granted: wireless; it costs EUR ")
    page.keyboard.press("Escape")
    page.keyboard.press("2")
    expect(page.locator("#wishes")).to_contain_text("Preferred and granted: wireless")


def test_balance_on_a_phone_and_budget_steps(site, page):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{site.url}/briefs/8/balance")
    expect(page.locator("#pairings ol li")).to_have_count(12)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    assert serious(page) == []
    page.locator("#pairings ol a").first.click()
    expect(page.locator("#trybar")).to_contain_text("Trying")
    page.goto(f"{site.url}/briefs/8/steps")
    expect(page.locator(".stepcards .panel")).to_have_count(5)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    page.locator("#steps-amounts").fill("900 1200 1500")
    page.locator("#steps-rise").fill("10")
    page.locator("#steps-go").click()
    expect(page.locator(".stepcards .panel")).to_have_count(3)
    expect(page.locator(".stepcards")).to_contain_text("asked 21")
    assert serious(page) == []
    page.locator("#steps-amounts").fill("900 800")
    page.locator("#steps-go").click()
    expect(page.locator("#error")).to_contain_text("need 3 to 6 budgets")
    expect(page.locator("#steps-amounts")).to_have_value("900 800")
