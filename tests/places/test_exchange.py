"""What other programs send stays within bounds, however they send it."""

import gzip
import socket
import threading
import time
import zlib
from contextlib import contextmanager
from threading import Event

import httpx2
import pytest

from wattmetron.core.errors import BriefError, InvalidError
from wattmetron.places.measured.recorder import MeterError, told_lines
from wattmetron.places.shops.feeds import FetchError, checked_address, fetch
from wattmetron.workshop.exchange import (
    Bounds,
    ExchangeTooLargeError,
    StoppedError,
    TooSlowError,
    fetched,
    lines_of,
    reach_only,
    unpacker,
    within_reach,
)

HEAD = b"HTTP/1.1 200 OK\r\ncontent-type: application/json\r\n"
SOON = httpx2.Timeout(5.0)


@contextmanager
def sending(*pieces, again=b"", every_s=0.0):
    """A program that sends these pieces, then one more again and again until nobody listens."""
    door = socket.create_server(("127.0.0.1", 0))
    ended = Event()

    def serve():
        while not ended.is_set():
            try:
                caller, _ = door.accept()
            except OSError:
                return
            with caller:
                try:
                    caller.recv(65_536)
                    for piece in pieces:
                        caller.sendall(piece)
                    while again and not ended.is_set():
                        caller.sendall(again)
                        time.sleep(every_s)
                except OSError:
                    pass

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{door.getsockname()[1]}/feed"
    finally:
        ended.set()
        door.close()


def ask(address, most_bytes=1_000_000, most_s=5.0, stop=None):
    return fetched(address, Bounds(most_bytes, most_s, stop or Event()), lambda _: None, SOON)


def test_what_is_sent_whole_is_taken_packed_or_not():
    body = b'{"a": 1}'
    plain = HEAD + b"content-length: 8\r\n\r\n" + body
    packed = gzip.compress(body)
    with sending(plain) as address:
        assert ask(address) == body
    head = HEAD + f"content-encoding: gzip\r\ncontent-length: {len(packed)}\r\n\r\n".encode()
    with sending(head + packed) as address:
        assert ask(address) == body


@pytest.mark.parametrize(
    ("pieces", "again"),
    [
        ((HEAD + b"\r\n",), b"x" * 60_000),
        ((HEAD + b"content-encoding: gzip\r\n\r\n", gzip.compress(b"\0" * 50_000_000)), b""),
    ],
    ids=["endless", "a small packet that becomes large"],
)
def test_more_than_is_taken_is_broken_off(pieces, again):
    with sending(*pieces, again=again) as address, pytest.raises(ExchangeTooLargeError):
        ask(address)


@pytest.mark.parametrize("head", [HEAD + b"\r\n", HEAD + b"x-slow: "], ids=["body", "head"])
def test_one_end_for_the_whole_exchange_however_slowly_it_trickles(head):
    with sending(head, again=b"x", every_s=0.05) as address, pytest.raises(TooSlowError):
        ask(address, most_s=0.5)


def test_it_is_stopped_while_it_waits():
    stop = Event()
    threading.Timer(0.3, stop.set).start()
    with sending(HEAD, again=b"x", every_s=0.05) as address, pytest.raises(StoppedError):
        ask(address, most_s=30, stop=stop)


def test_unpacking_goes_in_pieces_of_bounded_size():
    pieces = [len(piece) for piece in unpacker("deflate")(zlib.compress(b"\0" * 5_000_000))]
    assert sum(pieces) == 5_000_000 and max(pieces) <= 65_536
    for encoding in ("gzip, gzip", "br"):
        with pytest.raises(httpx2.DecodingError):
            unpacker(encoding)
    with pytest.raises(httpx2.DecodingError):
        list(unpacker("gzip")(b"no gzip at all"))


def test_lines_come_whole_end_and_are_bounded():
    stop = Event()
    assert list(lines_of([b"a\nb", b"c\n", b"d"], 10, stop)) == ["a", "bc", "d"]
    with pytest.raises(ExchangeTooLargeError):
        list(lines_of([b"x" * 6, b"y" * 6], 10, stop))
    stop.set()
    assert list(lines_of([b"a\n"], 10, stop)) == []


def test_feeds_and_meters_say_it_in_their_words(monkeypatch):
    monkeypatch.setattr("wattmetron.places.shops.feeds.MOST_BYTES", 1000)
    with sending(HEAD + b"\r\n", again=b"x" * 5000) as address:
        with pytest.raises(FetchError, match="more than"):
            fetch(address)
        with pytest.raises(MeterError, match="far too long"):
            list(told_lines(address, Event()))
    refusing = b"HTTP/1.1 404 Not Found\r\n\r\n"
    packing = HEAD + b"content-encoding: gzip\r\n\r\n" + b"x"
    for said, piece, again in (("refuses", refusing, b"x" * 5000), ("packs", packing, b"")):
        with sending(piece, again=again) as address, pytest.raises(MeterError, match=said):
            list(told_lines(address, Event()))


@pytest.fixture
def reaching():
    """Afterwards every address may be asked again."""
    yield reach_only
    reach_only(None)


def test_only_addresses_allowed_at_the_start_are_asked(reaching):
    with sending(HEAD + b"\r\n{}") as address:
        reaching(["https://shop.example"])
        for other in (address, "http://shop.example/x", "https://shop.example:8443/x", "odd:"):
            assert not within_reach(other), other
        assert within_reach("https://shop.example:443/feed.json")
        with pytest.raises(FetchError, match="may not be asked from here"):
            fetch(address)
        with pytest.raises(MeterError, match="may not be asked from here"):
            list(told_lines(address, Event()))
        with pytest.raises(BriefError, match="--allow-address"):
            checked_address(address)
        reaching(["https://shop.example", address])
        assert fetch(address) == b"{}"
    with pytest.raises(InvalidError, match="no address to allow"):
        reaching(["shop.example"])
