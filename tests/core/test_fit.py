"""Fit rules, each with a machine that passes and one that fails; remedies; power; boards of the rules."""

from dataclasses import replace

import pytest

from wattmetron.core.briefs import Build
from wattmetron.core.fit import check
from wattmetron.core.fit.remedies import remedies
from wattmetron.core.fit.waste import does_as_much, weighed
from wattmetron.core.machine import Machine, memory_class
from wattmetron.core.power.draw import draw, needed_supply_w, rest_w, spike_of_card_w
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue

CATALOGUE_READ = read_catalogue(CATALOGUE)
GOOD = Build(
    processor="quillon-cutter-flood-6",
    graphics="pellworth-reef-16-plain",
    mainboard="pellworth-quay-full-five",
    memory="bramblebyte-thorn-32-pair-ddr5",
    storage=("ledgerock-ledge-1000",),
    cooler="coldreach-gust",
    supply="ampherst-steady-650",
    case="boxwood-yard-crate-mesh",
)


def machine(**changes) -> Machine:
    """The good machine with figures of its parts changed: ``graphics={"length_mm": 400}``."""
    found = CATALOGUE_READ.machine(GOOD)
    for place, figures in changes.items():
        part = getattr(found, place)
        if figures is None:
            found = replace(found, **{place: None})
        elif place == "storage":
            found = replace(found, storage=figures)
        else:
            found = replace(found, **{place: replace(part, **figures)})
    return found


def levels(found: Machine) -> dict[str, str]:
    return {finding.rule: finding.level for finding in check(found)}


def test_the_good_machine_has_no_finding():
    assert levels(machine()) == {}
    assert machine().missing() == ()


@pytest.mark.parametrize(
    ("rule", "level", "changes", "just_right"),
    [
        ("socket", "blocks", {"mainboard": {"socket": "Rudder"}}, {}),
        ("memory type", "blocks", {"memory": {"memory_type": "DDR4"}}, {}),
        ("memory slots", "blocks", {"memory": {"sticks": 5, "stick_gb": 8.0}}, {"memory": {"sticks": 4}}),
        ("memory capacity", "blocks", {"memory": {"stick_gb": 97.0}}, {"memory": {"stick_gb": 96.0}}),
        ("memory channels", "wastes", {"memory": {"sticks": 1}}, {"memory": {"sticks": 2}}),
        ("memory speed", "wastes", {"memory": {"mts": 6600}}, {"memory": {"mts": 6400}}),
        (
            "board form factor",
            "blocks",
            {"mainboard": {"form_factor": "E-ATX"}},
            {"mainboard": {"form_factor": "Mini-ITX"}},
        ),
        ("card length", "blocks", {"graphics": {"length_mm": 346}}, {"graphics": {"length_mm": 345}}),
        ("cooler height", "blocks", {"cooler": {"height_mm": 164}}, {"cooler": {"height_mm": 163}}),
        ("supply form factor", "blocks", {"supply": {"form": "SFX"}}, {}),
        ("cooler socket", "blocks", {"cooler": {"sockets": ("Rudder",)}}, {}),
        ("cooler capacity", "blocks", {"cooler": {"capacity_w": 87}}, {"cooler": {"capacity_w": 88}}),
        ("boxed cooler", "blocks", {"cooler": None, "processor": {"boxed_cooler_w": 65}}, {}),
        ("boxed cooler", "good to know", {"cooler": None}, {}),
        ("supply watts", "blocks", {"supply": {"watts": 443}}, {"supply": {"watts": 444}}),
        ("supply spikes", "blocks", {"supply": {"spike_w": 370}}, {"supply": {"spike_w": 371}}),
        ("supply connectors", "blocks", {"supply": {"pcie_8pin": 0}}, {"supply": {"pcie_8pin": 1}}),
        ("supply connectors", "blocks", {"graphics": {"pcie_16pin": 1}}, {}),
        ("supply connectors", "blocks", {"mainboard": {"cpu_8pin": 3}}, {"mainboard": {"cpu_8pin": 2}}),
        ("graphics output", "blocks", {"graphics": {"outputs": ()}}, {}),
        (
            "graphics output",
            "blocks",
            {"graphics": None, "processor": {"igpu_speed": None}},
            {"graphics": None},
        ),
        ("graphics output", "blocks", {"graphics": None, "mainboard": {"outputs": ()}}, {}),
        ("drive places", "blocks", {"mainboard": {"m2_slots": 0}}, {"mainboard": {"m2_slots": 1}}),
        (
            "card slot",
            "good to know",
            {"mainboard": {"card_pcie_gen": 3}},
            {"mainboard": {"card_pcie_gen": 4}},
        ),
    ],
)
def test_rule_at_its_edge(rule, level, changes, just_right):
    findings = [one for one in check(machine(**changes)) if one.rule == rule]
    assert [one.level for one in findings] == [level]
    assert findings[0].sentence.endswith(".") and findings[0].advice.endswith(".")
    assert rule not in levels(machine(**just_right))


def test_draw_and_supply_worked_by_hand():
    found = draw(machine())
    # processor 88 W, card 178 W x 1.3, board 30 + fans 8 + 2 sticks x 3 + one NVMe drive 7
    assert rest_w(2, 1, 0) == 51
    assert found.full_w == 88 + 178 + 51
    assert spike_of_card_w(178, 1.3) == 232
    assert found.spike_w == 88 + 232 + 51
    assert needed_supply_w(314, 140) == 440
    assert needed_supply_w(found.full_w, 140) == 444


def test_supply_watts_follow_headroom():
    tight = machine(supply={"watts": 400})
    assert [one.rule for one in check(tight, 140)] == ["supply watts"]
    assert check(tight, 120) == ()


def test_missing_kinds_depend_on_what_is_there():
    found = CATALOGUE_READ.machine(replace(GOOD, graphics=None, cooler=None))
    assert found.missing() == ()
    bare = CATALOGUE_READ.machine(Build())
    assert bare.missing() == (
        "processor",
        "graphics",
        "mainboard",
        "memory",
        "storage",
        "cooler",
        "supply",
        "case",
    )


def test_memory_class_takes_the_least_rate_and_keeps_the_kits_latency():
    slow_board = machine(mainboard={"memory_max_mts": 4800}, memory={"mts": 6000, "cl": 30})
    seen = memory_class(slow_board.processor, slow_board.mainboard, slow_board.memory)
    assert (seen.mts, seen.channels) == (4800, 2)
    assert seen.latency_ns == pytest.approx(10.0)
    assert seen.bandwidth_gbs == pytest.approx(2 * 8 * 4.8)


def test_remedies_are_the_cheapest_that_clear_the_finding():
    build = replace(GOOD, case="lidd-frame-porthole", graphics="kitefall-pharos-16-triple")
    book = CATALOGUE_READ.prices("vellmouth", False)
    found = next(one for one in check(CATALOGUE_READ.machine(build)) if one.rule == "card length")
    best = remedies(CATALOGUE_READ, book, build, found, 140)[0]
    assert best.kind == "case"
    longer = [
        book.delivered(case.id)
        for case in CATALOGUE_READ.by_kind["case"]
        if case.card_length_mm >= 335
        and "ATX" in case.board_forms
        and "ATX" in case.supply_forms
        and book.delivered(case.id)
    ]
    assert best.delivered_minor == min(longer)
    assert all(one.rule != "card length" for one in check(CATALOGUE_READ.machine(best.build)))


def test_a_kit_too_fast_for_the_board_is_waste_only_where_a_cheaper_one_does_as_much():
    """A 6000 CL30 kit on a board that stops at 5600: its 10.0 ns count, its rate does not."""
    fast = replace(machine(mainboard={"memory_max_mts": 5600}).memory, id="fast", mts=6000, cl=30)
    as_quick = replace(fast, id="as-quick", mts=5600, cl=28)
    slower = replace(fast, id="slower", mts=5600, cl=30)
    halved = replace(as_quick, id="halved", stick_gb=fast.stick_gb / 2)
    there = replace(machine(mainboard={"memory_max_mts": 5600}), memory=fast)
    assert [does_as_much(there, one) for one in (as_quick, slower, halved)] == [True, False, False]

    offer = next(one for one in CATALOGUE_READ.offers if one.region == "vellmouth" and one.in_stock)
    for price, level in ((5_000, "wastes"), (15_000, "good to know")):
        kits = (fast, as_quick, slower, halved)
        offers = tuple(
            replace(offer, part_id=one.id, price_minor=10_000 if one is fast else price, condition="new")
            for one in kits
        )
        shelf = replace(CATALOGUE_READ, parts={one.id: one for one in kits}, offers=offers)
        found = weighed(check(there), there, shelf, shelf.prices("vellmouth", False))
        assert [one.level for one in found if one.rule == "memory speed"] == [level]


def test_no_remedy_trades_one_waste_for_another():
    """Every remedy of a waste clears it, adds none, blocks nothing and keeps the memory's capacity."""
    book, seen = CATALOGUE_READ.prices("vellmouth", False), 0
    for kit in CATALOGUE_READ.by_kind["memory"]:
        build = replace(GOOD, memory=kit.id)
        before = check(CATALOGUE_READ.machine(build))
        for finding in (one for one in before if one.level == "wastes"):
            for remedy in remedies(CATALOGUE_READ, book, build, finding, 140):
                after = CATALOGUE_READ.machine(remedy.build)
                left = check(after)
                assert finding.rule not in [one.rule for one in left]
                assert sum(one.level == "wastes" for one in left) < sum(one.level == "wastes" for one in before)
                assert after.memory.total_gb >= kit.total_gb
                seen += 1
    assert seen
