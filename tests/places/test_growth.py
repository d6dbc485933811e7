"""Room to grow and tuned clocks: against a plain search over the catalogue, and by hand."""

import re
from dataclasses import replace

import pytest

from tests.core.test_compatibility_rules import WHOLE
from tests.demo import plans, world
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.power.tuning import in_the_way, tuned
from wattmetron.core.speeds.speed_scale import anchors_of
from wattmetron.places.assessment.assess import assess
from wattmetron.places.compatibility.growth import growth
from wattmetron.places.compatibility.tuning_advice import ways_to_tune


@pytest.mark.parametrize("name", ["net-loft", "harbour-hall", "old-bench-machine"])
def test_the_strongest_part_is_the_one_that_a_plain_search_finds(name):
    brief, build = plans()[name]
    now = assess(world(), brief, build)
    own = growth(world(), now)
    book = world().prices(brief.region, brief.may_buy)
    wishes = wishes_of(brief, world().games, world().published)
    floors = floors_of(world(), brief).with_owned(brief.owned)
    levels = ("good to know", "wastes", "do first", "blocks")

    def objections(machine):
        """What a whole machine has against it, but for firmware that can be written first."""
        found = {}
        for item in check(machine, wishes):
            key, grave = (item.rule, item.kinds), levels.index(item.level)
            if item.rule == "not judged":
                key, grave = item.rule, len(item.figures)
            if item.rule != "firmware":
                found[key] = max(grave, found.get(key, 0))
        for field, words in missed(machine, floors):
            found[field, re.sub(r"[0-9]+", "", words)] = 1
        return found | dict.fromkeys(machine.missing(), 1)

    before = objections(now.machine)
    for kind, found, speed in (
        ("graphics", own.graphics, lambda part: anchors_of(part)[1]),
        ("processor", own.processor, lambda part: part.single_speed),
    ):
        fits = [
            part
            for part in world().by_kind[kind]
            if (part.withdrawn is None or book.cost(part.id) is not None)
            and all(
                grave <= before.get(key, 0)
                for key, grave in objections(now.machine.with_part(kind, part)).items()
            )
        ]
        best = max((speed(part) for part in fits), default=0)
        present = next((speed(part) for part in now.machine.of(kind)), 0)
        assert (speed(found.part) if found else present) == max(best, present)
        if found:
            assert found.faster == pytest.approx(best / present - 1) and found.part in fits


def test_places_left_by_hand():
    brief, build = plans()["net-loft"]
    now = assess(world(), brief, build)
    own, board = growth(world(), now), now.machine.mainboard
    assert own.memory_slots == board.memory_slots - 2 and own.m2_slots == board.m2_slots - 1
    assert own.memory_gb == min(board.memory_max_gb, now.machine.processor.memory_max_gb)


def test_tuning_by_hand():
    """4 % more speed and 25 % more power for the processor of 100 W; its spread of 2 % grows with
    the luck of 2 %.
    """
    fast = tuned(WHOLE, "processor tuned")
    assert fast.processor.single_speed == pytest.approx(104) and fast.processor.sustained_w == 125
    assert fast.processor.speed_sd == pytest.approx(0.02 * 2**0.5)
    assert tuned(WHOLE, "card undervolted").graphics.board_power_w == 170
    assert tuned(replace(WHOLE, graphics=None), "card tuned") is None
    assert len(in_the_way(WHOLE, "processor tuned")) == 2 and in_the_way(WHOLE, "card tuned") == ()
    able = replace(
        WHOLE,
        processor=replace(WHOLE.processor, tunable=True),
        mainboard=replace(WHOLE.mainboard, tuning=True),
    )
    assert in_the_way(able, "processor tuned") == ()


def test_the_ways_name_what_they_need_and_never_bring_more_than_the_gain():
    brief, build = plans()["net-loft"]
    build = build.without("cooler", build.cooler)
    told = {way.way: way for way in ways_to_tune(world(), assess(world(), brief, build))}
    assert len(told) == 4
    assert any("carries 65 W" in words for words in told["processor tuned"].obstacles), (
        "75 W under a boxed cooler of 65 W"
    )
    for item, gain in (("processor tuned", 0.04), ("card tuned", 0.05)):
        assert (
            -0.001 <= told[item].least <= told[item].most <= gain + 0.001 and told[item].watts > 0
        )
    assert told["card undervolted"].watts < 0 and told["card undervolted"].most <= 0
