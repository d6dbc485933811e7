"""A list pasted, corrected, made into a brief and reviewed."""

import html
import re

import pytest

from tests.pages.conftest import HTMX, form, squeezed

LIST = """Could you look at this? I play Gullwing Circuit at 1440p 144 Hz, my budget is 1500.

CPU: Marrowgate Osprey Slate 14 - €289
GPU: Pellworth Marlpoint Stack 8 GB Plain - €155
RAM: 2x Bramblebyte Burdock Show 16 Single DDR5 - €44
PSU: Ironwharf Lumen 850 W - €101
Case: Boxwood Yard Galley Pale - €61.80
Cooler: Fennwick Rip Pale - €39
I already have a Ledgerock Cairn 1000.
"""


def fields_of(page):
    """The entries of the form as a browser would send them."""
    sent = dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)"', page))
    own = page[page.index('action="/briefs/letter/make"') :]
    for tag in re.findall(r"<input[^>]+>", own):
        name = re.search(r'name="([^"]+)"', tag)
        if name is None or ("checkbox" in tag and "checked" not in tag):
            continue
        value = re.search(r'value="([^"]*)"', tag)
        sent[name[1]] = value[1] if value else "on"
    for name, inner in re.findall(
        r'<select[^>]*name="([^"]+)"[^>]*>(.*?)</select>', own, re.DOTALL
    ):
        chosen = re.search(r'<option value="([^"]*)" selected', inner) or re.search(
            r'<option value="([^"]*)"', inner
        )
        sent[name] = chosen[1] if chosen else ""
    return {name: html.unescape(value) for name, value in sent.items()}


def made(client, text, **changes):
    """The brief that a text makes, with some entries changed."""
    page = client.post("/briefs/letter", data={"letter": text}).text
    entries = fields_of(page) | changes
    entries = {name: value for name, value in entries.items() if value is not None}
    return client.post("/briefs/letter/make", data=entries, follow_redirects=False)


@pytest.mark.whole_demo
def test_a_list_with_its_letter_becomes_a_brief_that_is_reviewed(client, workshop):
    page = client.post("/briefs/letter", data={"letter": LIST}).text
    plain = squeezed(html.unescape(page)).replace("\u00a0", " ")
    for said in (
        "1 line names no part of the catalogue",
        "Taste, kept as a preference: colour white",
        "not in the catalogue",
        "EUR 61.80",
    ):
        assert said in plain, said
    assert 'name="budget_high" class="fig" inputmode="decimal" value="1500"' in squeezed(page)
    answer = made(client, LIST)
    url = answer.headers["location"]
    assert url.endswith("/review")
    plan = workshop.open(int(url.split("/")[2])).plan
    assert plan.build.processor == "marrowgate-osprey-slate-14"
    assert plan.build.of("memory") == ("bramblebyte-burdock-show-16-single-ddr5",) * 2
    assert plan.brief.owned == ("ledgerock-cairn-1000",)
    assert [target.game_id for target in plan.brief.targets] == ["gullwing-circuit"]
    assert [own.value for own in plan.brief.preferences] == ["white"]
    review = squeezed(html.unescape(client.get(url).text)).replace("\u00a0", " ")
    assert "Ironwharf Lumen 850 W (power supply, EUR 101)" in review
    assert "EUR 289" in review and "Missing: mainboard and power supply" in review


def test_every_line_can_be_corrected_left_out_and_let_go(client, workshop):
    answer = made(
        client,
        LIST,
        **{
            "line.0.part": "marrowgate-heron-slate-6",
            "line.1.use": None,
            "line.2.quantity": "1",
            "taste.0": None,
        },
    )
    plan = workshop.open(int(answer.headers["location"].split("/")[2])).plan
    assert plan.build.processor == "marrowgate-heron-slate-6" and plan.build.graphics is None
    assert len(plan.build.of("memory")) == 1 and plan.brief.preferences == ()


def test_a_quantity_that_is_none_is_said_and_nothing_is_made(client, workshop):
    before = len(workshop.briefs())
    answer = made(client, LIST, **{"line.2.quantity": "many"})
    assert answer.status_code == 422 and "is “many”: enter a whole number" in html.unescape(
        answer.text
    )
    assert len(workshop.briefs()) == before


@pytest.mark.parametrize(
    ("name", "data", "part"),
    [
        ("list.csv", b"name;price\nAmpherst Ballast 750;99,00\nLedgerock Cairn 1000;70", "ballast"),
        ("list.json", b'[{"name": "Ampherst Ballast 750"}, {"name": "Ledgerock Cairn 1000"}]', "x"),
        ("list.txt", "Ampherst Ballast 750 – 99 €\nLedgerock Cairn 1000".encode("utf-16"), "x"),
        ("list.txt", b"\xff\xfe\x00binary\x00", None),
    ],
)
def test_a_file_is_read_as_well(client, name, data, part):
    answer = client.post("/briefs/letter", files={"file": (name, data)})
    if part is None:
        assert answer.status_code in (200, 422) and 'name="line.0.part"' not in answer.text
    else:
        assert 'value="ampherst-ballast-750" selected' in answer.text
        assert 'value="ledgerock-cairn-1000" selected' in answer.text


def test_markup_in_a_list_stays_text_on_every_page(client, workshop):
    evil = "PSU: <b onmouseover=alert(1)>Odd\"one' =cmd|x</b><script>alert(2)</script> 850 - €12"
    text = f"{evil}\nCPU: Quillon Ketch Flood 8\nSSD: Ledgerock Cairn 1000"
    page = client.post("/briefs/letter", data={"letter": text}).text
    url = made(client, text).headers["location"]
    for shown in (page, client.get(url).text):
        assert "<script>alert" not in shown and "onmouseover=alert" not in shown.replace(
            "&lt;b onmouseover", ""
        )
        assert "Odd&#34;one" in shown


@pytest.mark.whole_demo
def test_changes_are_taken_and_left_and_the_sums_follow(client, workshop):
    whole = client.get("/briefs/7/review").text
    assert "2 of 2 changes taken" in whole and 'aria-checked="false"' not in whole
    some = client.get("/briefs/7/review?leave=1").text
    assert "1 of 2 changes taken" in some and some.count('aria-checked="false"') == 1
    url = html.unescape(re.search(r'id="try-better" href="([^"]+)"', some)[1])
    tried = client.get(url).text
    assert "trybar" in tried and "Lowhum Level 750" in tried
    for bad in ("?leave=99,x,-1", "?way=nonsense", "?leave=" + "1," * 400):
        assert client.get(f"/briefs/7/review{bad}").status_code == 200
    way = squeezed(client.get("/briefs/7/review?way=same+money").text)
    assert re.search('aria-current="true"> ?the same money', way)


def test_an_empty_build_asks_for_a_list(client, workshop):
    client.post("/briefs/1/clear", data=form(workshop), headers=HTMX)
    page = client.get("/briefs/1/review").text
    assert "There is no part to judge yet" in page and "Paste a list" in page


@pytest.mark.whole_demo
def test_a_list_of_what_is_there_already_is_owned_at_once(client, workshop):
    listed = "CPU: Quillon Cutter Ebb 6\n2x Ledgerock Ledge 500\nLowhum Even 550, 550 W"
    client.post("/briefs/1/own-list", data=form(workshop, list=listed), headers=HTMX)
    owned = ("quillon-cutter-ebb-6", "ledgerock-ledge-500", "lowhum-even-550")
    assert workshop.open(1).plan.brief.owned == owned
    for text, said in (("Nacre Reef 8 GB", "not sure which part"), ("nothing", "names no part")):
        answer = client.post("/briefs/1/own-list", data=form(workshop, list=text), headers=HTMX)
        assert answer.status_code == 422 and said in html.unescape(answer.text)
    assert workshop.open(1).plan.brief.owned == owned
