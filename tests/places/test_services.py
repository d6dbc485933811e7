"""What pages and programs share: swaps, what is missing, accounts, relaxations, workings, edits."""

import re
from dataclasses import replace
from datetime import date
from urllib.parse import parse_qsl, urlsplit

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests import demo
from tests.bench.highs import least_money
from tests.core.brute import every_build
from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.compatibility.floors_of_brief import memory_floor_gb, storage_floor
from wattmetron.core.compatibility.rules import blocks, check
from wattmetron.core.errors import BriefError, BuildError, InvalidError
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.required_speedup import needed_speedup
from wattmetron.core.frames.working import frame_working
from wattmetron.core.search.proposal import cheapest_fit, propose
from wattmetron.core.values.build import Build, OwnTuning
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.core.values.plan import Plan
from wattmetron.formats.brief_file import build_file, read_build
from wattmetron.formats.plan_file import from_document, to_document
from wattmetron.places.assessment import brief_edits
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import finding_remedies, remaining
from wattmetron.places.measured.memory_set import memory_as_set, memory_said, with_memory
from wattmetron.places.proposal.part_traits import traits
from wattmetron.places.proposal.proposals import answer, reasons_of
from wattmetron.places.proposal.swaps import SwapQuery, swap
from wattmetron.shell.address import DeskQuery, decode_build, encode_build

NAMES = ("net-loft", "harbour-hall", "ferry-bunk", "chart-room", "signal-tower")


@pytest.mark.parametrize("kind", KINDS)
def test_a_swap_says_what_the_swapped_build_really_does(kind):
    brief, build = demo.plan("net-loft")
    now = assess(demo.world(), brief, build)
    present = build.of(kind)[0] if build.of(kind) else None
    found = swap(demo.world(), now, SwapQuery(kind=kind, present=present))
    prices = [candidate.cost_minor for candidate in found.candidates]
    assert prices == sorted(prices) and len(prices) > 2
    for candidate in found.candidates:
        after = assess(demo.world(), brief, candidate.build)
        if not candidate.present:
            assert candidate.change_minor == after.spent_minor - now.spent_minor
            assert not any(f.level == "blocks" and kind in f.kinds for f in after.findings)
        for effect, exact in zip(candidate.effects, after.estimates, strict=True):
            assert effect.state == exact.state
            if exact.average_fps:
                assert effect.fps == pytest.approx(exact.judged_fps)
        assert all(traits(candidate.part))
    everything = swap(
        demo.world(), now, SwapQuery(kind=kind, present=present, everything=True, with_unfit=True)
    )
    on_sale = [
        p
        for p in demo.world().by_kind[kind]
        if demo.world().prices("vellmouth", NEW_PARTS).cost(p.id) is not None
    ]
    assert {candidate.part.id for candidate in everything.candidates} == {
        part.id for part in on_sale
    } | set(build.of(kind))
    named = swap(demo.world(), now, SwapQuery(kind=kind, present=present, search=on_sale[0].name))
    assert on_sale[0].id in {candidate.part.id for candidate in named.candidates}


@exhaustive
@pytest.mark.parametrize("seed", range(extent(4, 12)))
def test_the_least_that_missing_kinds_cost_equals_brute_force(seed):
    world = World(seed + 900)
    catalogue = world.catalogue(per_kind=3, games=2)
    brief = replace(world.brief(catalogue, targets=1), accept_spill=True)
    build = Build()
    for kind in ("processor", "case", "memory")[: 1 + seed % 3]:
        build = build.with_part(kind, catalogue.by_kind[kind][seed % 3].id)
    now = assess(catalogue, brief, build)
    left = remaining(catalogue, now)
    floors = replace(
        brief,
        targets=(),
        memory_gb=memory_floor_gb(catalogue, brief),
        storage_gb=storage_floor(catalogue, brief).all_gb,
    )
    every = every_build(catalogue, floors, build)
    if not every:
        assert left is None or left.least_minor is None
        return
    assert left.least_minor == min(item.cost for item in every) - now.parts_minor
    filled = assess(catalogue, brief, left.build)
    assert filled.missing == () and filled.blocking == 0
    assert filled.parts_minor == now.parts_minor + left.least_minor


@exhaustive
@pytest.mark.parametrize("seed", range(extent(3, 6)))
def test_least_money_equals_an_integer_program(seed):
    world = World(seed + 300)
    catalogue = world.catalogue(per_kind=14, games=3)
    bare = {
        key: replace(part, igpu_speed=None) if hasattr(part, "igpu_speed") else part
        for key, part in catalogue.parts.items()
    }
    games = {key: replace(game, engine_cap_fps=None) for key, game in catalogue.games.items()}
    catalogue = replace(catalogue, parts=bare, games=games).kept_by(Keeper())
    brief = replace(world.brief(catalogue, targets=3), accept_spill=False, part_cap_minor=None)
    found = propose(catalogue, brief, "least money")
    assert (found.cost_minor if found.build else None) == least_money(catalogue, brief)


@exhaustive
@pytest.mark.parametrize("name", extent(NAMES[1:3], NAMES))
@pytest.mark.parametrize("aim", ["most frames", "least money"])
def test_every_demo_brief_gets_an_answer_that_can_be_defended(name, aim):
    brief, build = demo.plan(name)
    found = answer(demo.world(), brief, build, aim)
    if found.assessment is None:
        assert found.relaxations
        for relaxation in found.relaxations:
            targets = tuple(
                relaxation.target if t.id == relaxation.target.id else t for t in brief.targets
            )
            again = propose(demo.world(), replace(brief, targets=targets), "least money")
            assert again.build is not None
            assert again.cost_minor + brief.extras_minor == relaxation.cost_minor
        return
    whole = found.assessment
    assert whole.missing == () and whole.blocking == 0 and whole.floors == ()
    assert whole.parts_minor == found.proposal.cost_minor
    assert len(reasons_of(demo.world(), whole)) == len(whole.lines)
    assert all(reason.sentence.endswith(".") for reason in reasons_of(demo.world(), whole))
    if aim == "most frames":
        assert whole.spent_minor <= brief.budget_high_minor
        assert found.proposal.weight_met == sum(
            item.target.weight for item in whole.counted if item.state == "meets"
        )
    else:
        assert all(item.state == "meets" for item in whole.counted)


def test_more_money_never_meets_less():
    brief, _ = demo.plan("net-loft")
    reached = []
    for budget in range(70_000, 200_000, 10_000):
        found = propose(demo.world(), replace(brief, budget_high_minor=budget, budget_low_minor=0))
        reached.append((found.weight_met, found.best_gain) if found.build else (-1, 0))
    assert reached == sorted(reached)
    assert reached[0] < reached[-1]


def test_the_same_question_gets_the_same_answer_in_any_order_of_the_catalogue():
    brief, _ = demo.plan("harbour-hall")
    turned = replace(
        demo.world(),
        parts=dict(reversed(list(demo.world().parts.items()))),
        offers=tuple(reversed(demo.world().offers)),
    )
    assert propose(turned, brief) == propose(demo.world(), brief)


def test_the_sent_in_list_is_reviewed_and_its_remedies_work():
    brief, build = demo.plan("signal-tower")
    now = assess(demo.world(), brief, build)
    found = {finding.rule: finding for finding in now.findings}
    assert {"card length", "supply spikes", "card leads", "memory channels"} <= set(found)
    for finding in now.findings:
        for remedy in finding_remedies(demo.world(), now, finding):
            after = check(demo.world().machine(remedy.build))
            assert finding.rule not in {item.rule for item in after}


def test_filling_a_build_by_hand_stays_consistent():
    brief, _ = demo.plan("net-loft")
    build = Build()
    for kind in (
        "graphics",
        "case",
        "processor",
        "mainboard",
        "memory",
        "storage",
        "supply",
        "cooler",
    ):
        now = assess(demo.world(), brief, build)
        left = remaining(demo.world(), now)
        if left is None:
            break
        assert now.left_minor == brief.budget_high_minor - now.parts_minor
        offered = swap(demo.world(), now, SwapQuery(kind=kind)).candidates
        build = offered[min(4, len(offered) - 1)].build
    whole = assess(demo.world(), brief, build)
    assert whole.missing == () and not blocks(whole.machine)
    assert remaining(demo.world(), whole) is None


def test_workings_end_in_the_figures_shown():
    brief, build = demo.plan("net-loft")
    now = assess(demo.world(), brief, build)
    for run in now.estimates:
        steps = {step.title: step.result for step in frame_working(now.machine, run, brief)}

        def figure(title, steps=steps):
            return float(re.match(r"±?([\d.]+)", steps[title])[1])

        assert figure("Processor time t_c") == pytest.approx(run.processor_ms, abs=0.006)
        assert figure("Graphics time t_g") == pytest.approx(run.graphics_ms, abs=0.006)
        assert figure("Average frame rate") == pytest.approx(run.average_fps, abs=0.06)
        assert figure("Reached with that sureness") == pytest.approx(run.reliable_fps, abs=0.06)


def test_the_speed_that_a_short_target_needs_is_just_enough():
    brief, build = demo.plan("net-loft")
    now = assess(demo.world(), brief, build)
    tried = 0
    for each_estimate in now.estimates:
        needed = needed_speedup(each_estimate, brief.chance)
        if each_estimate.state == "meets" or not needed.processor:
            continue
        for factor, state in (
            (needed.processor * 1.01, "meets"),
            (needed.processor * 0.99, "unsure"),
        ):
            chip = now.machine.processor
            faster = replace(
                chip,
                single_speed=chip.single_speed * factor,
                all_core_speed=chip.all_core_speed * factor,
            )
            after = estimate(
                replace(now.machine, processor=faster),
                each_estimate.game,
                each_estimate.target,
                brief,
            )
            assert after.state == state
            tried += 1
    assert tried


@settings(max_examples=60)
@given(st.data())
def test_tried_builds_survive_the_address(data):
    def some(kind):
        return data.draw(st.sampled_from([None, *(part.id for part in demo.world().by_kind[kind])]))

    def drawn():
        drives = tuple(item for item in (some("storage"), some("storage")) if item)
        return Build(**{kind: some(kind) for kind in KINDS if kind != "storage"}, storage=drives)

    item, other = drawn(), drawn()
    assert decode_build(encode_build(item, other), other) == item
    query = DeskQuery(
        view="frames", tried=encode_build(item, other), swap="case", working="t1", everything=True
    )
    address = query.url(7)
    said = dict(parse_qsl(urlsplit(address).query, keep_blank_values=True))
    assert DeskQuery.model_validate({**said, "view": "frames"}) == query


def test_plans_round_trip_as_documents():
    for name in NAMES:
        brief, build = demo.plan(name)
        plan = Plan(brief, build, Build(case="lidd-frame-bunk"))
        assert from_document(to_document(plan)) == plan


def test_builds_refuse_what_cannot_be():
    full = Build(storage=("a",) * 8)
    with pytest.raises(BuildError, match="at most 8"):
        full.with_part("storage", "b")
    with pytest.raises(BuildError, match="no longer"):
        Build().without("case", "x")
    with pytest.raises(BuildError, match="no longer"):
        Build().keeping("x", True)
    with pytest.raises(BriefError, match="no longer"):
        brief_edits.find_target(demo.plan("net-loft")[0], "t99")
    kept = Build(case="a", kept=frozenset({"a"})).with_part("case", "b")
    assert kept.kept == frozenset()
    assert Build(storage=("a", "a")).without("storage", "a").storage == ("a",)


def test_a_lost_part_is_said_and_left_out():
    brief, build = demo.plan("net-loft")
    lost = replace(build, graphics="gone-card")
    now = assess(demo.world(), brief, lost)
    assert [line.part for line in now.lines if line.kind == "graphics"] == [None]
    assert remaining(demo.world(), now) is None or "graphics" in remaining(demo.world(), now).kinds
    assert cheapest_fit(demo.world(), brief, Build()).build is not None


def test_what_is_wrong_already_is_no_reason_against_a_cheaper_part():
    """A processor with too few cores beside a dear card says nothing about the memory."""
    brief, build = demo.plan("net-loft")
    now = assess(demo.world(), brief, build)
    assert any("has 4 cores" in own for own in now.floors)
    for reason in reasons_of(demo.world(), now):
        assert "has 4 cores" not in reason.sentence, (reason.kind, reason.sentence)


def test_a_part_that_was_measured_as_tuned_runs_so_and_stays_so_in_proposals():
    brief, build = demo.plan("net-loft")
    tuning = OwnTuning(
        part=build.processor, gain=0.1, gain_sd=0.01, power=0.9, noted_on=date(2026, 11, 30)
    )
    tuned = build.running(tuning)
    before, after = assess(demo.world(), brief, build), assess(demo.world(), brief, tuned)
    for first, second in zip(before.estimates, after.estimates, strict=True):
        assert second.processor_ms == pytest.approx(first.processor_ms / 1.1)
        assert second.graphics_ms == first.graphics_ms
    assert after.machine.processor.gaming_w == round(0.9 * before.machine.processor.gaming_w)
    kept = tuned.keeping(build.processor, True)
    found = answer(demo.world(), brief, kept, "most frames").proposal.build
    assert found.processor == build.processor and found.tuned == (tuning,)
    free = answer(demo.world(), brief, tuned, "most frames").proposal.build
    assert free.tuned == ()
    theirs = replace(brief, owned=(build.processor,))
    own = answer(demo.world(), theirs, tuned, "most frames").proposal.build
    assert own.tuned == (tuning,)
    assert read_build("b", build_file(tuned).model_dump_json().encode()) == tuned
    assert tuned.as_shipped(build.processor) == build
    with pytest.raises(BuildError, match="no longer in the build"):
        build.running(replace(tuning, part="nothing"))


@exhaustive
def test_memory_runs_as_it_is_set_in_machine_rules_and_search():
    """Noted at 7000 CL28 on this processor and board, which state less: as in a world in which kit,
    processor and board are sold so.
    """
    brief, build = demo.plan("net-loft")
    today = date(2026, 11, 30)
    plan = Plan(brief=brief, build=build)
    tunings = memory_as_set(demo.world(), plan, 7000, 28, "by hand", today)
    set_build = with_memory(plan, tunings).build
    assert read_build("b", build_file(set_build).model_dump_json().encode()) == set_build

    def sold(part):
        if part.id == build.memory:
            return replace(part, mts=7000, cl=28)
        if part.id in (build.processor, build.mainboard):
            return replace(part, memory_max_mts=7000, memory_full_mts=7000)
        return part

    sold_so = replace(
        demo.world(), parts={key: sold(part) for key, part in demo.world().parts.items()}
    ).kept_by(Keeper())
    before, after, same = (
        assess(demo.world(), brief, build),
        assess(demo.world(), brief, set_build),
        assess(sold_so, brief, build),
    )
    assert after.estimates[0].memory.mts == 7000 > before.estimates[0].memory.mts
    for first, second, third in zip(before.estimates, after.estimates, same.estimates, strict=True):
        assert second.processor_ms == third.processor_ms < first.processor_ms
    assert [own.sentence for own in after.findings] == [own.sentence for own in same.findings]
    assert not any(own.rule == "memory speed" for own in after.findings)
    places = {"processor": build.processor, "mainboard": build.mainboard, "memory": build.memory}
    ways = (("memory",), ("processor", "mainboard"), tuple(places), ("memory", "mainboard"))
    for stay in ways[: extent(2, 4)]:
        kept, other = set_build, build
        for kind in stay:
            kept, other = (own.keeping(places[kind], True) for own in (kept, other))
        found = answer(demo.world(), brief, kept, "most frames").proposal
        if "memory" not in stay:
            assert found.build.tuned == ()
            assert found == answer(demo.world(), brief, other, "most frames").proposal
            continue
        (own,) = found.build.tuned
        assert set(own.beside) == {places[kind] for kind in stay} - {build.memory}
        alike = answer(
            partly(demo.world(), sold, [places[kind] for kind in stay]), brief, other, "most frames"
        )
        assert replace(found.build, tuned=()) == alike.proposal.build
        assert (found.gain, found.cost_minor) == (alike.proposal.gain, alike.proposal.cost_minor)


def partly(world, sold, ids):
    """A world in which these parts alone are sold otherwise."""
    parts = {key: sold(part) if key in ids else part for key, part in world.parts.items()}
    return replace(world, parts=parts).kept_by(Keeper())


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("memory 6400 CL32", (6400, 32)),
        ("DDR5-6000 at C30, 1.35 V", (6000, 30)),
        ("6,400", None),
        ("undervolted", None),
        ("ram: 7200MT/s cas 34", (7200, 34)),
    ],
)
def test_a_setup_may_name_how_the_memory_runs(text, said):
    assert memory_said(text) == said


@pytest.mark.parametrize(
    ("mts", "cl", "said"),
    [(100, 32, "out of range"), (6400, 320, "100.0 ns"), (6400, 1, "0.3 ns"), (8000, 0, "0.0 ns")],
)
def test_memory_that_no_kit_runs_at_is_refused(mts, cl, said):
    brief, build = demo.plan("net-loft")
    with pytest.raises(InvalidError, match=said):
        memory_as_set(demo.world(), Plan(brief=brief, build=build), mts, cl, "", date(2026, 11, 30))
    with pytest.raises(InvalidError, match="has no memory"):
        memory_as_set(
            demo.world(), Plan(brief=brief, build=Build()), 6400, 32, "", date(2026, 11, 30)
        )
