"""Threads that games use, and what it means for a processor to have fewer."""

from wattmetron.core.values.genres import by_genre

GENRE_THREADS = {
    "open world": 12,
    "strategy": 12,
    "competitive shooter": 6,
    "sport": 6,
    "adventure": 6,
    "cosy": 4,
}
USUAL_THREADS = 8
"""Of other genres."""
CROWDING = 0.5


def threads_of(genre: str) -> int:
    """How many threads a game uses of which nothing but the genre is known; assumed."""
    return by_genre(GENRE_THREADS, genre, USUAL_THREADS)


def crowding(threads: int | None, used: int) -> float:
    """How many times as much a processor's time varies between frames where a game's threads must
    share: (used / threads)^0.5, 1 with as many threads as the game uses or where they are not
    known. Assumed; never less with fewer threads.
    """
    return max(1.0, used / threads) ** CROWDING if threads else 1.0
