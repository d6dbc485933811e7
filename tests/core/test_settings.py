"""Settings that meet, and what would settle an unsure target."""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest
from scipy.stats import norm

from tests.demo import loft, loft_build, settled
from wattmetron.core.frames import work
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.settings_grid import best_of, settings_grid
from wattmetron.core.frames.settling import NOISE, settlings
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.games import PRESETS


@cache
def loft_machine():
    return settled().machine(loft_build())


@pytest.mark.parametrize("index", range(6))
def test_every_cell_is_the_estimate_of_its_settings(index):
    target = loft().targets[index]
    game = fitted_game(settled(), target.game_id)
    grid = settings_grid(loft_machine(), game, target, loft())
    assert (target.width_px, target.height_px) in grid.sizes
    assert list(grid.options) == [option.name for option in game.options]
    for cell in (*grid.cells[::3], *grid.options.values()):
        exact = estimate(loft_machine(), game, cell.target, loft())
        assert cell.fps == pytest.approx(exact.judged_fps) and cell.chance == pytest.approx(
            exact.chance, abs=1e-9
        )
        assert cell.state == exact.state and cell.short_gb == pytest.approx(
            exact.short_of_video_memory_gb
        )
    rays = game.ray_tracing_ms_per_mpx is not None
    assert {cell.target.ray_tracing for cell in grid.cells} == ({False, True} if rays else {False})


def test_a_single_option_set_lower_lessens_the_work_by_its_factors_and_back():
    """By hand: 9 of 10 ms are left of the graphics work, 19 of 20 of the processor's, and 0.3 GB
    less are wanted.
    """
    game = next(
        each_game
        for each_game in settled().games.values()
        if any(option.name == "distant fields" for option in each_game.options)
    )
    target = next(each_target for each_target in loft().targets if each_target.game_id == game.id)
    full, less = (
        work.workload(game, replace(target, lowered=names)) for names in ((), ("distant fields",))
    )
    assert less.graphics_ms == pytest.approx(
        0.9 * full.graphics_ms
    ) and less.processor_ms == pytest.approx(0.95 * full.processor_ms)
    assert less.video_memory_gb == pytest.approx(full.video_memory_gb - 0.3)
    assert work.workload(game, replace(target, lowered=("no such option",))) == full
    grid = settings_grid(
        loft_machine(),
        fitted_game(settled(), game.id),
        replace(target, lowered=("distant fields",)),
        loft(),
    )
    restored = grid.options["distant fields"]
    own = next(cell for cell in grid.cells if replace(cell.target, lowered=()) == target)
    assert restored.target == target and restored.fps < own.fps
    assert grid.options["soft shadows"].target.lowered == ("distant fields", "soft shadows")


@pytest.mark.parametrize("index", range(6))
def test_more_pixels_or_a_higher_preset_never_help_and_the_best_gives_up_least(index):
    target = loft().targets[index]
    grid = settings_grid(loft_machine(), fitted_game(settled(), target.game_id), target, loft())
    rates = {
        (
            c.target.ray_tracing,
            c.target.upscaling,
            PRESETS.index(c.target.preset),
            c.target.width_px * c.target.height_px,
        ): c.fps
        for c in grid.cells
    }
    for (rays, up, preset, pixels), fps in rates.items():
        for (other_rays, other_up, other_preset, other_pixels), other in rates.items():
            if (
                (rays, up) == (other_rays, other_up)
                and preset <= other_preset
                and pixels <= other_pixels
            ):
                assert fps >= other - 1e-9
    best = grid.best
    if best is not None:
        assert best.state == "meets" and best.target.width_px <= target.width_px
        better = [
            c
            for c in grid.cells
            if c.state == "meets"
            and c.target.width_px * c.target.height_px
            == best.target.width_px * best.target.height_px
            and PRESETS.index(c.target.preset) > PRESETS.index(best.target.preset)
        ]
        assert not better
    assert best_of((), target) is None


def test_a_machine_that_cannot_run_it_has_no_grid_and_a_cap_is_never_met():
    target = loft().targets[0]
    game = fitted_game(settled(), target.game_id)
    assert settings_grid(replace(loft_machine(), processor=None), game, target, loft()) is None
    capped = settings_grid(loft_machine(), replace(game, engine_cap_fps=30.0), target, loft())
    assert capped.best is None and {cell.state for cell in capped.cells} == {"short"}


def test_what_settles_by_hand_and_by_simulation():
    target = replace(loft().targets[0], fps=62.0)
    item = estimate(loft_machine(), fitted_game(settled(), target.game_id), target, loft())
    assert item.state == "unsure"
    e_c, cov = item.processor_elasticity, item.workload.side_cov
    variance = (
        (e_c * item.processor_sd) ** 2
        + ((1 - e_c) * item.graphics_sd) ** 2
        + 2 * e_c * (1 - e_c) * cov
    )
    found = {each.kind: each for each in settlings(item, 0.8)}
    run = found["own run"]
    assert run.before_sd == pytest.approx(variance**0.5)
    assert run.after_sd == pytest.approx((1 / (1 / variance + 1 / NOISE["own run"] ** 2)) ** 0.5)
    rng = np.random.default_rng(3)
    truth = rng.normal(0, variance**0.5, 200_000)
    seen = truth + rng.normal(0, NOISE["own run"], truth.size)
    middle = seen * variance / (variance + NOISE["own run"] ** 2)
    ahead = norm.ppf(item.chance) * variance**0.5
    chances = norm.cdf((ahead - middle) / run.after_sd)
    assert run.settles == pytest.approx(((chances >= 0.8) | (chances <= 0.2)).mean(), abs=0.005)
    assert all(each.after_sd <= each.before_sd for each in found.values())
    assert run.settles >= found["published result"].settles
