"""From a list with several findings to one that goes together; the assembly list on a phone; parts
found and tried.
"""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import serious, settled
from wattmetron.demo import CATALOGUE


def test_several_findings_are_cleared_and_the_smallest_case_clashes_again(site, page):
    page.goto(f"{site.url}/briefs/7/frames")
    page.keyboard.press("3")
    expect(page.locator("#fit h2").first).to_contain_text("It does not fit: 4 block")
    expect(page.locator("svg.drawing .clash").first).to_be_visible()
    assert serious(page) == []
    page.locator("#by-part").click()
    expect(page.locator("#fit")).to_contain_text("graphics card: Kitefall Orlop Pharos")
    page.locator("#by-level").click()
    page.get_by_role("link", name=re.compile("Try Boxwood Yard Hold")).first.click()
    expect(page.locator("#meter-fit")).to_contain_text("2 blocks")
    expect(page.locator("#inside")).not_to_contain_text("too much")
    page.keyboard.press("Escape")
    expect(page.locator("#inside")).to_contain_text("45\u202fmm too much")
    page.keyboard.press("c")
    expect(page.locator("#trybar")).to_contain_text("Trying 2 changes")
    expect(page.locator("#fit h2").first).to_contain_text("Everything that is chosen fits")
    page.keyboard.press("a")
    expect(page.locator("#trybar")).to_have_count(0)
    expect(page.locator("#meter-fit .value")).to_have_text("fits")
    expect(page.locator("svg.drawing .clash")).to_have_count(0)
    page.goto(f"{site.url}/parts?kind=case&brief=7&sort=litres")
    expect(page.locator("table.shelf tbody tr").first).to_contain_text("does not fit")
    page.locator("table.shelf tbody tr").first.get_by_text("try it").click()
    expect(page.locator("#trybar")).to_contain_text("Trying Lidd & Frame Bunk")
    expect(page.locator("#inside")).to_contain_text("too much")
    expect(page.locator("svg.drawing .clash").first).to_be_visible()
    assert serious(page) == []


def test_an_assembly_list_is_ticked_off_on_a_phone_and_remembers(site, page):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{site.url}/briefs/1/fit")
    page.locator("#to-assembly").click()
    expect(page.locator("#ticked")).to_contain_text("0 of")
    boxes = page.locator("input[data-tick]")
    boxes.nth(0).check()
    page.locator("label.tick").nth(1).click()
    expect(page.locator("#ticked")).to_contain_text("2 of")
    assert serious(page) == []
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    page.reload()
    expect(page.locator("#ticked")).to_contain_text("2 of")
    expect(boxes.nth(1)).to_be_checked()
    page.get_by_role("button", name="Clear the ticks").click()
    expect(page.locator("#ticked")).to_contain_text("0 of")


def test_parts_are_sieved_put_side_by_side_and_looked_at(site, page):
    page.goto(f"{site.url}/parts?kind=graphics&brief=1")
    page.locator("#only-fitting").check()
    expect(page.locator("table.shelf")).not_to_contain_text("does not fit")
    page.locator("#min-gb").fill("12")
    page.locator("#min-gb").press("Enter")
    settled(page)
    page.get_by_role("link", name="fps per EUR 100").click()
    expect(page.locator("th[aria-sort=descending]")).to_contain_text("fps per EUR 100")
    page.locator("[id^=beside-]").first.click()
    expect(page.locator("#beside")).to_be_visible()
    page.locator("[id^=beside-]").first.click()
    expect(page.locator("#beside thead th")).to_have_count(3)
    assert serious(page) == []
    page.locator("[id^=part-]").first.click()
    expect(page.locator("#in-build")).to_contain_text("Net loft all-rounder")
    assert serious(page) == []
    page.locator("#try-part").click()
    expect(page.locator("#trybar")).to_contain_text("Trying")


def test_the_finder_forgives_a_slip(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    page.keyboard.press("/")
    page.keyboard.type("pharso plain")
    expect(page.locator("#found")).to_contain_text("near it")
    expect(page.locator("#found")).to_contain_text("Pellworth Orlop Pharos 16 GB Plain")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.locator("#trybar")).to_contain_text("Trying Pellworth Orlop Pharos 16 GB Plain")


def test_an_owned_machine_pays_for_what_is_replaced_alone(site, page):
    """The old bench: everything owned but one part costs nothing; the new card alone is paid
    for.
    """
    page.goto(f"{site.url}/briefs/6/frames")
    expect(page.locator("#meter-money .value")).to_have_text("EUR\u00a00")
    page.locator("[id^=row-graphics-]").click()
    page.locator("tr:not(.present) [data-candidate]").last.click()
    expect(page.locator("#trybar")).to_contain_text("more")
    price = page.locator("#build .row.changed .price .fig").inner_text()
    page.keyboard.press("a")
    expect(page.locator("#trybar")).to_have_count(0)
    expect(page.locator("#build .sum")).to_contain_text(price)


def test_parts_are_typed_in_and_brought_in_from_a_table_and_taken_back(site, page):
    page.goto(f"{site.url}/parts?kind=supply")
    page.locator("#add-part").click()
    for name, value in {
        "maker": "Ampherst",
        "model": "Loft 620",
        "watts": "620",
        "spike_w": "930",
        "cpu_8pin": "1",
        "pcie_8pin": "4",
        "pcie_16pin": "0",
    }.items():
        page.locator(f"#p-{name}").fill(value)
    assert serious(page) == []
    page.locator("#save-part").click()
    expect(page.locator("#notice")).to_contain_text("Added Ampherst Loft 620")
    page.locator("#o-shop").fill("Quayside Parts")
    page.locator("#o-price").fill("59.90")
    page.locator("#add-offer").click()
    expect(page.locator("#desk")).to_contain_text("EUR\u00a059.90")
    assert serious(page) == []
    page.goto(f"{site.url}/parts/import")
    line = (CATALOGUE / "supplies.csv").read_text().splitlines()
    changed = "\n".join([line[0], line[1].replace(",1000,", ",1010,", 1)]) + "\n"
    page.locator("#import-file").set_input_files(
        {"name": "supplies.csv", "mimeType": "text/csv", "buffer": changed.encode()}
    )
    page.locator("#look").click()
    expect(page.locator("#preview h2")).to_contain_text("0 new, 1 changed")
    assert serious(page) == []
    page.locator("#bring-in").click()
    expect(page.locator("#notice")).to_contain_text("Brought in supplies.csv")
    page.keyboard.press("u")
    expect(page.locator("#notice")).to_contain_text("Took back: brought in supplies.csv")


def test_fans_and_a_display_are_added_and_the_display_is_paid_elsewhere(site, page):
    page.goto(f"{site.url}/briefs/1/fit")
    page.locator("#row-further").click()
    page.locator("#try-coldreach-sail-120").click()
    expect(page.locator("#trybar")).to_contain_text("Trying Coldreach Sail 120")
    page.keyboard.press("a")
    expect(page.locator("#build")).to_contain_text("Coldreach Sail 120")
    page.goto(f"{site.url}/parts?kind=display&brief=1")
    page.locator("#try-saltgrove-casement-27").click()
    expect(page.locator("#trybar")).to_contain_text("Trying Saltgrove Casement 27")
    page.keyboard.press("a")
    expect(page.locator("#trybar")).to_have_count(0)
    dear = page.locator("#meter-money .value").inner_text()
    page.keyboard.press("0")
    page.locator("#f-outside-display").check()
    expect(page.locator("#notice")).to_contain_text("nother purse pays for display")
    expect(page.locator("#build")).to_contain_text("another purse pays")
    assert page.locator("#meter-money .value").inner_text() != dear
    page.locator("#out-coldreach-sail-120").click()
    expect(page.locator("#build")).not_to_contain_text("Coldreach Sail 120")
    assert serious(page) == []


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark")])
def test_parts_and_fit_are_accessible_and_fit_the_screen(site, page, width, scheme):
    page.emulate_media(color_scheme=scheme)
    page.set_viewport_size({"width": width, "height": 844})
    for address in (
        "/briefs/7/fit",
        "/briefs/5/fit?propose=most",
        "/briefs/3/fit?by=part",
        "/briefs/6/assembly",
        "/parts?kind=graphics&brief=1&sort=worth&beside=pellworth-bank-12-plain+kitefall-pharos-16-triple",
        "/parts/kitefall-pharos-16-triple?brief=7",
        "/parts/lidd-frame-porthole/edit",
        "/parts/import",
        "/briefs/1/brief?trust=1",
    ):
        page.goto(site.url + address)
        page.evaluate(
            "document.querySelectorAll('main details').forEach(one => { one.open = true; })"
        )
        assert serious(page) == [], address
        assert page.evaluate("document.documentElement.scrollWidth - window.innerWidth") <= 0, (
            address
        )
