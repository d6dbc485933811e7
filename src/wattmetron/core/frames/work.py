"""Mean work per frame of each side, in ms.

Speeds are points (reference part = 100), resolutions megapixels, memory and bandwidth GB and GB/s.
Everything broadcasts; a *workload* is one target's share of the formula as plain numbers.
"""

from dataclasses import dataclass
from math import log
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike, NDArray

from wattmetron.core.speeds.blend import ANCHORS_MPX
from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import Game

Floats = NDArray[np.float64]
REFERENCE_MPX = 2.0736
"""1920 x 1080: the work of a game is stated for it."""
LOG_ANCHORS = tuple(map(log, ANCHORS_MPX))
MEMORY_FACTOR_RANGE = (0.85, 1.5)
"""Memory changes the processor's time no further than this, whatever its figures."""
PROCESSOR_MODEL_SD = 0.05
GRAPHICS_MODEL_SD = 0.06
"""In ln: what the form of the model leaves open on each side (docs/model.md, “How sure”)."""
FORM_SD = 0.02
"""What the model's form leaves open where results of a design take the place of the model term."""
DUAL_RANK_FACTOR = 1.05
"""Two ranks or more on a channel count as so much more bandwidth."""
INTEGRATED_EXPONENT = 0.6
"""How integrated graphics grow with the bandwidth of the memory that they share."""
INTEGRATED_MEMORY_SHARE = 0.5
"""Of the main memory so much counts as their video memory."""
PCIE_GBS_PER_LANE = np.array([0.0, 0.25, 0.5, 0.985, 1.969, 3.938, 7.563])
"""By generation, one direction, after line coding."""


GENERATED_SHOWN = 2
"""Frames shown to each drawn one where they are generated: assumed, one between any two."""


class Rendering(NamedTuple):
    """How a target is drawn: upscaled, and with a frame generated between any two drawn ones."""

    upscaled: bool = False
    generated: bool = False

    @property
    def shown_per_drawn(self) -> int:
        return GENERATED_SHOWN if self.generated else 1


PLAIN = Rendering()


def drawn(
    game: Game, target: Target, upscalers: tuple[str, ...], generators: tuple[str, ...]
) -> Rendering:
    """What is asked for and offered by both the game and what draws."""
    return Rendering(
        target.upscaling and not set(game.upscalers).isdisjoint(upscalers),
        target.generated and not set(game.generators).isdisjoint(generators),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Workload:
    """A target's constants in the frame model.

    ``..._sd`` are spreads of the work in ln, errors of parts that stand in the game's results
    included; the model's and, where it is open, the part's own come on top.
    """

    processor_ms: float
    parallel_share: float
    memory_sensitivity: float
    graphics_ms: float
    fixed_share: float
    pixel_power: float
    shown_mpx: float
    rendered_mpx: float
    ray_ms_per_mpx: float
    upscale_ms_per_mpx: float
    generation_ms_per_mpx: float
    shown_per_drawn: int
    video_memory_gb: float
    spill_share: float
    link_mb: float
    processor_sd: float
    graphics_sd: float
    v_c: float
    v_g: float
    side_cov: float = 0.0
    processor_model_sd: float = PROCESSOR_MODEL_SD
    graphics_model_sd: float = GRAPHICS_MODEL_SD
    processor_open: bool = True
    graphics_open: bool = True


def workload(
    game: Game,
    target: Target,
    how: Rendering = PLAIN,
    chip: Affinity = UNSEEN,
    card: Affinity = UNSEEN,
    threads: int | None = None,
) -> Workload:
    """The constants for one target; ``how`` says how it is drawn here, ``chip`` and ``card`` what
    the game's results told about the machine's parts, ``threads`` how many the processor has.
    """
    preset = game.preset(target.preset)
    shown = target.shown_mpx
    rendered = shown * target.scale**2 if how.upscaled else shown
    ray = game.ray_tracing_ms_per_mpx if target.ray_tracing else None
    need = preset.video_memory.at(rendered) + (game.ray_tracing_memory_gb if ray else 0.0)
    need += game.generation_memory_gb if how.generated else 0.0
    sd_c, sd_g, cov = game.spread(target.preset, shown, chip, card, target.measure == "low")
    u, w = preset.processor_factor, preset.graphics_factor
    for option in game.options:
        if option.name in target.lowered:
            u, w, need = (
                u * option.processor_factor,
                w * option.graphics_factor,
                need - option.video_memory_gb,
            )
    return Workload(
        processor_ms=game.processor_ms * u * float(np.exp(chip.shift)),
        parallel_share=game.parallel_share,
        memory_sensitivity=game.memory_sensitivity,
        graphics_ms=game.graphics_ms * w * float(np.exp(card.shift)),
        fixed_share=game.fixed_share,
        pixel_power=game.pixel_power,
        shown_mpx=shown,
        rendered_mpx=rendered,
        ray_ms_per_mpx=ray or 0.0,
        upscale_ms_per_mpx=game.upscaling_ms_per_mpx if how.upscaled else 0.0,
        generation_ms_per_mpx=game.generation_ms_per_mpx if how.generated else 0.0,
        shown_per_drawn=how.shown_per_drawn,
        video_memory_gb=max(0.0, need),
        spill_share=game.spill_share,
        link_mb=game.link_mb_used,
        processor_sd=sd_c,
        graphics_sd=sd_g,
        v_c=game.variation_on(threads),
        v_g=game.graphics_variation,
        side_cov=cov,
        processor_model_sd=model_sd(chip, PROCESSOR_MODEL_SD),
        graphics_model_sd=model_sd(card, GRAPHICS_MODEL_SD),
        processor_open=chip.speed_open,
        graphics_open=card.speed_open,
    )


def model_sd(known: Affinity, usual: float) -> float:
    """What the model leaves open of a part in a game, in ln."""
    if not known.design_open:
        return FORM_SD
    return usual if known.model_sd is None else known.model_sd


def latency_ns(cl: ArrayLike, mts: ArrayLike) -> Floats:
    """Time to the first word in ns: ``2000 CL / (MT/s)``."""
    return np.asarray(2000.0 * np.asarray(cl) / np.asarray(mts))


def bandwidth_gbs(channels: ArrayLike, mts: ArrayLike, ranks: ArrayLike = 1) -> Floats:
    """Memory bandwidth in GB/s: channels x 8 bytes x MT/s, times 1.05 from two ranks per
    channel.
    """
    rank_factor = np.where(np.asarray(ranks) >= 2, DUAL_RANK_FACTOR, 1.0)
    return np.asarray(np.asarray(channels) * 8.0 * np.asarray(mts) / 1000.0 * rank_factor)


def memory_factor(
    kappa: ArrayLike,
    latency: ArrayLike,
    bandwidth: ArrayLike,
    rated_latency: ArrayLike,
    rated_bandwidth: ArrayLike,
) -> Floats:
    """m = 1 + kappa (L - 1), L the mean of latency and inverse bandwidth over their rated
    values.
    """
    load = 0.5 * np.asarray(latency) / np.asarray(rated_latency) + 0.5 * np.asarray(
        rated_bandwidth
    ) / np.asarray(bandwidth)
    return np.asarray(np.clip(1 + np.asarray(kappa) * (load - 1), *MEMORY_FACTOR_RANGE))


def processor_ms(
    work: Workload, single_speed: ArrayLike, all_core_speed: ArrayLike, factor: ArrayLike = 1.0
) -> Floats:
    """t_c = 100 C u [(1 - pi)/S + pi/T] m, in ms."""
    serial = (1 - work.parallel_share) / np.asarray(single_speed, dtype=float)
    parallel = work.parallel_share / np.asarray(all_core_speed, dtype=float)
    return np.asarray(100 * work.processor_ms * (serial + parallel) * np.asarray(factor))


def link_gbs(gen: ArrayLike, lanes: ArrayLike) -> Floats:
    """Bandwidth in GB/s of a PCIe link, one direction, after line coding."""
    capped = np.minimum(gen, len(PCIE_GBS_PER_LANE) - 1)
    return np.asarray(PCIE_GBS_PER_LANE[capped] * lanes)


def speed_at(megapixels: float, anchor_speeds: ArrayLike) -> Floats:
    """R at a resolution: linear in ln MP between the anchors, constant outside. Shape (n, 3) ->
    (n,).
    """
    speeds = np.atleast_2d(np.asarray(anchor_speeds, dtype=float))
    position = min(max(log(megapixels), LOG_ANCHORS[0]), LOG_ANCHORS[-1])
    left = 0 if position < LOG_ANCHORS[1] else 1
    part = (position - LOG_ANCHORS[left]) / (LOG_ANCHORS[left + 1] - LOG_ANCHORS[left])
    return np.asarray(speeds[:, left] * (1 - part) + speeds[:, left + 1] * part)


def pixel_factor(fixed: ArrayLike, power: ArrayLike, megapixels: ArrayLike) -> Floats:
    """``fixed + (1 - fixed) (MP/2.0736)^power``: how graphics work grows with pixels."""
    fixed, mpx = np.asarray(fixed, dtype=float), np.asarray(megapixels, dtype=float)
    return np.asarray(fixed + (1 - fixed) * (mpx / REFERENCE_MPX) ** np.asarray(power))


def rising_work(
    anchor_speeds: ArrayLike, fixed: ArrayLike, megapixels: float, power: ArrayLike = 1.0
) -> Floats:
    """Running maximum over MP of ``100/R(MP) [fixed + (1 - fixed) (MP/2.0736)^power]``.

    Between two anchors the time first falls, then rises, so its maximum up to MP is reached
    at MP itself or at an anchor below it.
    """
    points = [megapixels, *(anchor for anchor in ANCHORS_MPX if anchor < megapixels)]
    times = [
        100 / speed_at(point, anchor_speeds) * pixel_factor(fixed, power, point) for point in points
    ]
    return np.asarray(np.maximum.reduce(times))


class GraphicsWork(NamedTuple):
    """Graphics time per drawn frame in ms by cause; shape (n,) each."""

    raster_ms: Floats
    ray_ms: Floats
    upscale_ms: Floats
    generation_ms: Floats
    spill_ms: Floats
    link_ms: Floats

    @property
    def total_ms(self) -> Floats:
        return np.asarray(self.shading_ms + self.ray_ms + self.spill_ms)

    @property
    def shading_ms(self) -> Floats:
        """What goes by R: all but rays and the spill."""
        return np.asarray(self.raster_ms + self.upscale_ms + self.generation_ms + self.link_ms)


def graphics_work(
    work: Workload,
    anchor_speeds: ArrayLike,
    ray_speed: ArrayLike,
    video_memory_gb: ArrayLike,
    link: ArrayLike,
    own_link: ArrayLike = np.inf,
) -> GraphicsWork:
    """t_g in ms and what it is made of.

    ``anchor_speeds`` has shape (n, 3): R at 1920x1080, 2560x1440 and 3840x2160; the others (n,).
    ``own_link`` is the link on which the part's speed is known. A part that cannot trace rays has
    ``ray_speed`` nan; where rays are asked for its time is infinite.
    """
    raster = work.graphics_ms * rising_work(
        anchor_speeds, work.fixed_share, work.rendered_mpx, work.pixel_power
    )
    zero = np.zeros_like(raster)
    ray = zero
    if work.ray_ms_per_mpx:
        q = np.asarray(ray_speed, dtype=float)
        ray = np.where(np.isnan(q), np.inf, 100 / q * work.ray_ms_per_mpx * work.rendered_mpx)
    per_pixel = zero
    if work.upscale_ms_per_mpx or work.generation_ms_per_mpx:
        per_pixel = REFERENCE_MPX * rising_work(anchor_speeds, 0.0, work.shown_mpx)
    over = np.maximum(0.0, work.video_memory_gb - np.asarray(video_memory_gb, dtype=float))
    spill = 1000 * work.spill_share * over / np.asarray(link, dtype=float)
    crossing = link_ms(work.link_mb, link, own_link) if np.any(np.isfinite(own_link)) else zero
    return GraphicsWork(
        raster,
        np.broadcast_to(ray, raster.shape),
        work.upscale_ms_per_mpx * per_pixel,
        work.generation_ms_per_mpx * per_pixel,
        np.broadcast_to(spill, raster.shape),
        np.broadcast_to(crossing, raster.shape),
    )


def link_ms(megabytes: float, link: ArrayLike, own_link: ArrayLike) -> Floats:
    """Time in ms that a frame's data takes longer over this link than over the card's own, on which
    its speed is known; bandwidths in GB/s, nothing where this one is as fast.
    """
    slower = 1 / np.asarray(link, dtype=float) - 1 / np.asarray(own_link, dtype=float)
    return np.asarray(megabytes * np.maximum(0.0, slower))


def processor_sd(work: Workload, speed_sd: ArrayLike) -> Floats:
    """Log standard deviation of t_c: part, game and model in quadrature."""
    part = np.square(speed_sd) * work.processor_open
    return np.asarray(np.sqrt(part + work.processor_sd**2 + work.processor_model_sd**2))


class Unsure(NamedTuple):
    """Spreads of t_g in ln besides what the part's R and Q bring: game, model, and whether R's own
    counts.
    """

    game_sd: ArrayLike
    model_sd: ArrayLike
    speed_open: ArrayLike


def unsure(work: Workload) -> Unsure:
    """The graphics side's spreads of one target."""
    return Unsure(work.graphics_sd, work.graphics_model_sd, work.graphics_open)


def graphics_sd(
    open_ones: Unsure, made_of: GraphicsWork, speed_sd: ArrayLike, ray_sd: ArrayLike
) -> Floats:
    """Log standard deviation of t_g: part (split between R and Q by their shares), game and model.

    Results of a design tell how it rasterises; of its ray tracing the model term stays whole.
    """
    total = made_of.total_ms
    finite = np.isfinite(total)
    safe = np.where(finite, total, 1.0)
    ray_share = np.where(finite, np.where(finite, made_of.ray_ms, 0.0) / safe, 1.0)
    raster_share = np.where(finite, made_of.shading_ms / safe, 0.0)
    raster = raster_share * np.asarray(speed_sd) * np.asarray(open_ones.speed_open)
    known = np.square(open_ones.model_sd)
    model = known + np.square(ray_share) * (GRAPHICS_MODEL_SD**2 - known)
    return np.asarray(
        np.sqrt(
            np.square(raster)
            + np.square(ray_share * np.asarray(ray_sd))
            + np.square(open_ones.game_sd)
            + model
        )
    )
