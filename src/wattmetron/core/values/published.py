"""What a game publishes about the machine that it wants: tiers of named parts, amounts and
conditions.
"""

from dataclasses import dataclass, field
from datetime import date
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import LEAST, Column
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.parts import StorageKind

Side = Literal["processor", "graphics"]
SIDES: tuple[Side, ...] = ("processor", "graphics")

Amount = Annotated[float, Ge(LEAST), Le(100_000)]
Pixels = Annotated[int, Ge(320), Le(16_384)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Listed:
    """One alternative of a tier: a part as it was named, and the part on the scale that it stands
    for.

    ``part`` is a processor's id, a graphics chip's key or a named part's id; None where nothing on
    the scale is meant or known. A clock or a number of cores is kept, and never turned into a
    speed.
    """

    text: Annotated[str, Column("As published")]
    part: Annotated[
        str | None, Column("Processor id, graphics chip or named part; null: not placed")
    ] = None
    memory_gb: Annotated[Amount | None, Column("Video memory stated for this part", "GB")] = None
    cores: Annotated[int | None, Ge(1), Le(512), Column("Cores stated")] = None
    clock_ghz: Annotated[float | None, Ge(LEAST), Le(20), Column("Clock stated", "GHz")] = None
    or_better: Annotated[bool, Column("Whether the list says “or better”")] = False
    excluded: Annotated[bool, Column("Whether it is left out of the tier's bar")] = False

    @property
    def figures_only(self) -> bool:
        """Whether it says a clock or a number of cores and names no part."""
        return self.part is None and (self.cores is not None or self.clock_ghz is not None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Tier:
    """One tier of a game's requirements; a condition that is None was not stated."""

    label: Annotated[str, Column("The publisher's own label")]
    processors: Annotated[tuple[Listed, ...], Column("Processors, any of which suffices")] = ()
    graphics: Annotated[tuple[Listed, ...], Column("Graphics parts, any of which suffices")] = ()
    memory_gb: Annotated[Amount | None, Column("Main memory", "GB")] = None
    video_memory_gb: Annotated[Amount | None, Column("Video memory", "GB")] = None
    storage_gb: Annotated[Amount | None, Column("Storage", "GB")] = None
    storage_kind: Annotated[StorageKind | None, Column("Kind of storage")] = None
    system: Annotated[str, Column("Operating system")] = ""
    api: Annotated[str, Column("Graphics API and level")] = ""
    width_px: Annotated[Pixels | None, Column("Resolution across", "px")] = None
    height_px: Annotated[Pixels | None, Column("Resolution down", "px")] = None
    preset: Annotated[PresetName | None, Column("Preset")] = None
    fps: Annotated[float | None, Ge(LEAST), Le(2000), Column("Frame rate", "fps")] = None
    upscaling: Annotated[bool | None, Column("Whether with upscaling")] = None
    ray_tracing: Annotated[bool | None, Column("Whether with ray tracing")] = None
    generated: Annotated[bool | None, Column("Whether generated frames are among those meant")] = (
        None
    )
    notes: Annotated[str, Column("What else the tier says")] = ""

    def listed(self, side: Side) -> tuple[Listed, ...]:
        return self.processors if side == "processor" else self.graphics


@dataclass(frozen=True, slots=True, kw_only=True)
class Published:
    """A game's published requirements: tiers in their own order, the text they were read from,
    source, date.
    """

    game: Annotated[str, Column("Game id")]
    tiers: Annotated[tuple[Tier, ...], Column("Tiers, in the publisher's order")]
    text: Annotated[str, Column("The text as published")] = ""
    source: Annotated[str, Column("Where it was published")] = ""
    published_on: Annotated[date | None, Column("Date of publication, ISO 8601")] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class NamedPart:
    """A part that the catalogue lacks, placed by one comparison: so many per cent above or below
    another.
    """

    id: Annotated[str, Column("Id: small letters, digits and hyphens")]
    side: Annotated[Side, Column("processor or graphics")]
    name: Annotated[str, Column("Name")]
    than: Annotated[
        str, Column("What it is compared with: a processor id or graphics chip with its memory")
    ]
    percent: Annotated[
        float, Ge(-95), Le(2000), Column("How much faster; below nought: slower", "%")
    ]
    memory_gb: Annotated[Amount | None, Column("Video memory", "GB")] = None
    speed_sd: Annotated[float, Ge(0), Le(0.5), Column("How well the comparison is known", "ln")] = (
        0.06
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Assumed:
    """What a kind of tier is taken to mean where it does not say: a centre and a range each."""

    width_px: Annotated[Pixels, Column("Resolution across", "px")]
    height_px: Annotated[Pixels, Column("Resolution down", "px")]
    least_width_px: Annotated[Pixels, Column("Resolution across, from", "px")]
    least_height_px: Annotated[Pixels, Column("Resolution down, from", "px")]
    most_width_px: Annotated[Pixels, Column("Resolution across, to", "px")]
    most_height_px: Annotated[Pixels, Column("Resolution down, to", "px")]
    preset: Annotated[PresetName, Column("Preset")]
    least_preset: Annotated[PresetName, Column("Preset, from")]
    most_preset: Annotated[PresetName, Column("Preset, to")]
    fps: Annotated[float, Ge(LEAST), Le(2000), Column("Frame rate", "fps")]
    least_fps: Annotated[float, Ge(LEAST), Le(2000), Column("Frame rate, from", "fps")]
    most_fps: Annotated[float, Ge(LEAST), Le(2000), Column("Frame rate, to", "fps")]


def _assumed(
    sizes: tuple[tuple[int, int], ...], presets: tuple[PresetName, ...], fps: tuple[float, ...]
) -> Assumed:
    """Centre, least and most of each."""
    return Assumed(
        width_px=sizes[0][0],
        height_px=sizes[0][1],
        least_width_px=sizes[1][0],
        least_height_px=sizes[1][1],
        most_width_px=sizes[2][0],
        most_height_px=sizes[2][1],
        preset=presets[0],
        least_preset=presets[1],
        most_preset=presets[2],
        fps=fps[0],
        least_fps=fps[1],
        most_fps=fps[2],
    )


_HD, _FULL, _QUAD, _ULTRA = (1280, 720), (1920, 1080), (2560, 1440), (3840, 2160)


@dataclass(frozen=True, slots=True, kw_only=True)
class Assumptions:
    """The editable table of assumptions, by the role of a tier, and how uneven lists are by
    nature.
    """

    minimum: Assumed = field(
        default_factory=lambda: _assumed(
            (_FULL, _HD, _FULL), ("low", "low", "medium"), (30.0, 30.0, 60.0)
        )
    )
    recommended: Assumed = field(
        default_factory=lambda: _assumed(
            (_FULL, _FULL, _QUAD), ("high", "medium", "high"), (60.0, 60.0, 60.0)
        )
    )
    higher: Assumed = field(
        default_factory=lambda: _assumed(
            (_QUAD, _FULL, _ULTRA), ("high", "high", "ultra"), (60.0, 60.0, 90.0)
        )
    )
    unevenness_sd: Annotated[
        float, Ge(0), Le(0.5), Column("How uneven the parts of one list are by nature", "ln")
    ] = 0.07
    upscaling_scale: Annotated[
        float, Ge(0.2), Le(1), Column("Rendered share of each axis when upscaling")
    ] = 0.67


Role = Literal["minimum", "recommended", "higher"]
ROLES: tuple[Role, ...] = ("minimum", "recommended", "higher")


def role_of(tier: Tier, index: int, count: int) -> Role:
    """The role of a tier: by the words of its label, else by its place in the list."""
    words = tier.label.lower()
    if words.startswith("min"):
        return "minimum"
    if words.startswith("rec"):
        return "recommended"
    if index == 0:
        return "minimum"
    return "recommended" if index == 1 and count <= 3 else "higher"


@dataclass(frozen=True, slots=True, kw_only=True)
class Settled:
    """The conditions of a tier, stated or assumed, and the spread in ln that the assumed ones
    leave.

    ``assumed`` names the conditions that were not stated: resolution, preset, frame rate. Where a
    tier means generated frames, its rate is halved and counts as assumed: how many of those shown
    are true is not stated.
    """

    role: Role
    width_px: int
    height_px: int
    preset: PresetName
    fps: float
    upscaling: bool
    ray_tracing: bool
    generated: bool
    assumed: frozenset[str]
    range: Assumed

    @property
    def shown_mpx(self) -> float:
        return self.width_px * self.height_px / 1e6


def settle(tier: Tier, index: int, count: int, assumptions: Assumptions) -> Settled:
    """The conditions under which a tier is read."""
    role = role_of(tier, index, count)
    row: Assumed = getattr(assumptions, role)
    missing = {
        "resolution": tier.width_px is None or tier.height_px is None,
        "preset": tier.preset is None,
        "frame rate": tier.fps is None or bool(tier.generated),
    }
    # A rate with generated frames is twice the rate of those drawn.
    drawn_fps = tier.fps / 2 if tier.fps and tier.generated else tier.fps
    return Settled(
        role=role,
        width_px=row.width_px if missing["resolution"] else tier.width_px or row.width_px,
        height_px=row.height_px if missing["resolution"] else tier.height_px or row.height_px,
        preset=tier.preset or row.preset,
        fps=drawn_fps or row.fps,
        upscaling=bool(tier.upscaling),
        ray_tracing=bool(tier.ray_tracing),
        generated=bool(tier.generated),
        assumed=frozenset(name for name, lacks in missing.items() if lacks),
        range=row,
    )
