"""What fits and why not: the short way says what the full rules say, for every candidate."""

from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.test_compatibility_rules import (
    CHIP,
    DISC,
    DRIVE,
    RADIO,
    RECORDER,
    WHOLE,
    WISHED,
    with_,
)
from tests.worlds import World
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.rule_wishes import Wishes
from wattmetron.core.compatibility.rules import check
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import KINDS


@settings(max_examples=30)
@given(st.integers(0, 10_000), st.integers(0, 255))
def test_the_reasons_are_the_blocking_findings_that_a_part_brings(seed, places):
    """Against the full check of every machine; places of the machine are empty at random."""
    world = World(seed)
    catalogue = world.catalogue(4, 1)
    machine = Machine()
    for bit, kind in enumerate(KINDS):
        if places >> bit & 1:
            part = world.pick(*catalogue.by_kind[kind])
            machine = replace(machine, **{kind: (part,) if kind == "storage" else part})
    wishes = Wishes(headroom_percent=world.pick(120, 140), watt_limit_w=world.pick(None, 250, 400))
    for kind in KINDS:
        parts = catalogue.by_kind[kind]
        bare = machine if kind == "storage" else replace(machine, **{kind: None})
        before = {item.rule for item in check(bare, wishes) if item.level == "blocks"}
        for part, found in zip(parts, reasons_against(machine, kind, parts, wishes), strict=True):
            with_it = replace(
                bare, **{kind: (*machine.storage, part) if kind == "storage" else part}
            )
            whole = [
                item
                for item in check(with_it, wishes)
                if item.level == "blocks" and item.rule not in before
            ]
            assert sorted(map(str, found)) == sorted(map(str, whole)), (kind, part.id)


def test_further_parts_are_checked_against_slots_and_places_and_stand_where_others_are():
    """A second card on a board with one slot takes the place of the first; of another kind it
    finds the slot taken. A board with no slot does not take the card that is there.
    """
    board = {"short_slots": 1, "card_slots": 1}
    with_radio = with_(mainboard=board, added=(RADIO,))
    wide = replace(RECORDER, via="PCIe x4")
    box = replace(RECORDER, via="USB")

    def rules(machine, kind, *parts):
        found = reasons_against(machine, kind, parts)
        return [[finding.rule for finding in findings] for findings in found]

    assert rules(with_radio, "wireless", RADIO) == [[]]
    assert rules(with_radio, "capture", RECORDER, wide, box) == [
        ["expansion cards"],
        ["expansion cards"],
        [],
    ]
    bare = replace(with_radio.mainboard, short_slots=0)
    assert rules(with_radio, "mainboard", bare, with_radio.mainboard) == [["expansion cards"], []]
    assert rules(with_(case={"places_525": 0}), "optical", DISC) == [["disc bay"]]


def test_a_reason_is_not_given_for_what_was_wrong_before():
    short = replace(WHOLE, supply=replace(WHOLE.supply, watts=100, spike_w=100))
    (found,) = reasons_against(short, "storage", [DRIVE])
    assert found == ()
    (heavy,) = reasons_against(WHOLE, "processor", [replace(CHIP, sustained_w=200)])
    assert {item.rule for item in heavy} == {
        "board power delivery",
        "cooler capacity",
    }
    limit = next(item[2] for item in WISHED if item[0] == "watt limit")
    (over,) = reasons_against(WHOLE, "graphics", [WHOLE.graphics], limit)
    assert [item.rule for item in over] == ["watt limit"]
