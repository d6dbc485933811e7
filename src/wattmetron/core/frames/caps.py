"""Caps on the frame rate: the engine's, on the frames that it draws, and one chosen by the user, on
those shown.
"""

from wattmetron.core.frames.work import GENERATED_SHOWN
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import Game

JUST_SHORT = -1e-6
"""ln r of a machine that a cap holds under the target's rate where another one could reach it."""


def engine_cap(game: Game, shown: int) -> float | None:
    """The engine's cap in fps shown."""
    return None if game.engine_cap_fps is None else shown * game.engine_cap_fps


def effective_cap(game: Game, target: Target, shown: int = 1) -> float | None:
    """The least of both caps in fps shown, ``shown`` frames to each drawn one."""
    caps = [cap for cap in (engine_cap(game, shown), target.cap_fps) if cap is not None]
    return min(caps) if caps else None


def within_cap(game: Game, target: Target, shown: int) -> bool:
    """Whether the caps let the target's rate through."""
    cap = effective_cap(game, target, shown)
    return cap is None or target.fps <= cap


def most_shown(game: Game, target: Target) -> int:
    """Frames shown to each drawn one on a card that can generate them."""
    return GENERATED_SHOWN if target.generated and game.generators else 1


def held_by_cap(game: Game, target: Target, shown: int) -> bool:
    """Whether a cap keeps a machine short where one that generates frames would not be."""
    return within_cap(game, target, most_shown(game, target)) and not within_cap(
        game, target, shown
    )
