"""Benchmark results of a game: a known pair at known settings with its frame rates."""

from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import LEAST, Column
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.published import Pixels

Role = Literal["processor", "graphics", "resolution", "preset", "average", "low", "leave out"]
COLUMN_ROLES: tuple[Role, ...] = (
    "processor",
    "graphics",
    "resolution",
    "preset",
    "average",
    "low",
    "leave out",
)
RatioIs = Literal["about", "at least", "at most"]
Rate = Annotated[float, Ge(LEAST), Le(5000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Result:
    """One published result or own run; ``muted`` leaves it out."""

    id: Annotated[str, Column("Id within the game")]
    processor: Annotated[str, Column("Processor id")]
    graphics: Annotated[str, Column("Graphics chip with its memory, as in nacre-reef@16")]
    width_px: Annotated[Pixels, Column("Resolution across", "px")]
    height_px: Annotated[Pixels, Column("Resolution down", "px")]
    preset: Annotated[PresetName, Column("Preset")]
    ray_tracing: Annotated[bool, Column("Whether with ray tracing")] = False
    average_fps: Annotated[Rate, Column("Average frame rate", "fps")]
    low_fps: Annotated[Rate | None, Column("1 % low", "fps")] = None
    own: Annotated[bool, Column("Whether it is an own measured run")] = False
    ln_sd: Annotated[
        float | None,
        Ge(LEAST),
        Le(2),
        Column("How uncertain the average is, in ln, where it is more than usual"),
    ] = None
    at_least: Annotated[
        bool, Column("Whether the average is only known to be at least that, as with a locked rate")
    ] = False
    side_ratio: Annotated[
        float | None,
        Ge(0.01),
        Le(100),
        Column("The processor's time for a frame over the graphics', by their medians"),
    ] = None
    side_ratio_is: Annotated[
        RatioIs, Column("Whether that is the ratio itself or an end of where it lies")
    ] = "about"
    side_ratio_sd: Annotated[
        float | None, Ge(LEAST), Le(2), Column("How uncertain that ratio is, in ln")
    ] = None
    source: Annotated[str, Column("Where it was published")] = ""
    measured_on: Annotated[date | None, Column("Date, ISO 8601")] = None
    muted: Annotated[bool, Column("Whether it is left out")] = False

    @property
    def mpx(self) -> float:
        return self.width_px * self.height_px / 1e6


@dataclass(frozen=True, slots=True, kw_only=True)
class Results:
    """All results of a game."""

    game: Annotated[str, Column("Game id")]
    items: Annotated[tuple[Result, ...], Column("Results, in the order in which they were added")]


@dataclass(frozen=True, slots=True, kw_only=True)
class ColumnRoles:
    """What the columns of a source's tables hold, as somebody said once; ``roles`` by number of
    columns.
    """

    source: Annotated[str, Column("Source")]
    roles: Annotated[
        tuple[tuple[Role, ...], ...], Column("Roles of the columns, one row per kind of table")
    ]
