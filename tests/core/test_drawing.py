"""The scale drawing says what the rules say; the assembly list names slots, headers and cables of
this very build.
"""

from dataclasses import replace
from datetime import date

import pytest

from tests.core.test_compatibility_rules import (
    CARD,
    DISK,
    DRIVE,
    LIQUID,
    SMALL,
    SPEAKS,
    WHOLE,
    with_,
)
from wattmetron.core.compatibility.assembly_steps import assembly, memory_places
from wattmetron.core.compatibility.cables import cables
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.scale_drawing import drawing
from wattmetron.core.values.brief import Brief, Display
from wattmetron.core.values.machine import Machine

DRAWN_RULES = {
    "card length",
    "card height",
    "card thickness",
    "cooler height",
    "memory clearance",
    "supply length",
}
BRIEF = Brief(
    name="Net loft",
    region="town",
    budget_low_minor=0,
    budget_high_minor=100000,
    system="Tidewater 11",
    display=Display(width_px=2560, height_px=1440, refresh_hz=144.0, variable_from_hz=48.0),
)


@pytest.mark.parametrize("machine", [WHOLE, *(item[2] for item in SPEAKS)])
def test_a_clash_is_drawn_where_a_rule_blocks_and_nowhere_else(machine):
    blocked = {item.rule for item in check(machine) if item.level == "blocks"} & DRAWN_RULES
    drawn = drawing(machine)
    assert {clearance.rule for clearance in drawn.clearances if clearance.clash} == blocked
    kinds = {clearance.kinds[0] for clearance in drawn.clearances if clearance.clash}
    assert {box.kind for box in drawn.boxes if box.clash} == kinds
    for clearance in drawn.clearances:
        assert (
            clearance.free_mm is None or clearance.free_mm == clearance.room_mm - clearance.size_mm
        )
    assert all(box.width > 0 and box.height > 0 for box in drawn.boxes)


def test_sizes_are_the_parts_own_and_what_is_assumed_says_so():
    drawn = drawing(
        replace(
            WHOLE,
            storage=(DRIVE, DISK),
            case=replace(WHOLE.case, depth_mm=400, width_mm=210, height_mm=460),
        )
    )
    assert (drawn.depth_mm, drawn.height_mm, drawn.width_mm, drawn.outline_assumed) == (
        400,
        460,
        210,
        False,
    )
    side = {box.kind: box for box in drawn.of("side")}
    assert (side["mainboard"].width, side["mainboard"].height) == (244, 305)
    assert (side["graphics"].width, side["graphics"].height, side["graphics"].assumed) == (
        280,
        48,
        False,
    )
    assert (side["supply"].width, side["supply"].height) == (160, 86) and side["cooler"].assumed
    above = {box.kind: box for box in drawn.of("above")}
    assert (above["cooler"].height, above["memory"].height, above["graphics"].height) == (
        155,
        40,
        120,
    )
    disk = next(box for box in drawn.of("side") if box.name == DISK.name)
    assert disk.x + disk.width <= 400 and disk.y + disk.height <= 460 and disk.assumed
    assert drawing(WHOLE).outline_assumed and drawing(Machine()) is None
    assert (
        drawing(replace(WHOLE, graphics=replace(CARD, height_mm=None))).place_of("graphics")
        is not None
    )


def test_a_radiator_in_front_takes_its_thickness_from_the_card():
    drawn = drawing(with_(cooler=LIQUID))
    own = next(box for box in drawn.of("side") if box.name.startswith("radiator"))
    assert (own.width, own.height) == (52, 275) and own.x + own.width == drawn.depth_mm - 10
    length = next(clearance for clearance in drawn.clearances if clearance.rule == "card length")
    assert (length.room_mm, length.clash, length.kinds) == (
        228,
        True,
        ("graphics", "case", "cooler"),
    )
    top = drawing(with_(cooler=LIQUID, case={"radiator_top_mm": (240,)}))
    assert not next(
        clearance for clearance in top.clearances if clearance.rule == "card length"
    ).clash


def words(machine, **brief):
    return {
        step.key: f"{step.words} {step.why}"
        for stage in assembly(machine, replace(BRIEF, **brief))
        for step in stage.steps
    }


def test_the_list_names_what_this_build_needs_in_working_order():
    said = words(replace(WHOLE, storage=(DRIVE, DRIVE, SMALL)))
    assert "2 sticks of Quickfen Kit into the second and fourth memory slot" in said["memory"]
    assert "9 standoffs for ATX" in said["standoffs"]
    assert "switches 2 SATA ports off" in said["m2-2"] and "switches" not in said["m2-1"]
    assert "a SATA port that stays on (2 do)" in said["sata-1"]
    assert "3600 MT/s" in said["profile"] and "Tidewater 11" in said["stick"]
    assert "2560x1440 at 144 Hz" in said["refresh"] and "48 Hz" in said["variable"]
    assert "5 V header" in said["lights-5 V"] and "port-USB 3" in said
    assert "nothing else draws" in said["bench-card"]
    titles = [stage.title for stage in assembly(WHOLE, BRIEF)]
    assert (
        titles[0] == "Before you begin" and titles[-1] == "System and settings" and len(titles) == 8
    )
    assert assembly(Machine(), BRIEF) == ()


def test_firmware_is_told_beforehand_and_how():
    old = {"firmware_shipped": "1.10", "firmware_shipped_since": date(2024, 10, 1)}
    alone, helped = (
        words(with_(mainboard=old | {"firmware_recovery": way})) for way in (False, True)
    )
    assert "has firmware 1.20: ask the shop" in alone["firmware"] and "recover" not in alone
    assert (
        "second stick" in helped["firmware"] and "before the processor goes in" in helped["recover"]
    )
    assert "firmware" not in words(WHOLE)


def test_cables_are_counted_by_type_against_the_supply():
    rows = {
        cable.name: (cable.needed, cable.has)
        for cable in cables(replace(WHOLE, storage=(SMALL, SMALL, DRIVE)))
    }
    assert rows == {
        "24-pin": (1, 1),
        "8-pin processor": (1, 1),
        "8-pin PCIe": (2, 2),
        "SATA power": (2, 2),
    }
    assert cables(replace(WHOLE, supply=None)) == ()


@pytest.mark.parametrize(
    ("sticks", "slots", "said"),
    [
        (1, 4, "the second memory slot"),
        (2, 4, "the second and fourth memory slot"),
        (2, 2, "all memory slots"),
        (4, 4, "all memory slots"),
        (1, 2, "the second memory slot"),
        (1, 1, "the memory slot"),
        (2, 8, "2 memory slots that the manual names first"),
    ],
)
def test_memory_goes_into_the_slots_that_use_all_channels(sticks, slots, said):
    assert memory_places(sticks, slots) == said


@pytest.mark.parametrize("machine", [item[2] for item in SPEAKS])
def test_every_step_can_be_ticked_by_itself(machine):
    for stage in assembly(machine, BRIEF):
        keys = [step.key for step in stage.steps]
        assert len(keys) == len(set(keys)) and all(
            step.words.endswith((".", ")")) for step in stage.steps
        )
