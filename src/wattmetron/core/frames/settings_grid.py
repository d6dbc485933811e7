"""Settings that meet: one machine over resolutions, presets, upscaling and ray tracing at once."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import product

import numpy as np

from wattmetron.core.frames import chance, frame_rates, work
from wattmetron.core.frames.caps import within_cap
from wattmetron.core.frames.drawing_side import DrawingSide, affinities, drawing_side, graphics_work
from wattmetron.core.frames.estimate import State, processor_time, state_of
from wattmetron.core.frames.memory_class import MemoryClass, memory_class
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.games import PRESETS, Game, PresetName
from wattmetron.core.values.machine import Machine

USUAL_SIZES = ((1280, 720), (1920, 1080), (2560, 1440), (3840, 2160))
NEVER_MS = 1e9
"""Stands for the time of a frame that a card cannot draw at all."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Cell:
    """One choice of settings: the judged rate in fps, the chance of the target's rate, the side
    that limits.

    ``short_gb`` is the video memory that is missing.
    """

    target: Target
    fps: float
    chance: float
    state: State
    processor_share: float
    short_gb: float


@dataclass(frozen=True)
class Grid:
    """All cells, and the best that meets: what users give up last is kept first. ``options`` are
    the target's own settings with one single option the other way, by its name.
    """

    cells: tuple[Cell, ...]
    best: Cell | None
    sizes: tuple[tuple[int, int], ...]
    options: dict[str, Cell]


def settings_grid(
    machine: Machine,
    game: Game,
    target: Target,
    brief: Brief,
    sizes: Sequence[tuple[int, int]] = (),
) -> Grid | None:
    """The grid of a target, or None while the machine has no processor or nothing that draws.

    Upscaling and ray tracing stand only where game and graphics part offer them. The rate and the
    measure are the target's own.
    """
    chip = machine.processor
    if chip is None or not machine.can_draw:
        return None
    memory = memory_class(chip, machine.mainboard, machine.memory)
    side = drawing_side(machine, memory)
    size_px = (target.width_px, target.height_px)
    shown = tuple(sorted({*(sizes or USUAL_SIZES), size_px}, key=lambda size: size[0] * size[1]))
    upscaling = (
        (False, True) if side.draws(game, replace(target, upscaling=True)).upscaled else (False,)
    )
    rays = (
        (False, True)
        if game.ray_tracing_ms_per_mpx is not None and np.isfinite(side.ray_speed)
        else (False,)
    )
    choices = [
        replace(
            target, width_px=size[0], height_px=size[1], preset=preset, upscaling=up, ray_tracing=rt
        )
        for rt, up, preset, size in product(rays, upscaling, PRESETS, shown)
    ]
    toggled = [
        replace(target, lowered=_toggled(game, target, option.name)) for option in game.options
    ]
    judged = _cells(machine, memory, side, game, target, brief, [*choices, *toggled])
    cells, options = judged[: len(choices)], judged[len(choices) :]
    return Grid(
        cells,
        best_of(cells, target),
        shown,
        dict(zip((option.name for option in game.options), options, strict=True)),
    )


def _toggled(game: Game, target: Target, name: str) -> tuple[str, ...]:
    """The options set lower, with one of them the other way."""
    return tuple(
        option.name
        for option in game.options
        if (option.name in target.lowered) != (option.name == name)
    )


def _cells(
    machine: Machine,
    memory: MemoryClass,
    side: DrawingSide,
    game: Game,
    target: Target,
    brief: Brief,
    choices: list[Target],
) -> tuple[Cell, ...]:
    chip = machine.processor
    assert chip is not None
    known = affinities(machine, game)
    times, short = [], []
    processor: dict[tuple[PresetName, tuple[str, ...]], tuple[float, float]] = {}
    for choice in choices:
        load = work.workload(game, choice, side.draws(game, choice), *known, chip.threads)
        made = graphics_work(load, side)
        sd_g = float(work.graphics_sd(work.unsure(load), made, side.speed_sd, side.ray_sd)[0])
        key = choice.preset, choice.lowered
        if key not in processor:
            processor[key] = (
                processor_time(load, chip, memory)[0],
                float(work.processor_sd(load, chip.speed_sd)),
            )
        t_c, sd_c = processor[key]
        t_g = min(float(made.total_ms[0]), NEVER_MS)
        times.append((t_c, t_g, sd_c, sd_g, load.side_cov))
        short.append(max(0.0, load.video_memory_gb - side.video_memory_gb))
    shown = side.draws(game, target).shown_per_drawn
    return _judged(game, target, brief, choices, np.array(times), short, chip.threads, shown)


def _judged(
    game: Game,
    target: Target,
    brief: Brief,
    targets: list[Target],
    times: np.ndarray,
    short: list[float],
    threads: int,
    shown: int,
) -> tuple[Cell, ...]:
    t_c, t_g, sd_c, sd_g, cov = times.T
    v_c = game.variation_on(threads)
    v_g = game.graphics_variation
    statistic = frame_rates.low_ms if target.measure == "low" else frame_rates.mean_ms
    fps = shown * 1000 / statistic(t_c, t_g, v_c, v_g)
    line = chance.curve(v_c, v_g, target.measure)
    wanted = np.log(shown * 1000 / target.fps)
    within = chance.chance_within(line, np.log(t_c), sd_c, np.log(t_g), sd_g, wanted, cov)
    shares = frame_rates.processor_share(t_c, t_g, v_c, v_g)
    if not within_cap(game, target, shown):
        within = np.zeros_like(within)
    return tuple(
        Cell(
            target=each_target,
            fps=float(fps[n]),
            chance=float(within[n]),
            state=state_of(float(within[n]), brief.chance),
            processor_share=float(shares[n]),
            short_gb=short[n],
        )
        for n, each_target in enumerate(targets)
    )


def best_of(cells: tuple[Cell, ...], target: Target) -> Cell | None:
    """Of the cells that meet, the one that gives up least: resolution is given up last, then the
    preset, then drawing without upscaling, and ray tracing first; never more than the target asks
    for in pixels.
    """
    pixels = target.width_px * target.height_px
    met = [
        cell
        for cell in cells
        if cell.state == "meets" and cell.target.width_px * cell.target.height_px <= pixels
    ]
    return max(
        met,
        key=lambda cell: (
            cell.target.width_px * cell.target.height_px,
            PRESETS.index(cell.target.preset),
            not cell.target.upscaling,
            cell.target.ray_tracing,
            cell.chance,
        ),
        default=None,
    )
