"""From a list with several findings to one that goes together; the assembly list on a phone; parts
found and tried.
"""

import re

import pytest
from playwright.sync_api import expect

from wattmetron.demo import CATALOGUE


def test_several_findings_are_cleared_and_the_smallest_case_clashes_again(desk, page):
    desk.open("/briefs/7/frames")
    desk.press("3")
    expect(page.locator("#fit h2").first).to_contain_text("It does not fit: 4 block")
    expect(page.locator("svg.drawing .clash").first).to_be_visible()
    desk.is_accessible()
    page.locator("#by-part").click()
    expect(page.locator("#fit")).to_contain_text("graphics card: Kitefall Orlop Pharos")
    page.locator("#by-level").click()
    page.get_by_role("link", name=re.compile("Try Boxwood Yard Galley")).first.click()
    expect(desk.meter("fit")).to_contain_text("2 blocks")
    expect(page.locator("#inside")).not_to_contain_text("too much")
    desk.press("Escape")
    expect(page.locator("#inside")).to_contain_text("45\u202fmm too much")
    desk.press("c")
    desk.tries("Trying 2 changes")
    expect(page.locator("#fit h2").first).to_contain_text("Everything that is chosen fits")
    desk.press("a")
    desk.tries_nothing()
    expect(desk.meter("fit").locator(".value")).to_have_text("fits")
    expect(page.locator("svg.drawing .clash")).to_have_count(0)
    desk.open("/parts?kind=case&brief=7&sort=litres")
    expect(page.locator("table.shelf tbody tr").first).to_contain_text("does not fit")
    page.locator("table.shelf tbody tr").first.get_by_text("try it").click()
    desk.tries("Trying Lidd & Frame Bunk")
    expect(page.locator("#inside")).to_contain_text("too much")
    expect(page.locator("svg.drawing .clash").first).to_be_visible()
    desk.is_accessible()


def test_an_assembly_list_is_ticked_off_on_a_phone_and_remembers(desk, page):
    page.set_viewport_size({"width": 390, "height": 844})
    desk.open("/briefs/1/fit")
    page.locator("#to-assembly").click()
    expect(page.locator("#ticked")).to_contain_text("0 of")
    boxes = page.locator("input[data-tick]")
    boxes.nth(0).check()
    page.locator("label.tick").nth(1).click()
    expect(page.locator("#ticked")).to_contain_text("2 of")
    desk.is_accessible()
    desk.fits_the_width()
    page.reload()
    expect(page.locator("#ticked")).to_contain_text("2 of")
    expect(boxes.nth(1)).to_be_checked()
    page.get_by_role("button", name="Clear the ticks").click()
    expect(page.locator("#ticked")).to_contain_text("0 of")


@pytest.mark.essential
def test_parts_are_sieved_put_side_by_side_and_looked_at(desk, page):
    desk.open("/parts?kind=graphics&brief=1")
    page.locator("#only-fitting").check()
    expect(page.locator("table.shelf")).not_to_contain_text("does not fit")
    page.locator("#min-gb").fill("12")
    page.locator("#min-gb").press("Enter")
    desk.settles()
    page.get_by_role("link", name="fps per EUR 100").click()
    expect(page.locator("th[aria-sort=descending]")).to_contain_text("fps per EUR 100")
    page.locator("[id^=beside-]").first.click()
    expect(page.locator("#beside")).to_be_visible()
    page.locator("[id^=beside-]").first.click()
    expect(page.locator("#beside thead th")).to_have_count(3)
    desk.is_accessible()
    page.locator("[id^=part-]").first.click()
    expect(page.locator("#in-build")).to_contain_text("Net loft all-rounder")
    desk.is_accessible()
    page.locator("#try-part").click()
    desk.tries("Trying")


def test_the_finder_forgives_a_slip(desk, page):
    desk.open("/briefs/1/frames")
    desk.press("/")
    desk.type("pharso plain")
    expect(page.locator("#found")).to_contain_text("near it")
    expect(page.locator("#found")).to_contain_text("Pellworth Orlop Pharos 16 GB Plain")
    desk.press("ArrowDown")
    desk.press("Enter")
    desk.tries("Trying Pellworth Orlop Pharos 16 GB Plain")


def test_an_owned_machine_pays_for_what_is_replaced_alone(desk):
    """The old bench: everything owned but one part costs nothing; the new card alone is paid
    for.
    """
    desk.open("/briefs/6/frames")
    expect(desk.meter("money").locator(".value")).to_have_text("EUR\u00a00")
    desk.swap("graphics")
    desk.candidates.last.click()
    desk.tries("more")
    price = desk.build.locator(".row.changed .price .fig").inner_text()
    desk.press("a")
    desk.tries_nothing()
    expect(desk.build.locator(".sum")).to_contain_text(price)


def test_an_old_machine_is_told_what_comes_first_and_a_part_can_be_made_to_stay(desk, page):
    desk.open("/briefs/6/frames")
    desk.press("m")
    steps = page.locator("#first tbody tr")
    expect(steps.first).to_contain_text("nothing blocks any more")
    expect(page.locator("#account")).to_contain_text("Left over of what you own")
    desk.is_accessible()
    second = steps.nth(1).locator("td").first.inner_text().split(". ", 1)[1]
    page.locator("#first-1").click()
    desk.tries("Trying Coldreach Gust")
    desk.press("a")
    desk.tries_nothing()
    desk.press("m")
    expect(steps.first).to_contain_text(second)
    desk.open("/briefs/6/brief")
    desk.unfold("owned")
    page.get_by_role("button", name=re.compile("^must stay: Pellworth Marlpoint Holm")).click()
    desk.says("stays in every proposal")
    desk.is_accessible()
    page.get_by_role("button", name=re.compile("^may go: Pellworth Marlpoint Holm")).click()
    desk.says("may be replaced")


def test_parts_are_typed_in_and_brought_in_from_a_table_and_taken_back(desk, page):
    desk.open("/parts?kind=supply")
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
    page.locator("#p-form").select_option("ATX")
    desk.is_accessible()
    page.locator("#save-part").click()
    desk.says("Added Ampherst Loft 620")
    page.locator("#o-shop").fill("Quayside Parts")
    page.locator("#o-price").fill("59.90")
    page.locator("#add-offer").click()
    expect(page.locator("#desk")).to_contain_text("EUR\u00a059.90")
    desk.is_accessible()
    desk.open("/parts/import")
    line = (CATALOGUE / "supplies.csv").read_text().splitlines()
    changed = "\n".join([line[0], line[1].replace(",1000,", ",1010,", 1)]) + "\n"
    page.locator("#import-file").set_input_files(
        {"name": "supplies.csv", "mimeType": "text/csv", "buffer": changed.encode()}
    )
    page.locator("#look").click()
    expect(page.locator("#preview h2")).to_contain_text("0 new, 1 changed")
    desk.is_accessible()
    page.locator("#bring-in").click()
    desk.says("Brought in supplies.csv")
    desk.press("u")
    desk.says("Took back: brought in supplies.csv")


def test_fans_and_a_display_are_added_and_the_display_is_paid_elsewhere(desk, page):
    desk.open("/briefs/1/fit")
    page.locator("#add-fan").click()
    page.locator("#try-coldreach-sail-120").click()
    desk.tries("Trying Coldreach Sail 120")
    desk.press("a")
    expect(desk.build).to_contain_text("Coldreach Sail 120")
    desk.open("/parts?kind=display&brief=1")
    page.locator("#try-saltgrove-casement-27").click()
    desk.tries("Trying Saltgrove Casement 27")
    desk.press("a")
    desk.tries_nothing()
    dear = desk.meter_says("money")
    desk.press("0")
    desk.unfold("owned")
    desk.field("outside-display").check()
    desk.says("ot in the budget: display")
    expect(desk.build).to_contain_text("not in the budget")
    assert desk.meter_says("money") != dear
    page.locator("#out-coldreach-sail-120").click()
    expect(desk.build).not_to_contain_text("Coldreach Sail 120")
    desk.is_accessible()


@pytest.mark.parametrize(("width", "scheme"), [(390, "dark")])
def test_parts_and_fit_are_accessible_and_fit_the_screen(desk, page, width, scheme):
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
        desk.open(address)
        page.evaluate(
            "document.querySelectorAll('main details').forEach(one => { one.open = true; })"
        )
        desk.is_accessible()
        desk.fits_the_width()
