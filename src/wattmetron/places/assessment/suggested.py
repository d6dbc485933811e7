"""What stands in a brief before anybody changes it: usual displays, and the target of a game."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.values.brief import Display, Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.genres import usual_fps_of

VARIABLE_FROM_HZ = 48.0


@dataclass(frozen=True, slots=True, kw_only=True)
class UsualDisplay:
    """A size and refresh that is often met."""

    width_px: int
    height_px: int
    refresh_hz: float
    variable_from_hz: float | None

    @property
    def key(self) -> str:
        return f"{self.width_px}x{self.height_px}@{self.refresh_hz:g}"

    @property
    def words(self) -> str:
        return f"{self.width_px}x{self.height_px}, {self.refresh_hz:g} Hz"

    def is_like(self, display: Display) -> bool:
        return (self.width_px, self.height_px, self.refresh_hz) == (
            display.width_px,
            display.height_px,
            display.refresh_hz,
        )


USUAL_DISPLAYS: tuple[UsualDisplay, ...] = tuple(
    UsualDisplay(
        width_px=width,
        height_px=height,
        refresh_hz=float(hz),
        variable_from_hz=VARIABLE_FROM_HZ if hz > 75 else None,
    )
    for width, height, rates in (
        (1920, 1080, (60, 75, 144, 165, 240)),
        (2560, 1440, (60, 120, 144, 165, 240)),
        (3440, 1440, (100, 144)),
        (3840, 2160, (60, 120, 144)),
    )
    for hz in rates
)


@dataclass(frozen=True, slots=True)
class Suggested:
    """A target for a game, with the reason in words."""

    target: Target
    why: str


def suggested(catalogue: Catalogue, game: Game, display: Display, target_id: str) -> Suggested:
    """A target at the display's resolution: as fast as the genre is usually played, within refresh
    and engine cap; the picture as the most demanding tier has it that is published for such a
    picture, else high, or medium where speed matters more.
    """
    usual = usual_fps_of(game.genre)
    wanted = display.refresh_hz if usual is None else min(usual, display.refresh_hz)
    capped = game.engine_cap_fps is not None and game.engine_cap_fps < wanted
    fps = game.engine_cap_fps if capped and game.engine_cap_fps is not None else wanted
    target = Target(
        id=target_id,
        game_id=game.id,
        width_px=display.width_px,
        height_px=display.height_px,
        fps=fps,
        preset="medium" if usual is None else "high",
    )
    why = f"{game.genre}: {'the display’s refresh' if usual is None else f'{usual:g} fps is usual'}"
    why += f", capped at {fps:g} by its engine" if capped else ""
    published = _published(catalogue, game, target)
    if published is None:
        return Suggested(target, why)
    return Suggested(published, f"{why}; {published.preset} as its publisher has it there")


def _published(catalogue: Catalogue, game: Game, target: Target) -> Target | None:
    """The target with the preset that a tier states for at least as many pixels; None where none
    does.
    """
    table = tiers_of(catalogue)
    pixels = target.width_px * target.height_px
    stated = [
        row.settled
        for row in (table.rows[index] for index in table.of_game(game.id))
        if "preset" not in row.settled.assumed
        and not row.settled.ray_tracing
        and row.settled.width_px * row.settled.height_px >= pixels
    ]
    return replace(target, preset=stated[0].preset) if stated else None
