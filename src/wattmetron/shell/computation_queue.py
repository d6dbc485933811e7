"""Long computations wait in line: at most as many at once as there are cores, no short one behind.

A request is first answered in a hurry. Where that needs a long computation that is not there yet,
it takes its place in the line, one place for each computation however many ask, and is answered
again without hurry when its turn comes. A place that nobody waits for any more is given up.
"""

import asyncio
import os
from collections import deque
from collections.abc import Awaitable, Callable, Coroutine
from contextlib import nullcontext, suppress
from functools import partial
from typing import Any

from fastapi import Request
from fastapi.responses import Response
from fastapi.routing import APIRoute
from starlette.concurrency import run_in_threadpool

from wattmetron.cache.must_wait import MustWait, hurried
from wattmetron.cache.process_memory import give_back
from wattmetron.cache.progress import told
from wattmetron.core.game_fit.informed import LEARNT
from wattmetron.core.keep import Key
from wattmetron.shell.pages import asks_for_part, page
from wattmetron.shell.workers import WorkerGoneError, Workers

PATIENCE_S = 1.5
"""After so long a browser is shown what it waits for."""
GRACE_S = 4.0
"""So long a place is held between two looks of a browser that was shown that."""
LOOK_S = 0.25
MOST_UNFETCHED = 32
PROGRAMS_AT_ONCE = 2
"""So many questions of programs are looked at at once, that pages come first."""
Work = Callable[[], Awaitable[Response]]
Address = tuple[str, bool]
"""Of a page: its URL, and whether the working part alone is asked for."""
Handler = Callable[[Request], Coroutine[Any, Any, Response]]


class QueuedComputation:
    """One computation in line: how many requests wait for it, when a browser last looked."""

    def __init__(self, key: Key, address: Address, work: Work) -> None:
        self.key, self.address, self.work = key, address, work
        self.waiting = 0
        self.looked = -GRACE_S
        self.entered = _now()
        self.ended = asyncio.Event()
        self.response: Response | None = None
        self.error: BaseException | None = None

    @property
    def wanted(self) -> bool:
        return self.waiting > 0 or _now() - self.looked < GRACE_S

    def outcome(self) -> Response:
        if self.error is not None:
            raise self.error
        assert self.response is not None
        return self.response


class ComputationQueue:
    """The line of one application."""

    def __init__(self, at_once: int | None = None, workers: Workers | None = None) -> None:
        self.workers = workers
        self.at_once = at_once or os.cpu_count() or 1
        self.programs = asyncio.Semaphore(PROGRAMS_AT_ONCE)
        self.running = self.given_up = self.ended = 0
        self._queue: deque[QueuedComputation] = deque()
        self._places: dict[Key, QueuedComputation] = {}
        self._unfetched: dict[tuple[Key, Address], QueuedComputation] = {}
        self._tasks: set[asyncio.Task[None]] = set()

    @property
    def waiting(self) -> int:
        return len(self._queue)

    def enter(self, key: Key, address: Address, work: Work) -> tuple[QueuedComputation, bool]:
        """A place for one more request that waits; whether it is new, with this work."""
        queued = self._places.get(key)
        new = queued is None
        if queued is None:
            queued = self._places[key] = QueuedComputation(key, address, work)
            self._queue.append(queued)
        queued.waiting += 1
        self._advance()
        return queued, new

    def before(self, queued: QueuedComputation) -> int:
        """How many computations come before one that has not begun."""
        return self._queue.index(queued) + self.running if queued in self._queue else 0

    async def wait(
        self, queued: QueuedComputation, request: Request, patience_s: float | None
    ) -> bool:
        """Until the place has ended; False where the request is gone, or its patience."""
        start = _now()
        try:
            while not queued.ended.is_set():
                try:
                    await asyncio.wait_for(queued.ended.wait(), LOOK_S)
                except TimeoutError:
                    if await request.is_disconnected():
                        return False
                    if patience_s is not None and _now() - start > patience_s:
                        queued.looked = _now()
                        return False
            return True
        finally:
            queued.waiting -= 1

    def fetched(self, key: Key, address: Address) -> QueuedComputation | None:
        """The answer to this question that was left for this address, once."""
        queued = self._unfetched.pop((key, address), None)
        return queued if queued is not None and _now() - queued.looked < GRACE_S else None

    def _advance(self) -> None:
        while self._queue and self.running < self.at_once:
            queued = self._queue.popleft()
            if not queued.wanted:
                self.given_up += 1
                del self._places[queued.key]
                queued.ended.set()
                continue
            self.running += 1
            task = asyncio.get_running_loop().create_task(self._run(queued))
            self._tasks.add(task)
            task.add_done_callback(self._tasks.discard)

    async def _run(self, queued: QueuedComputation) -> None:
        try:
            with hurried(False):
                queued.response = await queued.work()
            if self.workers is None:
                await run_in_threadpool(give_back)
        except BaseException as error:
            queued.error = error
        finally:
            self.running -= 1
            self.ended += 1
            del self._places[queued.key]
            if not queued.waiting:
                self._leave(queued)
            queued.ended.set()
            self._advance()

    def _leave(self, queued: QueuedComputation) -> None:
        """Leaves an answer for the browser that comes back for it: what is too large to be kept is
        not computed again and again.
        """
        self._unfetched.pop((queued.key, queued.address), None)
        self._unfetched[queued.key, queued.address] = queued
        while len(self._unfetched) > MOST_UNFETCHED:
            del self._unfetched[next(iter(self._unfetched))]


def _now() -> float:
    return asyncio.get_running_loop().time()


async def answered(
    request: Request, work: Work, replayed: bool = False, shows_wait: bool = True
) -> Response:
    """The answer to a request: at once where no long computation is needed, else in line. A worker
    may do the work where it is nothing but this request, made again. A browser is shown how the
    wait goes on where what it waits for is a page of the application.
    """
    line: ComputationQueue | None = request.app.state.line
    if line is None:
        return await work()
    address = str(request.url), asks_for_part(request)
    looks_on, is_program = shows_wait and _looks_on(request), request.url.path.startswith("/api/")
    while True:
        try:
            async with line.programs if is_program else nullcontext():
                with hurried():
                    return await work()
        except MustWait as need:
            key = need.key
        by_worker = partial(_by_worker, line.workers, request, key, work) if replayed else work
        if replayed and line.workers is not None:
            recalled = await line.workers.recall(request, key)
            if recalled is not None:
                return recalled
        if looks_on and (left := line.fetched(key, address)) is not None:
            return left.outcome()
        queued, mine = line.enter(key, address, by_worker)
        if not await line.wait(queued, request, PATIENCE_S if looks_on else None):
            return _waiting(request, line, queued)
        if mine:
            return queued.outcome()


async def _by_worker(workers: Workers | None, request: Request, key: Key, work: Work) -> Response:
    """The answer of a worker; done here where there is none."""
    if workers is not None:
        with suppress(WorkerGoneError):
            return await workers.answer(request, key)
    with hurried(False):
        return await work()


async def changed(request: Request, change: Callable[[], Callable[[], Response]]) -> Response:
    """Makes a change, once, and answers with what it says is to be shown then."""
    show = await run_in_threadpool(change)
    return await answered(request, lambda: run_in_threadpool(show))


def shown_at_once(request: Request) -> bool:
    """Whether a page is shown with what is known, and the rest asks for itself: in a browser, but
    for the request of the rest, and for those without scripts, whose link says ``whole``.
    """
    asks_for_rest = {"rest", "whole"} & request.query_params.keys()
    return request.app.state.line is not None and _looks_on(request) and not asks_for_rest


def _looks_on(request: Request) -> bool:
    """Whether a browser asks for a page, which can show how the wait goes on."""
    headers = request.headers
    if request.method != "GET" or request.url.path.startswith("/api/"):
        return False
    return headers.get("hx-request") == "true" or headers.get("sec-fetch-mode") == "navigate"


def _waiting(request: Request, line: ComputationQueue, queued: QueuedComputation) -> Response:
    """What is shown meanwhile: how many come before; the page looks again by itself."""
    before = line.before(queued)
    words = "Every build that could be the answer is being looked at."
    if queued.key == LEARNT:
        done, of = told()
        words = f"Results are being fitted: {done:,} of {of:,} games."
    if before:
        comes = "1 other question comes" if before == 1 else f"{before} other questions come"
        words = f"{comes} first; this one begins as soon as a core is free."
    content = {"words": words, "seconds": round(_now() - queued.entered)}
    again = request.url.path + (f"?{request.url.query}" if request.url.query else "")
    if "rest" in request.query_params:
        answer = page(request, "shell/waiting_rest.html", content)
        answer.headers["hx-reswap"] = "none"
        return answer
    piece = "piece" in request.query_params
    template = "shell/waiting_piece.html" if piece else "shell/waiting.html"
    return page(request, template, content | {"again": again})


class PatientRoute(APIRoute):
    """A route that changes nothing, and whose answer may have to wait in line."""

    shows_wait = True

    def get_route_handler(self) -> Handler:
        handle = super().get_route_handler()

        async def patient(request: Request) -> Response:
            return await answered(request, lambda: handle(request), True, self.shows_wait)

        return patient


class PageRoute(PatientRoute):
    """The same for pages; changes have routes of the usual kind under the same addresses."""

    def get_route_handler(self) -> Handler:
        if self.methods and not self.methods <= {"GET", "HEAD"}:
            return APIRoute.get_route_handler(self)
        return super().get_route_handler()


class AloneRoute(PatientRoute):
    """The same for files, and for pages that show nothing of the application around them."""

    shows_wait = False
