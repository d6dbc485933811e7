"""Many machines at once for one target: rate and chance as arrays, for lists of candidates."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.briefs import Brief, Target
from wattmetron.core.frames import chance, rates, work
from wattmetron.core.frames.estimate import (
    INTERVAL,
    State,
    effective_cap,
    is_upscaled,
    processor_time,
    state_of,
)
from wattmetron.core.games import Game
from wattmetron.core.machine import DrawingSide, Machine, MemoryClass, affinities, drawing_side, memory_class
from wattmetron.core.parts import Processor

Floats = NDArray[np.float64]
LEAST_LN_RATIO = float(np.log(0.01))
MOST_COUNTED = 1.5


@dataclass(frozen=True)
class Glance:
    """Judged rate (fps) with the ends of its 80 % interval, chance of the target and state per machine; nan and
    "short" where nothing runs."""

    fps: Floats
    low_fps: Floats
    high_fps: Floats
    chance: Floats
    states: tuple[State, ...]
    ln_ratio: Floats
    """ln r: the rate reached with the brief's sureness over the target's, counted no further than it counts."""


def glance(machines: Sequence[Machine], game: Game, target: Target, brief: Brief, with_ratio: bool = False) -> Glance:
    """The same figures as ``estimate`` for several machines; ``ln_ratio`` is worked out only when asked for."""
    sides = np.array([_sides(machine, game, target) for machine in machines]).reshape(-1, 5)
    t_c, t_g, sd_c, sd_g, cov = sides.T
    n = len(machines)
    fps, probability, ends = np.full(n, np.nan), np.zeros(n), np.full((2, n), np.nan)
    ln_ratio = np.full(n, LEAST_LN_RATIO)
    runs = np.isfinite(t_g) & np.isfinite(t_c)
    if runs.any():
        v_c, v_g = game.processor_variation, game.graphics_variation
        statistic = rates.low_ms if target.measure == "low" else rates.mean_ms
        fps[runs] = 1000 / statistic(t_c[runs], t_g[runs], v_c, v_g)
        line = chance.curve(v_c, v_g, target.measure)
        errors = (np.log(t_c[runs]), sd_c[runs], np.log(t_g[runs]), sd_g[runs])
        probability[runs] = chance.chance_within(line, *errors, np.log(1000 / target.fps), cov[runs])
        for row, at in zip(ends, INTERVAL, strict=True):
            row[runs] = 1000 / np.exp(chance.quantile_ln(line, *errors, at, cov[runs]))
        if with_ratio:
            most = np.log(max(1.0, min(MOST_COUNTED, brief.display.refresh_hz / target.fps)))
            reached = np.log(1000 / target.fps) - chance.quantile_ln(line, *errors, brief.chance, cov[runs])
            ln_ratio[runs] = np.clip(reached, LEAST_LN_RATIO, most)
    cap = effective_cap(game, target)
    if cap is not None and target.fps > cap:
        probability[:] = 0.0
    return Glance(fps, ends[1], ends[0], probability, tuple(state_of(float(p), brief.chance) for p in probability), ln_ratio)


@lru_cache(maxsize=8192)
def _sides(machine: Machine, game: Game, target: Target) -> tuple[float, float, float, float, float]:
    """Times of both sides in ms, their spreads in ln and the covariance."""
    chip = machine.processor
    if chip is None or not machine.can_draw:
        return np.nan, np.nan, 0.1, 0.1, 0.0
    memory = memory_class(chip, machine.mainboard, machine.memory)
    side = drawing_side(machine, memory)
    load = work.workload(game, target, is_upscaled(game, target, side.upscalers), *affinities(machine, game))
    t_c, sd_c = _processor_side(load, chip, memory)
    t_g, sd_g = _graphics_side(load, side)
    return t_c, t_g / machine.hastened(game), sd_c, sd_g, load.side_cov


@lru_cache(maxsize=8192)
def _processor_side(load: work.Workload, chip: Processor, memory: MemoryClass) -> tuple[float, float]:
    """Time in ms and its spread; kept, for candidates of another kind share it."""
    return processor_time(load, chip, memory)[0], float(work.processor_sd(load, chip.speed_sd))


@lru_cache(maxsize=8192)
def _graphics_side(load: work.Workload, side: DrawingSide) -> tuple[float, float]:
    """Time in ms and its spread; kept, for candidates of another kind share it."""
    made = work.graphics_work(load, side.anchors, side.ray_speed, side.video_memory_gb, side.link_gbs)
    return float(made.total_ms[0]), float(work.graphics_sd(work.unsure(load), made, side.speed_sd, side.ray_sd)[0])
