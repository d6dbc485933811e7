"""Who is answered, and what is taken: known hosts, the key of a shared application, own pages only,
size of bodies; protective headers on every answer.
"""

from urllib.parse import urlsplit

from fastapi import Request
from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from wattmetron.shell.access import Door
from wattmetron.shell.error_pages import PROTECTIVE, Refusal, refusal
from wattmetron.shell.logged import LINKS
from wattmetron.workshop.kept import changes_watched

MAX_BODY_BYTES = 2_000_000
LARGER = {"/measured/import": 155_000_000}
"""What is larger than usual: files of frames."""
STRANGE_HOST = "Wattmetron does not answer to this name: open it under the name that it printed."
FOREIGN = (
    "Changes are taken from this application's own pages only: open the page here and repeat it."
)
LED_HERE = "Another page led here, so nothing was worked out yet: open the page if you meant to."
EMBEDDED = "Pages elsewhere cannot use what Wattmetron answers: open it in a tab of its own."
LENGTHLESS = "The length of the request is missing: send it again with its length."
TWO_LENGTHS = "The request says its length in two ways: send it again with a length alone."
TOO_LARGE = (
    "The request is larger than {most} MB, more than is taken at once: send less, such as one file"
    " after the other, or cut a long run."
)
STRICTER = ("referrer-policy", "no-referrer")
"""What a page may say instead of the usual."""
SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})
FRONT = frozenset({"/", "/briefs", "/games", "/parts"})
"""Places that other pages may link to; nothing long is worked out there."""


class _TooMuch(BaseException):
    """More came than was announced; not an ``Exception``, so that no reader takes it for bad
    input.
    """


class Guard:
    """Middleware that refuses what is not to be answered."""

    def __init__(self, app: ASGIApp, hosts: list[str], door: Door) -> None:
        self.app, self.hosts, self.door = app, frozenset(hosts), door

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        started = False

        async def guarded(message: Message) -> None:
            nonlocal started
            if message["type"] == "http.response.start":
                started = True
                headers = MutableHeaders(scope=message)
                for name, value in PROTECTIVE.items():
                    if (name, headers.get(name)) != STRICTER:
                        headers[name] = value
            await send(message)

        answer = self._refused(scope)
        if answer is not None:
            await answer(scope, receive, guarded)
            return
        with changes_watched() as made:
            scope["state"]["changes"] = made
            most = most_bytes(scope["path"])
            try:
                await self.app(scope, _counted(receive, most), guarded)
            except _TooMuch:
                if started:
                    raise
                answer = refusal(Request(scope), _too_large(most))
                await answer(scope, receive, guarded)

    def _refused(self, scope: Scope) -> Response | None:
        request, headers = Request(scope), Headers(scope=scope)
        if _name_of(headers.get("host", "")) not in self.hosts:
            return refusal(request, Refusal(STRANGE_HOST, 400))
        refused = _foreign(scope, headers) or _bad_length(headers, most_bytes(scope["path"]))
        if refused is not None:
            return refusal(request, refused)
        return self.door.answer(request)


def most_bytes(path: str) -> int:
    """How large a body may be that is sent to an address."""
    return LARGER.get(path, MAX_BODY_BYTES)


def _counted(receive: Receive, most: int) -> Receive:
    """The same body, up to its bound."""
    taken = 0

    async def counted() -> Message:
        nonlocal taken
        message = await receive()
        taken += len(message.get("body", b""))
        if taken > most:
            raise _TooMuch
        return message

    return counted


def _name_of(host: str) -> str:
    """The name in a host header, without its port."""
    if host.startswith("["):
        return host.partition("]")[0] + "]"
    return host.partition(":")[0].lower()


def _foreign(scope: Scope, headers: Headers) -> Refusal | None:
    """What comes from a page that is not ours."""
    site = headers.get("sec-fetch-site")
    elsewhere = site is not None and site not in ("same-origin", "none")
    if scope["method"] not in SAFE_METHODS:
        return Refusal(FOREIGN, 403) if elsewhere or not _same_origin(headers) else None
    if not elsewhere or scope["path"].startswith("/static/"):
        return None
    if headers.get("sec-fetch-mode") != "navigate" or headers.get("sec-fetch-dest") != "document":
        return Refusal(EMBEDDED, 403)
    if scope["path"] in FRONT and not scope["query_string"]:
        return None
    if scope["path"].startswith(LINKS):
        return None
    return Refusal(LED_HERE, 403, Request(scope))


def _same_origin(headers: Headers) -> bool:
    """Whether a change comes from our own pages, or from a program that is no browser."""
    origin = headers.get("origin")
    return origin is None or urlsplit(origin).netloc == headers.get("host")


def _bad_length(headers: Headers, most: int) -> Refusal | None:
    length, chunked = headers.get("content-length"), "transfer-encoding" in headers
    if length is None:
        return Refusal(LENGTHLESS, 411) if chunked else None
    if chunked:
        return Refusal(TWO_LENGTHS, 400)
    if not (length.isascii() and length.isdigit()):
        return Refusal(LENGTHLESS, 411)
    return _too_large(most) if len(length) > 12 or int(length) > most else None


def _too_large(most: int) -> Refusal:
    return Refusal(TOO_LARGE.format(most=most // 1_000_000), 413)
