"""Headers and checks on every request: content policy, same origin, known host, size of bodies."""

from urllib.parse import urlsplit

from fastapi import Request
from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from wattmetron.web.shell.errors import PROTECTIVE, refusal

MAX_BODY_BYTES = 2_000_000
FOREIGN = (
    "Changes are taken from this application's own pages only: open the page here and repeat it."
)
LENGTHLESS = "The length of the request is missing: send it again with its length."
TOO_LARGE = "The request is larger than 2 MB: send less at once, such as one file after the other."
SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


class Guard:
    """Middleware that refuses foreign origins and oversized bodies and sends the protective
    headers.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *PROTECTIVE]
            await send(message)

        refused = _refused(scope["method"], Headers(scope=scope))
        if refused is not None:
            await refusal(Request(scope), *refused)(scope, receive, guarded)
            return
        await self.app(scope, receive, guarded)


def _refused(method: str, headers: Headers) -> tuple[str, int] | None:
    """The sentence and the status of a request that is not taken."""
    if method in SAFE_METHODS:
        return None
    if not _same_origin(headers):
        return FOREIGN, 403
    length = headers.get("content-length")
    if length is None and "transfer-encoding" not in headers:
        return None
    if length is None or not length.isdecimal():
        return LENGTHLESS, 411
    if int(length) > MAX_BODY_BYTES:
        return TOO_LARGE, 413
    return None


def _same_origin(headers: Headers) -> bool:
    """Whether a change comes from our own pages, or from a program that is no browser."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    if site is not None and site not in ("same-origin", "none"):
        return False
    if origin is None:
        return True
    return urlsplit(origin).netloc == headers.get("host")
