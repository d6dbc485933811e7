"""A game's workload: the parameters of the frame model, its presets and its video-memory need."""

from dataclasses import dataclass
from datetime import date
from math import hypot
from typing import Annotated, Literal, NamedTuple

import numpy as np
from annotated_types import Ge, Le

from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.fields import LEAST, Column, WorkSpread
from wattmetron.core.values.genres import link_mb_of
from wattmetron.core.values.tails import LOW_FORM_SD, VARIATION_SD, tail_slope
from wattmetron.core.values.threads import crowding, threads_of

PresetName = Literal["low", "medium", "high", "ultra"]
PRESETS: tuple[PresetName, ...] = ("low", "medium", "high", "ultra")

Milliseconds = Annotated[float, Ge(LEAST), Le(10_000)]
Share = Annotated[float, Ge(0), Le(1)]
Variation = Annotated[float, Ge(0.01), Le(1)]
Factor = Annotated[float, Ge(LEAST), Le(10)]
Need = Annotated[float, Ge(0), Le(512)]
Lessening = Annotated[float, Ge(LEAST), Le(1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class VideoMemoryNeed:
    """Video memory wanted at three rendered resolutions; linear in megapixels between them."""

    at_1080p_gb: Annotated[Need, Column("At 1920x1080", "GB")]
    at_1440p_gb: Annotated[Need, Column("At 2560x1440", "GB")]
    at_2160p_gb: Annotated[Need, Column("At 3840x2160", "GB")]

    def at(self, megapixels: float) -> float:
        """Need in GB at so many megapixels, constant outside the three points."""
        needs = (self.at_1080p_gb, self.at_1440p_gb, self.at_2160p_gb)
        return float(np.interp(megapixels, (2.0736, 3.6864, 8.2944), np.maximum.accumulate(needs)))


@dataclass(frozen=True, slots=True, kw_only=True)
class Preset:
    """How much a preset asks relative to *high*."""

    name: Annotated[PresetName, Column("Preset")]
    processor_factor: Annotated[Factor, Column("u: processor work relative to high")]
    graphics_factor: Annotated[Factor, Column("w: graphics work relative to high")]
    video_memory: Annotated[VideoMemoryNeed, Column("Video memory wanted")]


@dataclass(frozen=True, slots=True, kw_only=True)
class Option:
    """A single option that can be set lower than the presets have it, and what is left of the work
    then.
    """

    name: Annotated[str, Column("Name, such as soft shadows")]
    processor_factor: Annotated[Lessening, Column("What is left of the processor work")] = 1.0
    graphics_factor: Annotated[Lessening, Column("What is left of the graphics work")] = 1.0
    video_memory_gb: Annotated[Need, Column("Video memory that it saves", "GB")] = 0.0


class FromOthers(NamedTuple):
    """On how many results of how many games it rests, the margin of publishers in ln, the power
    with which graphics work grows with pixels.
    """

    results: int
    games: int
    margin: float
    power: float


class SpreadOfSides(NamedTuple):
    """Standard deviations in ln of both sides' work, and their covariance."""

    processor: float
    graphics: float
    covariance: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Game:
    """A game with its workload parameters and how well they are known."""

    id: Annotated[str, Column("Game id: small letters, digits and hyphens")]
    name: Annotated[str, Column("Name")]
    genre: Annotated[str, Column("Genre")]
    released: Annotated[date | None, Column("Release date, ISO 8601")] = None
    processor_ms: Annotated[
        Milliseconds, Column("C: processor time on the reference processor, high", "ms")
    ]
    parallel_share: Annotated[
        Share, Column("pi: share of the processor work that spreads over all cores")
    ]
    memory_sensitivity: Annotated[Share, Column("kappa: sensitivity to memory speed")] = 0.2
    graphics_ms: Annotated[
        Milliseconds, Column("G: graphics time on the reference card at 1920x1080, high", "ms")
    ]
    fixed_share: Annotated[
        Share, Column("phi: share of graphics work that does not grow with pixels")
    ]
    pixel_power: Annotated[
        float,
        Ge(0.5),
        Le(1.5),
        Column("Power with which the rest of the graphics work grows with pixels"),
    ] = 1.0
    processor_variation: Annotated[
        Variation, Column("v_c: variation of processor time between frames")
    ] = 0.18
    graphics_variation: Annotated[
        Variation, Column("v_g: variation of graphics time between frames")
    ] = 0.08
    threads: Annotated[
        Annotated[int, Ge(1), Le(512)] | None,
        Column("Threads that it uses; null: not known, taken by genre"),
    ] = None
    link_mb: Annotated[
        Annotated[float, Ge(0), Le(1000)] | None,
        Column("Data that crosses the card's link for a frame; null: not known, by genre", "MB"),
    ] = None
    ray_tracing_ms_per_mpx: Annotated[
        float | None, Ge(LEAST), Le(1000), Column("Y: ray tracing; null: not offered", "ms/Mpx")
    ] = None
    ray_tracing_memory_gb: Annotated[
        Need, Column("More video memory when ray tracing is on", "GB")
    ] = 0.0
    upscaling_ms_per_mpx: Annotated[
        float, Ge(0), Le(100), Column("o: upscaling work per shown megapixel", "ms/Mpx")
    ] = 0.15
    upscalers: Annotated[tuple[str, ...], Column("Upscalers offered")] = ()
    generation_ms_per_mpx: Annotated[
        float, Ge(0), Le(100), Column("f: work of a generated frame per shown megapixel", "ms/Mpx")
    ] = 0.3
    generation_memory_gb: Annotated[
        Need, Column("More video memory when frames are generated", "GB")
    ] = 0.4
    generators: Annotated[tuple[str, ...], Column("Frame generators offered")] = ()
    engine_cap_fps: Annotated[
        float | None, Ge(LEAST), Le(10_000), Column("Engine cap; null: none", "fps")
    ] = None
    second_card_gain: Annotated[
        Share, Column("Graphics speed that a second, equal card adds; 0: none known")
    ] = 0.0
    spill_share: Annotated[Share, Column("tau: share of the overflow touched per frame")] = 0.05
    processor_work_sd: Annotated[
        WorkSpread, Column("How well C is known: standard deviation", "ln")
    ] = 0.1
    graphics_work_sd: Annotated[
        WorkSpread, Column("How well G is known: standard deviation", "ln")
    ] = 0.1
    memory_gb: Annotated[Need, Column("Main memory wanted", "GB")] = 8.0
    storage_gb: Annotated[Annotated[float, Ge(0), Le(10_000)], Column("Storage taken", "GB")] = 20.0
    presets: Annotated[tuple[Preset, ...], Column("Presets, lowest first")]
    options: Annotated[tuple[Option, ...], Column("Single options that can be set lower")] = ()

    @property
    def from_others(self) -> FromOthers | None:
        """What other games' results moved of what is taken for granted: here nothing."""
        return None

    @property
    def threads_used(self) -> int:
        return self.threads or threads_of(self.genre)

    @property
    def link_mb_used(self) -> float:
        return link_mb_of(self.genre) if self.link_mb is None else self.link_mb

    def variation_on(self, threads: int | None) -> float:
        """v_c on a processor of so many threads; None for as many as it uses."""
        return self.processor_variation * crowding(threads, self.threads_used)

    def affinity(self, side: Literal["processor", "graphics"], key: str, design: str) -> Affinity:
        """What results of this game told about a part, by its place on the scale and its design:
        here nothing.
        """
        return UNSEEN

    def spread(
        self,
        preset: PresetName,
        rendered_mpx: float,
        chip: Affinity = UNSEEN,
        card: Affinity = UNSEEN,
        low: bool = False,
    ) -> SpreadOfSides:
        """Standard deviations in ln of both sides' work at a preset and resolution, and their
        covariance; for the low with the spread of how much frame times vary.
        """
        if low:
            return SpreadOfSides(
                _low_sd(self.processor_work_sd, self.processor_variation),
                _low_sd(self.graphics_work_sd, self.graphics_variation),
                0.0,
            )
        return SpreadOfSides(self.processor_work_sd, self.graphics_work_sd, 0.0)

    def preset(self, name: PresetName) -> Preset:
        """The preset of that name, or the nearest one that the game has."""
        by_name = {preset.name: preset for preset in self.presets}
        wanted = PRESETS.index(name)
        return min(
            by_name.values(),
            key=lambda preset: (abs(PRESETS.index(preset.name) - wanted), preset.name),
        )


def _low_sd(work_sd: float, variation: float) -> float:
    """Of the low rate: it varies with how much frame times do, and with the form of their tail."""
    return hypot(work_sd, tail_slope(variation) * VARIATION_SD, LOW_FORM_SD)
