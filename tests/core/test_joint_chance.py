"""The chance of all targets at once against simulation with errors drawn and shared."""

from dataclasses import replace

import numpy as np
import pytest

from tests.demo import plans, world
from wattmetron.core.frames import frame_rates
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.joint_chance import chance_of_all
from wattmetron.core.game_fit.informed import fitted_game

DRAWS = 400_000


def estimates(name, share):
    """A demo machine's targets at rates that are neither sure nor hopeless."""
    brief, build = plans()[name]
    machine = world().machine(build)
    items = []
    for target in brief.counted_targets:
        game = fitted_game(world(), target.game_id)
        first = estimate(machine, game, target, brief)
        if first is None or first.cannot:
            continue
        asked = replace(target, fps=round(share * first.judged_fps, 1))
        items.append(estimate(machine, replace(game, engine_cap_fps=None), asked, brief))
    return machine, items


def simulated(machine, items, seed):
    """Share of draws in which every target is met: parts err in all games alike."""
    rng = np.random.default_rng(seed)
    chip, raster, ray = rng.standard_normal((3, DRAWS))
    met = np.ones(DRAWS, dtype=bool)
    for item in items:
        load, (plain, rays, up, between, spill, link) = item.workload, item.made_of
        total = plain + rays + up + between + spill + link
        own_c = machine.processor.speed_sd * load.processor_open
        own_r = item.drawing.speed_sd * load.graphics_open * (plain + up + between + link) / total
        own_q = item.drawing.ray_sd * rays / total
        left = [
            [item.processor_sd**2 - own_c**2, load.side_cov],
            [load.side_cov, item.graphics_sd**2 - own_r**2 - own_q**2],
        ]
        noise = rng.multivariate_normal((0, 0), left, DRAWS)
        t_c = item.processor_ms * np.exp(own_c * chip + noise[:, 0])
        t_g = item.graphics_ms * np.exp(own_r * raster + own_q * ray + noise[:, 1])
        statistic = frame_rates.low_ms if item.target.measure == "low" else frame_rates.mean_ms
        met &= statistic(t_c, t_g, load.v_c, load.v_g) <= 1000 / item.target.fps
    return met.mean()


@pytest.mark.parametrize(
    ("name", "share"),
    [("net-loft", 0.95), ("net-loft", 1.0), ("signal-tower", 0.97), ("weather-ship", 0.95)],
)
def test_it_agrees_with_simulation_within_half_a_point(name, share):
    machine, items = estimates(name, share)
    assert len(items) > 1 and len({item.game.id for item in items}) == len(items)
    found = chance_of_all(items, machine.processor)
    assert found == pytest.approx(simulated(machine, items, 7), abs=0.005)
    alone = [item.chance for item in items]
    assert np.prod(alone) - 0.005 <= found <= min(alone) + 1e-6


def test_one_target_alone_is_its_own_chance_and_what_cannot_be_met_never_is():
    machine, items = estimates("net-loft", 0.97)
    for item in items:
        assert chance_of_all([item], machine.processor) == pytest.approx(item.chance, abs=2e-4)
        twice = [item, item]
        assert chance_of_all(twice, machine.processor) == pytest.approx(item.chance, abs=2e-4)
    assert chance_of_all([], machine.processor) == 1
    capped = replace(items[0], cap_fps=1.0)
    assert chance_of_all([*items[1:], capped], machine.processor) == 0
