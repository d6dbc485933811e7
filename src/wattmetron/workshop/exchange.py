"""What other programs send, taken as it comes: bounded in bytes and in time, and stopped on demand.

The whole exchange has one end, however slowly its head or its body trickles in; what is packed is
unpacked piece by piece, so that a small packet cannot become large.
"""

import asyncio
import time
import zlib
from collections.abc import Callable, Coroutine, Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from threading import Event
from urllib.parse import urlsplit

import httpx2

from wattmetron.core.errors import InvalidError

PIECE_BYTES, LOOK_S = 65_536, 0.1
PACKED = ("gzip", "deflate")


_allowed: frozenset[tuple[str, str, int]] | None = None


def reach_only(addresses: Iterable[str] | None) -> None:
    """From now on this process asks no other addresses than these (None: any): where others may
    enter addresses, they must not look around in its network. Raises InvalidError.
    """
    global _allowed
    _allowed = None if addresses is None else frozenset(_origin(address) for address in addresses)


def within_reach(address: str) -> bool:
    """Whether an address may be asked: its scheme, host and port are among those allowed."""
    if _allowed is None:
        return True
    try:
        return _origin(address) in _allowed
    except InvalidError:
        return False


USUAL_PORTS = {"http": 80, "https": 443}


def _origin(address: str) -> tuple[str, str, int]:
    try:
        parts = urlsplit(address)
        host, port = parts.hostname, parts.port or USUAL_PORTS.get(parts.scheme, 0)
    except ValueError:
        host, port = None, 0
    if not host or not port or parts.scheme not in USUAL_PORTS:
        raise InvalidError(
            f"“{address[:60]}” is no address to allow: name one such as https://shop.example."
        )
    return parts.scheme, host, port


class OutOfReachError(Exception):
    """An address that this process does not ask."""


def must_reach(address: str) -> None:
    """Raises OutOfReachError for an address that may not be asked."""
    if not within_reach(address):
        raise OutOfReachError


class ExchangeTooLargeError(Exception):
    """More bytes came than are taken."""


class TooSlowError(Exception):
    """The exchange took longer than it may."""


class StoppedError(Exception):
    """Somebody stopped it."""


@dataclass(frozen=True, slots=True)
class Bounds:
    """How much may come, how long all of it may take in seconds, and a wish to stop."""

    most_bytes: int
    most_s: float
    stop: Event = field(default_factory=Event)


def fetched(
    address: str,
    bounds: Bounds,
    check: Callable[[httpx2.Response], None],
    timeouts: httpx2.Timeout,
) -> bytes:
    """What an address answers with; ``check`` sees its head first. Raises OutOfReachError,
    httpx2.HTTPError, TooLargeError, TooSlowError, StoppedError, and what ``check`` raises.
    """
    must_reach(address)

    def exchange() -> bytes:
        return asyncio.run(_within(bounds, _body(address, bounds, check, timeouts)))

    # In a thread of its own: whoever asks may have a loop that runs already.
    with ThreadPoolExecutor(1, "exchange") as alone:
        return alone.submit(exchange).result()


async def _body(
    address: str,
    bounds: Bounds,
    check: Callable[[httpx2.Response], None],
    timeouts: httpx2.Timeout,
) -> bytes:
    headers = {"accept": "application/json", "accept-encoding": ", ".join(PACKED)}
    taken = bytearray()
    async with (
        httpx2.AsyncClient(timeout=timeouts, follow_redirects=False, trust_env=False) as client,
        client.stream("GET", address, headers=headers) as answer,
    ):
        check(answer)
        unpacked = unpacker(answer.headers.get("content-encoding", ""))
        async for raw in answer.aiter_raw():
            for piece in unpacked(raw):
                taken += piece
                if len(taken) > bounds.most_bytes:
                    raise ExchangeTooLargeError
    return bytes(taken)


async def _within(bounds: Bounds, work: Coroutine[None, None, bytes]) -> bytes:
    """The result of the work, unless its time is over or it is stopped before."""
    task = asyncio.ensure_future(work)
    ends_at = time.monotonic() + bounds.most_s
    try:
        while not (await asyncio.wait({task}, timeout=LOOK_S))[0]:
            if bounds.stop.is_set():
                raise StoppedError
            if time.monotonic() > ends_at:
                raise TooSlowError
    finally:
        task.cancel()
    return task.result()


def unpacker(encoding: str) -> Callable[[bytes], Iterator[bytes]]:
    """Unpacks what comes in this encoding in pieces of bounded size; raises httpx2.DecodingError
    for what cannot be unpacked, or is packed more than once.
    """
    name = encoding.strip().lower()
    if name in ("", "identity"):
        return lambda raw: iter((raw,))
    if name not in PACKED:
        raise httpx2.DecodingError(f"unknown encoding {name[:40]}")
    # 47: a gzip or zlib head is recognised by itself.
    machine = zlib.decompressobj(47)

    def unpack(raw: bytes) -> Iterator[bytes]:
        waiting = raw
        while waiting:
            try:
                yield machine.decompress(waiting, PIECE_BYTES)
            except zlib.error as error:
                raise httpx2.DecodingError(str(error)) from error
            waiting = machine.unconsumed_tail

    return unpack


def lines_of(pieces: Iterable[bytes], longest: int, stop: Event) -> Iterator[str]:
    """The lines of a stream as they come; raises TooLargeError for one that does not end within
    ``longest`` bytes. Ends when somebody stops it.
    """
    waiting = bytearray()
    for piece in pieces:
        if stop.is_set():
            return
        waiting += piece
        *whole, rest = waiting.split(b"\n")
        if len(rest) > longest or any(len(line) > longest for line in whole):
            raise ExchangeTooLargeError
        waiting = bytearray(rest)
        for line in whole:
            yield line.decode(errors="replace")
    if waiting:
        yield waiting.decode(errors="replace")
