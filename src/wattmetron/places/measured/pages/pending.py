"""Files that wait for a word about their columns: on disk without a name, a few at a time."""

import secrets
import tempfile
from threading import Lock
from typing import IO

from cachetools import TTLCache

MOST_FILES, KEPT_S = 8, 1800.0


class Pending:
    """Uploaded files by key; the oldest goes when there are too many."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._held: TTLCache[str, tuple[str, IO[bytes]]] = TTLCache(MOST_FILES, KEPT_S)

    def keep(self, name: str, data: bytes) -> str:
        """The key of a file that is to be read later."""
        file = tempfile.TemporaryFile()  # noqa: SIM115
        file.write(data)
        key = secrets.token_urlsafe(12)
        with self._lock:
            self._held[key] = (name[:80], file)
        return key

    def of(self, key: str) -> tuple[str, bytes] | None:
        """The name and the bytes of a file, None where it is no longer kept."""
        with self._lock:
            upload = self._held.get(key)
            if upload is None:
                return None
            name, file = upload
            file.seek(0)
            return name, file.read()

    def drop(self, key: str) -> None:
        with self._lock:
            self._held.pop(key, None)
