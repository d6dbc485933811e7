"""Machines side by side: builds of briefs, the pinned one, and machines bought as they are."""

import html
import re

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.places.compare.compare import compared
from wattmetron.workshop.workshop import Workshop


@pytest.mark.whole_demo
def test_builds_are_compared_under_one_brief(client, workshop):
    page = squeezed(html.unescape(client.get("/briefs/1/compare?beside=8.7").text))
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    builds = [(str(n), f"brief {n}", workshop.open(n).plan.build) for n in (1, 8, 7)]
    found = compared(catalogue, plan.brief, builds)
    for side, letter in zip(found.sides, "ABC", strict=True):
        rates = [
            f"{own.judged_fps:.0f}\u202ffps ({own.judged_low_fps:.0f}–{own.judged_high_fps:.0f})"
            for own in side.assessment.estimates
        ]
        for rate in rates:
            assert rate.replace("\u202f", " ") in page.replace("\u202f", " "), (letter, rate)
    assert "B, Weather ship, all processor, meets 2 of 6 targets, this build 2" in page
    assert "It does not fit together as it stands" in page
    differing = {line.title for line in found.lines if not line.same}
    assert {"delivered", "processor", "graphics card", "targets met"} <= differing
    for title in differing:
        assert f">{title}</th>" in page, title


def test_the_pinned_build_stands_beside_by_itself(client, workshop):
    client.post("/briefs/1/pin", data=form(workshop), headers=HTMX)
    part = workshop.open(1).plan.build.graphics
    client.post("/briefs/1/remove", data=form(workshop, part=part), headers=HTMX)
    page = client.get("/briefs/1/compare").text
    assert "the pinned build" in page and "cannot run it" in page
    alone = client.get("/briefs/1/compare?beside=none").text
    assert "Choose one or more machines" in alone


@pytest.mark.parametrize(
    "beside", ["1", "99.x.8.8.8", ".".join("2345678"), "none", "%00", "8" * 79]
)
def test_whatever_the_address_names_is_answered(client, beside):
    answer = client.get(f"/briefs/1/compare?beside={beside}")
    assert answer.status_code == 200
    assert len(re.findall(r'aria-label="Take [^"]+ out"><', answer.text)) <= 6


MACHINE = {"name": "Dinghy <b>One</b>", "price": "399", "back": "1", "includes": "=cmd|x"}


def test_a_console_is_entered_compared_kept_over_imports_and_taken_out(client, workshop, tmp_path):
    before = set(workshop.catalogue().references)
    entries = MACHINE | {
        "rate.hollow-meridian": "no counter: looks locked at 30",
        "settings.hollow-meridian": "1440p dynamic",
        "rate.lanternfolk": "59-65",
    }
    client.post("/references", data=entries).raise_for_status()
    (added,) = set(workshop.catalogue().references) - before
    own = workshop.catalogue().references[added]
    assert own.in_game("hollow-meridian").locked and own.in_game("hollow-meridian").low_fps == 30
    assert (own.in_game("lanternfolk").low_fps, own.in_game("lanternfolk").high_fps) == (59, 65)
    page = client.get("/briefs/1/compare").text
    assert "Dinghy &lt;b&gt;One&lt;/b&gt;" in page and "looks locked at 30" in page
    assert "less than is wanted" in page and "EUR\u00a0399" in html.unescape(page)
    workshop.export_folder(tmp_path / "out")
    workshop.import_folder(tmp_path / "out")
    assert workshop.catalogue().references[added] == own
    elsewhere = Workshop(tmp_path / "elsewhere.sqlite")
    elsewhere.import_folder(tmp_path / "out")
    assert elsewhere.catalogue().references == workshop.catalogue().references
    elsewhere.close()
    client.post(f"/references/{added}/remove", data={"back": "1"}).raise_for_status()
    assert set(workshop.catalogue().references) == before


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"name": " "}, "has no name"),
        ({"price": "much"}, "much"),
        ({"rate.lanternfolk": "smooth"}, "“smooth” names no rate"),
    ],
)
def test_what_cannot_be_kept_is_said(client, workshop, change, said):
    before = workshop.catalogue().references
    answer = client.post("/references", data=MACHINE | change)
    assert answer.status_code == 422 and said in html.unescape(answer.text)
    assert workshop.catalogue().references == before
