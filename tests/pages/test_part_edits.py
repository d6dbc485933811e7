"""Parts by hand and from tables: added, changed, taken out, brought in, taken back; bad input is
said and nothing is half-written.
"""

import html
import re

import pytest

from tests.pages.conftest import squeezed
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue

SUPPLY = {
    "kind": "supply",
    "maker": "Ampherst",
    "model": "Loft 720",
    "watts": "720",
    "spike_w": "1080",
    "form": "ATX",
    "cpu_8pin": "1",
    "pcie_8pin": "4",
    "pcie_16pin": "1",
    "length_mm": "140",
    "efficiency": "Gold",
    "modular": "true",
    "tested": "",
    "protections": "OVP;OCP",
}


def text_of(answer) -> str:
    return squeezed(html.unescape(answer.text))


def undo(client, text: str):
    edit = re.search(r'name="edit" value="(\d+)"', text)[1]
    return client.post("/parts/undo", data={"edit": edit, "kind": "supply"})


def version(client, part_id: str) -> str:
    return re.search(r'name="version" value="(\d+)"', client.get(f"/parts/{part_id}/edit").text)[1]


def cells(client, part_id: str) -> dict[str, str]:
    text = client.get(f"/parts/{part_id}/edit").text
    fields = {
        name: html.unescape(value)
        for name, value in re.findall(r'<input [^>]*name="(\w+)"[^>]*value="([^"]*)"', text)
    }
    for name, options in re.findall(r'<select [^>]*name="(\w+)">(.*?)</select>', text, re.DOTALL):
        fields[name] = re.search(r'value="([^"]*)" selected', options)[1]
    return fields


def test_a_part_is_added_priced_found_proposed_and_taken_back(client, workshop):
    made = client.post("/parts/new", data=SUPPLY)
    assert "Added Ampherst Loft 720." in text_of(made) and "Trust: plain" not in made.text
    part = workshop.catalogue().parts["ampherst-loft-720"]
    assert (part.watts, part.modular, part.tested, part.protections) == (
        720,
        True,
        None,
        ("OVP", "OCP"),
    )
    assert "No shop offers it" in made.text
    priced = text_of(
        client.post(
            "/parts/ampherst-loft-720/offer",
            data={
                "shop": "Quayside Parts",
                "region": "vellmouth",
                "price": "12.50",
                "shipping": "",
                "in_stock": "on",
            },
        )
    )
    assert "Noted what Quayside Parts asks" in priced and "EUR\u00a012.50" in priced
    brief = client.get("/api/v1/briefs/1").json()["brief"]
    lines = client.post("/api/v1/propose", json={"brief": brief}).json()["lines"]
    assert "ampherst-loft-720" in [line["part"] for line in lines]
    workshop.import_folder(CATALOGUE)
    assert workshop.catalogue().prices("vellmouth", NEW_PARTS).cost("ampherst-loft-720") == 1250, (
        "an import leaves what was typed"
    )
    assert "Took back: noted what" in text_of(undo(client, priced))
    assert workshop.catalogue().prices("vellmouth", NEW_PARTS).cost("ampherst-loft-720") is None
    assert "Took back: added" in text_of(undo(client, made.text))
    assert "ampherst-loft-720" not in workshop.catalogue().parts


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({"watts": "-5"}, "Rated output is “-5”: enter a whole number"),
        ({"watts": ""}, "Rated output is empty"),
        ({"form": "shoebox"}, "Form factor is “shoebox”: enter ATX or SFX"),
        ({"length_mm": "140 mm"}, "Length is “140 mm”"),
        ({"maker": " "}, "Maker and model are the part's name"),
        ({"maker": "Lowhum", "model": "Bargain 700"}, "There is a Lowhum Bargain 700 already"),
    ],
)
def test_bad_figures_are_said_and_what_was_typed_stays(client, workshop, changes, said):
    before = len(workshop.catalogue().parts)
    answer = client.post("/parts/new", data=SUPPLY | changes)
    assert answer.status_code == 422 and said in text_of(answer)
    assert 'value="1080"' in answer.text and len(workshop.catalogue().parts) == before


def test_figures_are_changed_once_and_a_second_tab_is_told(client, workshop):
    fields = cells(client, "lidd-frame-porthole")
    done = client.post(
        "/parts/lidd-frame-porthole/edit",
        data=fields | {"card_length_mm": "340", "card_height_mm": "140"},
    )
    assert "Changed Lidd & Frame Porthole: longest card, tallest card above its slot." in text_of(
        done
    )
    assert workshop.catalogue().parts["lidd-frame-porthole"].card_length_mm == 340
    assert "2 blocks" in client.get("/briefs/7/fit").text
    late = client.post("/parts/lidd-frame-porthole/edit", data=fields | {"card_length_mm": "300"})
    assert late.status_code == 409 and "another tab" in late.text
    same = client.post("/parts/lidd-frame-porthole/edit", data=cells(client, "lidd-frame-porthole"))
    assert same.status_code == 422 and "Nothing was changed" in same.text
    undo(client, done.text)
    assert workshop.catalogue().parts["lidd-frame-porthole"].card_length_mm == 290
    assert "no such edit" in text_of(client.post("/parts/undo", data={"edit": "1", "kind": "case"}))


def test_every_part_of_the_demo_goes_through_the_form_unchanged(client, workshop):
    """What the form shows and reads back is the part itself, for one of each kind."""
    for parts in workshop.catalogue().described.by_kind.values():
        part = parts[len(parts) // 2]
        answer = client.post(f"/parts/{part.id}/edit", data=cells(client, part.id))
        assert "Nothing was changed of" in answer.text, part.id


def test_an_edit_that_was_changed_since_is_not_taken_back(client):
    first = client.post(
        "/parts/lowhum-level-750/edit", data=cells(client, "lowhum-level-750") | {"watts": "760"}
    )
    second = client.post(
        "/parts/lowhum-level-750/edit", data=cells(client, "lowhum-level-750") | {"watts": "770"}
    )
    assert "was changed since" in text_of(undo(client, first.text))
    assert "Took back" in text_of(undo(client, second.text))


def test_a_part_in_use_is_taken_out_and_the_brief_says_so(client, workshop):
    stale = client.post("/parts/lowhum-level-750/remove", data={"version": "1"})
    assert "another tab" in text_of(stale)
    gone = client.post(
        "/parts/lowhum-level-750/remove", data={"version": version(client, "lowhum-level-750")}
    )
    assert "Took out Lowhum Level 750." in text_of(gone)
    assert "no longer in the catalogue" in client.get("/briefs/1/fit").text
    undo(client, gone.text)
    assert "no longer in the catalogue" not in client.get("/briefs/1/fit").text


def test_a_variant_starts_from_the_part_without_its_reviews(client, workshop):
    text = client.get("/parts/new?like=lidd-frame-porthole").text
    assert 'value="290"' in text and re.search(r'name="reviews"[^>]* value=""', text)
    fields = cells(client, "lidd-frame-porthole") | {
        "kind": "case",
        "colour": "pale",
        "reviews": "",
    }
    made = client.post("/parts/new", data=fields)
    assert "Added Lidd & Frame Porthole" in text_of(made)
    assert workshop.catalogue().parts["lidd-frame-porthole-pale"].card_length_mm == 290


def table(*changes: tuple[str, str]) -> bytes:
    text = (CATALOGUE / "supplies.csv").read_text()
    for old, new in changes:
        assert old in text
        text = text.replace(old, new, 1)
    return text.encode()


def look(client, data: bytes, name="supplies.csv", kind=""):
    return client.post("/parts/import", data={"kind": kind}, files={"file": (name, data)})


@pytest.mark.whole_demo
def test_a_table_shows_what_is_new_changed_or_wrong_before_anything_is_written(client, workshop):
    line = next(
        each_line
        for each_line in (CATALOGUE / "supplies.csv").read_text().splitlines()
        if each_line.startswith("lowhum-level-750,")
    )
    fresh = line.replace("lowhum-level-750", "lowhum-level-755").replace("Level 750", "Level 755")
    data = table((line, f"{line.replace(',750,', ',740,', 1)}\n{fresh}"))
    shown = look(client, data)
    text = text_of(shown)
    assert "1 new, 1 changed, 41 as they are" in text and "in use: Net loft all-rounder" in text
    assert re.search(r"Rated output</td><td>750 W</td><td><b>740 W", text)
    assert workshop.catalogue().parts["lowhum-level-750"].watts == 750
    name, body = (
        "supplies.csv",
        html.unescape(
            re.search(r'<textarea name="text"[^>]*>(.*?)</textarea>', shown.text, re.DOTALL)[1]
        ),
    )
    done = client.post("/parts/import/confirm", data={"kind": "supply", "name": name, "text": body})
    assert "Brought in supplies.csv: 1 new, 1 changed." in text_of(done)
    assert (
        workshop.catalogue().parts["lowhum-level-750"].watts == 740
        and "lowhum-level-755" in workshop.catalogue().parts
    )
    again = look(client, data)
    assert "0 new, 0 changed, 43 as they are" in text_of(again) and "bring-in" not in again.text
    undo(client, done.text)
    assert workshop.catalogue().described.parts == read_catalogue(CATALOGUE).parts


@pytest.mark.whole_demo
@pytest.mark.parametrize(
    ("data", "name", "kind", "said"),
    [
        (table((",750,", ",lots,")), "supplies.csv", "", "column watts: found “lots”"),
        (
            table(("lowhum-level-750,", "lidd-frame-bunk,")),
            "supplies.csv",
            "",
            "which is a case in the catalogue",
        ),
        (table(("lowhum-level-750,", "lowhum-level-850,")), "supplies.csv", "", "a second time"),
        (table(), "cases.csv", "", "unknown column"),
        (table(), "my list.csv", "", "It is not clear what “my list.csv” holds"),
        (b"id,maker\n", "supplies.csv", "", "no such column"),
        (b"\xff\xfe", "supplies.csv", "", "text in UTF-8"),
        (b"", "supplies.csv", "supply", "a header line"),
    ],
)
def test_a_table_with_something_wrong_brings_nothing_in(client, workshop, data, name, kind, said):
    before = workshop.catalogue().described.parts
    answer = look(client, data, name, kind)
    assert said in text_of(answer) and "bring-in" not in answer.text
    refused = client.post(
        "/parts/import/confirm",
        data={"kind": kind or "supply", "name": name, "text": data.decode("utf-8", "replace")},
    )
    assert (
        refused.status_code in (200, 422) and workshop.catalogue().described.parts == before
    ) or name == "my list.csv"


def test_no_file_is_said(client):
    assert "No file was chosen" in client.post("/parts/import", data={"kind": "supply"}).text
