"""Sentences that were untrue or led astray once, each at the case that showed it."""

import re
from dataclasses import replace

import pytest

from tests.core.test_compatibility_rules import CARD, CASE, CHIP, WHOLE
from tests.demo import plan, plans, world
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.roles import DriveRoom
from wattmetron.core.compatibility.rules import check
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.power.draw import needed_supply_w
from wattmetron.core.power.tuning import in_the_way
from wattmetron.core.runs.limiting_side import Limits
from wattmetron.core.values.words import counted
from wattmetron.places.assessment.assess import assess, floors_missed
from wattmetron.places.compatibility.growth import growth
from wattmetron.places.compatibility.pages.power import _year
from wattmetron.places.measured.pages.run_view import _limits_sentence
from wattmetron.places.proposal.gives_up import gives_up
from wattmetron.places.proposal.proposals import answer, reasons_of


def proposed(name="net-loft"):
    brief, _ = plan(name)
    found = answer(world(), brief, plan(name)[1].__class__(), "most frames")
    return brief, found


def sentences(machine, floors):
    return [words for _, words in missed(machine, floors)]


def test_a_cooler_is_held_against_watts_with_the_reserve_worked_out():
    floors = replace(floors_of(world(), plan("net-loft")[0]), cooler_reserve_percent=10)
    hot = replace(WHOLE, processor=replace(WHOLE.processor, sustained_w=120))
    hot = replace(hot, cooler=replace(WHOLE.cooler, capacity_w=125))
    (said,) = [words for words in sentences(hot, floors) if "Cooler carries" in words]
    assert "125 W" in said and "gives off 120 W" in said and "132 W are wanted" in said


@pytest.mark.parametrize(
    ("all_gb", "said"), [(500.0, "the brief wants 500 GB"), (0.0, "want 480 GB")]
)
def test_who_wants_so_much_storage_is_named(all_gb, said):
    floors = floors_of(world(), plan("net-loft")[0])
    need = floors.storage._replace(all_gb=max(all_gb, 480.0), games=DriveRoom(200.0, 0.0, 0.0))
    need = need._replace(system=need.system._replace(gb=80.0), bulk=need.bulk._replace(gb=200.0))
    small = replace(WHOLE, storage=(replace(WHOLE.storage[0], capacity_gb=240),))
    found = " ".join(sentences(small, replace(floors, storage=need)))
    assert said in found


def test_an_owned_part_that_is_exempt_is_not_below_the_brief():
    brief, found = proposed()
    build, memory = found.proposal.build, world().part(found.proposal.build.memory)
    greedy = replace(brief, memory_gb=memory.total_gb * 2)
    assert floors_missed(world(), greedy, world().machine(build))
    owned = replace(greedy, owned=(memory.id,))
    assert not [field for field, _ in floors_missed(world(), owned, world().machine(build))]


def test_what_an_owned_part_misses_is_no_reason_for_others():
    """A kit that is too small, and is not owned but kept, is missed; it explains no other part."""
    brief, _ = plan("net-loft")
    small = min(
        (kit for kit in world().by_kind["memory"] if kit.memory_type == "DDR5"),
        key=lambda kit: kit.total_gb,
    )
    owning = replace(brief, owned=(small.id,), stays=(small.id,))
    found = answer(world(), owning, plan("net-loft")[1].__class__(), "most frames")
    told = [
        reason.sentence
        for reason in reasons_of(world(), found.assessment)
        if reason.name != small.name
    ]
    assert told and not any("Memory is" in text or small.name in text for text in told)


def test_a_supply_without_the_headroom_does_not_do_for_less():
    for name in ("net-loft", "harbour-hall", "signal-tower"):
        _, found = proposed(name)
        if found.assessment is None:
            continue
        now = found.assessment
        for reason in reasons_of(world(), found.assessment):
            saving = re.match(r"(.+) would save .* for almost the same frames", reason.sentence)
            if not saving or reason.kind != "supply":
                continue
            (part,) = [own for own in world().by_kind["supply"] if own.name == saving[1]]
            assert part.watts >= now.needed_w


def test_a_reason_is_not_true_with_the_part_as_well():
    for name in plans():
        brief, found = proposed(name)
        now = found.assessment
        there = {words for _, words in floors_missed(world(), brief, now.machine)} if now else set()
        for reason in reasons_of(world(), now):
            without = reason.sentence.removeprefix("Without it: ")
            assert without == reason.sentence or without not in there, (name, reason)


def test_what_a_supply_must_give_is_one_figure():
    brief, found = proposed()
    now = found.assessment
    assert now.needed_w == needed_supply_w(now.draw.full_w, brief.headroom_percent, 10)
    owned = assess(world(), replace(brief, owned=(now.build.supply,)), now.build)
    assert owned.needed_w == needed_supply_w(now.draw.full_w, brief.headroom_percent)


@pytest.mark.parametrize("name", ["net-loft", "signal-tower", "lamp-room"])
def test_what_goes_in_with_nothing_else_replaced_goes_in(name):
    """The whole machine with it raises nothing graver than before, by rules and floors."""
    brief, found = proposed(name)
    now = found.assessment
    own = growth(world(), now)
    floors = floors_of(world(), brief).with_owned(brief.owned)
    for stronger in filter(None, (own.graphics, own.processor)):
        then = now.machine.with_part(stronger.kind, stronger.part)
        assert not then.missing() and not [*missed(then, floors)]
        grave = {item.rule for item in check(then) if item.level in ("blocks", "do first")}
        assert grave <= {"firmware", *(item.rule for item in now.findings)}
        assert bool(stronger.first) == ("firmware" in grave)


def test_a_share_of_half_is_not_called_a_side():
    limits = Limits(
        processor=0.48, graphics=0.52, neither=0.0, sure=0.52, evidence="shape of the trace"
    )
    report = type("Report", (), {"limits": limits})
    own = type("Own", (), {"report": report, "promised": None})
    assert "not clear" in _limits_sentence(own) and "52" not in _limits_sentence(own)


def test_what_a_year_costs_is_as_round_as_what_it_uses():
    now = proposed()[1].assessment
    year = type("Year", (), {"kwh": 308.2, "cost_minor": 98_57, "better": "", "saves_minor": 0})
    use = type("Use", (), {"play_hours": 3.0, "desk_hours": 2.0, "tariff_per_kwh": "0.32"})
    told = type("Told", (), {"year": year})
    _, words = _year(now, told, use)
    assert "about 308" in words and "98.57" not in words and "99 at" in words


def test_one_of_a_thing_is_not_several():
    bare = replace(WHOLE, mainboard=replace(WHOLE.mainboard, memory_slots=1))
    (said,) = [item.sentence for item in check(bare) if item.rule == "memory slots"]
    assert "has 2 sticks" in said and "has 1 memory slot." in said
    none = replace(WHOLE, supply=replace(WHOLE.supply, cpu_8pin=0))
    (said,) = [item.sentence for item in check(none) if item.rule == "processor leads"]
    assert "0 W" not in said and "has no 8-pin." in said
    assert counted(1, "fan") == "1 fan" and CASE.fans_included == 2


def test_what_is_not_stated_of_a_part_is_not_said_to_be_missing():
    drawing, unstated = replace(CHIP, igpu_speed=10.0), replace(CHIP, igpu_speed=None)
    assert "integrated graphics not known instead of 10" in gives_up(drawing, unstated)
    assert "integrated graphics 0 instead of 10" in gives_up(drawing, CHIP)
    tracing, silent = replace(CARD, ray_speed=90.0), replace(CARD, ray_speed=None)
    assert "ray tracing not known instead of 90" in gives_up(tracing, silent)

    brief = plans()["net-loft"][0]
    target = next(own for own in brief.targets if own.ray_tracing)
    for ray_speed, words in ((None, "is not known to trace rays"), (0.0, "cannot trace rays")):
        machine = replace(WHOLE, graphics=replace(CARD, ray_speed=ray_speed))
        assert words in estimate(machine, world().games[target.game_id], target, brief).cannot

    machine = replace(
        WHOLE,
        processor=replace(CHIP, tunable=None),
        mainboard=replace(WHOLE.mainboard, tuning=None),
    )
    assert all("not known to" in words for words in in_the_way(machine, "processor tuned"))


def test_a_board_of_which_nothing_is_said_about_recovery_is_looked_up_first():
    old = replace(WHOLE.mainboard, firmware_shipped="1.00", firmware_recovery=None)
    found = check(replace(WHOLE, mainboard=old))
    (advice,) = [item.advice for item in found if item.rule == "firmware"]
    assert advice.startswith("Look up whether")
