"""What was just done or refused, told once on the next page: its address names a key, never words
that anybody could put there.
"""

import secrets
from threading import Lock

from cachetools import TTLCache

MOST = 1000
KEPT_S = 600.0
MOST_CHARACTERS = 400


class Sayings:
    """Sentences by key, for some minutes."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._held: TTLCache[str, str] = TTLCache(MOST, KEPT_S)

    def keep(self, sentence: str) -> str:
        """The key of a sentence."""
        key = secrets.token_urlsafe(9)
        with self._lock:
            self._held[key] = sentence[:MOST_CHARACTERS]
        return key

    def of(self, key: str) -> str:
        """The sentence, or nothing."""
        with self._lock:
            return self._held.get(key, "")
