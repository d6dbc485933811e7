"""Forms as people type them: read into typed edits, or refused in one sentence."""

import pytest

from tests.demo import world
from wattmetron.core.errors import WattmetronError
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Listed
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.places.assessment import brief_edits
from wattmetron.places.desk.pages.posted_changes import edit_brief
from wattmetron.places.games import publishing
from wattmetron.places.games.pages.tier_forms import ListForm, assumptions_from, published_from
from wattmetron.places.games.tier_edits import SpeedComparison, TierError, part_called
from wattmetron.shell.forms import read
from wattmetron.workshop.workshop import Workshop


def net_loft():
    return Plan(
        read_brief("net-loft", (BRIEFS / "net-loft.brief.json").read_bytes()),
        read_build("net-loft", (BRIEFS / "net-loft.build.json").read_bytes()),
    )


@pytest.fixture
def workshop(tmp_path):
    opened = Workshop(tmp_path / "forms.sqlite")
    opened.load_demo(CATALOGUE, BRIEFS)
    yield opened
    opened.close()


GENERAL = {
    "name": "Net loft",
    "region": "vellmouth",
    "budget_low": "",
    "budget_high": "1,300",
    "size": "2560 x 1440",
    "refresh_hz": "144",
    "variable_from_hz": "",
    "sureness": "near certain",
    "part_cap": "",
    "memory_gb": "32",
    "storage_gb": "1000",
    "headroom_percent": "150",
    "trust_floor": "plain or proven",
    "notes": "",
}


def test_edits_are_read_and_summed_up():
    plan = net_loft()
    changed, said = edit_brief(plan, GENERAL | {"allow_used": "on"}, world())
    assert (changed.brief.budget_high_minor, changed.brief.budget_low_minor) == (130000, 0)
    assert changed.brief.allow_used and changed.brief.display.variable_from_hz is None
    for word in (
        "budget to",
        "1,300",
        "sureness to near certain",
        "used parts allowed",
        "least memory to 32",
    ):
        assert word in said
    added, said = brief_edits.add_target(changed, "tin-harbour", world())
    assert said.startswith(
        "added Tin Harbour (colony building: 60 fps is usual"
    ) and added.brief.targets[-1].id not in {t.id for t in plan.brief.targets}
    removed, _ = brief_edits.remove_target(added, added.brief.targets[-1].id, world())
    assert removed.brief.targets == changed.brief.targets
    owned, _ = brief_edits.own(plan, "coldreach-gust", True, world())
    assert owned.build.cooler == "coldreach-gust" and owned.brief.owned == ("coldreach-gust",)
    stays, said = brief_edits.let_stay(owned, "coldreach-gust", True, world())
    assert stays.brief.stays == ("coldreach-gust",) and said.endswith("stays in every proposal")
    assert brief_edits.let_stay(stays, "coldreach-gust", False, world())[0].brief.stays == ()
    assert brief_edits.let_stay(plan, "coldreach-gust", True, world()) == (plan, "nothing")
    assert brief_edits.own(stays, "coldreach-gust", False, world())[0].brief.stays == ()
    assert brief_edits.own(owned, "coldreach-gust", False, world())[0].brief.owned == ()


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"budget_high": "lots"}, "upper end is “lots”"),
        ({"size": "wide"}, "2560x1440"),
        ({"refresh_hz": "inf"}, "not a number"),
        ({"region": "atlantis"}, "no region “atlantis”"),
        ({"headroom_percent": "1.5"}, "whole number"),
        ({"trust_floor": "blind"}, "choose one of anything"),
        ({"memory_gb": ""}, "is empty"),
    ],
)
def test_bad_edits_are_refused_in_words(typed, said):
    plan = net_loft()
    with pytest.raises(WattmetronError, match=said):
        edit_brief(plan, GENERAL | typed, world())


def test_the_table_of_assumptions_is_edited_and_checked(workshop):
    form = {"unevenness": "9"}
    for role in ("minimum", "recommended", "higher"):
        for prefix, size, preset, fps in (
            ("", "1920x1080", "low", "40"),
            ("least_", "1280x720", "low", "30"),
            ("most_", "1920x1080", "medium", "60"),
        ):
            form |= {
                f"{role}.{prefix}size": size,
                f"{role}.{prefix}preset": preset,
                f"{role}.{prefix}fps": fps,
            }
    publishing.set_assumptions(workshop, assumptions_from(form))
    catalogue = workshop.catalogue()
    assert catalogue.assumptions.unevenness_sd == pytest.approx(0.09)
    assert tiers_of(catalogue).rows[tiers_of(catalogue).of_game("lanternfolk")[0]].settled.fps == 40
    for bad, words in (
        ({"minimum.size": "big"}, "enter pixels"),
        ({"higher.fps": ""}, "lacks a preset or a frame rate"),
        ({"minimum.least_fps": "90"}, "ends before it begins"),
        ({"minimum.preset": "lush"}, "choose one of"),
    ):
        with pytest.raises(TierError, match=words):
            assumptions_from(form | bad)


FIELDS = {
    "t0.label": "Minimum",
    "t0.processor.0.text": "Heron",
    "t0.processor.0.other": "Heron Dun 6",
    "t0.memory_gb": "8",
}


def test_a_form_becomes_tiers_and_says_what_is_wrong():
    own = published_from(
        FIELDS | {"t0.size": "2560×1440", "t0.ray_tracing": "yes", "t0.graphics.0.text": "3 GHz"},
        "game",
        world(),
    )
    (tier,) = own.tiers
    assert tier.processors == (Listed(text="Heron", part="marrowgate-heron-dun-6"),)
    assert (tier.width_px, tier.memory_gb, tier.ray_tracing, tier.preset) == (2560, 8, True, None)
    for bad, words in (
        ({"t0.memory_gb": "lots"}, "The memory of Minimum is “lots”"),
        ({"t0.memory_gb": "-4"}, "above 0"),
        ({"t0.size": "wide"}, "The resolution of Minimum"),
        ({"t0.preset": "lush"}, "choose one of low"),
        ({"t0.processor.0.other": "Heron"}, "could be"),
        (
            {"t0.processor.0.other": "", "t0.processor.0.part": "gone"},
            "no processor part of the catalogue",
        ),
        ({"published_on": "yesterday"}, "2027-03-01"),
        ({"t0.drop": "on"}, "No tier is left"),
    ):
        with pytest.raises(TierError, match=words):
            published_from(FIELDS | bad, "game", world())
    assert part_called(world(), "Reef", "graphics") == "nacre-reef"


# --- files
# --------------------------------------------------------------------------------------------


def test_a_comparison_is_read_with_its_direction():
    form = read(ListForm, {"percent": "12,5 %", "direction": "below", "than": " Heron Dun 6 "})
    assert form.comparison("Heron") == SpeedComparison("Heron Dun 6", -12.5)
    with pytest.raises(TierError, match="enter a number from 0 to 900"):
        read(ListForm, {"percent": "x"}).comparison("Heron")
