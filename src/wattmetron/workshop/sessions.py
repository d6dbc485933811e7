"""Who is logged in: sessions live in the database, looked up in memory."""

import secrets
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from hashlib import sha256
from threading import Lock

from wattmetron.core.errors import StorageError
from wattmetron.store import stored_sessions
from wattmetron.store.stored_sessions import NoSuchSessionError, StoredSession
from wattmetron.workshop.workshop import Workshop

__all__ = ["SESSION", "NoSuchSessionError", "Sessions", "StoredSession"]

TOKEN_BYTES = 24
LONGEST_TOKEN = 200
SESSION = timedelta(days=7)
NOTED_EACH = timedelta(minutes=1)
"""The last use is written no more often."""


class Sessions:
    """The sessions of an application, begun with one passphrase (by its hash): others, and those
    that are a week old, let nobody in.
    """

    def __init__(
        self,
        workshop: Workshop,
        kept: str,
        clock: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._workshop, self._clock, self._lock = workshop, clock, Lock()
        self._door = _hash(kept)
        with workshop.database.reading() as session:
            there = stored_sessions.sessions_of(session, self._door)
        self._by_hash = {session.token_hash: session for session in there}

    def begin(self, browser: str, address: str) -> str:
        """A session that begins now: its token, which is kept nowhere."""
        token = secrets.token_urlsafe(TOKEN_BYTES)
        token_hash, now = _hash(token), self._clock()
        browser, address = browser[:200], address[:80]
        with self._lock:
            with self._workshop.database.writing() as session:
                new = stored_sessions.begin(session, token_hash, self._door, browser, address, now)
            self._by_hash[token_hash] = StoredSession(
                id=new,
                token_hash=token_hash,
                door=self._door,
                begun_at=now,
                used_at=now,
                browser=browser,
                address=address,
            )
        return token

    def of(self, token: str) -> StoredSession | None:
        """The session of a token, whose use is noted; None where it has ended or never was."""
        session = self._by_hash.get(_hash(token)) if 0 < len(token) <= LONGEST_TOKEN else None
        now = self._clock()
        if session is None or not timedelta(0) <= now - session.begun_at < SESSION:
            return None
        if now - session.used_at >= NOTED_EACH:
            self._note(session, now)
        return session

    def _note(self, stored_session: StoredSession, now: datetime) -> None:
        with self._lock:
            if stored_session.token_hash in self._by_hash:
                self._by_hash[stored_session.token_hash] = replace(stored_session, used_at=now)
        # Whoever may come in does so also while the database is busy.
        with suppress(StorageError), self._workshop.database.writing() as session:
            stored_sessions.used(session, stored_session.id, now)

    def all(self) -> tuple[StoredSession, ...]:
        """The sessions that let somebody in, the one used last first."""
        now = self._clock()
        live = (session for session in self._by_hash.values() if now - session.begun_at < SESSION)
        return tuple(sorted(live, key=lambda session: (session.used_at, session.id), reverse=True))

    def end(self, session_id: int) -> None:
        """End one; raises NoSuchSessionError."""
        with self._lock:
            with self._workshop.database.writing() as session:
                stored_sessions.end(session, session_id)
            self._by_hash = {
                key: session for key, session in self._by_hash.items() if session.id != session_id
            }

    def end_all(self) -> None:
        with self._lock:
            with self._workshop.database.writing() as session:
                stored_sessions.end_all(session)
            self._by_hash = {}


def _hash(token: str) -> str:
    return sha256(token.encode(errors="replace")).hexdigest()
