"""The fit of a game to its evidence: small cases by hand, hidden truths, robustness, and joint
spreads.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import norm
from tools.world.truth import PRESETS, SIZES, World, known_game

from tests.accuracy.run import _pair, score_world
from tests.extent import thorough
from wattmetron.core.frames import chance, frame_rates, work
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.fit_problem import RESULT_SD, GameFitProblem
from wattmetron.core.game_fit.fitted_values import VC, VG, C, FittedGame, G, steps_between
from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT
from wattmetron.core.game_fit.priors import unknown_game
from wattmetron.core.game_fit.residuals import Pair, band
from wattmetron.core.speeds.speed_scale import Standing
from wattmetron.core.values.brief import Target
from wattmetron.core.values.results import Result

GAME = unknown_game("game", "Game", "action")


def standing(side, key, *speeds, sd=0.001) -> Standing:
    return Standing(
        key=key,
        side=side,
        name=key,
        speeds=speeds,
        sd=sd,
        ray_speed=None,
        ray_sd=0.0,
        memory_gb=8.0,
        released=None,
        withdrawn=None,
        part_ids=(key,),
    )


FAST_CHIP, FAST_CARD = (
    standing("processor", "fast", 5000.0, 5000.0),
    standing("graphics", "huge", *(5000.0,) * 3),
)
CHIP, CARD = (
    standing("processor", "chip", 100.0, 100.0),
    standing("graphics", "card", 100.0, 100.0, 100.0),
)


def result(fps: float, low=None, preset="high", size=(1920, 1080), number=1, **more) -> Result:
    return Result(
        id=f"r{number}",
        processor="p",
        graphics="g",
        width_px=size[0],
        height_px=size[1],
        preset=preset,
        average_fps=fps,
        low_fps=low,
        **more,
    )


def test_a_result_limited_by_one_side_tells_about_that_side_alone_by_hand():
    """On an endless processor the frame is the graphics' time: a normal prior meets a normal
    result.
    """
    truth_ms = 12.0
    fit = fit_game(GAME, (), [Pair(result(1000 / truth_ms), FAST_CHIP, CARD)])
    prior = GAME.graphics_work_sd**2
    noise = RESULT_SD**2 + 0.06**2 + 0.001**2
    gain = prior / (prior + noise)
    expected = math.log(GAME.graphics_ms) + gain * (math.log(truth_ms) - math.log(GAME.graphics_ms))
    assert math.log(fit.game.graphics_ms) == pytest.approx(expected, abs=0.02)
    assert fit.game.graphics_work_sd == pytest.approx(math.sqrt(prior * (1 - gain)), rel=0.05)
    assert fit.game.processor_ms == pytest.approx(GAME.processor_ms, rel=1e-3)
    assert fit.game.processor_work_sd == pytest.approx(GAME.processor_work_sd, rel=1e-3)


def test_a_result_of_matched_sides_ties_them_together():
    balanced = result(
        1000 / float(frame_rates.mean_ms(GAME.processor_ms, GAME.graphics_ms, 0.2, 0.09))
    )
    chip = standing("processor", "chip", 100.0, 100.0)
    fit = fit_game(replace(GAME, graphics_ms=GAME.processor_ms), (), [Pair(balanced, chip, CARD)])
    rho = fit.game.cover[C, G] / math.sqrt(fit.game.cover[C, C] * fit.game.cover[G, G])
    assert rho < -0.2, "one side heavier means the other lighter"
    target = Target(id="t", game_id=GAME.id, width_px=1920, height_px=1080, preset="high", fps=60.0)
    seen = [fit.game.affinity(item.side, item.key, item.design) for item in (chip, CARD)]
    assert work.workload(fit.game, target, work.PLAIN, *seen).side_cov < 0


def test_a_result_tells_of_the_part_more_than_of_its_design_and_of_others_least():
    """On an endless processor three kinds of card: the one measured, one of its design, and any
    other.
    """
    measured = replace(CARD, design="reef", sd=0.03)
    slow = result(1000 / (GAME.graphics_ms * 1.3))
    fit = fit_game(GAME, (), [Pair(slow, FAST_CHIP, measured)])
    target = Target(id="t", game_id=GAME.id, width_px=1920, height_px=1080, preset="high", fps=60.0)
    found = []
    for key, design in ((measured.key, "reef"), ("another@8", "reef"), ("other@8", "ness")):
        card = fit.game.affinity("graphics", key, design)
        load = work.workload(fit.game, target, card=card)
        made = work.graphics_work(load, [(100.0, 100.0, 100.0)], np.nan, np.inf, 1.0)
        found.append(
            (load.graphics_ms, float(work.graphics_sd(work.unsure(load), made, 0.03, 0.0)[0]))
        )
    times, spreads = zip(*found, strict=True)
    assert (
        times[0] > times[1] > times[2] > GAME.graphics_ms and spreads[0] < spreads[1] < spreads[2]
    )
    prior = {"game": GAME.graphics_work_sd**2, "design": 0.06**2, "part": 0.03**2}
    gain = math.log(1.3) / (sum(prior.values()) + RESULT_SD**2)
    own = sum(prior.values())
    assert math.log(times[0] / GAME.graphics_ms) == pytest.approx(own * gain, rel=0.1)
    assert math.log(times[1] / GAME.graphics_ms) == pytest.approx(
        (own - prior["part"]) * gain, rel=0.1
    )
    assert math.log(times[2] / GAME.graphics_ms) == pytest.approx(prior["game"] * gain, rel=0.1)


def test_the_band_is_the_log_of_a_difference_of_normals_with_its_slope_and_curvature():
    for x, upper, gap, sigma in (
        (2.0, 2.3, 0.4, 0.2),
        (3.5, 2.3, 0.1, 0.2),
        (0.2, 2.3, 0.1, 0.2),
        (2.0, 2.3, 8.0, 0.25),
    ):

        def value(at, u=upper, g=gap, s=sigma):
            high, low = (u - at) / s, (u - g - at) / s
            return math.log(
                norm.sf(low) - norm.sf(high) if low > 0 else norm.cdf(high) - norm.cdf(low)
            )

        got, slope, bend = band(x, upper, gap, sigma)
        step = 1e-4
        assert got == pytest.approx(value(x), abs=1e-8)
        assert slope == pytest.approx(
            (value(x + step) - value(x - step)) / (2 * step), rel=1e-4, abs=1e-6
        )
        assert bend == pytest.approx(
            -(value(x + step) - 2 * value(x) + value(x - step)) / step**2, rel=2e-3, abs=1e-4
        )
    far, slope, bend = band(60.0, 2.3, 0.1, 0.2)
    assert np.isfinite([far, slope, bend]).all() and slope < 0, (
        "the far tail is finite and pulls back"
    )


def test_one_wrong_result_among_six_hardly_moves_the_fit_and_is_named():
    world = World(4, 1)
    true = world.games[0]
    asked = [(n, (3 * n) % 40, (1920, 1080), "high") for n in range(0, 36, 6)]
    sound = [_pair(world, world.result(true, *item, number)) for number, item in enumerate(asked)]
    for number, (pair, item) in enumerate(zip(sound, asked, strict=True)):
        average, low, _ = world.rates(true, *item)
        sound[number] = replace(pair, result=replace(pair.result, average_fps=average, low_fps=low))
    wrong = replace(
        sound[2],
        result=replace(sound[2].result, average_fps=sound[2].result.average_fps * 2, low_fps=None),
    )
    good, bad = (
        fit_game(known_game(true), (), pairs) for pairs in (sound, [*sound[:2], wrong, *sound[3:]])
    )
    assert abs(math.log(bad.game.processor_ms / good.game.processor_ms)) < 0.12
    assert abs(math.log(bad.game.graphics_ms / good.game.graphics_ms)) < 0.12
    worst = max(bad.residuals, key=lambda residual: abs(residual.score))
    assert worst.result.id == "r2" and worst.weight < 0.3


def test_many_results_find_the_hidden_work_and_the_order_of_presets_holds():
    world = World(11, 2)
    for true in world.games:
        pairs = [_pair(world, world.result(true, *world.question(), n)) for n in range(40)]
        fit = fit_game(known_game(true), (), pairs)
        assert abs(math.log(fit.game.graphics_ms / true.g)) < 3.5 * fit.game.graphics_work_sd + 0.06
        assert (
            abs(math.log(fit.game.processor_ms / true.c)) < 3.5 * fit.game.processor_work_sd + 0.06
        )
        factors = [preset.graphics_factor for preset in fit.game.presets]
        assert factors == sorted(factors) and factors[2] == 1.0
        assert max(fit.game.graphics_work_sd, fit.game.processor_work_sd) < 0.17


@settings(max_examples=25)
@given(st.integers(0, 10_000), st.integers(1, 8))
def test_evidence_never_widens_and_the_covariance_is_one(seed, count):
    world = World(seed % 50, 1)
    true = world.games[0]
    pairs = [_pair(world, world.result(true, *world.question(), n)) for n in range(count)]
    fit = fit_game(known_game(true), (), pairs)
    assert fit.game.processor_work_sd <= GAME.processor_work_sd + 1e-9
    assert fit.game.graphics_work_sd <= GAME.graphics_work_sd + 1e-9
    assert np.linalg.eigvalsh(fit.game.cover).min() > 0
    assert (
        isinstance(fit.game, FittedGame)
        and fit.game == fit.game
        and hash(fit.game) == hash(fit.game)
    )


def test_the_spread_grows_away_from_the_settings_that_were_seen():
    pairs = [Pair(result(90.0, number=n), FAST_CHIP, CARD) for n in range(5)]
    game = fit_game(GAME, (), pairs).game
    at, preset_away, pixels_away = (
        game.spread("high", 2.0736),
        game.spread("low", 2.0736),
        game.spread("high", 8.2944),
    )
    assert preset_away[1] > at[1] and pixels_away[1] > at[1]
    assert steps_between("high").tolist() == [0, 0, 0] and steps_between("low").tolist() == [
        -1,
        -1,
        0,
    ]
    assert steps_between("ultra").tolist() == [0, 0, 1]


def test_chances_under_correlated_errors_agree_with_a_simulation():
    rng = np.random.default_rng(5)
    line = chance.curve(0.18, 0.08, "average")
    for rho in (-0.7, 0.0, 0.6):
        sc, sg = 0.15, 0.12
        errors = rng.multivariate_normal(
            [math.log(9), math.log(10)], [[sc**2, rho * sc * sg], [rho * sc * sg, sg**2]], 200_000
        )
        frames = np.log(frame_rates.mean_ms(np.exp(errors[:, 0]), np.exp(errors[:, 1]), 0.18, 0.08))
        for limit in (10.5, 11.5, 13.0):
            got = float(
                chance.chance_within(
                    line, math.log(9), sc, math.log(10), sg, math.log(limit), rho * sc * sg
                )
            )
            assert got == pytest.approx((frames <= math.log(limit)).mean(), abs=0.004)
            back = float(
                chance.quantile_ln(line, math.log(9), sc, math.log(10), sg, got, rho * sc * sg)
            )
            assert back == pytest.approx(math.log(limit), abs=1e-4)


@thorough
def test_a_small_accuracy_run_stays_within_its_bounds():
    """Two fresh worlds; the whole table comes from ``make accuracy``."""
    worlds = [score_world(seed, games=10, questions=20) for seed in (31, 32)]

    def of(level, what):
        return [hint for world in worlds for hint in getattr(world[level], what)]

    stated, results = "requirements, conditions stated", "and three results"
    assert np.median(of(stated, "errors")) < 0.16 and np.median(of(results, "errors")) < 0.11
    assert 0.65 < np.mean(of(results, "inside")) < 0.95
    assert np.median(of(stated, "errors")) < np.median(
        of("lesser ratio with pixels and presets", "errors")
    )


def _pairs_of(seed, count, **more):
    """Own runs of one pair with what they say of both sides' times."""
    world = World(seed, 2)
    true = world.games[0]
    p, g, *_ = world.question()
    results = [
        world.result(true, p, g, SIZES[n % 3], PRESETS[1 + n % 3], n, own=True)
        for n in range(count)
    ]
    pairs = [
        Pair(replace(result, **more), world.processors[p], world.cards[g]) for result in results
    ]
    return known_game(true), pairs


@pytest.mark.parametrize("seed", [3, 4, 5])
def test_the_ratio_of_both_sides_is_where_the_fit_ends_up(seed):
    """Three runs that know it: in the fitted game the medians of both sides stand so."""
    game, pairs = _pairs_of(seed, 3)
    problem = GameFitProblem(game, (), tuple(pairs), NOTHING_LEARNT)
    z, cover = problem.solve()
    t_c, t_g, _, _ = problem._sides(z)
    v_c, v_g = np.exp(z[VC]) * problem.crowding, np.exp(z[VG])
    medians = np.log(t_c / np.sqrt(1 + v_c**2)) - np.log(t_g / np.sqrt(1 + v_g**2))
    said = np.log([pair.result.side_ratio for pair in pairs])
    assert medians == pytest.approx(said, abs=0.12)
    _, blind = _pairs_of(seed, 3, side_ratio=None, side_ratio_sd=None)
    other = GameFitProblem(game, (), tuple(blind), NOTHING_LEARNT).solve()[1]
    assert cover[C, C] < other[C, C] and cover[G, G] < other[G, G]


def test_gradients_of_all_terms_are_those_of_the_objective():
    """The downhill gradient against differences, with ratios and rates known and bounded."""
    game, pairs = _pairs_of(6, 4)
    kinds = ({}, {"side_ratio_is": "at least"}, {"side_ratio_is": "at most"}, {"at_least": True})
    pairs = [
        replace(pair, result=replace(pair.result, **kind))
        for pair, kind in zip(pairs, kinds, strict=True)
    ]
    problem = GameFitProblem(game, (), tuple(pairs), NOTHING_LEARNT)
    z = problem.centre + 0.05 * np.sin(np.arange(problem.size))
    _, gradient = problem._curvature(z)
    for n in range(problem.size):
        step = np.zeros(problem.size)
        step[n] = 1e-5
        slope = (problem._objective(z + step) - problem._objective(z - step)) / 2e-5
        assert -gradient[n] == pytest.approx(slope, abs=2e-2 + 0.02 * abs(slope)), n


@pytest.mark.parametrize(
    ("more", "silent"),
    [
        ({"side_ratio": 0.02, "side_ratio_is": "at least"}, True),
        ({"side_ratio": 50.0, "side_ratio_is": "at least"}, False),
        ({"side_ratio": 50.0, "side_ratio_is": "at most"}, True),
        ({"side_ratio": 0.02, "side_ratio_is": "at most"}, False),
    ],
)
def test_what_is_only_bounded_says_nothing_beyond_its_bound(more, silent):
    game, pairs = _pairs_of(7, 1, **more, side_ratio_sd=0.1)
    _, blind = _pairs_of(7, 1, side_ratio=None, side_ratio_sd=None)
    bound, free = (fit_game(game, (), own).game for own in (pairs, blind))
    same = bound.processor_ms == pytest.approx(free.processor_ms, rel=1e-6)
    assert same == silent


@pytest.mark.parametrize(("share", "silent"), [(0.2, True), (3.0, False)])
def test_a_locked_rate_says_that_the_machine_does_at_least_as_much(share, silent):
    game, pairs = _pairs_of(8, 1, side_ratio=None, side_ratio_sd=None, low_fps=None)
    before = fit_game(game, (), []).game
    (pair,) = pairs
    usual = fit_game(game, (), pairs).residuals[0].model_average_fps
    locked = replace(pair.result, average_fps=usual * share, at_least=True)
    after = fit_game(game, (), [replace(pair, result=locked)]).game
    assert (after.graphics_ms == pytest.approx(before.graphics_ms, rel=1e-6)) == silent
    if not silent:
        assert after.graphics_ms < before.graphics_ms or after.processor_ms < before.processor_ms
