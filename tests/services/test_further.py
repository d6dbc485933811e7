"""Parts besides the eight kinds: several of each, paid or not, left alone by proposals, checked,
saved and opened.
"""

from dataclasses import replace

import pytest

from wattmetron.core.errors import BuildError
from wattmetron.core.search.proposal import besides_minor, propose
from wattmetron.core.values.build import MAX_ADDED
from wattmetron.core.values.parts import FURTHER_KINDS, KINDS
from wattmetron.demo import generate
from wattmetron.formats.brief_file import brief_file, brief_from, build_file, build_from
from wattmetron.services.advice.proposals import answer, kept_parts
from wattmetron.services.desk.assess import assess, remaining
from wattmetron.services.desk.cures import cure

WORLD = generate.catalogue()
BRIEF, BUILD = generate.briefs(WORLD)["net-loft"]
BOOK = WORLD.prices(BRIEF.region, BRIEF.may_buy)
FULL = (
    BUILD.with_part("fan", "coldreach-sail-120")
    .with_part("fan", "coldreach-sail-120")
    .with_part("display", "saltgrove-casement-27")
    .with_part("system", "tidewater-11-home")
)


def price(*ids: str) -> int:
    return sum(BOOK.cost(part_id) for part_id in ids)


def test_several_of_a_kind_are_held_counted_and_taken_out_one_by_one():
    assert (
        FULL.of("fan") == ("coldreach-sail-120",) * 2
        and len(list(FULL.ids())) == len(list(BUILD.ids())) + 4
    )
    now = assess(WORLD, BRIEF, FULL)
    assert now.machine.fans == now.machine.case.fans_included + 2
    added = price(
        "coldreach-sail-120", "coldreach-sail-120", "saltgrove-casement-27", "tidewater-11-home"
    )
    assert (
        now.parts_minor - assess(WORLD, BRIEF, BUILD).parts_minor
        == added
        == besides_minor(WORLD, BRIEF, FULL) - BRIEF.extras_minor
    )
    assert FULL.without("fan", "coldreach-sail-120").of("fan") == ("coldreach-sail-120",)
    many = FULL
    with pytest.raises(BuildError, match=f"at most {MAX_ADDED} further parts"):
        for _ in range(MAX_ADDED):
            many = many.with_part("fan", "coldreach-sail-120")


def test_another_purse_and_owned_ones_cost_nothing_but_are_there():
    brief = replace(BRIEF, outside=("display",), owned=("tidewater-11-home",))
    now = assess(WORLD, brief, FULL)
    lines = {line.part_id: line for line in now.lines}
    assert lines["saltgrove-casement-27"].outside and lines["saltgrove-casement-27"].cost_minor == 0
    assert lines["tidewater-11-home"].owned and besides_minor(WORLD, brief, FULL) == price(
        *("coldreach-sail-120",) * 2
    )


def test_a_proposal_keeps_them_and_has_so_much_less_to_spend():
    """The same as the bare question with a budget that is lower by their price."""
    kept = kept_parts(WORLD, BRIEF, FULL)
    assert kept.of("fan") == () and not any(kept.of(kind) for kind in KINDS)
    assert kept.of("system") == FULL.of("system") and kept.of("display") == FULL.of("display")
    held = kept_parts(WORLD, BRIEF, FULL.keeping("coldreach-sail-120", True))
    assert held.added == FULL.added
    found = propose(WORLD, BRIEF, kept=kept)
    lower = replace(
        BRIEF,
        budget_low_minor=0,
        budget_high_minor=BRIEF.budget_high_minor - besides_minor(WORLD, BRIEF, kept),
    )
    plain = propose(WORLD, lower)
    assert {*kept.added} <= {*found.build.added} and found.cost_minor == plain.cost_minor
    assert all(found.build.of(kind) == plain.build.of(kind) for kind in KINDS)
    told = answer(WORLD, BRIEF, FULL, "most frames")
    assert told.assessment.spent_minor <= BRIEF.budget_high_minor


def test_what_is_missing_and_what_clears_leave_them_alone():
    part = FULL.without("case", FULL.case)
    left = remaining(WORLD, assess(WORLD, BRIEF, part))
    assert left.build.added == FULL.added and left.least_minor == price(left.build.case)
    brief, build = generate.briefs(WORLD)["signal-tower"]
    found = cure(WORLD, assess(WORLD, brief, build.with_part("fan", "fennwick-vane-120")))
    assert found.build.of("fan") == ("fennwick-vane-120",) and found.changed == ("supply", "case")


def test_files_hold_them():
    assert build_from(build_file(FULL)) == FULL
    outside = replace(BRIEF, outside=("display", "input"))
    assert brief_from(brief_file(outside)) == outside
    assert {kind for kind in FURTHER_KINDS if WORLD.by_kind[kind]} == set(FURTHER_KINDS)


def test_what_the_brief_does_not_allow_is_said_of_bought_parts_alone():
    brief, build = generate.briefs(WORLD)["signal-tower"]
    strict = replace(brief, part_cap_minor=50_000)
    card, supply = (WORLD.parts[item].name for item in (build.graphics, build.supply))
    said = assess(WORLD, strict, build).floors
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
        for floor in assess(WORLD, free, build).floors
        if card in floor or f"{supply} is" in floor
    ]
    loose = replace(brief, trust_floor="anything")
    assert not [floor for floor in assess(WORLD, loose, build).floors if f"{supply} is" in floor]
