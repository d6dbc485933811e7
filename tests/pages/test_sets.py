"""Sets of dated builds: made, published as one, out of date for a reason, and in again without
loss.
"""

import html
import json
import re
from dataclasses import replace

import pytest

from tests.extent import exhaustive, extent
from tests.pages.conftest import HTMX, form, squeezed
from tests.pages.test_handouts import EVIL, link_from
from tests.pages.test_snapshots import dearer, frozen
from wattmetron.cache.glimpse import Glimpse
from wattmetron.cache.must_wait import hurried
from wattmetron.places.handout.changes_since import read_figures
from wattmetron.places.handout.edition import next_edition, round_of
from wattmetron.places.handout.sets import (
    all_sets,
    assessed,
    catalogue_then,
    open_set,
    outdated,
)
from wattmetron.shell.static_files import static
from wattmetron.words.figures import money


def steps_set(client, workshop):
    answer = client.post(
        "/briefs/1/steps/keep",
        data=form(workshop, amounts="900 1250 1600", rise="0"),
        follow_redirects=False,
    )
    return int(answer.headers["location"].rsplit("/", 1)[1])


def version(workshop, set_id):
    return str(open_set(workshop, set_id).version)


def changed(client, workshop, set_id, what, **typed):
    data = {"version": version(workshop, set_id), **typed}
    return client.post(f"/sets/{set_id}/change/{what}", data=data, headers=HTMX)


def test_budget_steps_become_a_set_with_their_figures(client, workshop):
    set_id = steps_set(client, workshop)
    own = open_set(workshop, set_id).build_set
    assert [entry.name for entry in own.entries] == [
        money(n, "EUR") for n in (90000, 125000, 160000)
    ]
    steps = html.unescape(client.get("/briefs/1/steps?amounts=900+1250+1600").text)
    for entry, budget in zip(own.entries, (90000, 125000, 160000), strict=True):
        figures = read_figures(entry.figures)
        assert figures.spent_minor <= budget == entry.plan.brief.budget_high_minor
        assert money(figures.spent_minor, "EUR") in steps
        assert outdated(workshop.catalogue(), entry, None) == ()
    shown = squeezed(client.get(f"/sets/{set_id}").text)
    assert "all up to date" in shown and shown.count("start a brief") == 3
    brief = client.post(
        f"/sets/{set_id}/start", data={"place": "1"}, follow_redirects=False
    ).headers["location"]
    opened = workshop.open(int(brief.split("/")[2])).plan
    assert opened.build == own.entries[1].plan.build and "1,250" in opened.brief.name


def test_a_build_is_out_of_date_for_a_reason_and_can_be_dated_today(client, workshop):
    set_id = steps_set(client, workshop)
    entry = open_set(workshop, set_id).build_set.entries[1]
    card, screen = entry.plan.build.graphics, entry.plan.build.processor
    described = workshop.catalogue().described
    name = described.parts[card].name
    offers = dearer(described, card, 60_00)
    games = {
        key: replace(game, graphics_ms=game.graphics_ms * 1.2)
        for key, game in described.games.items()
    }
    workshop.import_catalogue(replace(described, offers=offers), "dearer")
    own = open_set(workshop, set_id).build_set.entries[1]
    then = catalogue_then(workshop, own)
    (costs, *_) = outdated(workshop.catalogue(), own, then)
    assert f"{money(60_00, 'EUR')} more: {name} {money(60_00, 'EUR')} more" in costs
    assert "out of date" in client.get("/sets").text
    assert "out of date" in client.get(f"/sets/{set_id}").text
    changed(client, workshop, set_id, "renew", place="1")
    renewed = open_set(workshop, set_id).build_set.entries[1]
    assert not [s for s in outdated(workshop.catalogue(), renewed, None) if "costs" in s]
    workshop.import_catalogue(replace(described, offers=offers, games=games), "heavier")
    said = " ".join(outdated(workshop.catalogue(), renewed, None))
    assert "the evidence or the model changed" in said
    gone = tuple(offer for offer in offers if offer.part_id != screen)
    workshop.import_catalogue(replace(described, offers=gone), "sold out")
    said = " ".join(outdated(workshop.catalogue(), renewed, None))
    assert f"{described.parts[screen].name} is not on sale." in said


def test_a_set_is_published_as_one_handout_priced_as_then_or_today(client, workshop):
    set_id = steps_set(client, workshop)
    changed(client, workshop, set_id, "text", name="Three machines", opening="For the club.")
    link = link_from(client.post(f"/sets/{set_id}/links", data={}, headers=HTMX).text)
    described = workshop.catalogue().described
    card = open_set(workshop, set_id).build_set.entries[0].plan.build.graphics
    before = client.get(link)
    assert before.status_code == 200 and before.headers["referrer-policy"] == "no-referrer"
    workshop.import_catalogue(replace(described, offers=dearer(described, card, 60_00)), "later")
    total = read_figures(open_set(workshop, set_id).build_set.entries[0].figures).spent_minor
    then, today = (client.get(f"{link}?when={when}").text for when in ("", "today"))
    assert money(total, "EUR") in html.unescape(then)
    assert money(total + 60_00, "EUR") in html.unescape(today)
    for form_name in ("html", "md", "txt"):
        text = html.unescape(client.get(f"/sets/{set_id}/as/{form_name}").text)
        assert "Three machines" in text and "For the club." in text, form_name
        for entry in open_set(workshop, set_id).build_set.entries:
            for _, part_id in entry.plan.build.ids():
                assert described.parts[part_id].name in text, (form_name, part_id)
    assert set(re.findall(r'(?:href|src|action)="([^"]+)"', then)) <= {
        static("icon.svg"),
        static("handout.css"),
    }
    changed(client, workshop, set_id, "remove", place="0")
    assert client.get(link).text == then, "what was handed over stays as it was"
    row = re.search(rf"/sets/{set_id}/links/(\d+)/revoke", client.get(f"/sets/{set_id}").text)
    other = steps_set(client, workshop)
    assert client.post(f"/sets/{other}/links/{row[1]}/revoke").status_code == 404
    assert client.get(link).status_code == 200
    client.post(f"/sets/{set_id}/links/{row[1]}/revoke", headers=HTMX)
    assert client.get(link).status_code == 404


def test_changes_of_a_set_are_checked_and_taken_back(client, workshop):
    set_id = steps_set(client, workshop)
    names = [entry.name for entry in open_set(workshop, set_id).build_set.entries]

    def now():
        return [entry.name for entry in open_set(workshop, set_id).build_set.entries]

    changed(client, workshop, set_id, "move", place="2", where="earlier")
    assert now() == [names[0], names[2], names[1]]
    client.post(f"/sets/{set_id}/undo", data={"version": version(workshop, set_id)}, headers=HTMX)
    assert now() == names
    for what, typed, said in (
        ("text", {"name": " "}, "needs a name"),
        ("remove", {"place": "7"}, "no such build"),
        ("text", {"name": "x", "opening": "y" * 2001}, "longer than 2,000"),
        ("text", {"name": "x", "version": "99"}, "another tab"),
    ):
        refused = changed(client, workshop, set_id, what, **typed)
        assert refused.status_code == 422 and said in html.unescape(refused.text), said
    stale = version(workshop, set_id)
    client.post(f"/sets/{set_id}/delete", data={"version": stale}, headers=HTMX)
    assert client.get(f"/sets/{set_id}").status_code == 404 and all_sets(workshop) == ()
    client.post(f"/sets/{set_id}/undo", data={"version": str(int(stale) + 1)}, headers=HTMX)
    assert now() == names
    changed(client, workshop, set_id, "text", name=EVIL[:80], opening=EVIL)
    for url in (f"/sets/{set_id}", f"/sets/{set_id}/page", "/sets", "/briefs/1/compare"):
        assert "<script>alert" not in client.get(url).text, url


def test_a_snapshot_goes_into_a_set_and_a_full_one_says_so(client, workshop):
    snapshot = frozen(client, workshop, "November")
    into = f"/briefs/1/snapshots/{snapshot.id}/into-set"
    answer = client.post(into, data=form(workshop, into="0"), follow_redirects=False)
    set_id = answer.headers["location"].rsplit("/", 1)[1]
    for _ in range(11):
        client.post(into, data=form(workshop, into=set_id))
    full = client.post(into, data=form(workshop, into=set_id), headers=HTMX)
    assert full.status_code == 422 and "at most 12 builds" in full.text
    own = open_set(workshop, int(set_id)).build_set
    assert len(own.entries) == 12 and {entry.name for entry in own.entries} == {"November"}
    assert client.post("/briefs/2/snapshots/1/into-set", data=form(workshop, 2)).status_code in (
        404,
        422,
    )


def test_a_set_and_a_brief_with_snapshots_open_again_with_the_same_figures(
    client, workshop, tmp_path
):
    first = frozen(client, workshop, "October")
    frozen(client, workshop, "November")
    set_id = steps_set(client, workshop)
    data = client.get(f"/sets/{set_id}/as/json").content
    again = client.post(
        "/sets/open", files={"file": ("set.json", data)}, follow_redirects=False
    ).headers["location"]
    copy, own = (open_set(workshop, int(n)).build_set for n in (again.rsplit("/", 1)[1], set_id))
    assert copy == own
    for one, two in zip(copy.entries, own.entries, strict=True):
        catalogue = workshop.catalogue()
        assert assessed(catalogue, one).spent_minor == assessed(catalogue, two).spent_minor
    brief = client.get("/briefs/1/handout/as/json").content
    location = client.post(
        "/briefs/open", files=[("files", ("plan.json", brief))], follow_redirects=False
    ).headers["location"]
    new_id = int(location.split("/")[2])
    assert workshop.open(new_id).plan == workshop.open(1).plan
    kept = [
        (own.name, own.made_at, own.as_of, own.figures, workshop.read_plan(own.document))
        for brief_id in (1, new_id)
        for own in workshop.snapshots(brief_id)
    ]
    assert kept[:2] == kept[2:] and kept[1][0] == "October" and kept[1][2] == first.as_of
    foreign = brief.replace(b'"imported_at": "20', b'"imported_at": "19')
    location = client.post(
        "/briefs/open", files=[("files", ("plan.json", foreign))], follow_redirects=False
    ).headers["location"]
    stranger = int(location.split("/")[2])
    (newest, _) = workshop.snapshots(stranger)
    assert newest.as_of is None and newest.figures == kept[0][3]
    said = client.get(f"/briefs/{stranger}/compare?since={newest.id}").text
    assert "came from elsewhere" in said


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"[]", "no set of builds"),
        (b"{", "no JSON"),
        (b'{"format": "wattmetron-set/9"}', "newer Wattmetron"),
        (b'{"format": "wattmetron-set/1", "name": "x", "entries": [{}]}', "damaged"),
        (b'{"format": "wattmetron-set/1", "name": "x", "entries": 3}', "damaged"),
    ],
)
def test_files_that_are_no_sets_are_refused_in_a_sentence(client, workshop, data, said):
    refused = client.post("/sets/open", files={"file": ("odd.json", data)})
    assert refused.status_code == 422 and said in refused.text
    assert all_sets(workshop) == ()


def test_snapshots_that_cannot_be_read_leave_nothing_half_written(client, workshop):
    frozen(client, workshop)
    whole = json.loads(client.get("/briefs/1/handout/as/json").content)
    count = len(workshop.briefs())
    for bad in ({}, [{"name": "x"}], [{**whole["snapshots"][0], "plan": {}}]):
        data = json.dumps({**whole, "snapshots": bad}).encode() if bad else b""
        refused = client.post("/briefs/open", files=[("files", ("plan.json", data))])
        assert refused.status_code == 422
    assert len(workshop.briefs()) == count


def whole_round(client, set_id: int) -> str:
    """The page of the round when every build is looked at."""
    for _ in range(60):
        page = html.unescape(client.get(f"/sets/{set_id}/round").text)
        if "builds looked at" not in page:
            return page
    raise AssertionError("the round does not end")


@exhaustive
def test_three_monthly_rounds_each_become_the_next_edition(client, workshop):
    set_id = steps_set(client, workshop)
    described = workshop.catalogue().described
    months = (("March", 0.90), ("April", 0.86), ("May", 0.82))
    for month, cheaper in months[: extent(1, 3)]:
        offers = tuple(
            replace(own, price_minor=round(own.price_minor * cheaper)) for own in described.offers
        )
        workshop.import_catalogue(replace(described, offers=offers), month)
        page = whole_round(client, set_id)
        assert "the same list" in page and "Make the next edition" in page
        rows = round_of(
            workshop, workshop.catalogue(), open_set(workshop, set_id).build_set, Glimpse(False)
        )
        assert all(row.now_minor < row.then_minor for row in rows)
        picks = {}
        for n, row in enumerate(rows):
            better = {own.pick for own in row.choices}
            picks[f"pick.{n}"] = "more" if "more" in better else "keep"
            for own in row.choices[1:]:
                plan = replace(row.entry.plan, build=own.build)
                then = assessed(workshop.catalogue(), replace(row.entry, plan=plan))
                assert then.whole and not then.blocking and not then.floors
                assert then.left_minor >= 0 or own.pick == "less"
        data = {"name": f"Net loft, {month}", **picks}
        answer = client.post(f"/sets/{set_id}/round", data=data, follow_redirects=False)
        set_id = int(answer.headers["location"].rsplit("/", 1)[1])
        edition = open_set(workshop, set_id).build_set
        assert edition.name == f"Net loft, {month}"
        assert edition.opening.count("What changed since") == 1, "last month's is not said again"
        for n, (entry, row) in enumerate(zip(edition.entries, rows, strict=True)):
            chosen = row.choice(picks[f"pick.{n}"])
            assert entry.plan.build == chosen.build and chosen.says in edition.opening
            assert outdated(workshop.catalogue(), entry, None) == ()
    assert len(all_sets(workshop)) == 1 + extent(1, 3)
    text = client.get(f"/sets/{set_id}/as/txt").text
    assert f"Net loft, {month}" in text and "What changed since" in text
    refused = client.post(f"/sets/{set_id}/round", data={"pick.0": "gift"})
    assert refused.status_code == 422 and "no such choice" in refused.text


def test_the_next_edition_of_many_builds_keeps_the_opening_and_tells_whole_lines(client, workshop):
    set_id = steps_set(client, workshop)
    opened = open_set(workshop, set_id)
    own = replace(opened.build_set, entries=opened.build_set.entries * 8)
    for words in ("For the club. " * 100, "x" * 1_995):
        asked = replace(own, opening=words.strip())
        edition = next_edition(workshop, workshop.catalogue(), asked, {}, "Twenty-four")
        first, *said = edition.opening.split("\n")
        assert first == asked.opening and len(edition.opening) <= 2_000
        assert len(edition.entries) == 24 and edition.name == "Twenty-four"
        if len(words) > 1_990:
            assert said == []
            continue
        head, *lines, rest = said
        assert head.startswith("What changed since ") and lines
        assert all(line.endswith(".") for line in lines)
        assert rest == f"And {24 - len(lines)} more, at the prices of today."


def test_a_round_goes_on_build_after_build_and_can_be_stopped(client, workshop):
    set_id = steps_set(client, workshop)
    own = open_set(workshop, set_id).build_set
    with hurried():
        assert round_of(workshop, workshop.catalogue(), own, Glimpse(True)) == (None,) * 3
    stopped = client.get(f"/sets/{set_id}/round?stop=1").text
    assert "Stopped: 0 of 3 builds" in stopped and 'id="publish">' in stopped
    rows = round_of(workshop, workshop.catalogue(), own, Glimpse(False))
    with hurried():
        assert round_of(workshop, workshop.catalogue(), own, Glimpse(True)) == rows
    whole = whole_round(client, set_id)
    assert "Stopped" not in whole and "builds looked at" not in whole
    answer = client.post(f"/sets/{set_id}/round", data={"name": "Kept"}, follow_redirects=False)
    kept = open_set(workshop, int(answer.headers["location"].rsplit("/", 1)[1])).build_set
    assert [entry.plan.build for entry in kept.entries] == [e.plan.build for e in own.entries]
