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


def by_genre(known: Mapping[str, T], genre: str, usual: T) -> T:
    """What is known of a genre, which a word of it can name; else the usual."""
    words = genre.lower()
    return next((own for key, own in known.items() if key in words or words in key.split()), usual)


def link_mb_of(genre: str) -> float:
    """Data in MB that crosses the card's link for a frame of a game of this genre; assumed."""
    return by_genre(GENRE_LINK_MB, genre, USUAL_LINK_MB)
