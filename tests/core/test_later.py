"""Room for a card and sticks to come: supply, case and cooling are sized for them, at a price."""

from dataclasses import replace
from pathlib import Path

import pytest

from wattmetron.core.fit.floors import floors_of, missed
from wattmetron.core.fit.later import later_card, with_later
from wattmetron.core.fit.rules import blocks
from wattmetron.core.fit.wishes import wishes_of
from wattmetron.core.power.draw import draw
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import Build
from wattmetron.demo import generate
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.services.advice.wish_costs import wish_costs
from wattmetron.services.desk.assess import known_brief
from wattmetron.study.keeper import Keeper

WORLD = read_catalogue(Path(generate.__file__).parent / "catalogue").kept_by(Keeper())
LOFT, _ = generate.briefs(WORLD)["net-loft"]
LOFT = replace(LOFT, budget_high_minor=200_000)
STRONG = max(WORLD.by_kind["graphics"], key=lambda card: card.board_power_w)


def test_the_proposal_takes_the_card_and_its_price_is_told():
    plain = propose(WORLD, LOFT, "least money")
    asked = replace(LOFT, later_card=STRONG.id)
    found = propose(WORLD, asked, "least money")
    machine = WORLD.machine(found.build)
    later = with_later(machine, STRONG)
    wishes = replace(wishes_of(asked), display=None)
    assert not blocks(later, wishes)
    full_w = draw(later).full_w
    assert machine.supply.watts >= full_w * 1.4 and machine.supply.watts >= full_w * 1.1
    assert machine.case.card_length_mm >= STRONG.length_mm
    before = WORLD.machine(plain.build)
    if blocks(with_later(before, STRONG), wishes):
        assert found.cost_minor > plain.cost_minor
    (told,) = [own for own in wish_costs(WORLD, asked, Build()) if own.wish.name == "later_card"]
    assert told.cost_minor is not None
    assert not [*missed(machine, floors_of(WORLD, asked))]
    field = [name for name, _ in missed(before, floors_of(WORLD, asked))]
    assert field == (["later_card"] if found.cost_minor > plain.cost_minor else [])


@pytest.mark.parametrize(("watts", "plugs"), [(75, 0), (76, 1), (225, 1), (226, 2), (450, 3)])
def test_a_card_of_so_many_watts_needs_so_many_plugs(watts, plugs):
    """75 W from the slot, 150 W from each 8-pin lead."""
    card = later_card(WORLD, replace(LOFT, later_card_w=watts, later_card_mm=310))
    assert (card.pcie_8pin, card.board_power_w, card.length_mm) == (plugs, watts, 310)


def test_sticks_to_come_have_their_slots():
    for sticks in (1, 2):
        build = propose(WORLD, replace(LOFT, later_sticks=sticks), "least money").build
        machine = WORLD.machine(build)
        assert machine.mainboard.memory_slots - machine.memory.sticks >= sticks
    asked = replace(LOFT, later_sticks=3, targets=())
    two = next(board for board in WORLD.by_kind["mainboard"] if board.memory_slots == 2)
    pair = next(kit for kit in WORLD.by_kind["memory"] if kit.sticks == 2)
    said = dict(missed(replace(machine, mainboard=two, memory=pair), floors_of(WORLD, asked)))
    assert said["later_sticks"].endswith(
        "has no memory slots left; 3 are to stay free for sticks to come."
    )


def test_a_card_that_the_catalogue_lost_does_not_count():
    gone = replace(LOFT, later_card="sunken-card", later_card_w=300)
    assert later_card(WORLD, gone) is None
    assert known_brief(WORLD, gone).later_card == ""
