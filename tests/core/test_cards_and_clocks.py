"""Two graphics cards, and clocks that a brief wishes: what they change in the machine, in frames
and in watts.
"""

from dataclasses import replace
from functools import cache

import pytest

from tests.core.test_compatibility_rules import CARD, CHIP, WHOLE
from tests.demo import hall, hall_build, world
from wattmetron.core.compatibility.allowed import barring, may_be_bought
from wattmetron.core.compatibility.personal_rule import ample
from wattmetron.core.compatibility.rules import check
from wattmetron.core.errors import BuildError
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.draw import draw
from wattmetron.core.power.tuning import machine_of, run_at
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import Build
from wattmetron.core.values.other_work import all_core_floor, left_of, storage_more_gb, with_work_gb
from wattmetron.formats.brief_file import build_file, build_from
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import remaining
from wattmetron.places.balance.balance_words import while_working
from wattmetron.places.proposal.proposals import kept_parts
from wattmetron.shell.address import decode_build, encode_build


@cache
def pair():
    return hall_build().beside(hall_build().graphics)


@cache
def first_game():
    return fitted_game(world(), hall().targets[0].game_id)


def test_a_second_card_draws_and_spikes_by_hand():
    """200 W and 300 W of spike twice, beside 100 W of processor and 51 W of the rest."""
    item, two = draw(WHOLE), draw(replace(WHOLE, second_card=CARD))
    assert (two.full_w - item.full_w, two.spike_w - item.spike_w) == (200, 300)
    assert (two.full_w, two.spike_w) == (551, 751)


def test_a_second_card_brings_nothing_without_evidence_and_its_share_with_it():
    target = hall().targets[0]
    item, two = (world().machine(build) for build in (hall_build(), pair()))
    alone, both = (estimate(machine, first_game(), target, hall()) for machine in (item, two))
    assert alone.average_fps == both.average_fps and both.hastened == 1
    sharing = replace(first_game(), second_card_gain=0.6)
    faster = estimate(two, sharing, target, hall())
    assert faster.graphics_ms == pytest.approx(alone.graphics_ms / 1.6) and faster.hastened == 1.6
    assert glance(Lineup([two]), sharing, target, hall()).fps[0] == pytest.approx(
        faster.judged_fps, rel=1e-6
    )
    assert glance(Lineup([item]), sharing, target, hall()).fps[0] == pytest.approx(
        alone.judged_fps, rel=1e-6
    )
    other = next(card for card in world().by_kind["graphics"] if card.chip != item.graphics.chip)
    assert replace(two, second_card=other).hastened(sharing) == 1


def test_cards_are_added_swapped_and_taken_out_one_by_one():
    assert pair().of("graphics") == (hall_build().graphics,) * 2 and pair().without(
        "graphics", hall_build().graphics
    ).of("graphics") == (hall_build().graphics,)
    other = next(
        card.id for card in world().by_kind["graphics"] if card.id != hall_build().graphics
    )
    mixed = pair().without("graphics", hall_build().graphics).beside(other)
    assert mixed.with_part("graphics", hall_build().graphics, other) == pair()
    assert mixed.without("graphics", hall_build().graphics).of("graphics") == (other,)
    with pytest.raises(BuildError, match="at most two graphics cards"):
        pair().beside(other)
    assert build_from(build_file(mixed)) == mixed and Build().beside(other).graphics == other
    assert (
        decode_build(encode_build(mixed, hall_build()), hall_build()) == mixed
        and decode_build(encode_build(hall_build(), mixed), mixed) == hall_build()
    )


def test_a_second_card_is_said_to_be_waste_and_no_proposal_takes_it():
    now = assess(world(), hall(), pair())
    assert {finding.level for finding in now.findings if finding.rule == "second card"} <= {
        "wastes",
        "blocks",
    }
    assert any(finding.rule == "second card" for finding in now.findings)
    assert now.spent_minor > assess(world(), hall(), hall_build()).spent_minor
    assert kept_parts(world(), hall(), replace(pair(), kept=frozenset({hall_build().graphics}))).of(
        "graphics"
    ) == (hall_build().graphics,)
    assert not replace(pair(), graphics=None, second_card=None).of("graphics")


TUNABLE = replace(
    WHOLE, processor=replace(CHIP, tunable=True), mainboard=replace(WHOLE.mainboard, tuning=True)
)


def test_clocks_by_hand():
    """Tuned: 4 % more speed at 125 W and a card of 230 W; the board that delivers 100 W and the
    cooler then block.
    """
    run = run_at(TUNABLE, "tuned")
    assert run.processor.single_speed == pytest.approx(104) and run.processor.sustained_w == 125
    assert run.graphics.speed_1080p == pytest.approx(105) and run.graphics.board_power_w == 230
    assert {"board power delivery", "cooler capacity"} <= {
        item.rule for item in check(run) if item.level == "blocks"
    }
    fixed = run_at(replace(TUNABLE, mainboard=WHOLE.mainboard), "tuned")
    assert fixed.processor.sustained_w == 100 and fixed.graphics.board_power_w == 230
    assert (
        run_at(WHOLE, "tuned").processor == WHOLE.processor and run_at(WHOLE, "as shipped") is WHOLE
    )
    under = run_at(WHOLE, "undervolted")
    assert (under.processor.sustained_w, under.graphics.board_power_w) == (88, 170)
    assert (
        under.processor.speed_sd > CHIP.speed_sd
        and under.processor.single_speed == pytest.approx(99.5)
    )


def test_tuned_clocks_are_proposed_with_chip_board_and_cooler_that_allow_them():
    tuned = replace(hall(), clocks="tuned")
    found = propose(world(), tuned, "most frames")
    machine = machine_of(world(), found.build, "tuned")
    assert machine.processor.tunable and machine.mainboard.tuning
    assert machine.processor.sustained_w > world().part(found.build.processor).sustained_w
    assert not [item for item in check(machine) if item.level == "blocks"]
    cool = propose(world(), replace(hall(), clocks="undervolted"), "most frames")
    assert cool.build is not None


def test_each_rule_about_single_parts_bars_past_its_limit():
    case = next(item for item in world().by_kind["case"] if item.colour == "white")
    cooler = world().by_kind["cooler"][0]
    fan = next(item for item in world().by_kind["fan"] if item.noise_dba == 28.0)
    board = next(
        item
        for item in world().by_kind["mainboard"]
        if not item.stated_wireless and not item.tuning
    )
    disk = next(item for item in world().by_kind["storage"] if item.kind == "hard disk")
    supply = world().by_kind["supply"][0]
    chip = world().by_kind["processor"][0]
    kit = world().by_kind["memory"][0]
    for rule, part, cost, past, near, stays in (
        ("part price cap", case, 101, {"part_cap_minor": 100}, {"part_cap_minor": 101}, ()),
        ("banned part", case, 1, {"banned": (case.id,)}, {"banned": (cooler.id,)}, ()),
        ("maker", case, 1, {"no_makers": (case.maker,)}, {"no_makers": (board.maker,)}, ()),
        (
            "other maker",
            case,
            1,
            {"only_of": (("case", "Nobody"),)},
            {"only_of": (("case", case.maker), ("cooler", "Nobody"))},
            (),
        ),
        ("colour", case, 1, {"colour": "black"}, {"colour": "white"}, ()),
        ("noise", fan, 1, {"noise_limit_dba": 27.5}, {"noise_limit_dba": 28.0}, ()),
        (
            "size",
            case,
            1,
            {"volume_limit_l": case.volume_l - 0.5},
            {"volume_limit_l": case.volume_l},
            (),
        ),
        ("spinning disk", disk, 1, {"no_disks": True}, {}, ()),
        (
            "firmware recovery",
            replace(board, firmware_recovery=False),
            1,
            {"recovery": True},
            {},
            (),
        ),
        ("fault display", replace(board, fault_display=False), 1, {"fault_display": True}, {}, ()),
        ("front USB-C", replace(board, front_headers=("USB 3",)), 1, {"front_usb_c": True}, {}, ()),
        (
            "fan headers",
            replace(board, fan_headers=4),
            1,
            {"fan_headers": 5},
            {"fan_headers": 4},
            (),
        ),
        ("fan headers", replace(board, fan_headers=None), 1, {"fan_headers": 1}, {}, ()),
        ("rear USB ports", replace(board, rear_usb=6), 1, {"rear_usb": 7}, {"rear_usb": 6}, ()),
        ("rear USB ports", replace(board, rear_usb=None), 1, {"rear_usb": 1}, {}, ()),
        (
            "audio channels",
            replace(board, audio_channels=6),
            1,
            {"audio_channels": 8},
            {"audio_channels": 6},
            (),
        ),
        ("audio channels", replace(board, audio_channels=None), 1, {"audio_channels": 2}, {}, ()),
        ("lights wanted", replace(case, lights=()), 1, {"lights_wanted": True}, {}, ()),
        ("case without tools", replace(case, tool_free=False), 1, {"tool_free": True}, {}, ()),
        (
            "room for cables",
            replace(case, cable_room_mm=22),
            1,
            {"cable_room_mm": 23},
            {"cable_room_mm": 22},
            (),
        ),
        ("room for cables", replace(case, cable_room_mm=None), 1, {"cable_room_mm": 1}, {}, ()),
        (
            "smallest case",
            replace(case, volume_l=42.0),
            1,
            {"volume_least_l": 43},
            {"volume_least_l": 42},
            (),
        ),
        (
            "graphics in the processor",
            replace(chip, igpu_speed=None),
            1,
            {"own_graphics": True},
            {},
            (),
        ),
        ("modular cables", replace(supply, modular=False), 1, {"modular": True}, {}, ()),
        (
            "protections",
            replace(supply, protections=("OVP", "OCP", "OPP")),
            1,
            {"protected": True},
            {},
            (),
        ),
        ("room to grow", replace(board, m2_slots=1), 1, {"room_to_grow": True}, {}, ()),
        (
            "room to grow",
            replace(board, memory_slots=2, m2_slots=3),
            1,
            {"room_to_grow": True},
            {},
            (),
        ),
        ("no lights", replace(case, lights=("5 V",)), 1, {"no_lights": True}, {}, ()),
        ("no lights", replace(kit, lights=True), 1, {"no_lights": True}, {}, ()),
        ("tuned clocks", board, 1, {"clocks": "tuned"}, {"clocks": "undervolted"}, ()),
        ("trust floor", cooler, 1, {"trust_floor": "proven only"}, {"trust_floor": "anything"}, ()),
    ):
        plain = replace(
            hall(), part_cap_minor=None, trust_floor="anything", wireless=False, clocks="as shipped"
        )
        unproven = replace(part, reviews=None, warranty_years=1, returns_percent=None)
        assert [own.name for own in barring(replace(plain, **past), unproven, cost, stays)] == [
            rule
        ]
        assert may_be_bought(replace(plain, **near), unproven, cost, stays, ample), rule
    fixed = (replace(CHIP, tunable=False),)
    assert may_be_bought(replace(hall(), clocks="tuned"), board, 1, fixed, ample)


def test_other_work_sets_floors_and_takes_frames_by_hand():
    """Streaming with voice: 8 GB on top of the games' 12, 100 GB on top of 500; 0.875 x 0.95 of all
    cores are left.
    """
    assert (
        with_work_gb(("streaming", "voice and browser"), 12.0) == 20.0
        and with_work_gb((), 12.0) == 12.0
    )
    assert (
        with_work_gb(("many things open",), 12.0) == 32.0
        and with_work_gb(("many things open", "streaming"), 30.0) == 34.0
    )
    assert left_of(("streaming", "voice and browser")) == pytest.approx((0.97 * 0.99, 0.875 * 0.95))
    assert (
        all_core_floor(("streaming", "video editing")) == 90.0
        and storage_more_gb(("streaming",)) == 100.0
    )
    slow = next(chip for chip in world().by_kind["processor"] if chip.all_core_speed < 60)
    working = replace(hall(), work=("streaming",), trust_floor="anything", part_cap_minor=None)
    assert [own.name for own in barring(working, slow, 1)] == ["other work"]
    assert may_be_bought(replace(working, work=()), slow, 1, (), ample)
    found = propose(world(), working, "most frames")
    machine = world().machine(found.build)
    game_gb = max(
        fitted_game(world(), target.game_id).memory_gb for target in hall().counted_targets
    )
    assert machine.processor.all_core_speed >= 60 and machine.memory.total_gb >= game_gb + 4
    said = while_working(world(), assess(world(), working, found.build))
    assert said.startswith("With streaming beside the game: ") and "instead of" in said
    assert while_working(world(), assess(world(), hall(), found.build)) == ""


def test_what_is_missing_costs_the_same_beside_a_second_card():
    """The search takes one card; the second stays in the build and is not counted as part of the
    rest.
    """
    item, two = (
        assess(world(), hall(), build.without("case", build.case))
        for build in (hall_build(), pair())
    )
    alone, both = remaining(world(), item), remaining(world(), two)
    assert (
        alone.least_minor == both.least_minor > 0 and both.build.second_card == pair().second_card
    )
