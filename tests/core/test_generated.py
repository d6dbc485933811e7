"""Frame generation: frames shown, those drawn before it, and what it costs."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.brute import answer, every_build, money_for
from tests.core.questions import ids_of
from tests.core.test_frames import scene
from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.frames import work
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.frames.pacing import pacing
from wattmetron.core.frames.settings_grid import settings_grid
from wattmetron.core.frames.working import frame_working
from wattmetron.core.search.proposal import BAND, propose
from wattmetron.core.values.build import Build


def able(seed, cap=None):
    """A scene whose game and card share a generator, on a target of shown frames."""
    machine, game, target, brief = scene(seed)
    machine = replace(machine, graphics=replace(machine.graphics, generators=("Halfwake",)))
    game = replace(game, generators=("Halfwake", "Interswell"), engine_cap_fps=cap)
    plain = replace(target, generated=False, ray_tracing=False)
    return machine, game, plain, replace(plain, generated=True), brief


def test_frames_shown_and_their_cost_worked_by_hand():
    """Graphics 8 ms on a card of 80 points, at 1920x1080, without spill: a generated frame of 0.4
    ms/Mpx costs 0.4 x 2.0736 x 100/80 = 1.0368 ms, drawn frames come every 11.0368 ms.
    """
    machine, game, _, shown, brief = able(1)
    card = replace(
        machine.graphics,
        speed_1080p=80.0,
        speed_1440p=80.0,
        speed_2160p=80.0,
        memory_gb=24.0,
        pcie_gen=3,
        pcie_lanes=1,
    )
    chip = replace(machine.processor, single_speed=1e6, all_core_speed=1e6)
    game = replace(
        game,
        graphics_ms=8.0,
        generation_ms_per_mpx=0.4,
        generation_memory_gb=0.5,
        graphics_variation=0.01,
        processor_variation=0.01,
    )
    shown = replace(
        shown, width_px=1920, height_px=1080, preset="high", measure="average", upscaling=False
    )
    machine = replace(machine, graphics=card, processor=chip)
    item = estimate(machine, game, replace(shown, fps=180.0), brief)
    assert item.made_of.generation_ms == pytest.approx(1.0368)
    assert item.average_fps == pytest.approx(1000 / 11.0368, rel=1e-3)
    assert item.judged_fps == pytest.approx(2000 / 11.0368, rel=1e-3)
    assert item.wanted_ms == pytest.approx(2000 / 180)
    assert item.generation_lag_ms == pytest.approx(11.0368 / 2 + 1.0368, rel=1e-3)
    assert item.chance > 0.5 > estimate(machine, game, replace(shown, fps=185.0), brief).chance
    need = game.preset("high").video_memory.at(1.920 * 1.080) + 0.5
    assert item.workload.video_memory_gb == pytest.approx(need)
    said = " ".join(step.title + step.result for step in frame_working(machine, item, brief))
    assert "Generated frame1.04" in said and "Lag that generation adds6.6" in said


@settings(max_examples=60)
@given(st.integers(0, 400), st.sampled_from(["average", "low"]))
def test_shown_frames_are_twice_those_drawn_which_are_never_more_than_without(seed, measure):
    machine, game, plain, shown, brief = able(seed)
    plain, shown = replace(plain, measure=measure), replace(shown, measure=measure)
    without, item = (estimate(machine, game, target, brief) for target in (plain, shown))
    judged = item.low_fps if measure == "low" else item.average_fps
    assert item.judged_fps == pytest.approx(2 * judged)
    assert item.average_fps <= without.average_fps and item.low_fps <= without.low_fps
    half = replace(plain, fps=shown.fps / 2)
    free = replace(game, generation_ms_per_mpx=0.0, generation_memory_gb=0.0)
    for own, other in ((shown, half), (replace(shown, cap_fps=None), replace(half, cap_fps=None))):
        assert estimate(machine, free, own, brief).chance == pytest.approx(
            estimate(machine, free, other, brief).chance, abs=1e-9
        ), "shown frames that cost nothing are as likely as half of them drawn"
    seen = glance(Lineup([machine]), game, shown, brief)
    assert (seen.fps[0], seen.chance[0]) == pytest.approx((item.judged_fps, item.chance), abs=1e-9)
    grid = settings_grid(machine, game, shown, brief, ((shown.width_px, shown.height_px),))
    own = next(
        cell
        for cell in grid.cells
        if (cell.target.preset, cell.target.upscaling, cell.target.ray_tracing)
        == (shown.preset, item.upscaled, False)
    )
    assert own.fps == pytest.approx(item.judged_fps) and own.state == item.state


@pytest.mark.parametrize("lacks", ["game", "card", "both know another"])
def test_what_is_not_known_to_be_shared_draws_every_frame(lacks):
    machine, game, plain, shown, brief = able(3)
    if lacks == "game":
        game = replace(game, generators=())
    else:
        other = () if lacks == "card" else ("Ebbstep",)
        machine = replace(machine, graphics=replace(machine.graphics, generators=other))
    item, without = (estimate(machine, game, target, brief) for target in (shown, plain))
    assert not item.generated and item.generation_lag_ms == 0
    assert (item.judged_fps, item.chance) == (without.judged_fps, without.chance)
    assert "only drawn frames count" in " ".join(
        step.source for step in frame_working(machine, item, brief)
    )


@pytest.mark.parametrize(
    ("engine", "chosen", "wanted", "capped"),
    [(60.0, None, 120.0, False), (60.0, None, 121.0, True), (60.0, 100.0, 110.0, True)],
)
def test_an_engine_caps_what_it_draws_and_a_user_what_is_shown(engine, chosen, wanted, capped):
    machine, game, _, shown, brief = able(5, engine)
    game = replace(game, graphics_ms=0.5, processor_ms=0.5)
    asked = replace(shown, fps=wanted, cap_fps=chosen)
    item = estimate(machine, game, asked, brief)
    assert (item.state == "short") == capped == ("capped" in item.cannot)
    assert item.capped_fps <= (min(120.0, chosen) if chosen else 120.0) + 1e-6
    assert (glance(Lineup([machine]), game, asked, brief).chance[0] == 0) == capped


def test_the_display_is_given_the_frames_that_are_shown():
    machine, game, plain, shown, brief = able(7)
    free = replace(game, generation_ms_per_mpx=0.0, generation_memory_gb=0.0)
    item, without = (estimate(machine, free, target, brief) for target in (shown, plain))
    display = replace(brief.display, refresh_hz=1000.0, variable_from_hz=1.0)
    assert pacing(item, display).shown_fps == pytest.approx(
        2 * pacing(without, display).shown_fps, rel=0.02
    )


@exhaustive
@pytest.mark.parametrize("seed", extent([1], [1, 5]))
@pytest.mark.parametrize("aim", ["most frames", "least money"])
def test_proposals_of_shown_frames_equal_those_of_trying_every_build(seed, aim):
    """Half of the cards can generate, and the engine caps those that cannot under the rate."""
    world = World(seed)
    world.sockets, world.types = ("Capstan",), ("DDR5",)
    catalogue = world.eased(world.catalogue(per_kind=extent(3, 4), games=2))
    games = {
        key: replace(game, generators=("Halfwake",), engine_cap_fps=(None, 30.0)[n])
        for n, (key, game) in enumerate(sorted(catalogue.games.items()))
    }
    cards = sorted(part.id for part in catalogue.by_kind["graphics"])
    parts = {
        key: replace(part, generators=("Halfwake",) if cards.index(key) % 2 else ())
        if key in cards
        else part
        for key, part in catalogue.parts.items()
    }
    catalogue = replace(catalogue, games=games, parts=parts).kept_by(Keeper())
    brief = world.brief(catalogue, targets=2)
    targets = tuple(
        replace(target, generated=True, fps=fps, weight=n + 1, measure="average")
        for n, (target, fps) in enumerate(zip(brief.targets, (100.0, 50.0), strict=True))
    )
    brief = replace(brief, targets=targets, accept_spill=True)
    got = propose(catalogue, brief, aim)
    weight = sum(target.weight for target in brief.targets)
    budget = money_for(catalogue, brief, Build())
    best = answer(every_build(catalogue, brief), aim, weight, budget, BAND)
    assert (got.build is None) == (best is None)
    if best is not None:
        assert (got.cost_minor, got.weight_met, got.gain) == (best.cost, best.met, best.gain)
        assert ids_of(got.build) == best.ids


def test_a_card_is_worth_more_where_its_generator_is_the_games():
    """The cheapest card that can generate beats a faster one that cannot."""
    _, game, _, shown, brief = able(11)
    machine = able(11)[0]
    other = replace(machine, graphics=replace(machine.graphics, generators=()))
    seen = glance(Lineup([machine, other]), game, shown, brief)
    assert seen.fps[0] > seen.fps[1] and seen.chance[0] >= seen.chance[1]
    assert work.drawn(game, shown, (), ("Interswell",)).generated
