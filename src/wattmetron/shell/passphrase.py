"""A passphrase kept as a hash that is slow to try, and how often it may be tried."""

import hashlib
import hmac
import os
import secrets
import time
from collections import deque
from collections.abc import Callable
from pathlib import Path
from threading import Lock

from cachetools import TTLCache

from wattmetron.core.errors import InvalidError

LEAST_LETTERS, MOST_LETTERS = 10, 1000
COST_N, BLOCK_R, PARALLEL_P, SALT_BYTES, HASH_BYTES = 2**14, 8, 1, 16, 32
MOST_TRIES, MOST_TRIES_OF_ALL, WINDOW_S, MOST_ADDRESSES = 5, 60, 60.0, 10_000


def hashed(passphrase: str) -> str:
    """What is kept of a passphrase: ``scrypt$n$r$p$salt$hash``; raises InvalidError for one that
    is too short or too long.
    """
    if not LEAST_LETTERS <= len(passphrase) <= MOST_LETTERS:
        raise InvalidError(
            f"A passphrase has {LEAST_LETTERS} to {MOST_LETTERS:,} letters: choose some words that"
            " nobody guesses."
        )
    salt = secrets.token_bytes(SALT_BYTES)
    digest = _digest(passphrase, salt, COST_N, BLOCK_R, PARALLEL_P)
    return f"scrypt${COST_N}${BLOCK_R}${PARALLEL_P}${salt.hex()}${digest.hex()}"


def matches(passphrase: str, stored: str) -> bool:
    """Whether a passphrase is the one whose hash is kept; what is too long is never tried."""
    if len(passphrase) > MOST_LETTERS:
        return False
    try:
        name, n, r, p, salt, digest = stored.strip().split("$")
        computed = _digest(passphrase, bytes.fromhex(salt), int(n), int(r), int(p))
        return name == "scrypt" and hmac.compare_digest(computed.hex(), digest)
    except ValueError:
        return False


def _digest(passphrase: str, salt: bytes, n: int, r: int, p: int) -> bytes:
    text = passphrase.encode(errors="replace")
    return hashlib.scrypt(text, salt=salt, n=n, r=r, p=p, dklen=HASH_BYTES, maxmem=64 * 2**20)


def keep(stored: str, path: Path) -> None:
    """Write the hash so that only this user reads it."""
    path.parent.mkdir(parents=True, exist_ok=True)
    part = path.with_name(f".{path.name}.part")
    with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
        file.write(stored + "\n")
    part.replace(path)


class Tries:
    """Counts wrong tries, of each address and of all; thread-safe and bounded."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock, self._lock = clock, Lock()
        self._of: TTLCache[str, deque[float]] = TTLCache(MOST_ADDRESSES, WINDOW_S, timer=clock)
        self._all: deque[float] = deque(maxlen=MOST_TRIES_OF_ALL)

    def may_try(self, address: str) -> bool:
        """Whether an address may try once more. The try counts as wrong until it is ``right``, so
        that many at once are not more than one after the other.
        """
        now = self._clock()
        with self._lock:
            tries = self._of.get(address) or deque(maxlen=MOST_TRIES)
            full = len(self._all) == MOST_TRIES_OF_ALL and now - self._all[0] < WINDOW_S
            # Somebody else's wrong tries lock out nobody who was not wrong before.
            if (full and tries) or (len(tries) == MOST_TRIES and now - tries[0] < WINDOW_S):
                return False
            tries.append(now)
            self._of[address] = tries
            self._all.append(now)
            return True

    def right(self, address: str) -> None:
        """The last try of an address was right."""
        with self._lock:
            tries = self._of.get(address)
            if tries:
                tries.pop()
            if self._all:
                self._all.pop()
