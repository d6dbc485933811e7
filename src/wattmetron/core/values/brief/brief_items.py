"""What a brief has several of, or one with fields of its own: display, targets, extras, resales."""

from dataclasses import dataclass

from wattmetron.core.values.brief.choices import Measure
from wattmetron.core.values.games import PresetName


@dataclass(frozen=True, slots=True, kw_only=True)
class Display:
    """The display."""

    width_px: int = 1920
    height_px: int = 1080
    refresh_hz: float = 60.0
    variable_from_hz: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Target:
    """One game at named settings with the frame rate wanted."""

    id: str
    game_id: str
    width_px: int = 1920
    height_px: int = 1080
    preset: PresetName = "high"
    upscaling: bool = False
    scale: float = 0.67
    ray_tracing: bool = False
    generated: bool = False
    lowered: tuple[str, ...] = ()
    fps: float = 60.0
    measure: Measure = "average"
    cap_fps: float | None = None
    weight: int = 1

    @property
    def shown_mpx(self) -> float:
        return self.width_px * self.height_px / 1e6


@dataclass(frozen=True, slots=True, kw_only=True)
class Extra:
    """Something besides the parts that the budget may have to pay for."""

    name: str
    minor: int
    in_budget: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Resale:
    """What an owned part may sell for."""

    part: str
    minor: int
