"""Drives in their slots against a plain definition: every way to seat them, compared one by one."""

from dataclasses import replace
from itertools import permutations

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.test_compatibility_rules import BOARD, CARD, CHIP, DRIVE
from tests.extent import exhaustive, extent
from wattmetron.core.frames.drawing_side import card_link
from wattmetron.core.values.seating import Slot, Stick, lanes_left, seated

LENGTHS = st.sampled_from([None, 30, 42, 80, 110])
GENS = st.sampled_from([None, 3, 4, 5])
SLOTS = st.lists(
    st.builds(Slot, LENGTHS, GENS, st.booleans(), st.integers(0, 3), st.sampled_from([0, 4, 8])),
    max_size=4,
)
STICKS = st.lists(st.builds(Stick, LENGTHS, GENS, st.booleans()), max_size=4)


def goes(slot: Slot, stick: Stick) -> bool:
    if stick.sata and not slot.sata:
        return False
    return None in (slot.length_mm, stick.length_mm) or stick.length_mm <= slot.length_mm


@exhaustive
@settings(max_examples=extent(133, 1600))
@given(SLOTS, STICKS, st.integers(0, 6), st.integers(0, 6))
def test_no_other_way_to_seat_the_drives_is_better(slots, sticks, ports, needed):
    found = seated(tuple(slots), tuple(sticks), ports, needed)
    ways = [
        [slots[place] for place in way]
        for way in permutations(range(len(slots)), len(sticks))
        if all(goes(slots[place], stick) for place, stick in zip(way, sticks, strict=True))
    ]
    if found is None:
        assert not ways
        return

    def worth(taken):
        lost = sum(slot.ports for slot in taken)
        slower = [
            max(0, stick.gen - slot.gen)
            for slot, stick in zip(taken, sticks, strict=True)
            if slot.gen and stick.gen
        ]
        short = max(0, needed - max(0, ports - lost))
        return short, sum(slot.lanes for slot in taken), lost, sum(slower)

    own = [slots[place] for place in found.slots]
    assert own in ways and worth(own) == min(map(worth, ways))
    assert found.ports_left == max(0, ports - worth(own)[2])
    assert found.lanes_lost == worth(own)[1]


@given(st.sampled_from([1, 2, 4, 8, 16]), st.integers(0, 20))
def test_a_link_keeps_a_power_of_two_of_its_lanes(lanes, lost):
    left = lanes_left(lanes, lost)
    assert left in (1, 2, 4, 8, 16) and left <= max(1, lanes - lost) < 2 * left


def test_a_drive_takes_lanes_from_the_card_only_where_no_other_slot_is_free():
    board = replace(BOARD, m2_slots=2, m2_card_lanes=(8, 0))
    links = [card_link(CHIP, board, CARD, (DRIVE,) * count) for count in (0, 1, 2)]
    assert links == [(4, 16), (4, 16), (4, 8)]
