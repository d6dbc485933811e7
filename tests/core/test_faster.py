"""The chance that one machine is faster, against a simulation by another road."""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from tests import demo
from wattmetron.core.frames import frame_rates
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.faster import chance_faster as chance_by
from wattmetron.core.frames.faster import scores
from wattmetron.core.frames.joint_chance import shared_errors
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.demo import BRIEFS
from wattmetron.formats.brief_file import read_brief, read_build

NAMES = ("net-loft", "signal-tower", "weather-ship", "harbour-hall")
DRAWS = 200_000


@cache
def all_scores():
    return scores()


def chance_faster(first, other, machines):
    return chance_by(first, other, machines, all_scores())


@pytest.fixture(scope="module")
def runs():
    """Machines of four briefs and their estimates of the targets of the first."""
    world = demo.world()
    brief = read_brief("b", (BRIEFS / "net-loft.brief.json").read_bytes())
    made = []
    for name in NAMES:
        build = read_build("b", (BRIEFS / f"{name}.build.json").read_bytes())
        machine = machine_of(world, build, brief.clocks)
        made.append(
            (
                machine,
                [
                    estimate(machine, fitted_game(world, target.game_id), target, brief)
                    for target in brief.targets
                ],
            )
        )
    return made


def simulated(first, other, machines, rng):
    """Draws every error by name, and counts."""

    def times(own, beside, machine, errors, which):
        parts = shared_errors(own, machine.processor)
        card_sd = (parts.raster**2 + parts.ray**2) ** 0.5
        c, g = np.zeros(DRAWS), np.zeros(DRAWS)
        for side, sd, part_sd, work in (
            ("c", own.processor_sd, parts.processor, "processor_sd"),
            ("g", own.graphics_sd, card_sd, "graphics_sd"),
        ):
            game_sd = min(getattr(own.workload, work), getattr(beside.workload, work))
            left = max(0.0, sd**2 - part_sd**2)
            game_sd = min(game_sd, left**0.5)
            part = machine.processor if side == "c" else machine.graphics
            total = (
                game_sd * errors(f"game {side}")
                + part_sd * errors(f"part {part.id if part else None} {side}")
                + (left - game_sd**2) ** 0.5 * errors(f"own {which} {side}")
            )
            if side == "c":
                c = own.processor_ms * np.exp(total)
            else:
                g = own.graphics_ms * np.exp(total)
        statistic = frame_rates.low_ms if own.target.measure == "low" else frame_rates.mean_ms
        return statistic(c, g, own.workload.v_c, own.workload.v_g)

    held = {}

    def errors(name):
        return held.setdefault(name, rng.standard_normal(DRAWS))

    left = times(first, other, machines[0], errors, "left")
    right = times(other, first, machines[1], errors, "right")
    return float((left < right).mean())


def test_it_agrees_with_simulation(runs):
    rng = np.random.default_rng(3)
    seen = []
    base = runs[0]
    for machine, own in runs[1:]:
        for one, two in zip(own, base[1], strict=True):
            machines = (machine, base[0])
            found = chance_faster(one, two, machines)
            seen.append(found)
            assert abs(found - simulated(one, two, machines, rng)) < 0.012, (one.game.name, found)
    assert min(seen) < 0.05 and max(seen) > 0.95 and any(0.2 < own < 0.8 for own in seen)


def test_a_machine_is_as_fast_as_itself_and_turned_round_the_chances_add_to_one(runs):
    for machine, own in runs:
        for one in own:
            assert chance_faster(one, one, (machine, machine)) == pytest.approx(0.5, abs=0.02)
    (first, left), (other, right) = runs[0], runs[2]
    for one, two in zip(left, right, strict=True):
        there = chance_faster(one, two, (first, other))
        back = chance_faster(two, one, (other, first))
        assert there + back == pytest.approx(1.0, abs=0.015)


def test_what_cannot_run_has_no_chance(runs):
    machine, own = runs[0]
    idle = replace(own[0], cannot="there is nothing that draws")
    assert chance_faster(idle, own[0], (machine, machine)) is None
