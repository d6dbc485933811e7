"""Preferences as pages: added, refused in words, granted with a price, insisted on, let go and
undone.
"""

import html
import re
from dataclasses import replace

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.core.balance.conflict import without
from wattmetron.core.balance.preference_prices import grant
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import Build
from wattmetron.core.values.preferences import Preference
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.balance import cuts_of, tables
from wattmetron.places.balance.budget_steps import budget_steps
from wattmetron.places.balance.wish_costs import wish_costs


def post(client, workshop, **fields):
    return html.unescape(
        client.post(
            "/briefs/1/prefer", data=form(workshop, 1, view="brief") | fields, headers=HTMX
        ).text
    )


def test_a_preference_is_granted_with_its_price_insisted_on_and_let_go(client, workshop):
    bare = client.get("/briefs/1/balance").text
    assert "Preferred" not in bare[bare.index('id="wishes"') :]
    said = post(client, workshop, act="add", wish="colour", value="white")
    assert "colour white" in said and workshop.open(1).plan.brief.colour == ""
    post(client, workshop, act="add", wish="wireless", value="")
    post(client, workshop, act="add", wish="maker", value="graphics card: Pellworth")
    balance = html.unescape(client.get("/briefs/1/balance").text)
    lines = re.findall(
        r"Preferred (and granted|but not granted): ([^;]*); it costs ([^.<]*)", balance
    )
    assert [words for _, words, _ in lines] == [
        "colour white",
        "wireless",
        "graphics card of Pellworth",
    ]
    proposed = html.unescape(client.get("/briefs/1/brief?propose=most").text)
    assert all(words in proposed for _, words, _ in lines)
    dear = [cost for how, _, cost in lines if how == "and granted" and cost.startswith("EUR")]
    assert dear, "one of them costs money here"
    post(client, workshop, act="limit", up_to="0")
    assert re.search(
        r"Preferred but not granted: [^;]*; it costs EUR",
        client.get("/briefs/1/balance").text.replace("\u00a0", " "),
    )
    post(client, workshop, act="insist", place="0")
    brief = workshop.open(1).plan.brief
    assert brief.colour == "white" and [preference.wish for preference in brief.preferences] == [
        "wireless",
        "maker",
    ]
    post(client, workshop, act="insist", place="1")
    assert workshop.open(1).plan.brief.only_of == (("graphics", "Pellworth"),)
    client.post(
        "/briefs/1/any-maker",
        data=form(workshop, 1, view="brief") | {"kind": "graphics"},
        headers=HTMX,
    )
    post(client, workshop, act="drop", place="0")
    brief = workshop.open(1).plan.brief
    assert brief.only_of == () and brief.preferences == ()
    client.post("/briefs/1/undo", data=form(workshop), headers=HTMX)
    assert [preference.wish for preference in workshop.open(1).plan.brief.preferences] == [
        "wireless"
    ]


@pytest.mark.whole_demo
def test_no_saving_gives_up_a_preference_that_is_granted(workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(8).plan
    colours = [
        {cut.part.colour for cut in cuts_of(catalogue, assess(catalogue, brief, plan.build))}
        for brief in (plan.brief, replace(plan.brief, preferences=(Preference("colour", "white"),)))
    ]
    assert "black" in colours[0] and "black" not in colours[1] and colours[1]


def test_wishes_are_priced_against_the_answer_with_its_preferences(workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    wished = replace(plan.brief, preferences=(Preference("wireless"),), preference_minor=10_000)
    held, (granted,) = grant(catalogue, wished, Build())
    assert granted.granted and granted.cost_minor > 0
    for cost in wish_costs(catalogue, wished, Build()):
        free = propose(catalogue, without(held, (cost.wish,)))
        assert cost.cost_minor == propose(catalogue, held).cost_minor - free.cost_minor, (
            cost.wish.name
        )


def test_every_budget_step_grants_what_its_own_budget_allows(workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(8).plan
    wished = replace(
        plan.brief,
        preferences=(
            Preference("wireless"),
            Preference("room_to_grow"),
            Preference("noise_limit_dba", "20"),
        ),
    )
    budgets, outcomes = (90_000, 120_000, 180_000), set()
    steps = budget_steps(tables(catalogue, wished, Build()), budgets)
    for budget, step in zip(budgets, steps, strict=True):
        asked = replace(
            wished, budget_high_minor=budget, budget_low_minor=min(budget, wished.budget_low_minor)
        )
        brief, found = grant(catalogue, asked, Build())
        assert step.assessment.build == propose(catalogue, brief).build
        outcomes.add(tuple(item.granted for item in found))
    assert len(outcomes) > 1


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"act": "add", "wish": "colour", "value": ""}, "names none: enter one, such as white"),
        (
            {"act": "add", "wish": "noise_limit_dba", "value": "quiet"},
            "at most so many dB(A) in play is “quiet”: enter a number above 0",
        ),
        ({"act": "add", "wish": "noise_limit_dba", "value": "3"}, "must lie within 10–90 dB(A)"),
        ({"act": "add", "wish": "maker", "value": "Pellworth"}, "write kind and maker"),
        (
            {"act": "add", "wish": "maker", "value": "graphics: Nobody"},
            "no graphics card of “Nobody”",
        ),
        ({"act": "add", "wish": "glow", "value": "1"}, "“glow” is not known"),
        ({"act": "add", "wish": "trust_floor", "value": "some"}, "choose one of anything"),
        ({"act": "limit", "up_to": "much"}, "What a preference may cost"),
        ({"act": "insist", "place": "7"}, "no longer there: load the page again"),
    ],
)
def test_a_preference_that_cannot_be_is_refused_and_nothing_changes(client, workshop, fields, said):
    before = workshop.open(1).plan
    assert said in post(client, workshop, **fields)
    assert workshop.open(1).plan == before


def test_no_lights_is_asked_for_kept_and_priced(client, workshop):
    assert 'name="no_lights"' in client.get("/briefs/1/brief").text
    opened = workshop.open(1)
    dark = replace(opened.plan.brief, no_lights=True)
    workshop.change(1, opened.version, lambda plan: (replace(plan, brief=dark), "no lights"))
    assert client.get("/api/v1/briefs/1").json()["brief"]["no_lights"] is True
    catalogue = workshop.catalogue()
    machine = catalogue.machine(propose(catalogue, dark).build)
    assert not any(getattr(part, "lights", ()) for part in machine.parts())
    priced = client.get("/briefs/1/balance?wishes=1").text
    assert "<td>no lights</td>" in squeezed(priced)
