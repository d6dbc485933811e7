"""Personal rules as pages: typed, refused in words, excluded and let in again; second cards; where
figures come from.
"""

import html
import re

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.core.values.brief import BRIEF
from wattmetron.places.assessment.assess import assess
from wattmetron.shell.forms import entry_name


def general(client, workshop, brief_id=1, **changes):
    """All groups of a brief as the page shows them, with some of them changed."""
    page = client.get(f"/briefs/{brief_id}/brief").text
    own = "".join(re.findall(r'id="form-\w+"(.*?)</form>', page, re.DOTALL))
    fields = {}
    for tag in re.findall(r"<input [^>]*>", own):
        name, value = re.search(r'name="([^"]*)"', tag), re.search(r'value="([^"]*)"', tag)
        if name and ("checkbox" not in tag or " checked" in tag):
            fields[name[1]] = html.unescape(value[1]) if value else "on"
    for name, options in re.findall(
        r'<select [^>]*name="([^"]*)"[^>]*>(.*?)</select>', own, re.DOTALL
    ):
        chosen = re.search(r"<option([^>]*) selected>([^<]*)", options)
        value = re.search(r'value="([^"]*)"', chosen[1])
        fields[name] = value[1] if value else html.unescape(chosen[2])
    fields = {name: value for name, value in fields.items() if name not in ("group", "usual")}
    fields["notes"] = html.unescape(
        re.search(r"<textarea[^>]*>(.*?)</textarea>", own, re.DOTALL)[1]
    )
    changed = [own.spec.group for own in BRIEF if entry_name(own) in changes]
    scope = {"scope": f"{changed[0]}:"} if changed else {}
    return fields | form(workshop, brief_id, view="brief") | scope | changes


def test_rules_are_typed_kept_and_undone(client, workshop):
    changes = {
        "noise_limit_dba": "24.5",
        "volume_limit_l": "40",
        "colour": "black",
        "clocks": "undervolted",
        "work.streaming": "on",
        "years": "3",
        "growth_percent": "15",
    }
    said = client.post(
        "/briefs/1/edit", data=general(client, workshop, **changes), headers=HTMX
    ).text
    brief = workshop.open(1).plan.brief
    assert (brief.noise_limit_dba, brief.volume_limit_l, brief.colour, brief.clocks) == (
        24.5,
        40.0,
        "black",
        "undervolted",
    )
    assert brief.work == ("streaming",) and (brief.years, brief.growth_percent) == (3, 15.0)
    for words in (
        "limit of noise to 24.5",
        "largest case to 40",
        "colour to black",
        "clocks to undervolted",
        "other work: streaming",
    ):
        assert words in said.lower(), words
    client.post(
        "/briefs/1/edit",
        data=general(client, workshop, noise_limit_dba="", colour=""),
        headers=HTMX,
    )
    brief = workshop.open(1).plan.brief
    assert brief.noise_limit_dba is None and brief.colour == "" and brief.work == ("streaming",)
    client.post("/briefs/1/undo", data=form(workshop), headers=HTMX)
    assert workshop.open(1).plan.brief.colour == "black"


@pytest.mark.parametrize(
    ("name", "value", "said"),
    [
        ("noise_limit_dba", "5", "must lie within 10–90 dB(A)"),
        ("noise_limit_dba", "loud", "which is not a number"),
        ("volume_limit_l", "0", "must lie within 1–500 l"),
        ("clocks", "wild", "choose one of as shipped, tuned, undervolted"),
        ("years", "11", "must lie within 0–10"),
        ("years", "1.5", "enter a whole number"),
        ("growth_percent", "-3", "within 0–100 % a year"),
    ],
)
def test_rules_that_cannot_be_are_refused_and_what_was_typed_stays(
    client, workshop, name, value, said
):
    before = workshop.open(1).plan
    answer = client.post(
        "/briefs/1/edit", data=general(client, workshop, **{name: value}), headers=HTMX
    )
    assert (
        answer.status_code == 422
        and said in html.unescape(answer.text)
        and workshop.open(1).plan == before
    )
    if name != "clocks":
        assert f'value="{value}"' in answer.text


def test_makers_and_parts_are_excluded_hidden_in_swaps_and_allowed_again(client, workshop):
    present = workshop.open(1).plan.build.graphics
    maker = workshop.catalogue().parts[present].maker
    client.post("/briefs/1/exclude", data=form(workshop, maker=maker), headers=HTMX)
    said = html.unescape(client.get("/briefs/1/frames").text)
    assert f"The brief excludes parts of {maker}" in said and "below the brief" in said
    shown = html.unescape(client.get("/briefs/1/frames?swap=graphics&all=1").text)
    others = [
        part.name
        for part in workshop.catalogue().by_kind["graphics"]
        if part.maker == maker and part.id != present
    ]
    assert not any(f">{name}<" in shown for name in others)
    client.post("/briefs/1/exclude", data=form(workshop, maker=maker, again="1"), headers=HTMX)
    assert workshop.open(1).plan.brief.no_makers == ()
    client.post("/briefs/1/exclude", data=form(workshop, part=present), headers=HTMX)
    plan = workshop.open(1).plan
    assert plan.brief.banned == (present,) and any(
        "excludes" in floor for floor in assess(workshop.catalogue(), plan.brief, plan.build).floors
    )
    assert "is not bought" in client.get("/briefs/1/brief").text
    refused = client.post("/briefs/1/exclude", data=form(workshop, part="no-such"), headers=HTMX)
    assert refused.status_code == 422 and "No part of the catalogue is called" in refused.text
    client.post("/briefs/1/exclude", data=form(workshop, part=present, again="1"), headers=HTMX)
    assert workshop.open(1).plan.brief.banned == ()


def test_a_second_card_is_tried_called_waste_and_adopted(client, workshop):
    page = squeezed(client.get("/briefs/7/fit").text)
    url = html.unescape(re.search(r'id="row-graphics-more" href="([^"]*)"', page)[1])
    tried = html.unescape(client.get(url).text)
    assert (
        "No game of the brief is known to draw faster" in tried
        and "Both cards together need 6 x 8-pin" in tried
    )
    code = html.unescape(re.search(r'name="try" value="([^"]*)"', tried)[1])
    client.post(
        "/briefs/7/adopt", data=form(workshop, 7, **{"try": code, "view": "fit"}), headers=HTMX
    )
    card = workshop.open(7).plan.build.graphics
    assert workshop.open(7).plan.build.of("graphics") == (card, card)
    assert 'id="row-graphics-more"' not in client.get("/briefs/7/fit").text
    client.post("/briefs/7/remove", data=form(workshop, 7, part=card, view="fit"), headers=HTMX)
    assert workshop.open(7).plan.build.of("graphics") == (card,)


def test_a_part_says_what_is_claimed_and_where_sources_disagree(client, workshop):
    assert (
        "Sources disagree on longest card: 290 by the maker's data sheet, 282 by Quayside Parts."
        in html.unescape(client.get("/parts/lidd-frame-chart-table").text)
    )
    assert "Only claimed: longest card." in html.unescape(
        client.get("/parts/boxwood-yard-stowage").text
    )
    assert "of the maker's cases come back within two years" in html.unescape(
        client.get("/parts/boxwood-yard-stowage").text
    )
    page = client.get("/parts/boxwood-yard-stowage/edit").text
    fields = {
        name: html.unescape(value)
        for tag in re.findall(r"<input [^>]*>", page)
        if (name := (re.search(r'name="([^"]*)"', tag) or ["", ""])[1])
        and (value := (re.search(r'value="([^"]*)"', tag) or ["", ""])[1]) is not None
    }
    answer = client.post(
        "/parts/boxwood-yard-stowage/edit",
        data=fields | {"disputed": "card_length_mm=long by a shop"},
        headers=HTMX,
    )
    assert answer.status_code == 422


def test_a_budget_for_several_identical_machines_is_shared_out(client, workshop):
    general_form = general(client, workshop, seats="6", budget_low="6000", budget_high="7500")
    assert "group" not in general_form
    page = html.unescape(client.post("/briefs/1/edit", data=general_form, headers=HTMX).text)
    brief = workshop.open(1).plan.brief
    assert (brief.seats, brief.budget_low_minor, brief.budget_high_minor) == (6, 100_000, 125_000)
    assert 'name="budget_high" value="7500"' in page and "6 alike" in page
    spent = assess(workshop.catalogue(), brief, workshop.open(1).plan.build).spent_minor
    assert (
        f"{6 * spent / 100:,.2f}".removesuffix(".00")
        in re.search(r'id="all-seats">([^<]*)', page)[1]
    )
    back = general(client, workshop, seats="1")
    client.post("/briefs/1/edit", data=back, headers=HTMX)
    assert workshop.open(1).plan.brief.budget_high_minor == 750_000
    for bad in ("0", "501", "some"):
        assert (
            client.post(
                "/briefs/1/edit", data=general(client, workshop, seats=bad), headers=HTMX
            ).status_code
            == 422
        )
