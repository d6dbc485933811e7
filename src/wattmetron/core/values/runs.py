"""Measured runs: frame times with what else was logged, and under which conditions."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from typing import Annotated, Literal

import numpy as np
from annotated_types import Ge, Le
from numpy.typing import NDArray

from wattmetron.core.values.fields import LEAST, Column
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.published import Pixels

Floats = NDArray[np.float64]
Channel = Literal[
    "processor_ms",
    "graphics_ms",
    "processor_use",
    "graphics_use",
    "other_use",
    "watts",
    "processor_c",
    "graphics_c",
    "processor_mhz",
    "graphics_mhz",
    "fan_rpm",
    "video_memory_gb",
]
CHANNELS: dict[Channel, tuple[str, str]] = {
    "processor_ms": ("processor's time a frame", "ms"),
    "graphics_ms": ("graphics' time a frame", "ms"),
    "processor_use": ("use of the processor by the game's busiest thread", "share"),
    "graphics_use": ("use of the graphics", "share"),
    "other_use": ("use of the processor by other programs", "share"),
    "watts": ("power at the wall", "W"),
    "processor_c": ("temperature of the processor", "°C"),
    "graphics_c": ("temperature of the graphics", "°C"),
    "processor_mhz": ("clock of the processor", "MHz"),
    "graphics_mhz": ("clock of the graphics", "MHz"),
    "fan_rpm": ("speed of the fans", "1/min"),
    "video_memory_gb": ("video memory in use", "GB"),
}
"""What may be logged beside frame times, with its unit."""
Scene = Literal["play", "crowded", "quiet", "built-in benchmark", "menu"]
SCENES: tuple[Scene, ...] = ("play", "crowded", "quiet", "built-in benchmark", "menu")
MOST_FRAMES = 2_000_000
"""Two hours at 240 fps."""
MOST_RUNS = 2_000


@dataclass(frozen=True, eq=False)
class Trace:
    """Frames in their order: when each began in s, how long it took in ms, and by channel what was
    logged with it, NaN where it was not; arrays of shape (n,).
    """

    start_s: Floats
    frame_ms: Floats
    channels: Mapping[Channel, Floats] = field(default_factory=dict)

    @property
    def count(self) -> int:
        return int(self.frame_ms.size)

    @property
    def seconds(self) -> float:
        """From the first frame to the end of the last."""
        if not self.count:
            return 0.0
        return float(self.start_s[-1] - self.start_s[0] + self.frame_ms[-1] / 1000)

    def channel(self, name: Channel) -> Floats | None:
        """What was logged of this, None where nothing was."""
        values = self.channels.get(name)
        return None if values is None or not np.isfinite(values).any() else values

    def within(self, from_s: float, to_s: float) -> "Trace":
        """The frames that began in a stretch of time."""
        keep = (self.start_s >= from_s) & (self.start_s < to_s)
        return self.where(keep)

    def where(self, keep: NDArray[np.bool_]) -> "Trace":
        return Trace(
            self.start_s[keep],
            self.frame_ms[keep],
            {name: values[keep] for name, values in self.channels.items()},
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class ByHand:
    """What was read off a screen or heard: rates as a range, what limited by the game's own
    read-out, loading and render times, noise.
    """

    low_fps: Annotated[float | None, Ge(LEAST), Le(5000), Column("Least rate seen", "fps")] = None
    high_fps: Annotated[float | None, Ge(LEAST), Le(5000), Column("Most seen", "fps")] = None
    locked_fps: Annotated[float | None, Ge(LEAST), Le(5000), Column("Locked at", "fps")] = None
    limits: Annotated[
        Literal["", "processor", "graphics", "alternating"],
        Column("What limited, by the game's own read-out"),
    ] = ""
    loading_s: Annotated[float | None, Ge(0), Le(3600), Column("Loading", "s")] = None
    render_min: Annotated[float | None, Ge(0), Le(100_000), Column("Rendering", "min")] = None
    noise_dba: Annotated[float | None, Ge(0), Le(120), Column("Noise", "dB(A)")] = None
    heard: Annotated[str, Column("Noise by ear, coil noise, lag, tearing")] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """One measured run of a game on a machine, and what became of it.

    ``setup`` names what was set on the machine, so that runs before and after a change can be told
    apart. ``from_s`` and ``to_s`` are what is kept of the trace. ``result`` is the id under which
    the run counts as evidence of its game, empty where it does not.
    """

    game: Annotated[str, Column("Game id")]
    processor: Annotated[str, Column("Processor id")]
    graphics: Annotated[str, Column("Graphics chip with its memory, as in nacre-reef@16")]
    machine: Annotated[str, Column("What the machine is called")] = ""
    brief_id: Annotated[int, Ge(0), Column("Brief whose machine it is; 0: none")] = 0
    setup: Annotated[str, Column("What was set on the machine")] = ""
    width_px: Annotated[Pixels, Column("Resolution across", "px")]
    height_px: Annotated[Pixels, Column("Resolution down", "px")]
    preset: Annotated[PresetName, Column("Preset")]
    ray_tracing: Annotated[bool, Column("Whether with ray tracing")] = False
    upscaling: Annotated[bool, Column("Whether with upscaling")] = False
    scale: Annotated[
        float, Ge(0.2), Le(1), Column("Rendered share of each axis when upscaling")
    ] = 0.67
    lowered: Annotated[
        tuple[str, ...], Column("Single options set lower than the preset has them")
    ] = ()
    generated: Annotated[bool, Column("Whether generated frames are among those counted")] = False
    refresh_hz: Annotated[
        float | None, Ge(20), Le(1000), Column("Refresh of the display", "Hz")
    ] = None
    scene: Annotated[Scene, Column("What was played; a menu is no evidence")] = "play"
    label: Annotated[str, Column("Label of the scene")] = ""
    measured_on: Annotated[date, Column("Date, ISO 8601")]
    source: Annotated[str, Column("Logger or file")] = ""
    from_s: Annotated[float, Ge(0), Column("Kept from", "s")] = 0.0
    to_s: Annotated[float | None, Ge(0), Column("Kept until; null: the end", "s")] = None
    muted: Annotated[bool, Column("Whether it is left out")] = False
    result: Annotated[str, Column("Id of the result that it became")] = ""
    by_hand: ByHand | None = None

    @property
    def tells(self) -> bool:
        """Whether it may be held against what was promised."""
        return not self.muted and self.scene != "menu"

    @property
    def is_evidence(self) -> bool:
        """Whether it may say something about how the game runs."""
        return self.tells and not self.generated
