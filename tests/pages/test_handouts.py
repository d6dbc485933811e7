"""What is handed over: the same content in every form, and links that show it and nothing else."""

import csv
import html
import io
import re
from base64 import b64decode
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from tests.pages.conftest import HTMX, form
from wattmetron.api.app import make_app
from wattmetron.core.values.handout import SECTIONS, Note
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.places.assessment.assess import assess
from wattmetron.places.handout.content import handout
from wattmetron.places.handout.handout_links import Of, links_of, make_link
from wattmetron.places.handout.house_rules import housed, with_house
from wattmetron.places.handout.notes import doubt
from wattmetron.places.handout.texts import MOST_CHAT_CHARACTERS, chat, markdown, parts_csv
from wattmetron.shell.access import OPEN_PAGES, Door
from wattmetron.shell.passphrase import hashed
from wattmetron.shell.static_files import static
from wattmetron.words.figures import money

EVIL = '=cmd|"/c calc"!A1 <script>alert(1)</script> [x](javascript:alert(2)) | `code`'


def evil_plan(workshop):
    plan = workshop.open(1).plan
    brief = replace(plan.brief, name=EVIL[:110], notes=EVIL)
    choice = plan.handout.with_opening(EVIL).with_note(Note(plan.build.graphics, EVIL))
    return replace(plan, brief=brief, handout=choice)


@pytest.mark.whole_demo
def test_every_form_says_the_same_parts_prices_and_frames(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    made = handout(catalogue, plan)
    parts = [row[1] for row in made.section("parts").table.rows]
    assert len(parts) == len(list(plan.build.ids()))
    texts = {
        name: client.get(f"/briefs/1/handout/as/{name}").text for name in ("html", "md", "txt")
    }
    texts["page"] = client.get("/briefs/1/handout/page").text
    for name, text in texts.items():
        said = html.unescape(text)
        for part in parts:
            assert part in said, (name, part)
        for section in made.sections:
            assert section.title in said, (name, section.title)
        assert made.total in said and "62\u202ffps (57–65)" in said, name
    rows = list(csv.reader(io.StringIO(client.get("/briefs/1/handout/as/csv").text)))
    assert [row[1] for row in rows[1:]] == parts


def test_the_json_opens_again_without_loss(client, workshop):
    client.post(
        "/briefs/1/handout-opening", data=form(workshop, opening="For the loft"), headers=HTMX
    )
    part = workshop.open(1).plan.build.graphics
    client.post(
        "/briefs/1/handout-note", data=form(workshop, part=part, note="quiet"), headers=HTMX
    )
    client.post(
        "/briefs/1/handout-section",
        data=form(workshop, section="words", where="hide"),
        headers=HTMX,
    )
    data = client.get("/briefs/1/handout/as/json").content
    answer = client.post(
        "/briefs/open", files=[("files", ("plan.json", data))], follow_redirects=False
    )
    again = workshop.open(int(answer.headers["location"].split("/")[2])).plan
    assert again == workshop.open(1).plan and "words" not in again.handout.shown
    newer = data.replace(b"wattmetron-plan/1", b"wattmetron-plan/9")
    for bad, said in ((newer, "newer Wattmetron"), (data[:-200], "JSON"), (b"[]", "JSON")):
        refused = client.post("/briefs/open", files=[("files", ("plan.json", bad))])
        assert refused.status_code == 422, said


def test_a_file_stands_alone_and_runs_nothing(client, workshop):
    brief_id = workshop.create(evil_plan(workshop))
    text = client.get(f"/briefs/{brief_id}/handout/as/html").text
    assert "<script" not in text and 'javascript:alert(2)"' not in text
    (style,) = re.findall(r'\b(?:src|href)="([^"]+)"', text)
    kind, _, rules = style.partition(",")
    assert kind == "data:text/css;base64" and b"@import" not in b64decode(rules)
    assert b".handout" in b64decode(rules) and "<style" not in text and "style=" not in text
    assert "&lt;script&gt;" in text
    cells = list(csv.reader(io.StringIO(client.get(f"/briefs/{brief_id}/handout/as/csv").text)))
    assert not any(cell.startswith(("=", "+", "@")) for row in cells for cell in row)
    quoted = markdown(handout(workshop.catalogue(), workshop.open(brief_id).plan))
    assert "<script" not in quoted and "[x](" not in quoted and "&lt;script&gt;" in quoted


def test_the_short_form_stays_short(workshop):
    catalogue = workshop.catalogue()
    for row in workshop.briefs():
        text = chat(handout(catalogue, row.plan))
        assert 0 < len(text) < MOST_CHAT_CHARACTERS and row.plan.brief.name in text
    plan = workshop.open(1).plan
    many = replace(plan, brief=replace(plan.brief, name="A name " * 15))
    assert len(chat(handout(catalogue, many))) < MOST_CHAT_CHARACTERS
    assert parts_csv(handout(catalogue, plan)).count("\r\n") > 5


def test_sections_are_ordered_hidden_and_shown_again(client, workshop):
    def order():
        text = client.get("/briefs/1/handout/page").text
        return re.findall(r'<section class="of-(\w+)">', text)

    def change(section, where):
        data = form(workshop, section=section, where=where)
        return client.post("/briefs/1/handout-section", data=data, headers=HTMX)

    before = order()
    change("frames", "earlier")
    assert order().index("frames") == before.index("frames") - 1
    change("frames", "hide")
    assert "frames" not in order()
    change("frames", "show")
    assert order()[-1] == "frames"
    assert change("nonsense", "hide").status_code == 422
    assert set(before) <= set(SECTIONS)


def link_from(page):
    return re.search(r'id="fresh-link"[^>]*\s+value="http://[^/]+(/h/[^"]+)"', page)[1]


def test_the_notes_of_a_brief_stay_with_it(client, workshop):
    plan = workshop.open(1).plan
    brief = replace(plan.brief, notes="A gift: do not tell her.")
    brief_id = workshop.create(replace(plan, brief=brief))
    key = make_link(workshop, Of(brief_id=brief_id), None)
    pages = [f"/h/{key}", *(f"/briefs/{brief_id}/handout/as/{form}" for form in ("html", "txt"))]
    for address in (*pages, f"/briefs/{brief_id}/handout/page"):
        assert "A gift" not in client.get(address).text, address
    assert "A gift" in client.get(f"/briefs/{brief_id}/brief").text


def test_a_link_shows_this_handout_until_it_is_taken_back(client, workshop):
    made = client.post("/briefs/1/links", data=form(workshop), headers=HTMX).text
    url = link_from(made)
    assert len(url.removeprefix("/h/")) >= 22 and url not in client.get("/briefs/1/handout").text
    read = client.get(url)
    assert read.status_code == 200 and workshop.open(1).plan.brief.name in read.text
    assert read.headers["referrer-policy"] == "no-referrer"
    assert "noindex" in read.headers["x-robots-tag"]
    assert set(re.findall(r'(?:href|src|action)="([^"]+)"', read.text)) <= {
        static("icon.svg"),
        static("handout.css"),
    }
    client.post("/briefs/1/edit", data=form(workshop, name="Another name"), headers=HTMX)
    assert "Another name" not in client.get(url).text, "what was handed over stays as it was"
    (link,) = links_of(workshop, Of(1))
    other = client.post(f"/briefs/2/links/{link.id}/revoke", data=form(workshop, 2))
    assert other.status_code == 404 and client.get(url).status_code == 200
    client.post(f"/briefs/1/links/{link.id}/revoke", data=form(workshop), headers=HTMX)
    gone = client.get(url)
    wrong = client.get("/h/" + "x" * 22)
    ended = link_from(
        client.post(
            "/briefs/1/links",
            data=form(workshop, ends=f"{datetime.now(UTC).date():%Y-%m-%d}"),
            headers=HTMX,
        ).text
    )
    assert client.get(ended).status_code == 200
    with workshop.database.writing() as session:
        session.connection().exec_driver_sql(
            "UPDATE links SET ends_on = '2020-01-01' WHERE ends_on IS NOT NULL"
        )
    late = client.get(ended)
    assert gone.status_code == wrong.status_code == late.status_code == 404
    assert gone.text == wrong.text == late.text, "three reasons, one answer"


def test_a_link_that_would_have_ended_is_refused(client, workshop):
    yesterday = datetime.now(UTC).date() - timedelta(days=1)
    for ends, said in ((f"{yesterday}", "would have ended"), ("soon", "“soon”")):
        answer = client.post("/briefs/1/links", data=form(workshop, ends=ends), headers=HTMX)
        assert answer.status_code == 422 and said in html.unescape(answer.text)
    assert links_of(workshop, Of(1)) == ()


@pytest.mark.whole_demo
def test_the_reader_may_have_it_priced_as_today_and_elsewhere(client, workshop):
    url = link_from(client.post("/briefs/1/links", data=form(workshop), headers=HTMX).text)
    that_day = client.get(url).text
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    dearer = tuple(
        replace(own, price_minor=own.price_minor + 10_000)
        if own.part_id == plan.build.graphics
        else own
        for own in catalogue.offers
    )
    workshop.import_catalogue(replace(catalogue.described, offers=dearer), "dearer")
    assert client.get(url).text == that_day
    today = client.get(f"{url}?when=today").text
    old, new = (handout(c, plan).total for c in (catalogue, workshop.catalogue()))
    assert old in html.unescape(that_day) and new in html.unescape(today) and old != new
    assert "NOK" in client.get(f"{url}?region=overwater").text
    assert client.get(f"{url}?region=nowhere&when=%00").status_code == 200


def routes_of(router):
    """Every route of the application, of routers within routers too."""
    for own in router.routes:
        if isinstance(own, APIRoute):
            yield own
        elif hasattr(own, "original_router"):
            yield from routes_of(own.original_router)


def test_a_reader_reaches_nothing_else_on_a_shared_server(workshop):
    inside = TestClient(make_app(workshop), base_url="http://127.0.0.1")
    url = link_from(inside.post("/briefs/1/links", data=form(workshop), headers=HTMX).text)
    app = make_app(workshop, door=Door(hashed("three gulls on a mast"), "k" * 40))
    reader = TestClient(app, base_url="http://127.0.0.1", follow_redirects=False)
    assert reader.get(url).status_code == 200
    key = url.removeprefix("/h/")
    walked = 0
    for route in routes_of(app.router):
        path = re.sub(r"\{[^}]+\}", "1", route.path)
        for method in route.methods - {"HEAD"}:
            for place in {path, f"{path}?key={key}", f"{path}?k={key}"}:
                answer = reader.request(method, place, headers={"authorization": f"Bearer {key}"})
                walked += 1
                if path.startswith("/h/"):
                    assert answer.status_code == 404, place
                elif path in OPEN_PAGES:
                    assert answer.status_code in (200, 401), place
                else:
                    assert answer.status_code == 401, (method, place, answer.status_code)
    assert walked > 150
    for odd in (
        "/h/",
        f"{url}/../../briefs",
        f"{url}/edit",
        "/h/%2e%2e/briefs",
        "/static/../briefs",
    ):
        assert reader.get(odd).status_code in (401, 404), odd
    assert reader.post(url).status_code == 405


def house(client, **typed):
    entries = {"version": "0", "rules": "", **{f"name{n}": f"Set {n}" for n in range(3)}}
    entries |= {f"lines{n}": "" for n in range(3)} | typed
    return client.post("/house", data=entries, headers=HTMX)


def test_house_rules_and_peripherals_stand_in_every_handout(client, workshop):
    screen = workshop.catalogue().part("saltgrove-casement-34")
    lines = f"{screen.name}\nKeyboard with a number pad, EUR 35\nMouse mat 12\n2 x desk lamp"
    assert (
        house(client, rules="Two nights of tests.\n\nBring it back.", lines1=lines).status_code
        == 200
    )
    kept = housed(workshop)
    assert kept.house.rules == ("Two nights of tests.", "Bring it back.")
    plain = client.get("/briefs/2/handout/as/txt").text
    assert "Two nights of tests." in plain and "Keyboard" not in plain
    client.post(
        "/briefs/1/handout-grade", data=form(workshop, grade="Set 1", where="show"), headers=HTMX
    )
    shown = handout(workshop.catalogue(), with_house(workshop, workshop.open(1).plan))
    rows = shown.section("beside").table.rows
    price = workshop.catalogue().prices("vellmouth", NEW_PARTS).cost(screen.id)
    assert [row[1] for row in rows] == [
        screen.name,
        "Keyboard with a number pad",
        "Mouse mat",
        "2 x desk lamp",
    ]
    assert rows[0][2] == money(price, "EUR") and rows[1][2] == money(3500, "EUR") and not rows[3][2]
    total = money(price + 4700, "EUR")
    assert shown.section("beside").items == (f"Set 1: {total} in all, 1 without a price.",)
    url = link_from(client.post("/briefs/1/links", data=form(workshop), headers=HTMX).text)
    data = client.get("/briefs/1/handout/as/json").content
    house(client, version=str(kept.version), rules="Another rule.")
    assert "Two nights" in client.get(url).text, "what was handed over stays as it was"
    assert "Another rule." in client.get("/briefs/1/handout/as/txt").text
    answer = client.post(
        "/briefs/open", files=[("files", ("plan.json", data))], follow_redirects=False
    )
    again = answer.headers["location"].rsplit("/", 1)[0]
    assert "Two nights" in client.get(f"{again}/handout/as/txt").text
    new_id = int(again.rsplit("/", 1)[1])
    client.post(f"{again}/handout-house", data=form(workshop, new_id), headers=HTMX)
    assert "Another rule." in client.get(f"{again}/handout/as/txt").text


def test_house_texts_are_checked_kept_and_taken_back(client, workshop):
    house(client, rules="First.")
    stale = house(client, rules="Second.")
    assert stale.status_code == 422 and "another tab" in stale.text and "Second." in stale.text
    version = str(housed(workshop).version)
    for typed, said in (
        ({"rules": "x" * 1001}, "longer than 1,000"),
        ({"name0": ""}, "needs a name"),
        ({"name1": "Set 0"}, "the same name"),
        ({"lines0": "\n".join("abcdefghijklmnop")}, "more than 12 lines"),
        ({"rules": "\n\n".join("abcdefghijklmnopqrstuvw")}, "more than 20 house rules"),
    ):
        refused = house(client, version=version, **typed)
        assert refused.status_code == 422 and said in html.unescape(refused.text), said
    assert housed(workshop).house.rules == ("First.",)
    house(client, version=version, rules="<script>alert(1)</script>")
    assert "<script>alert" not in client.get("/briefs/1/handout/page").text
    client.post("/house/undo", data={"version": str(housed(workshop).version)}, headers=HTMX)
    assert housed(workshop).house.rules == ("First.",)


def test_a_note_is_marked_when_its_reason_no_longer_holds(client, workshop):
    for section in ("alternatives", "later"):
        client.post(
            "/briefs/1/handout-section",
            data=form(workshop, section=section, where="hide"),
            headers=HTMX,
        )
    part = workshop.open(1).plan.build.graphics
    for text in ("quiet, and it fits", ""):
        client.post(
            "/briefs/1/handout-note", data=form(workshop, part=part, note=text), headers=HTMX
        )
        assert bool(workshop.open(1).plan.handout.notes) == bool(text)
    client.post(
        "/briefs/1/handout-note", data=form(workshop, part=part, note="quiet"), headers=HTMX
    )
    assert ">look again<" not in client.get("/briefs/1/handout").text
    described = workshop.catalogue().described
    dearer = tuple(
        replace(own, price_minor=own.price_minor * 11 // 10) if own.part_id == part else own
        for own in described.offers
    )
    workshop.import_catalogue(replace(described, offers=dearer), "later")
    marked = client.get("/briefs/1/handout").text
    assert ">look again<" in marked and "Written when it cost" in marked
    assert "quiet (written when it cost" in client.get("/briefs/1/handout/as/txt").text
    client.post(
        "/briefs/1/handout-note", data=form(workshop, part=part, note="quiet"), headers=HTMX
    )
    assert ">look again<" not in client.get("/briefs/1/handout").text
    note = workshop.open(1).plan.handout.note_on(part)
    line = next(own for own in assess_of(workshop).lines if own.part_id == part)
    assert doubt(note, line, note.reason.replace("1", "2"), "EUR") == "", "figures move"
    assert "computed" in doubt(note, line, "Kept as you asked.", "EUR")


def assess_of(workshop):
    plan = workshop.open(1).plan
    return assess(workshop.catalogue(), plan.brief, plan.build)
