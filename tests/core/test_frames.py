"""The frame model: worked values, a frame-by-frame simulation, and what must always hold."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.test_compatibility_rules import WHOLE
from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.core.frames import frame_rates, work
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import chance_within, curve, quantile_ln
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.frames.rate_table import frame_ms, reliable_table
from wattmetron.core.frames.required_speedup import needed_speedup
from wattmetron.core.game_fit.priors import unknown_game
from wattmetron.core.keep import NOTHING_KEPT
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.machine import Machine

TIMES = st.floats(1.0, 60.0)
VARIATIONS = st.floats(0.03, 0.5)
SPREADS = st.floats(0.05, 0.3)


@pytest.mark.parametrize(
    ("t_c", "v_c", "t_g", "v_g", "mean", "share", "low"),
    [
        (8, 0.15, 8, 0.06, 8.5125, 0.4769, 11.193),
        (5, 0.15, 10, 0.06, 10.0, 0.0, 11.476),
        (7, 0.18, 7.5, 0.08, 7.8495, 0.3380, 10.438),
    ],
)
def test_worked_values(t_c, v_c, t_g, v_g, mean, share, low):
    assert float(frame_rates.mean_ms(t_c, t_g, v_c, v_g)) == pytest.approx(mean, abs=5e-5)
    assert float(frame_rates.processor_share(t_c, t_g, v_c, v_g)) == pytest.approx(share, abs=5e-5)
    assert float(frame_rates.low_ms(t_c, t_g, v_c, v_g)) == pytest.approx(low, abs=5e-4)


def simulated(t_c, t_g, v_c, v_g, frames=1_000_000, seed=7):
    """Frame times one by one, without any of the closed forms."""
    rng = np.random.default_rng(seed)
    times = []
    for mean, variation in ((t_c, v_c), (t_g, v_g)):
        sd = np.sqrt(np.log(1 + variation**2))
        times.append(rng.lognormal(np.log(mean) - sd**2 / 2, sd, frames))
    return times


@pytest.mark.parametrize(
    ("t_c", "t_g", "v_c", "v_g"),
    [
        (8, 8, 0.15, 0.06),
        (5, 10, 0.15, 0.06),
        (7, 7.5, 0.18, 0.08),
        (12, 9, 0.3, 0.12),
        (4, 4.2, 0.05, 0.04),
    ],
)
def test_agrees_with_a_simulation_frame_by_frame(t_c, t_g, v_c, v_g):
    x, z = simulated(t_c, t_g, v_c, v_g)
    frame = np.maximum(x, z)
    assert float(frame_rates.mean_ms(t_c, t_g, v_c, v_g)) == pytest.approx(frame.mean(), rel=0.002)
    assert float(frame_rates.low_ms(t_c, t_g, v_c, v_g)) == pytest.approx(
        np.quantile(frame, 0.99), rel=0.005
    )
    assert float(frame_rates.processor_share(t_c, t_g, v_c, v_g)) == pytest.approx(
        (x > z).mean(), abs=0.002
    )
    limit = float(np.quantile(frame, 0.8))
    assert float(frame_rates.late_share(t_c, t_g, v_c, v_g, limit)) == pytest.approx(0.2, abs=0.002)
    floor = float(np.quantile(frame, 0.6))
    capped = frame_rates.capped(t_c, t_g, v_c, v_g, floor)
    shown = np.maximum(frame, floor)
    assert float(capped.mean_ms) == pytest.approx(shown.mean(), rel=0.002)
    assert float(capped.cap) == pytest.approx(
        (shown == floor).sum() * floor / shown.sum(), abs=0.003
    )


@given(TIMES, TIMES, VARIATIONS, VARIATIONS)
def test_elasticities_and_order_of_rates(t_c, t_g, v_c, v_g):
    mean, low = (
        float(frame_rates.mean_ms(t_c, t_g, v_c, v_g)),
        float(frame_rates.low_ms(t_c, t_g, v_c, v_g)),
    )
    assert mean >= max(t_c, t_g) - 1e-9
    assert low >= mean
    step = 1e-5
    for value, elasticity in (
        (frame_rates.mean_ms, frame_rates.mean_elasticity),
        (frame_rates.low_ms, frame_rates.low_elasticity),
    ):
        e_c = float(elasticity(t_c, t_g, v_c, v_g))
        assert -1e-9 <= e_c <= 1 + 1e-9
        up = float(value(t_c * np.exp(step), t_g, v_c, v_g))
        down = float(value(t_c * np.exp(-step), t_g, v_c, v_g))
        assert e_c == pytest.approx(np.log(up / down) / (2 * step), abs=1e-3)
    parts = frame_rates.capped(t_c, t_g, v_c, v_g, mean)
    assert float(parts.processor + parts.graphics + parts.cap) == pytest.approx(1)
    assert float(frame_rates.capped(t_c, t_g, v_c, v_g, 1e-3).mean_ms) == pytest.approx(
        mean, rel=1e-9
    )


def test_bivariate_normal_against_simulation():
    rng = np.random.default_rng(5)
    a, b = rng.normal(size=(2, 1_000_000))
    for h, k, rho in ((0.3, -0.4, 0.6), (0.0, 0.0, 0.5), (-1.0, 0.5, 0.9), (1.2, 0.0, 0.2)):
        both = ((a <= h) & (rho * a + np.sqrt(1 - rho**2) * b <= k)).mean()
        assert float(frame_rates.bivariate_normal(h, k, rho)) == pytest.approx(both, abs=0.002)


@pytest.mark.parametrize("measure", ["average", "low"])
@pytest.mark.parametrize(("v_c", "v_g"), [(0.18, 0.08), (0.05, 0.03), (0.3, 0.2)])
def test_chance_against_drawn_errors(measure, v_c, v_g):
    """Draw both errors many times, compute the rate for each, count how often it stays within the
    limit.
    """
    rng = np.random.default_rng(11)
    value = frame_rates.mean_ms if measure == "average" else frame_rates.low_ms
    line = curve(v_c, v_g, measure)
    for t_c, t_g, sd_c, sd_g in ((10, 10, 0.12, 0.1), (8, 11, 0.15, 0.07), (14, 9, 0.07, 0.17)):
        n = 40_000 if measure == "low" else 200_000
        c = t_c * np.exp(rng.normal(0, sd_c, n))
        g = t_g * np.exp(rng.normal(0, sd_g, n))
        drawn = value(c, g, v_c, v_g)
        for share in (0.2, 0.5, 0.8, 0.95):
            limit = np.quantile(drawn, share)
            got = float(chance_within(line, np.log(t_c), sd_c, np.log(t_g), sd_g, np.log(limit)))
            assert got == pytest.approx(share, abs=0.008 if measure == "low" else 0.004)


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.floats(-1.2, 1.2), SPREADS, SPREADS, st.sampled_from([0.05, 0.2, 0.5, 0.8, 0.95]))
def test_quantile_inverts_chance_and_rises_with_speed(x, sd_c, sd_g, chance):
    line = curve(0.18, 0.08, "average")
    at = float(quantile_ln(line, x, sd_c, 0.0, sd_g, chance))
    assert float(chance_within(line, x, sd_c, 0.0, sd_g, at)) == pytest.approx(chance, abs=1e-6)
    for faster_c, faster_g in ((0.05, 0.0), (0.0, 0.05), (0.4, 0.0)):
        sooner = float(quantile_ln(line, x - faster_c, sd_c, -faster_g, sd_g, chance))
        assert sooner <= at + 1e-6
        likelier = float(chance_within(line, x - faster_c, sd_c, -faster_g, sd_g, at))
        assert likelier >= chance - 1e-6


@exhaustive
@pytest.mark.parametrize("measure", ["average", "low"])
@pytest.mark.parametrize("continuous", [False, True])
def test_tables_stay_within_a_millionth(measure, continuous):
    rng = np.random.default_rng(3)
    n = 1200
    x, sd_c = rng.uniform(-1.5, 1.5, n), rng.choice([0.07, 0.12, 0.15], n)
    sd_g = rng.uniform(0.08, 0.17, n) if continuous else rng.choice([0.08, 0.131, 0.17], n)
    cov = rng.choice([0.0, -0.003, 0.002], n)
    for v_c, v_g in extent(((0.25, 0.12),), ((0.18, 0.08), (0.25, 0.12), (0.05, 0.02))):
        table = reliable_table(NOTHING_KEPT, v_c, v_g, measure, 0.8, continuous)
        exact = quantile_ln(curve(v_c, v_g, measure), x, sd_c, 0.0, sd_g, 0.8, cov)
        got = table.ln_quantile(x, sd_c, np.zeros(n), sd_g, cov)
        assert np.abs(got - exact).max() < 1e-6
        few = table.ln_quantile(x[:50], sd_c[:50], np.zeros(50), sd_g[:50], cov[:50])
        assert np.abs(few - got[:50]).max() < 1e-13
        piecewise = reliable_table(NOTHING_KEPT, v_c, v_g, measure, 0.8, continuous)
        for own in (
            np.flatnonzero(item)[:100] for item in (np.abs(x) < 0.1, x > 1.2, x < -0.7, x == x)
        ):
            part = piecewise.ln_quantile(x[own], sd_c[own], np.zeros(own.size), sd_g[own], cov[own])
            assert np.abs(part - got[own]).max() < 1e-9


@pytest.mark.parametrize(
    ("measure", "exact"), [("average", frame_rates.mean_ms), ("low", frame_rates.low_ms)]
)
def test_many_pairings_at_once_agree_with_one_at_a_time(measure, exact):
    rng = np.random.default_rng(8)
    for v_c, v_g in ((0.18, 0.08), (0.25, 0.04), (0.05, 0.02), (0.01, 0.01)):
        t_c, t_g = np.exp(rng.uniform(0, 5, 4000)), np.exp(rng.uniform(0, 5, 4000))
        t_c[:2000] = t_g[:2000] * np.exp(rng.uniform(-0.5, 0.5, 2000))
        got = frame_ms(t_c, t_g, v_c, v_g, measure)
        assert np.abs(np.log(got / exact(t_c, t_g, v_c, v_g))).max() < 1e-5


def scene(seed):
    world = World(seed)
    catalogue = world.catalogue(per_kind=3, games=2, sold_out=0.0)
    brief = world.brief(catalogue, targets=2)
    chip, card, board, kit = (
        catalogue.by_kind[kind][0] for kind in ("processor", "graphics", "mainboard", "memory")
    )
    target = replace(brief.targets[0], weight=1)
    return (
        Machine(processor=chip, graphics=card, mainboard=board, memory=kit),
        catalogue.games[target.game_id],
        target,
        brief,
    )


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.integers(0, 400), st.floats(1.0, 3.0))
def test_a_faster_part_never_lowers_a_rate(seed, factor):
    machine, game, target, brief = scene(seed)
    before = estimate(machine, game, target, brief)
    chip, card = machine.processor, machine.graphics
    faster = (
        replace(machine, processor=replace(chip, single_speed=chip.single_speed * factor)),
        replace(machine, processor=replace(chip, all_core_speed=chip.all_core_speed * factor)),
        replace(machine, graphics=replace(card, speed_1080p=card.speed_1080p * factor)),
        replace(machine, graphics=replace(card, speed_1440p=card.speed_1440p * factor)),
        replace(
            machine, graphics=replace(card, ray_speed=card.ray_speed and card.ray_speed * factor)
        ),
        replace(machine, graphics=replace(card, memory_gb=card.memory_gb * factor)),
    )
    for other in faster:
        after = estimate(other, game, target, brief)
        for name in ("average_fps", "low_fps", "reliable_fps", "chance"):
            assert getattr(after, name) >= getattr(before, name) * (1 - 1e-6) - 1e-9, name


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.integers(0, 400), st.floats(1.0, 3.0))
def test_harder_settings_never_raise_a_rate(seed, factor):
    machine, game, target, brief = scene(seed)
    target = replace(target, upscaling=False, ray_tracing=False)
    before = estimate(machine, game, target, brief)
    wider = replace(target, width_px=int(target.width_px * factor))
    places = [PRESETS.index(preset.name) for preset in game.presets]
    higher = replace(target, preset=PRESETS[min(max(places), PRESETS.index(target.preset) + 1)])
    for harder in (wider, higher, replace(target, ray_tracing=True)):
        assert estimate(machine, game, harder, brief).average_fps <= before.average_fps * (1 + 1e-9)
    up = replace(target, upscaling=True, scale=0.5)
    assert estimate(machine, game, replace(up, scale=0.7), brief).average_fps <= estimate(
        machine, game, up, brief
    ).average_fps * (1 + 1e-9)


@exhaustive
@settings(max_examples=extent(20, 160))
@given(st.integers(0, 300))
def test_estimate_is_consistent(seed):
    machine, game, target, brief = scene(seed)
    item = estimate(machine, game, target, brief)
    enough = item.drawing.video_memory_gb >= item.workload.video_memory_gb
    assert (item.made_of.spill_ms == 0) == enough
    if item.average_fps:
        assert item.average_fps >= item.low_fps
        assert item.average_fps <= min(item.processor_alone_fps, item.graphics_alone_fps) * (
            1 + 1e-9
        )
        assert item.judged_low_fps <= item.judged_high_fps
        needed = needed_speedup(item, brief.chance)
        if not item.cannot and needed.graphics and needed.graphics > 1.001:
            card = machine.graphics
            assert item.state != "meets"
            assert card is not None
    seen = glance(Lineup([machine, machine]), game, target, brief)
    assert seen.states == (item.state, item.state)
    if item.average_fps:
        assert seen.fps[0] == pytest.approx(item.judged_fps)
        assert seen.chance[0] == pytest.approx(item.chance, abs=1e-9) or item.cannot


def test_times_worked_by_hand():
    _, game, target, _ = scene(1)
    game = replace(
        game,
        processor_ms=10.0,
        parallel_share=0.4,
        graphics_ms=8.0,
        fixed_share=0.25,
        ray_tracing_ms_per_mpx=2.0,
    )
    load = work.workload(
        game, replace(target, width_px=1920, height_px=1080, preset="high", ray_tracing=True)
    )
    assert float(work.processor_ms(load, 80.0, 50.0)) == pytest.approx(
        100 * 10 * (0.6 / 80 + 0.4 / 50)
    )
    made = work.graphics_work(
        replace(load, video_memory_gb=10.0), [[80.0, 80.0, 80.0]], [50.0], [8.0], [15.76]
    )
    assert float(made.raster_ms[0]) == pytest.approx(10.0)
    assert float(made.ray_ms[0]) == pytest.approx(100 / 50 * 2.0 * 2.0736)
    assert float(made.spill_ms[0]) == pytest.approx(1000 * 0.05 * 2 / 15.76)
    upscaled = replace(load, rendered_mpx=2.0736 * 0.25, upscale_ms_per_mpx=0.2, ray_ms_per_mpx=0.0)
    made = work.graphics_work(upscaled, [[80.0, 80.0, 80.0]], [50.0], [99.0], [1.0])
    assert float(made.raster_ms[0]) == pytest.approx(100 / 80 * 8 * (0.25 + 0.75 * 0.25))
    assert float(made.upscale_ms[0]) == pytest.approx(100 / 80 * 0.2 * 2.0736)
    assert float(work.latency_ns(36, 6000)) == pytest.approx(12.0)
    assert float(work.bandwidth_gbs(2, 6000)) == pytest.approx(96.0)
    assert float(work.bandwidth_gbs(2, 6000, 2)) == pytest.approx(100.8)
    assert float(work.memory_factor(0.2, 15.0, 48.0, 12.0, 96.0)) == pytest.approx(
        1 + 0.2 * (0.625 + 1 - 1)
    )
    assert float(work.memory_factor(1.0, 60.0, 10.0, 12.0, 96.0)) == 1.5


def test_a_card_that_gains_at_more_pixels_never_runs_faster_there():
    _, game, target, _ = scene(2)
    load = work.workload(replace(game, fixed_share=0.9), replace(target, preset="high"))
    times = [
        float(
            work.graphics_work(
                replace(load, rendered_mpx=mpx), [[60.0, 110.0, 200.0]], [np.nan], [99.0], [1.0]
            ).raster_ms[0]
        )
        for mpx in np.linspace(1.0, 9.0, 60)
    ]
    assert np.all(np.diff(times) >= -1e-12)


def test_fewer_threads_than_a_game_uses_widen_the_low_and_leave_the_time():
    """By hand: 12 used on 4 make the variation 3^0.5 times as large; more threads than are used
    change nothing.
    """
    game = replace(unknown_game("g", "Game", "open world"), processor_variation=0.2)
    assert game.threads_used == 12 and game.variation_on(4) == pytest.approx(0.2 * 3**0.5)
    assert game.variation_on(12) == game.variation_on(64) == game.variation_on(None) == 0.2
    assert replace(game, threads=6).variation_on(4) == pytest.approx(0.2 * 1.5**0.5)
    target = Target(id="t", game_id="g", fps=60, measure="low")
    brief = Brief(
        name="b",
        region="r",
        budget_low_minor=0,
        budget_high_minor=0,
        display=Display(),
        targets=(target,),
    )
    found = []
    for threads in (2, 4, 6, 8, 12, 16, 24):
        chip = replace(WHOLE.processor, threads=threads)
        found.append(estimate(replace(WHOLE, processor=chip), game, target, brief))
    lows = [item.low_fps for item in found]
    assert lows == sorted(lows) and lows[0] < 0.8 * lows[4] and lows[4] == lows[-1]
    assert len({item.processor_ms for item in found}) == 1
    glances = glance(
        Lineup([replace(WHOLE, processor=replace(WHOLE.processor, threads=n)) for n in (4, 16, 4)]),
        game,
        target,
        brief,
    )
    assert glances.fps.tolist() == pytest.approx([lows[1], lows[-1], lows[1]])
