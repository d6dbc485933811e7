"""Parts besides the eight kinds: several of each, paid or not, left alone by proposals, checked,
saved and opened.
"""

from dataclasses import replace
from functools import cache

import pytest

from tests.demo import loft, loft_build, plans, world
from wattmetron.core.errors import BuildError
from wattmetron.core.search.proposal import besides_minor, propose
from wattmetron.core.values.build import MAX_ADDED
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KINDS
from wattmetron.formats.brief_file import brief_file, brief_from, build_file, build_from
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import remaining
from wattmetron.places.compatibility.cures import cure
from wattmetron.places.proposal.proposals import answer, kept_parts


@cache
def book():
    return world().prices(loft().region, loft().may_buy)


@cache
def full():
    return (
        loft_build()
        .with_part("fan", "coldreach-sail-120")
        .with_part("fan", "coldreach-sail-120")
        .with_part("display", "saltgrove-casement-27")
        .with_part("system", "tidewater-11-home")
    )


def price(*ids: str) -> int:
    return sum(book().cost(part_id) for part_id in ids)


def test_several_of_a_kind_are_held_counted_and_taken_out_one_by_one():
    assert (
        full().of("fan") == ("coldreach-sail-120",) * 2
        and len(list(full().ids())) == len(list(loft_build().ids())) + 4
    )
    now = assess(world(), loft(), full())
    assert now.machine.fans == now.machine.case.fans_included + 2
    added = price(
        "coldreach-sail-120", "coldreach-sail-120", "saltgrove-casement-27", "tidewater-11-home"
    )
    assert (
        now.parts_minor - assess(world(), loft(), loft_build()).parts_minor
        == added
        == besides_minor(world(), loft(), full()) - loft().extras_minor
    )
    assert full().without("fan", "coldreach-sail-120").of("fan") == ("coldreach-sail-120",)
    many = full()
    with pytest.raises(BuildError, match=f"at most {MAX_ADDED} further parts"):
        for _ in range(MAX_ADDED):
            many = many.with_part("fan", "coldreach-sail-120")


def test_another_purse_and_owned_ones_cost_nothing_but_are_there():
    brief = replace(loft(), outside=("display",), owned=("tidewater-11-home",))
    now = assess(world(), brief, full())
    lines = {line.part_id: line for line in now.lines}
    assert lines["saltgrove-casement-27"].outside and lines["saltgrove-casement-27"].cost_minor == 0
    assert lines["tidewater-11-home"].owned and besides_minor(world(), brief, full()) == price(
        *("coldreach-sail-120",) * 2
    )


def test_a_proposal_keeps_them_and_has_so_much_less_to_spend():
    """The same as the bare question with a budget that is lower by their price."""
    kept = kept_parts(world(), loft(), full())
    assert kept.of("fan") == () and not any(kept.of(kind) for kind in KINDS)
    assert kept.of("system") == full().of("system") and kept.of("display") == full().of("display")
    held = kept_parts(world(), loft(), full().keeping("coldreach-sail-120", True))
    assert held.added == full().added
    found = propose(world(), loft(), build=kept)
    lower = replace(
        loft(),
        budget_low_minor=0,
        budget_high_minor=loft().budget_high_minor - besides_minor(world(), loft(), kept),
    )
    plain = propose(world(), lower)
    assert {*kept.added} <= {*found.build.added} and found.cost_minor == plain.cost_minor
    assert all(found.build.of(kind) == plain.build.of(kind) for kind in KINDS)
    told = answer(world(), loft(), full(), "most frames")
    assert told.assessment.spent_minor <= loft().budget_high_minor


def test_what_is_missing_and_what_clears_leave_them_alone():
    part = full().without("case", full().case)
    left = remaining(world(), assess(world(), loft(), part))
    assert left.build.added == full().added and left.least_minor == price(left.build.case)
    brief, build = plans()["signal-tower"]
    found = cure(world(), assess(world(), brief, build.with_part("fan", "fennwick-vane-120")))
    assert found.build.of("fan") == ("fennwick-vane-120",) and found.changed == ("supply", "case")


def test_files_hold_them():
    assert build_from(build_file(full())) == full()
    outside = replace(loft(), outside=("display", "input"))
    assert brief_from(brief_file(outside)) == outside
    assert {kind for kind in FURTHER_KINDS if world().by_kind[kind]} == set(FURTHER_KINDS)


def test_what_the_brief_does_not_allow_is_said_of_bought_parts_alone():
    brief, build = plans()["signal-tower"]
    strict = replace(brief, part_cap_minor=50_000)
    card, supply = (world().parts[item].name for item in (build.graphics, build.supply))
    said = assess(world(), strict, build).floors
    over = price(build.graphics) - 50_000
    assert any(
        f"{card} costs EUR\u00a0{over / 100:.2f} more than the brief allows" in word
        for word in said
    )
    assert any(
        f"{supply} is doubtful (14 reviews average 51 %" in word
        and "the brief wants nothing doubtful" in word
        for word in said
    )
    free = replace(strict, owned=(build.graphics, build.supply))
    assert not [
        floor
        for floor in assess(world(), free, build).floors
        if card in floor or f"{supply} is" in floor
    ]
    loose = replace(brief, trust_floor="anything")
    assert not [floor for floor in assess(world(), loose, build).floors if f"{supply} is" in floor]
