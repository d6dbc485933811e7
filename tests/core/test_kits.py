"""Several memory kits: together as wide as all their sticks and as quick as the slowest; kept,
proposed around, saved.
"""

from dataclasses import replace

import pytest

from tests.core.test_compatibility_rules import BOARD, CHIP, KIT
from tests.demo import bench, bench_build, world
from wattmetron.core.compatibility.rules import check
from wattmetron.core.errors import BuildError
from wattmetron.core.frames.memory_class import memory_class
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import MAX_KITS, Build
from wattmetron.core.values.kits import joined
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.formats.brief_file import build_file, build_from
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import finding_remedies
from wattmetron.shell.address import decode_build, encode_build

SINGLE = replace(KIT, id="single", sticks=1, stick_gb=16)
KIT_ID = "bramblebyte-plain-16-single-ddr4"


def test_two_single_sticks_are_a_pair_by_hand():
    pair = joined((SINGLE, SINGLE))
    assert (pair.sticks, pair.total_gb, pair.mts, pair.cl, pair.id) == (
        2,
        32,
        3600,
        16,
        "single+single",
    )
    alike = replace(KIT, stick_gb=16)
    item, two, same = (memory_class(CHIP, BOARD, kit) for kit in (SINGLE, pair, alike))
    assert (
        two.channels == 2
        and item.channels == 1
        and (two.bandwidth_gbs, two.latency_ns) == (same.bandwidth_gbs, same.latency_ns)
    )
    assert two.bandwidth_gbs > 1.9 * item.bandwidth_gbs
    assert joined(()) is None and joined((KIT,)) is KIT


def test_different_kits_run_at_the_slowest_by_hand():
    """3600 CL16 is 8.89 ns, 3200 CL18 is 11.25 ns: together 3200 at CL18, the height of the
    taller.
    """
    slow = replace(KIT, id="slow", mts=3200, cl=18, sticks=2, stick_gb=4, height_mm=44, ranks=2)
    both = joined((KIT, slow))
    assert (both.mts, both.cl, both.sticks, both.total_gb, both.height_mm, both.ranks) == (
        3200,
        18,
        4,
        24,
        44,
        1,
    )
    assert joined((KIT, replace(slow, height_mm=None))).height_mm is None
    assert joined((replace(KIT, registered=True), slow)).registered


def test_kits_are_added_swapped_and_taken_out_one_by_one():
    two = bench_build().with_kit(KIT_ID)
    assert two.of("memory") == (KIT_ID, KIT_ID) and two.without("memory", KIT_ID) == bench_build()
    other = two.with_part("memory", "quickfen-marram-16-single-ddr4", KIT_ID)
    assert other.of("memory") == ("quickfen-marram-16-single-ddr4", KIT_ID) or other.of(
        "memory"
    ) == (KIT_ID, "quickfen-marram-16-single-ddr4")
    assert Build().with_kit(KIT_ID).of("memory") == (KIT_ID,)
    with pytest.raises(BuildError, match=f"at most {MAX_KITS} memory kits"):
        full = two
        for _ in range(MAX_KITS):
            full = full.with_kit(KIT_ID)
    assert build_from(build_file(two)) == two
    assert (
        decode_build(encode_build(two, bench_build()), bench_build()) == two
        and decode_build(encode_build(bench_build(), two), two) == bench_build()
    )


def test_a_second_stick_ends_the_waste_of_a_single_one_and_brings_frames():
    item, two = (
        assess(world(), bench(), build) for build in (bench_build(), bench_build().with_kit(KIT_ID))
    )
    assert "memory channels" in [found.rule for found in item.findings]
    assert "memory channels" not in [found.rule for found in two.findings]
    assert two.draw.rest_w == item.draw.rest_w + 3
    rates = [
        (before.average_fps, after.average_fps)
        for before, after in zip(item.estimates, two.estimates, strict=True)
    ]
    assert all(after >= before for before, after in rates) and any(
        after > 1.02 * before for before, after in rates
    )
    assert [line.owned for line in two.lines if line.kind == "memory"] == [True, False]
    assert two.parts_minor - item.parts_minor == world().prices(bench().region, ANY_PARTS).cost(
        KIT_ID
    )


def test_another_stick_is_offered_against_the_waste_where_a_slot_is_free():
    now = assess(world(), bench(), bench_build())
    waste = next(finding for finding in now.findings if finding.rule == "memory channels")
    first = finding_remedies(world(), now, waste)[0]
    assert first.build == bench_build().with_kit(
        KIT_ID
    ) and first.delivered_minor == world().prices(bench().region, ANY_PARTS).cost(KIT_ID)
    full = assess(
        world(), bench(), bench_build().with_part("mainboard", "saltgrove-mole-mini-bollard")
    )
    assert full.machine.mainboard.memory_slots == 2
    wide = assess(world(), bench(), bench_build().with_kit(KIT_ID))
    assert not [finding for finding in wide.findings if finding.rule == "memory channels"]


def test_a_proposal_keeps_kits_that_stay_and_fits_the_rest_around_them():
    brief = replace(bench(), owned=(), budget_high_minor=90_000, memory_gb=8.0)
    kept = Build().with_kit(KIT_ID).with_kit(KIT_ID).keeping(KIT_ID, True)
    found = propose(world(), brief, build=kept).build
    assert found.of("memory") == (KIT_ID, KIT_ID)
    machine = world().machine(found)
    assert (
        machine.memory.sticks == 2 <= machine.mainboard.memory_slots
        and machine.mainboard.memory_type == "DDR4"
    )
    assert not [item for item in check(machine) if item.level == "blocks"]
