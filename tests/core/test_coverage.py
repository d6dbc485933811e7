"""Library coverage: the same frame rates as single estimates, and the shares of many games."""

from dataclasses import replace
from functools import cache
from itertools import product

import numpy as np
import pytest

from tests.demo import plans, world
from wattmetron.core.balance.game_coverage import SIZES, coverage, game_arrays
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.machine import Machine


@cache
def games():
    return [fitted_game(world(), game_id) for game_id in sorted(world().games)]


@pytest.mark.parametrize("name", ["net-loft", "signal-tower", "weather-ship"])
def test_every_cell_is_the_estimate_of_that_game(name):
    """The same mean frame rate; the same verdict but where chance and sureness nearly meet."""
    brief, build = plans()[name]
    machine = world().machine(build)
    found = coverage(machine, games(), game_arrays(games()))
    verdicts = found.reached(60.0, brief.chance)
    for (n, game), (i, (width, height)), (j, preset) in product(
        enumerate(games()[::4]), enumerate(SIZES), enumerate(PRESETS)
    ):
        target = Target(id="t", game_id=game.id, width_px=width, height_px=height, preset=preset)
        item = estimate(machine, game, target, brief)
        assert found.fps[4 * n, i, j] == pytest.approx(item.average_fps, rel=1e-9)
        if abs(item.chance - brief.chance) > 0.05:
            assert verdicts[4 * n, i, j] == (item.state == "meets"), (game.id, width, preset)


def test_shares_by_hand():
    """More pixels, higher presets and higher rates never reach more; a cap ends it."""
    machine = world().machine(plans()["signal-tower"][1])
    capped = replace(games()[0], engine_cap_fps=59.0)
    found = coverage(machine, [capped, *games()], game_arrays([capped, *games()]))
    at_60 = found.reached(60.0, 0.8)
    assert not at_60[0].any() and found.reached(59.0, 0.5)[0].any()
    shares = at_60[1:].mean(axis=0)
    assert (np.diff(shares[[0, 1, 3]], axis=0) <= 0).all() and (np.diff(shares, axis=1) <= 0).all()
    assert (found.reached(90.0, 0.8) <= at_60).all() and (found.reached(60.0, 0.95) <= at_60).all()
    assert coverage(Machine(), games(), game_arrays(games())) is None
    nothing = coverage(machine, [], game_arrays([]))
    assert nothing.fps.shape == (0, len(SIZES), len(PRESETS))
