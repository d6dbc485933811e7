"""The door of an application that other machines can reach: a passphrase, kept in mind by the token
of a session; programs have a key.
"""

import secrets

from fastapi import Request
from starlette.responses import RedirectResponse, Response

from wattmetron.shell.error_pages import Refusal, refusal
from wattmetron.shell.passphrase import Tries, matches
from wattmetron.workshop.sessions import SESSION, Sessions, StoredSession

COOKIE = "wattmetron-session"
LOCKED = "This Wattmetron is not open to everybody: log in with its passphrase."
WRONG = "That is not the passphrase: try it again."
TOO_OFTEN = "The passphrase was wrong too often: wait a minute and try again."
OPEN_TO_ALL = ("/static/", "/h/")
"""What needs no session: what pages are made of, and links to handouts, which have keys of their
own.
"""
OPEN_PAGES = frozenset({"/enter", "/healthz"})
SESSION_S = int(SESSION.total_seconds())


class Door:
    """Lets in who has a session or the programs' key; everybody where there is no passphrase."""

    def __init__(
        self, kept: str | None = None, key: str = "", sessions: Sessions | None = None
    ) -> None:
        self.kept, self.tries, self.sessions = kept, Tries(), sessions
        self._key = key

    @property
    def open(self) -> bool:
        return self.kept is None

    def answer(self, request: Request) -> Response | None:
        """None for who may come in; else what they are told."""
        path = request.url.path
        if self.open:
            return RedirectResponse("/briefs", 303) if path == "/enter" else None
        if path in OPEN_PAGES or path.startswith(OPEN_TO_ALL) or self._lets_in(request):
            return None
        if request.method == "GET" and "text/html" in request.headers.get("accept", ""):
            return RedirectResponse("/enter", 303)
        return refusal(request, Refusal(LOCKED, 401))

    def entered(self, request: Request, passphrase: str) -> tuple[str, int]:
        """What a try comes to: a sentence and a status, or an empty one where it is right."""
        address = request.client.host if request.client else ""
        if not self.tries.may_try(address):
            return TOO_OFTEN, 429
        if self.kept is not None and matches(passphrase, self.kept):
            self.tries.right(address)
            return "", 303
        return WRONG, 401

    def session_of(self, request: Request) -> StoredSession | None:
        """The session that a browser comes with; None where it lets nobody in."""
        token = request.cookies.get(COOKIE, "")
        return self.sessions.of(token) if self.sessions is not None else None

    def _lets_in(self, request: Request) -> bool:
        kind, _, given = request.headers.get("authorization", "").partition(" ")
        if kind.lower() == "bearer" and self._key:
            return secrets.compare_digest(given.encode(), self._key.encode())
        return self.session_of(request) is not None
