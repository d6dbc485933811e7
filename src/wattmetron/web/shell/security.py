"""Headers and checks on every request: content policy, same origin, known host, size of bodies."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.responses import PlainTextResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

MAX_BODY_BYTES = 2_000_000
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src"
    " 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
HEADERS = (
    (b"content-security-policy", POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"same-origin"),
    (b"cross-origin-opener-policy", b"same-origin"),
)
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
                message["headers"] = [*message.get("headers", []), *HEADERS]
            await send(message)

        refusal = _refusal(scope["method"], Headers(scope=scope))
        if refusal is not None:
            await refusal(scope, receive, guarded)
            return
        await self.app(scope, receive, guarded)


def _refusal(method: str, headers: Headers) -> PlainTextResponse | None:
    if method in SAFE_METHODS:
        return None
    if not _same_origin(headers):
        return PlainTextResponse("Changes are taken from this application's own pages only.", 403)
    length = headers.get("content-length")
    if length is None and "transfer-encoding" not in headers:
        return None
    if length is None or not length.isdecimal():
        return PlainTextResponse("The length of the request is missing.", 411)
    if int(length) > MAX_BODY_BYTES:
        return PlainTextResponse("The request is larger than 2 MB.", 413)
    return None


def _same_origin(headers: Headers) -> bool:
    """Whether a change comes from our own pages, or from a program that is no browser."""
    origin, site = headers.get("origin"), headers.get("sec-fetch-site")
    if site is not None and site not in ("same-origin", "none"):
        return False
    if origin is None:
        return True
    return urlsplit(origin).netloc == headers.get("host")
