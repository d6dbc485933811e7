"""What is taken for granted of a game of which only the genre is known."""

from collections.abc import Mapping
from typing import TypeVar

T = TypeVar("T")
GENRE_LINK_MB = {
    "open world": 5.0,
    "simulation": 5.0,
    "survival": 4.0,
    "competitive shooter": 1.5,
    "sport": 2.0,
    "cosy": 1.5,
}
USUAL_LINK_MB = 3.0
"""Of other genres."""


USUAL_FPS: dict[str, float | None] = {
    "competitive": None,
    "arena": None,
    "shooter": 120.0,
    "racing": 90.0,
    "sport": 90.0,
    "action": 90.0,
    "strategy": 60.0,
    "simulation": 60.0,
    "cosy": 60.0,
}
"""The rate at which games of a genre are usually played; None: as fast as the display shows.
Assumed.
"""
OTHER_FPS = 60.0


def by_genre(known: Mapping[str, T], genre: str, usual: T) -> T:
    """What is known of a genre, which a word of it can name; else the usual."""
    words = genre.lower()
    return next(
        (genre for key, genre in known.items() if key in words or words in key.split()), usual
    )


def usual_fps_of(genre: str) -> float | None:
    """The frame rate that one usually wants of a genre; None: the display's refresh. Assumed."""
    return by_genre(USUAL_FPS, genre, OTHER_FPS)


def link_mb_of(genre: str) -> float:
    """Data in MB that crosses the card's link for a frame of a game of this genre; assumed."""
    return by_genre(GENRE_LINK_MB, genre, USUAL_LINK_MB)
