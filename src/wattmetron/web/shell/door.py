"""The door of an application that other machines can reach: a key from a link, kept in a cookie."""

import secrets

from fastapi import Request
from starlette.responses import RedirectResponse, Response

from wattmetron.web.shell.errors import Refusal, refusal
from wattmetron.web.shell.pages import page

COOKIE = "wattmetron-key"
LOCKED = "This Wattmetron is not open to everybody: open the link that it printed when it started."
OPEN_TO_ALL = ("/static/", "/h/")
"""What needs no key: what pages are made of, and links to handouts, which have their own."""


class Door:
    """Lets in who has the key; everybody where there is none."""

    def __init__(self, key: str | None) -> None:
        self.key = key

    def answer(self, request: Request) -> Response | None:
        """None for who may come in; else what they are told."""
        if self.key is None:
            return RedirectResponse("/briefs", 303) if request.url.path == "/enter" else None
        if request.url.path == "/enter":
            return self._entered(request)
        if request.url.path.startswith(OPEN_TO_ALL) or self._has_key(request):
            return None
        return refusal(request, Refusal(LOCKED, 401))

    def _entered(self, request: Request) -> Response:
        if not self._is_key(request.query_params.get("key", "")):
            return refusal(request, Refusal(LOCKED, 401))
        answer = page(request, "shell/entered.html", {})
        answer.set_cookie(COOKIE, self.key or "", httponly=True, samesite="strict", path="/")
        return answer

    def _has_key(self, request: Request) -> bool:
        kind, _, given = request.headers.get("authorization", "").partition(" ")
        if kind.lower() == "bearer":
            return self._is_key(given)
        return self._is_key(request.cookies.get(COOKIE, ""))

    def _is_key(self, given: str) -> bool:
        return secrets.compare_digest(given.encode(), (self.key or "").encode())
