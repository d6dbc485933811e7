"""What games with results teach about games: against other formulations, in worlds whose truth is
known, and kept so that one more result fits one game anew.
"""

from dataclasses import replace
from math import exp, log, log1p, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import dblquad
from scipy.stats import norm
from tools.world.truth import known_game

from tests import demo
from tests.accuracy.forms import FORMS, FormWorld
from tests.accuracy.run import _pair
from wattmetron.cache.cache import Keeper
from wattmetron.core.frames.work import pixel_factor
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.fitted_values import phi_slope, power_slope
from wattmetron.core.game_fit.game_evidence import MIXED, informed_items, ranking_of
from wattmetron.core.game_fit.informed import informed_game, learnt_of
from wattmetron.core.game_fit.learned_priors import (
    NOTHING_LEARNT,
    ParameterEvidence,
    Shift,
    as_learnt,
    look,
    shift_of,
)
from wattmetron.core.game_fit.learning import GameEvidence, Stand, _publishers, learn
from wattmetron.core.requirements.tiers import tier_table
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.published import Assumptions
from wattmetron.core.values.results import Results
from wattmetron.core.values.tails import tail_slope


def drawn(form, seed, games=16):
    world = FormWorld(form, seed, games)
    return world, Scale.of_standings((*world.processors, *world.cards))


def known(world, scale, true, stated=True, wrong=1.0) -> GameEvidence:
    game = known_game(true)
    table = tier_table(
        {game.id: game}, {game.id: world.published(true, stated)}, scale, Assumptions()
    )
    results = [world.result(true, *world.question(), n) for n in range(3)]
    pairs = tuple(_pair(world, replace(r, average_fps=r.average_fps * wrong)) for r in results)
    return GameEvidence(game, informed_items(game, table, scale, None), pairs)


def test_without_results_nothing_is_learnt_and_estimates_rest_on_tiers_alone():
    bare = replace(demo.world(), results={}).kept_by(Keeper())
    assert learnt_of(bare) == NOTHING_LEARNT
    game_id = next(iter(bare.published))
    told = informed_game(bare, game_id)
    assert told.before == bare.games[game_id]
    assert as_learnt(told.before, NOTHING_LEARNT) is told.before
    again = informed_game(replace(demo.world(), results={}).kept_by(Keeper()), game_id)
    assert again.game == told.game


def test_the_margin_is_the_mean_over_all_margins_by_numerical_integration():
    stands = [
        Stand(0.30, 0.01, 0.02, 0.30, 0.0, 0.0),
        Stand(0.10, 0.04, 0.00, 0.15, 0.0, 0.0),
        Stand(0.45, 0.02, 0.05, 8.00, 0.0, 0.0),
    ]

    def density(ln_noise: float, margin: float) -> float:
        noise = 0.2 * exp(ln_noise)
        value = norm.pdf(margin, 0.09, 0.12) * norm.pdf(ln_noise, 0, 0.4)
        for own in stands:
            spread = sqrt(own.variance + noise**2)
            x = own.away - margin
            value *= norm.cdf((x - own.lead) / spread) - norm.cdf((x - own.gap) / spread)
        return value

    area = (-0.3, 0.6, -1.2, 0.7)
    whole = dblquad(density, *area)[0]
    mean = dblquad(lambda n, m: m * density(n, m), *area)[0] / whole
    spread = dblquad(lambda n, m: n * density(n, m), *area)[0] / whole
    learnt = _publishers(stands, NOTHING_LEARNT)
    assert learnt.margin == pytest.approx(mean, abs=2e-3)
    assert log(learnt.noise / 0.2) == pytest.approx(spread, abs=2e-2)
    assert learnt.assumed_share == NOTHING_LEARNT.assumed_share


def test_a_posterior_without_its_prior_is_the_likelihood():
    """Normal prior and likelihood by hand: 0 ± 0.5 and 0.8 ± 0.2 meet at 0.69 ± 0.186."""
    precision = 1 / 0.25 + 1 / 0.04
    found = look(0.8 / 0.04 / precision, 1 / precision, 0.0, 0.25)
    assert found.away == pytest.approx(0.8) and found.variance == pytest.approx(0.04)
    assert look(0.0, 0.2499, 0.0, 0.25) is None, "what says nothing is no look"


def test_mean_and_spread_over_games_are_found_again():
    rng = np.random.default_rng(5)
    usual = Shift(0.0, 0.4)
    truth = rng.normal(0.5, 0.15, 300)
    looks = [ParameterEvidence(float(t + rng.normal(0, 0.2)), 0.04) for t in truth]
    found = shift_of(looks, usual, 0.3, 6.0)
    assert found.mean == pytest.approx(0.5, abs=0.04)
    assert found.between == pytest.approx(0.15, abs=0.05)
    wild = [*looks, *(ParameterEvidence(30.0, 0.04) for _ in range(10))]
    assert shift_of(wild, usual, 0.3, 6.0).mean == pytest.approx(0.5, abs=0.1), (
        "bad ones weigh little"
    )
    assert shift_of([], usual, 0.3, 6.0) == usual
    one = shift_of([ParameterEvidence(0.5, 0.2)], usual, 0.3, 6.0)
    assert 0 < one.mean < 0.25, "a single look moves little"


@pytest.mark.parametrize(
    ("form", "check"),
    [
        (3, lambda one: -0.2 < one.margin < 0.05),
        (1, lambda one: 0.1 < one.margin < 0.35 and one.rankings["processor"] == "all cores"),
        (0, lambda one: one.rankings["processor"] == "one core"),
        (2, lambda one: one.power.mean < 0.97),
        (4, lambda one: one.v_c.mean > 0.2 and one.v_g.mean > 0.2),
    ],
)
def test_what_is_learnt_goes_towards_the_truth_of_the_world(form, check):
    world, scale = drawn(FORMS[form], 41, 24)
    learnt = learn(known(world, scale, true) for true in world.games)
    assert (learnt.games, learnt.results) == (24, 72) and check(learnt)


def test_other_games_results_make_tiers_say_more():
    """In a world with tight margins, over three seeds."""
    plain, taught = [], []
    for seed in (61, 62, 63):
        world, scale = drawn(FORMS[3], seed)
        learnt = learn(known(world, scale, true) for true in world.games[:8])
        for true in world.games[8:]:
            own = {true.game.id: world.published(true, True)}
            for kept, what in ((plain, NOTHING_LEARNT), (taught, learnt)):
                game = as_learnt(known_game(true), what)
                table = tier_table({game.id: game}, own, scale, Assumptions())
                items = informed_items(game, table, scale, None, what)
                found = fit_game(game, items, (), what).game
                kept += [log(found.processor_ms / true.c), log(found.graphics_ms / true.g)]
    assert np.median(np.abs(taught)) < np.median(np.abs(plain))
    assert abs(np.median(taught)) < abs(np.median(plain))


def test_results_that_contradict_each_other_move_nothing_beyond_reason():
    world, scale = drawn(FORMS[0], 7)
    games = [
        known(world, scale, true, wrong=(3.0, 1 / 3)[n % 2]) for n, true in enumerate(world.games)
    ]
    learnt = learn(games)
    assert -0.3 <= learnt.margin <= 0.6 and 0.05 < learnt.noise < 0.45
    assert 0.7 < learnt.power.mean < 1.3 and all(abs(own.mean) < 1.5 for own in learnt.steps_w)
    assert learn(games[:1]).games == 1


def test_one_more_result_fits_one_game_anew_and_teaches_the_same_as_from_nothing():
    world, scale = drawn(FORMS[0], 11, 8)
    games = [known(world, scale, true) for true in world.games]
    keeper = Keeper()
    first = learn(games, keeper)
    misses = keeper.count.misses
    assert misses == 8 and learn(games, keeper) == first and keeper.count.misses == misses
    more = world.result(world.games[0], *world.question(), 9)
    games[0] = games[0]._replace(pairs=(*games[0].pairs, _pair(world, more)))
    second = learn(games, keeper)
    assert keeper.count.misses == misses + 1 and second == learn(games)
    assert second != first and second.results == first.results + 1


def test_a_list_shows_by_which_speed_it_ranks():
    rng = np.random.default_rng(3)
    offered = np.stack(
        [np.linspace(40, 130, 30), rng.permutation(np.linspace(30, 160, 30))], axis=1
    )
    by_one = offered[[10, 11]]
    assert ranking_of("processor", by_one, offered, "") == "one core"
    assert ranking_of("processor", by_one[:, ::-1], offered[:, ::-1], "") == "all cores"
    assert ranking_of("processor", by_one[:1], offered, "") == ""
    assert ranking_of("processor", by_one[:1], offered, "one core") == "one core"
    assert ranking_of("processor", by_one, offered, MIXED) == ""
    assert ranking_of("processor", offered[[3, 25]], offered, "") == ""


@given(st.floats(0.05, 0.9), st.floats(0.2, 9.0), st.floats(0.6, 1.3), st.floats(0.02, 0.6))
def test_slopes_are_those_of_the_formulas(phi, mpx, power, variation):
    def pixels(logit: float, p: float) -> float:
        return log(float(pixel_factor(1 / (1 + exp(-logit)), p, mpx)))

    def late(ln_v: float) -> float:
        s = sqrt(log1p(exp(2 * ln_v)))
        return 2.3263478740408408 * s - s * s / 2

    logit, step = log(phi / (1 - phi)), 1e-5
    by_phi = (pixels(logit + step, power) - pixels(logit - step, power)) / (2 * step)
    by_power = (pixels(logit, power + step) - pixels(logit, power - step)) / (2 * step)
    by_spread = (late(log(variation) + step) - late(log(variation) - step)) / (2 * step)
    assert float(phi_slope(phi, mpx, power)) == pytest.approx(by_phi, abs=1e-6)
    assert float(power_slope(phi, mpx, power)) == pytest.approx(by_power, abs=1e-6)
    assert tail_slope(variation) == pytest.approx(by_spread, abs=1e-6)


@pytest.mark.parametrize("index", range(6))
def test_the_low_is_less_sure_than_the_average(index):
    game_id = list(demo.world().games)[index]
    game = informed_game(demo.world(), game_id).game
    for one in (game, demo.world().games[game_id]):
        plain, low = one.spread("high", 3.7), one.spread("high", 3.7, low=True)
        assert low[0] > plain[0] and low[1] > plain[1]


def test_a_game_of_which_nothing_is_known_is_no_surer_than_one_with_distant_evidence():
    """One result at high and 1080p says less of low at 4K than of its own settings, and nothing at
    all says less still, everywhere.
    """
    catalogue = demo.described()
    game_id = next(iter(catalogue.results))
    (first, *_) = catalogue.results[game_id].items
    distant = replace(first, preset="high", width_px=1920, height_px=1080)
    lists = {key: own for key, own in catalogue.published.items() if key != game_id}
    bare = replace(catalogue, published=lists, results={}).kept_by(Keeper())
    found = {game_id: Results(game=game_id, items=(distant,))}
    one = replace(bare, results=found).kept_by(Keeper())
    nothing, something = (informed_game(own, game_id).game for own in (bare, one))
    assert nothing.processor_ms == pytest.approx(catalogue.game(game_id).processor_ms)
    for preset in ("low", "high", "ultra"):
        for mpx in (2.0736, 8.2944):
            wide, narrow = nothing.spread(preset, mpx), something.spread(preset, mpx)
            assert all(two <= was + 1e-9 for was, two in zip(wide[:2], narrow[:2], strict=True))
    usual, far = (nothing.spread(*at) for at in (("high", 2.0736), ("low", 8.2944)))
    assert far[0] > usual[0] and far[1] > 1.05 * usual[1]
