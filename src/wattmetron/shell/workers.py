"""Processes that answer what takes long, so that the one that serves pages stays free.

Each is forked with the catalogue loaded, opens the database for itself, keeps what it computed and
answers whole requests. What is new is given to one that computes nothing else; what one has
computed already it answers beside that. One that is gone is replaced when next one is needed: they
are forked by a process that does nothing else, for one with threads cannot be forked safely.
"""

import asyncio
import os
import pickle
import signal
import socket
import struct
import sys
from collections.abc import Callable
from contextlib import suppress
from itertools import count
from typing import Any

from cachetools import LRUCache
from fastapi import Request
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response
from starlette.types import ASGIApp, Message

from wattmetron.cache.must_wait import MustWait, hurried
from wattmetron.cache.process_memory import give_back
from wattmetron.core.keep import Key

LENGTH = struct.Struct("!Q")
SCOPE = ("method", "path", "raw_path", "query_string", "headers", "http_version", "scheme")
"""What of a request goes to a worker, besides its body."""
MOST_KNOWN = 10_000
FORK_S = 5.0
"""So long a new worker is waited for."""
SWITCH_S = 0.001
"""So often a worker turns from a computation to what it can answer at once."""


class WorkerGoneError(Exception):
    """A worker ended before it answered, or there is none."""


class Worker:
    """One process, from the side that asks it."""

    def __init__(self, pid: int, line: socket.socket) -> None:
        self.pid, self.socket = pid, line
        self.busy = self.gone = False
        self._numbers = count()
        self._asked: dict[int, asyncio.Future[Any]] = {}
        self._writer: asyncio.StreamWriter | None = None
        self._reading: asyncio.Task[None] | None = None

    async def ask(self, scope: dict[str, Any], body: bytes, new: bool) -> Any:
        if self._writer is None:
            reader, self._writer = await asyncio.open_connection(sock=self.socket)
            self._reading = asyncio.create_task(self._read(reader))
        number = next(self._numbers)
        answer = self._asked[number] = asyncio.get_running_loop().create_future()
        try:
            self._writer.write(_packed((number, scope, body, new)))
            await self._writer.drain()
        except OSError:
            self._end()
        return await answer

    async def _read(self, reader: asyncio.StreamReader) -> None:
        with suppress(OSError, asyncio.IncompleteReadError):
            while True:
                number, answer = await _unpacked(reader)
                if not (future := self._asked.pop(number)).done():
                    future.set_result(answer)
        self._end()

    def _end(self) -> None:
        self.gone = True
        for future in self._asked.values():
            if not future.done():
                future.set_exception(WorkerGoneError())
        self._asked.clear()


class Nursery:
    """A process without threads that forks workers; it ends when nobody holds its line."""

    def __init__(self, make: Callable[[], ASGIApp], forget: Callable[[], None]) -> None:
        self._line, theirs = socket.socketpair()
        self.pid = os.fork()
        if not self.pid:
            self._line.close()
            forget()
            _fork_on_demand(theirs, make)
        theirs.close()
        self._line.settimeout(FORK_S)

    def worker(self) -> Worker | None:
        """A new worker; None where the nursery is gone."""
        ours, theirs = socket.socketpair()
        try:
            socket.send_fds(self._line, [b"w"], [theirs.fileno()])
            (pid,) = LENGTH.unpack(self._line.recv(LENGTH.size))
        except (OSError, struct.error):
            ours.close()
            return None
        finally:
            theirs.close()
        ours.setblocking(False)
        return Worker(pid, ours)

    def close(self) -> None:
        self._line.close()
        _end_process(self.pid)


class Workers:
    """The workers of one application; none where processes cannot be forked. ``forget`` lets go
    what belongs to the process that serves.
    """

    def __init__(
        self, most: int, make: Callable[[], ASGIApp], forget: Callable[[], None] = lambda: None
    ) -> None:
        self._known: LRUCache[Key, Worker] = LRUCache(MOST_KNOWN)
        self._nursery = Nursery(make, forget) if most and hasattr(os, "fork") else None
        born = (self._nursery.worker() for _ in range(most)) if self._nursery else ()
        self._all: list[Worker] = [worker for worker in born if worker]

    @property
    def there(self) -> int:
        return sum(not worker.gone for worker in self._all)

    async def recall(self, request: Request, key: Key) -> Response | None:
        """The answer of a worker that has computed this and still has it; None where none has."""
        worker = self._known.get(key)
        answer = None
        if worker is not None and not worker.gone:
            with suppress(WorkerGoneError):
                answer = await self._asked(worker, request, False)
        if answer is None:
            self._known.pop(key, None)
        return answer

    async def answer(self, request: Request, key: Key) -> Response:
        """What a worker answers to a request that needs this; raises WorkerGoneError where none
        can.
        """
        worker = self._free(request.url.path)
        worker.busy = True
        try:
            answer = await self._asked(worker, request, True)
        finally:
            worker.busy = False
        if answer is None:
            raise WorkerGoneError
        self._known[key] = worker
        return answer

    async def _asked(self, worker: Worker, request: Request, new: bool) -> Response | None:
        scope = {name: request.scope[name] for name in SCOPE if name in request.scope}
        body = b"" if request.method == "GET" else await request.body()
        reply = await worker.ask(scope, body, new)
        if reply is None:
            return None
        status, headers, content = reply
        answer = Response(content, status)
        answer.raw_headers = headers
        return answer

    def _free(self, path: str) -> Worker:
        """The worker that knows most of a brief or place, if it is free, else another."""
        self._replace()
        free = [worker for worker in self._all if not (worker.busy or worker.gone)]
        if not free:
            raise WorkerGoneError
        usual = self._all[sum("/".join(path.split("/")[:3]).encode()) % len(self._all)]
        return usual if usual in free else free[0]

    def _replace(self) -> None:
        """New workers for those that are gone."""
        for index, worker in enumerate(self._all):
            gone = worker.gone or not _is_running(worker.pid)
            new = self._nursery.worker() if gone and self._nursery else None
            if new is not None:
                self._all[index] = new

    def close(self) -> None:
        """Ends them; what they compute is given up."""
        for worker in self._all:
            _end_process(worker.pid)
        if self._nursery:
            self._nursery.close()


def _is_running(pid: int) -> bool:
    """A worker that was never asked does not tell by its line that it has ended."""
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    return True


def _end_process(pid: int) -> None:
    with suppress(ProcessLookupError, ChildProcessError):
        os.kill(pid, signal.SIGTERM)
        os.waitpid(pid, 0)


def _fork_on_demand(line: socket.socket, make: Callable[[], ASGIApp]) -> None:
    """Forks a worker for each line that comes, and says its pid; never returns."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    with suppress(OSError):
        while fds := socket.recv_fds(line, 1, 1)[1]:
            theirs = socket.socket(fileno=fds[0])
            pid = os.fork()
            if not pid:
                signal.signal(signal.SIGCHLD, signal.SIG_DFL)
                line.close()
                _serve(theirs, make)
            theirs.close()
            line.sendall(LENGTH.pack(pid))
    os._exit(0)


def _packed(value: Any) -> bytes:
    data = pickle.dumps(value)
    return LENGTH.pack(len(data)) + data


async def _unpacked(reader: asyncio.StreamReader) -> Any:
    (length,) = LENGTH.unpack(await reader.readexactly(LENGTH.size))
    return pickle.loads(await reader.readexactly(length))


def _serve(line: socket.socket, make: Callable[[], ASGIApp]) -> None:
    """Answers in a forked process until nobody asks any more; never returns."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    sys.setswitchinterval(SWITCH_S)
    ended = 1
    try:
        asyncio.run(_answer_all(line, make()))
    except (OSError, asyncio.IncompleteReadError):
        ended = 0
    finally:
        os._exit(ended)


async def _answer_all(line: socket.socket, app: ASGIApp) -> None:
    line.setblocking(False)
    reader, writer = await asyncio.open_connection(sock=line)
    tasks: set[asyncio.Task[None]] = set()

    async def one(number: int, scope: dict[str, Any], body: bytes, new: bool) -> None:
        writer.write(_packed((number, await answer_of(app, scope, body, new))))
        if new:
            await run_in_threadpool(give_back)

    while True:
        task = asyncio.create_task(one(*await _unpacked(reader)))
        tasks.add(task)
        task.add_done_callback(tasks.discard)


async def answer_of(app: ASGIApp, scope: dict[str, Any], body: bytes, new: bool) -> Any:
    """Status, headers and body; None where it is not new and has been forgotten since."""
    with suppress(MustWait), hurried(not new):
        return await _answered(app, scope, body)
    return None


async def _answered(app: ASGIApp, scope: dict[str, Any], body: bytes) -> tuple[Any, Any, bytes]:
    """Status, headers and body of the application's answer."""
    start: dict[str, Any] = {"status": 500, "headers": []}
    pieces: list[bytes] = []
    answered = False

    async def receive() -> Message:
        nonlocal answered
        if answered:
            await asyncio.Event().wait()
        answered = True
        return {"type": "http.request", "body": body, "more_body": False}

    async def send(message: Message) -> None:
        if message["type"] == "http.response.start":
            start.update(message)
        else:
            pieces.append(message.get("body", b""))

    whole = {"type": "http", "asgi": {"version": "3.0"}, "server": None, "client": None}
    with suppress(Exception):
        await app({**whole, **scope, "state": {}}, receive, send)
    return start["status"], list(start["headers"]), b"".join(pieces)
