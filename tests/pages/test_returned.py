"""A copy that came back changed: each difference is taken or left."""

import html
import json
import re
from dataclasses import fields, replace
from functools import cache

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.demo import plans, settled
from tests.pages.conftest import HTMX, form
from tests.pages.test_handouts import EVIL
from tests.pages.test_snapshots import frozen
from wattmetron.core.values.handout import Note
from wattmetron.core.values.plan import Plan
from wattmetron.formats.plan_file import to_document
from wattmetron.places.brief.merged_copy import proposed, take_over, taking


@cache
def demo_plans():
    return [Plan(*own) for own in plans().values()]


def edited(plan: Plan) -> Plan:
    """The same with another budget, one wish, a target harder, one gone, a card, a case, a note."""
    first, _, *rest = plan.brief.targets
    brief = replace(
        plan.brief,
        budget_high_minor=plan.brief.budget_high_minor + 100_00,
        no_lights=True,
        targets=(replace(first, fps=first.fps + 20), *rest),
    )
    build = plan.build.with_part("graphics", "pellworth-pharos-16-plain")
    build = build.with_part("case", "boxwood-yard-galley")
    choice = plan.handout.with_opening("Look at this.").with_note(Note(build.case, "nicer"))
    return replace(plan, brief=brief, build=build, handout=choice)


def bring(client, plan, brief_id=1):
    return client.post(
        f"/briefs/{brief_id}/returned",
        files={"file": ("back.json", to_document(plan).encode())},
        follow_redirects=False,
    )


def test_a_changed_copy_is_taken_over_difference_by_difference(client, workshop):
    plan = workshop.open(1).plan
    theirs = edited(plan)
    url = bring(client, theirs).headers["location"]
    text = html.unescape(client.get(url).text)
    for about in ("budget", "lights", "target Hollow Meridian", "graphics card", "case", "opening"):
        assert about in text, about
    assert "60" in text and "Look at this." in text and "Boxwood Yard Galley" in text
    assert workshop.open(1).plan == plan, "nothing is changed before it is taken"
    found = proposed(workshop.catalogue(), plan, theirs)
    left = [n for n, own in enumerate(found) if own.about == "budget" or "target" in own.about]
    leave = ",".join(str(n) for n in left)
    shown = html.unescape(client.get(f"{url}?leave={leave}").text)
    assert f"{len(found) - len(left)} of {len(found)} taken" in shown
    answer = client.post(url, data=form(workshop, leave=leave), headers=HTMX)
    assert answer.status_code == 200 and "Took over" in answer.text
    now = workshop.open(1).plan
    assert now.build == theirs.build and now.brief.no_lights and now.handout == theirs.handout
    assert now.brief.budget_high_minor == plan.brief.budget_high_minor
    assert now.brief.targets == plan.brief.targets
    client.post("/briefs/1/undo", data=form(workshop), headers=HTMX)
    assert workshop.open(1).plan == plan, "one step back"
    stale = client.post(url, data={"version": "1", "leave": ""}, headers=HTMX)
    assert stale.status_code == 422 and "another tab" in stale.text


def test_what_would_not_fit_is_said_before_it_is_taken(client, workshop):
    plan = workshop.open(1).plan
    odd = replace(plan, build=plan.build.with_part("memory", "quickfen-marram-16-pair-ddr4"))
    url = bring(client, odd).headers["location"]
    assert "Blocks:" in client.get(url).text


def test_a_copy_that_is_none_is_refused_in_a_sentence(client, workshop):
    plan = workshop.open(1).plan
    document = json.loads(to_document(plan))
    game = {**document, "brief": {**document["brief"]}}
    game["brief"]["targets"] = [{**document["brief"]["targets"][0], "game": "no-such-game"}]
    for data, said in (
        (b"{}", "no whole brief"),
        (b"\x00\xff", "no whole brief"),
        (json.dumps({**document, "format": "wattmetron-plan/9"}).encode(), "newer Wattmetron"),
        (json.dumps(document).encode()[:-40], "no whole brief"),
        (json.dumps(game).encode(), "no-such-game"),
    ):
        refused = client.post("/briefs/1/returned", files={"file": ("x.json", data)})
        assert refused.status_code == 422 and said in html.unescape(refused.text), said
    assert client.post("/briefs/1/returned", data={}).status_code == 422
    assert workshop.snapshots(1) == ()
    url = bring(client, plan).headers["location"]
    assert "Nothing differs" in client.get(url).text
    assert client.get(url.replace("/briefs/1/", "/briefs/2/")).status_code == 404
    evil = replace(plan, handout=plan.handout.with_opening(EVIL))
    assert "<script>alert" not in client.get(bring(client, evil).headers["location"]).text


def test_parts_can_be_taken_from_a_snapshot(client, workshop):
    before = workshop.open(1).plan
    snapshot = frozen(client, workshop)
    workshop.change(1, workshop.open(1).version, lambda plan: (edited(plan), "changed"))
    page = client.get("/briefs/1/compare").text
    assert re.search(rf'href="/briefs/1/returned/{snapshot.id}"', page)
    client.post(f"/briefs/1/returned/{snapshot.id}", data=form(workshop), headers=HTMX)
    assert workshop.open(1).plan == before


@settings(max_examples=40)
@given(st.sampled_from(demo_plans()), st.sampled_from(demo_plans()), st.data())
def test_all_taken_is_the_copy_and_none_taken_is_the_brief(plan, theirs, data):
    """Any two briefs; what is taken is as in the copy, what is left as it was."""
    found = proposed(settled(), plan, theirs)
    whole = taking(plan, found)
    assert sorted(whole.brief.targets, key=str) == sorted(theirs.brief.targets, key=str)
    for field in fields(plan.brief):
        if field.name != "targets":
            assert getattr(whole.brief, field.name) == getattr(theirs.brief, field.name)
    assert sorted(whole.build.ids()) == sorted(theirs.build.ids())
    assert whole.build.kept == theirs.build.kept and whole.build.aside == theirs.build.aside
    assert whole.handout == theirs.handout and not proposed(settled(), whole, theirs)
    everything = frozenset(range(len(found)))
    assert take_over(settled(), plan, theirs, everything) == (plan, "nothing")
    left = frozenset(data.draw(st.sets(st.sampled_from(sorted(everything) or [0]))))
    some, _ = take_over(settled(), plan, theirs, left)
    for n in left & everything:
        assert to_document(found[n].take(some)) != to_document(some), "what is left differs"
