"""What else could be bought: whole builds that are nearly as good, and upgrades in order."""

from dataclasses import replace

import pytest

from tests.demo import plans, settled
from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.balance_words import mean_change
from wattmetron.places.handout.alternatives import alternatives, near_builds, upgrades


def of(name, **changes):
    brief, build = plans()[name]
    return assess(settled(), replace(brief, **changes), build)


@pytest.mark.parametrize("name", ["net-loft", "harbour-hall", "weather-ship"])
def test_builds_that_are_nearly_as_good_are_whole_near_and_better_in_something(name):
    now = of(name)
    chip = now.machine.graphics.chip
    for then in near_builds(settled(), now):
        assert then.whole and not then.blocking and not then.floors
        assert abs(then.spent_minor - now.spent_minor) <= now.spent_minor / 20
        assert abs(mean_change(now, then)) <= 0.05
        assert then.machine.graphics.chip != chip or then.build.processor != now.build.processor
        better = (
            now.spent_minor - then.spent_minor,
            mean_change(now, then) - 0.01,
            now.draw.full_w - then.draw.full_w - 10,
            then.machine.graphics.memory_gb - now.machine.graphics.memory_gb - 1,
        )
        assert max(better) >= 0 or then.met > now.met


def test_two_picks_for_the_same_money_are_said_as_either_or():
    now = of("net-loft")
    card = now.machine.graphics
    more_gb = card.memory_gb + 2
    twin = replace(card, id="twin", maker="Twinmaker", model="Card", chip="T1", memory_gb=more_gb)
    (line,) = [own for own in now.lines if own.kind == "graphics"]
    offer = replace(line.offer, part_id="twin")
    described = settled().described
    parts = {**described.parts, "twin": twin}
    world = studied(replace(described, parts=parts, offers=(*described.offers, offer)))
    said = alternatives(world, assess(world, now.brief, now.build))
    (either,) = [own for own in said if own.startswith(f"Either {card.name} or Twinmaker Card")]
    assert "the same money (to the cent)" in either and "2\u202fGB more video memory" in either


def test_upgrades_come_in_order_within_the_money_and_say_what_they_bring():
    own = upgrades(settled(), of("net-loft"))
    assert own.says.startswith("With EUR\u00a0416.20 more later")
    assert len(own.steps) == 2 and "Cutter Flood 6" in own.steps[0] and "DDR5" in own.steps[1]
    assert "Draught" in own.steps[0], "the cooler goes with the processor that needs it"
    monthly = upgrades(settled(), of("net-loft", upgrade_minor=50_00))
    assert "after 4 months" in monthly.steps[0] and "after 5 months" in monthly.steps[1]


def test_what_is_not_whole_has_neither():
    for name in ("net-loft", "ferry-bunk"):
        empty = assess(settled(), plans()[name][0], Build())
        assert alternatives(settled(), empty) == () and upgrades(settled(), empty).steps == ()
