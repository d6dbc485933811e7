"""The same frames for less: over the whole list at once, part by part."""

from dataclasses import replace

import pytest

from tests.demo import plans, world
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.places.assessment.assess import assess
from wattmetron.places.proposal.proposal_answers import proposal_json
from wattmetron.places.proposal.proposals import answer

WHOLE = ("harbour-hall", "net-loft", "weather-ship")
"""The briefs whose builds are complete and have no faults."""
STATES = ("short", "unsure", "meets")


@pytest.mark.parametrize("name", WHOLE)
def test_every_target_keeps_state_and_rate_and_the_savings_add_up(name):
    brief, build = plans()[name]
    now = assess(world(), brief, build)
    assert now.whole
    got = answer(world(), brief, build, "same frames")
    if got.assessment is None:
        assert got.headline.startswith("Nothing that keeps to the brief")
        return
    then = got.assessment
    for before, after in zip(now.counted, then.counted, strict=True):
        most = max(1, min(1.5, brief.display.refresh_hz / before.target.fps)) * before.target.fps
        assert after.reliable_fps >= 0.9799 * min(before.reliable_fps, most)
        assert STATES.index(after.state) >= STATES.index(before.state)
    saved = now.spent_minor - then.spent_minor
    assert sum(saving.saves_minor for saving in got.savings) == saved
    assert not now.floors or saved != 0 or got.savings
    if saved > 0 and now.blocking == 0:
        again = answer(world(), brief, then.build, "same frames").assessment
        assert again.spent_minor <= then.spent_minor


def test_a_list_with_needless_money_in_several_places_is_cut_in_all_of_them_at_once():
    brief, build = plans()["net-loft"]
    best = answer(world(), brief, build, "most frames").assessment.build
    dear = [
        max(
            (own for own in world().by_kind[kind]),
            key=lambda own: world().prices(brief.region, NEW_PARTS).cost(own.id) or 0,
        ).id
        for kind in ("supply", "case")
    ]
    wasteful = replace(best, supply=dear[0], case=dear[1])
    got = answer(world(), brief, wasteful, "same frames")
    changed = {saving.kind for saving in got.savings}
    assert {"supply", "case"} <= changed
    assert got.assessment.spent_minor <= assess(world(), brief, best).spent_minor
    assert all(saving.gives_up for saving in got.savings if saving.kind in ("supply", "case"))
    assert any("would pay for" in said for said in got.account)
    told = proposal_json(world(), got)
    assert told["aim"] == "same frames" and len(told["savings"]) == len(got.savings)


def test_without_a_whole_build_or_targets_there_is_nothing_to_keep():
    brief, build = plans()["net-loft"]
    said = "The same frames are those of a whole build with targets: choose one first."
    assert answer(world(), brief, Build(), "same frames").headline == said
    bare = replace(brief, targets=())
    assert answer(world(), bare, build, "same frames").headline == said
