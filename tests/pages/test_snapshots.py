"""Snapshots: what was is kept, and each cause of a difference has its share."""

import html
import re
from dataclasses import replace

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.places.assessment.assess import assess
from wattmetron.places.handout.changes_since import CAUSES, figures_of, read_figures, since


def frozen(client, workshop, name="November"):
    client.post("/briefs/1/snapshots", data=form(workshop, name=name), headers=HTMX)
    return workshop.snapshots(1)[0]


def dearer(catalogue, part_id, more_minor):
    return tuple(
        replace(own, price_minor=own.price_minor + more_minor) if own.part_id == part_id else own
        for own in catalogue.offers
    )


def changed(workshop, *, prices=0, evidence=1.0, part=None):
    """The catalogue with a card dearer and a game heavier, the build with another case."""
    described = workshop.catalogue().described
    card = workshop.open(1).plan.build.graphics
    games = {
        key: replace(game, graphics_ms=game.graphics_ms * evidence)
        for key, game in described.games.items()
    }
    after = replace(described, games=games, offers=dearer(described, card, prices))
    workshop.import_catalogue(after, "later")
    if part:
        workshop.change(
            1,
            workshop.open(1).version,
            lambda plan: (replace(plan, build=plan.build.with_part(*part)), "another"),
        )


def difference(workshop, snapshot):
    old = workshop.catalogue_of(snapshot.as_of), workshop.read_plan(snapshot.document)
    stored = read_figures(snapshot.figures)
    plan = workshop.open(1).plan
    return since((*old, stored), (workshop.catalogue(), plan), workshop.studied)


def test_nothing_changed_has_no_causes(client, workshop):
    found = difference(workshop, frozen(client, workshop))
    assert set(found.money_minor.values()) == {0} and found.changes == ()
    assert all(own == pytest.approx(1.0) for own in found.frames.values())


def test_each_cause_alone_has_the_whole(client, workshop):
    snapshot = frozen(client, workshop)
    changed(workshop, prices=50_00)
    found = difference(workshop, snapshot)
    assert found.money_minor == {"parts": 0, "prices": 50_00, "evidence": 0, "model": 0}
    assert found.frames == pytest.approx(dict.fromkeys(CAUSES, 1.0))
    text = squeezed(html.unescape(client.get(f"/briefs/1/compare?since={snapshot.id}").text))
    assert "EUR 50 more" in text.replace("\u00a0", " ") and "The parts are the same" in text


def test_causes_together_add_up_to_what_changed(client, workshop):
    snapshot = frozen(client, workshop)
    before = read_figures(snapshot.figures)
    changed(workshop, prices=80_00, evidence=1.3, part=("case", "boxwood-yard-hold"))
    found = difference(workshop, snapshot)
    plan = workshop.open(1).plan
    now = figures_of(assess(workshop.catalogue(), plan.brief, plan.build))
    assert sum(found.money_minor.values()) == now.spent_minor - before.spent_minor
    assert found.money_minor["prices"] == 80_00 and found.money_minor["parts"] > 0
    product, mean = 1.0, 1.0
    for own in found.frames.values():
        product *= own
    for key, rate in now.rates.items():
        mean *= (rate / before.rates[key]) ** (1 / len(now.rates))
    assert product == pytest.approx(mean, rel=1e-6)
    assert abs(found.frames["evidence"] - 1) > 0.005 and found.frames["model"] == pytest.approx(1.0)
    assert [change.kinds for change in found.changes] == [("case",)]


def test_what_the_stored_figures_cannot_explain_is_the_models(client, workshop):
    snapshot = frozen(client, workshop)
    slower = read_figures(snapshot.figures)
    slower = replace(slower, rates={key: own * 0.9 for key, own in slower.rates.items()})
    found = difference(workshop, replace(snapshot, figures=slower.text))
    assert found.frames["model"] == pytest.approx(1 / 0.9) and found.money_minor["model"] == 0


def test_snapshots_stand_beside_and_can_be_taken_out(client, workshop):
    snapshot = frozen(client, workshop, "<b>Nov</b>")
    page = client.get(f"/briefs/1/compare?beside=s{snapshot.id}").text
    assert "&lt;b&gt;Nov&lt;/b&gt;" in page and "<b>Nov" not in page
    assert re.search(r"B</b> &lt;b&gt;Nov", page)
    other = client.post(f"/briefs/2/snapshots/{snapshot.id}/remove", data=form(workshop, 2))
    assert other.status_code == 404 and workshop.snapshots(1)
    client.post(f"/briefs/1/snapshots/{snapshot.id}/remove", data=form(workshop), headers=HTMX)
    assert workshop.snapshots(1) == ()
    for odd in ("999", "x", "-1"):
        assert client.get(f"/briefs/1/compare?since={odd}&beside=s{odd}").status_code == 200


@pytest.mark.parametrize("text", ["", "{}", "[1]", '{"spent": "x", "met": 1, "rates": {}}', "nul"])
def test_figures_that_cannot_be_read_are_none(text):
    assert read_figures(text).rates == {}
