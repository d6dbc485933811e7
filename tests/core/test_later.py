"""Room for a card and sticks to come: supply, case and cooling are sized for them, at a price."""

from dataclasses import replace
from functools import cache

import pytest

from tests.demo import loft, world
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.later_upgrades import later_card
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import blocks
from wattmetron.core.power.draw import draw
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import known_brief
from wattmetron.places.balance.wish_costs import wish_costs


@cache
def richer_loft():
    return replace(loft(), budget_high_minor=200_000)


@cache
def strongest():
    return max(world().by_kind["graphics"], key=lambda card: card.board_power_w)


def test_the_proposal_takes_the_card_and_its_price_is_told():
    plain = propose(world(), loft(), "least money")
    asked = replace(loft(), later_card=strongest().id)
    found = propose(world(), asked, "least money")
    machine = world().machine(found.build)
    later = replace(machine, graphics=strongest())
    wishes = replace(wishes_of(asked), display=None)
    assert not blocks(later, wishes)
    full_w = draw(later).full_w
    assert machine.supply.watts >= full_w * 1.4 and machine.supply.watts >= full_w * 1.1
    assert machine.case.card_length_mm >= strongest().length_mm
    before = world().machine(plain.build)
    if blocks(replace(before, graphics=strongest()), wishes):
        assert found.cost_minor > plain.cost_minor
    (told,) = [own for own in wish_costs(world(), asked, Build()) if own.wish.name == "later_card"]
    assert told.cost_minor is not None
    assert not [*missed(machine, floors_of(world(), asked))]
    field = [name for name, _ in missed(before, floors_of(world(), asked))]
    assert field == (["later_card"] if found.cost_minor > plain.cost_minor else [])


@pytest.mark.parametrize(("watts", "plugs"), [(75, 0), (76, 1), (225, 1), (226, 2), (450, 3)])
def test_a_card_of_so_many_watts_needs_so_many_plugs(watts, plugs):
    """75 W from the slot, 150 W from each 8-pin lead."""
    card = later_card(world(), replace(loft(), later_card_w=watts, later_card_mm=310))
    assert (card.pcie_8pin, card.board_power_w, card.length_mm) == (plugs, watts, 310)


def test_sticks_to_come_have_their_slots():
    for sticks in (1, 2):
        build = propose(world(), replace(loft(), later_sticks=sticks), "least money").build
        machine = world().machine(build)
        assert machine.mainboard.memory_slots - machine.memory.sticks >= sticks
    asked = replace(loft(), later_sticks=3, targets=())
    two = next(board for board in world().by_kind["mainboard"] if board.memory_slots == 2)
    pair = next(kit for kit in world().by_kind["memory"] if kit.sticks == 2)
    said = dict(missed(replace(machine, mainboard=two, memory=pair), floors_of(world(), asked)))
    assert said["later_sticks"].endswith(
        "has no memory slots left; 3 are to stay free for sticks to come."
    )


def test_a_card_that_the_catalogue_lost_does_not_count():
    gone = replace(loft(), later_card="sunken-card", later_card_w=300)
    assert later_card(world(), gone) is None
    assert known_brief(world(), gone).later_card == ""


def test_a_processor_to_come_decides_board_cooler_and_supply():
    """The strongest of a line that has no cooler of its own: its board, a cooler with the reserve
    and a supply for it are bought today.
    """
    plain = world().machine(propose(world(), loft(), "least money").build)
    chip = max(
        (
            own
            for own in world().by_kind["processor"]
            if own.socket == plain.processor.socket and not own.boxed_cooler_w
        ),
        key=lambda own: own.sustained_w,
    )
    asked = replace(loft(), later_processor=chip.id)
    found = world().machine(propose(world(), asked, "least money").build)
    assert chip.socket in found.cooler.sockets
    assert found.cooler.capacity_w * 100 >= chip.sustained_w * (100 + asked.reserve_percent)
    assert (found.mainboard.socket, found.mainboard.memory_type) == (chip.socket, chip.memory_type)
    assert found.mainboard.processor_w is None or found.mainboard.processor_w >= chip.sustained_w
    then = replace(found, processor=chip)
    assert not blocks(then, replace(wishes_of(asked), display=None))
    assert found.supply.watts >= draw(then).full_w * 1.4
    assert "later_processor" not in dict(missed(found, floors_of(world(), asked)))
    weak = replace(found.cooler, capacity_w=chip.sustained_w - 1)
    said = dict(missed(replace(found, cooler=weak), floors_of(world(), asked)))
    assert said["later_processor"].startswith(f"{chip.name} does not go in later: ")


def test_a_second_card_to_come_has_its_slot_its_leads_and_its_power():
    asked = replace(loft(), later_second=True, budget_high_minor=400_000)
    found = world().machine(propose(world(), asked, "least money").build)
    card = found.graphics
    assert card is not None and found.mainboard.card_slots >= 2
    twice = replace(found, second_card=card)
    assert draw(twice).graphics_w == 2 * card.board_power_w
    assert found.supply.watts >= draw(twice).full_w * 1.4
    assert found.supply.spike_w >= draw(twice).spike_w
    assert not blocks(twice, replace(wishes_of(asked), display=None))
    one = next(own for own in world().by_kind["mainboard"] if own.card_slots == 1)
    said = dict(missed(replace(found, mainboard=one), floors_of(world(), asked)))
    assert said["later_second"].startswith(f"A second {card.name} does not go in later: ")
    unknown = replace(found, mainboard=replace(found.mainboard, card_slots=None))
    assert (
        "is not known to have a slot"
        in dict(missed(unknown, floors_of(world(), asked)))["later_second"]
    )
    bare = replace(found, graphics=None)
    if not bare.missing():
        assert "no graphics card" in dict(missed(bare, floors_of(world(), asked)))["later_second"]
