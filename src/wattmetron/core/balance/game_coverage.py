"""Library coverage: which of many games a machine runs at a rate, by resolution and preset.

The mean frame rate of every game at every cell comes from the frame model at once, as arrays. How
sure it is: mean and spread of ln F over the errors of both sides by a Gauss-Hermite sum of three
by three points, taken as normal. Games are drawn in full, without upscaling and rays.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product
from typing import NamedTuple

import numpy as np
from numpy.polynomial.hermite_e import hermegauss
from numpy.typing import NDArray
from scipy.special import ndtri

from wattmetron.core.frames import work
from wattmetron.core.frames.chance import MOST_CORRELATION
from wattmetron.core.frames.drawing_side import DrawingSide, affinities, drawing_side
from wattmetron.core.frames.frame_rates import ln_mean_ms, shape
from wattmetron.core.frames.memory_class import memory_class, rated_bandwidth_gbs, rated_latency_ns
from wattmetron.core.speeds.blend import ANCHORS_MPX
from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.games import PRESETS, Game, Preset
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.threads import crowding

Floats = NDArray[np.float64]
Mask = NDArray[np.bool_]
NODES = 3
"""Gauss-Hermite nodes for each error: enough for whole per cent."""
SIZES: tuple[tuple[int, int], ...] = ((1920, 1080), (2560, 1440), (3440, 1440), (3840, 2160))


class GameArrays(NamedTuple):
    """What many games ask for: ``plain`` has a column for each of ``PLAIN``; work in ms has shape
    (n, presets), video memory at the three anchors (n, presets, 3).
    """

    plain: Floats
    processor_ms: Floats
    graphics_ms: Floats
    video_memory_gb: Floats

    def of(self, name: str) -> Floats:
        return np.asarray(self.plain[:, PLAIN.index(name)])


PLAIN = (
    "parallel_share",
    "memory_sensitivity",
    "fixed_share",
    "pixel_power",
    "processor_variation",
    "graphics_variation",
    "spill_share",
    "link_mb_used",
    "threads_used",
    "processor_work_sd",
    "graphics_work_sd",
)


def game_arrays(games: Sequence[Game]) -> GameArrays:
    """The games as arrays, in their order."""
    plain = np.array([[getattr(game, name) for name in PLAIN] for game in games], dtype=float)
    figures = np.array(
        [[_asked(game, game.preset(name)) for name in PRESETS] for game in games], dtype=float
    ).reshape(len(games), len(PRESETS), 5)
    return GameArrays(
        plain.reshape(len(games), len(PLAIN)),
        figures[..., 0],
        figures[..., 1],
        np.maximum.accumulate(figures[..., 2:], axis=2),
    )


def _asked(game: Game, preset: Preset) -> tuple[float, ...]:
    need = preset.video_memory
    return (
        game.processor_ms * preset.processor_factor,
        game.graphics_ms * preset.graphics_factor,
        need.at_1080p_gb,
        need.at_1440p_gb,
        need.at_2160p_gb,
    )


@dataclass(frozen=True, slots=True)
class Coverage:
    """Mean frame rates of games on a machine in fps, mean and spread of ln frame time (ms), shape
    (games, sizes, presets); the engines' caps in fps.
    """

    fps: Floats
    ln_ms: Floats
    sd: Floats
    cap_fps: Floats

    def reached(self, wanted_fps: float, chance: float) -> Mask:
        """Where a rate is reached with this chance; a rate above an engine's cap never is."""
        ahead = np.log(1000 / wanted_fps) - self.ln_ms >= float(ndtri(chance)) * self.sd
        return np.asarray(ahead & (self.cap_fps >= wanted_fps)[:, None, None])


def coverage(
    machine: Machine,
    games: Sequence[Game],
    arrays: GameArrays,
    sizes: Sequence[tuple[int, int]] = SIZES,
) -> Coverage | None:
    """What a machine reaches in each game at each size and preset; None where it does not run.

    ``arrays`` are those of the games.
    """
    chip = machine.processor
    if chip is None or not machine.can_draw:
        return None
    memory = memory_class(chip, machine.mainboard, machine.memory)
    side = drawing_side(machine, memory)
    known = [
        (UNSEEN, UNSEEN) if type(game) is Game else affinities(machine, game) for game in games
    ]
    shifts = np.exp([[affinity.shift for affinity in pair] for pair in known]).reshape(
        len(games), 2
    )
    factor = work.memory_factor(
        arrays.of("memory_sensitivity"),
        memory.latency_ns,
        memory.bandwidth_gbs,
        rated_latency_ns(chip),
        rated_bandwidth_gbs(chip),
    )
    share = arrays.of("parallel_share")
    pace = (1 - share) / chip.single_speed + share / chip.all_core_speed
    t_c = arrays.processor_ms * (100 * pace * factor * shifts[:, 0])[:, None]
    hastened = np.array([machine.hastened(game) for game in games])
    mpx = [width * height / 1e6 for width, height in sizes]
    t_g = np.stack([_drawn_ms(arrays, shifts[:, 1], side, size_mpx) for size_mpx in mpx], axis=1)
    t_g /= hastened[:, None, None]
    crowd = np.array(
        [crowding(chip.threads, int(threads)) for threads in arrays.of("threads_used")]
    )
    v_c = (arrays.of("processor_variation") * crowd)[:, None, None]
    v_g = arrays.of("graphics_variation")[:, None, None]
    spreads = _spreads(games, known, arrays, mpx, (chip.speed_sd, side.speed_sd))
    form = shape(v_c, v_g).s
    ln_c, ln_g = np.broadcast_to(np.log(t_c[:, None, :]), t_g.shape), np.log(t_g)
    mean, sd = _moments(ln_c, ln_g, form, spreads)
    caps = np.array([game.engine_cap_fps or np.inf for game in games])
    return Coverage(1000 / np.exp(ln_mean_ms(ln_c, ln_g, form)), mean, sd, caps)


def _moments(
    ln_c: Floats, ln_g: Floats, form: Floats, spreads: tuple[Floats, Floats, Floats]
) -> tuple[Floats, Floats]:
    """Mean and standard deviation of ln F, F the mean frame time in ms."""
    sd_c, sd_g, cov = spreads
    rho = np.clip(cov / (sd_c * sd_g), -MOST_CORRELATION, MOST_CORRELATION)
    with_c, alone = sd_g * rho, sd_g * np.sqrt(1 - rho**2)
    points, weights = hermegauss(NODES)
    weights = weights / weights.sum()
    first, second = np.zeros(ln_g.shape), np.zeros(ln_g.shape)
    for point, of_one in zip(points, weights, strict=True):
        moved_c, moved_g = ln_c + sd_c * point, ln_g + with_c * point
        for two, of_two in zip(points, weights, strict=True):
            ln_f = ln_mean_ms(moved_c, moved_g + alone * two, form)
            first += of_one * of_two * ln_f
            second += of_one * of_two * ln_f**2
    return first, np.sqrt(np.maximum(second - first**2, 0.0))


def _drawn_ms(arrays: GameArrays, shift: Floats, side: DrawingSide, mpx: float) -> Floats:
    """Graphics time of each game and preset at so many megapixels."""
    times = work.rising_work(side.anchors, arrays.of("fixed_share"), mpx, arrays.of("pixel_power"))
    raster = arrays.graphics_ms * (shift * times)[:, None]
    index = float(np.interp(mpx, ANCHORS_MPX, (0.0, 1.0, 2.0)))
    left = min(int(index), 1)
    low, high = arrays.video_memory_gb[..., left], arrays.video_memory_gb[..., left + 1]
    over = np.maximum(0.0, low + (high - low) * (index - left) - side.video_memory_gb)
    spill = 1000 * arrays.of("spill_share")[:, None] * over / side.link_gbs
    crossing = work.link_ms(1.0, side.link_gbs, side.own_link_gbs) * arrays.of("link_mb_used")
    return np.asarray(raster + spill + crossing[:, None])


def _spreads(
    games: Sequence[Game],
    known: Sequence[tuple[Affinity, Affinity]],
    arrays: GameArrays,
    mpx: Sequence[float],
    speed_sd: tuple[float, float],
) -> tuple[Floats, Floats, Floats]:
    """Spreads of both sides in ln and their covariance, shape (games, sizes, presets): what is
    known of a game by results hangs on preset and size.
    """
    cells = (len(games), len(mpx), len(PRESETS))
    game_sd = [
        np.broadcast_to(arrays.of(name)[:, None, None], cells).copy()
        for name in ("processor_work_sd", "graphics_work_sd")
    ]
    cov = np.zeros(cells)
    part = np.broadcast_to(np.square(speed_sd), (len(games), 2)).copy()
    usual = (work.PROCESSOR_MODEL_SD, work.GRAPHICS_MODEL_SD)
    model = np.broadcast_to(np.square(usual), (len(games), 2)).copy()
    for row, (game, pair) in enumerate(zip(games, known, strict=True)):
        if type(game) is Game:
            continue
        part[row] *= [affinity.speed_open for affinity in pair]
        model[row] = [
            work.model_sd(affinity, taken) ** 2 for affinity, taken in zip(pair, usual, strict=True)
        ]
        for index, preset in product(range(len(mpx)), range(len(PRESETS))):
            pair_spread = game.spread(PRESETS[preset], mpx[index], *pair)
            game_sd[0][row, index, preset], game_sd[1][row, index, preset] = (
                pair_spread[0],
                pair_spread[1],
            )
            cov[row, index, preset] = pair_spread[2]
    sd_c, sd_g = (
        np.sqrt(game_sd[n] ** 2 + (part[:, n] + model[:, n])[:, None, None]) for n in (0, 1)
    )
    return sd_c, sd_g, cov
