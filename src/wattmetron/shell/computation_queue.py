"""Long computations are asked of an engine: each once however many ask, as many at once as it has
workers, no short one behind.

A request is first answered in a hurry. What it needs and is not there is asked for; when it is
there the request is answered again. What nobody waits for any more is not begun.
"""

import asyncio
import logging
from collections.abc import Awaitable, Callable, Coroutine
from concurrent.futures import BrokenExecutor
from contextlib import nullcontext
from threading import Lock
from typing import Any

from cachetools import TTLCache
from fastapi import Request
from fastapi.responses import Response
from fastapi.routing import APIRoute
from starlette.concurrency import run_in_threadpool

from wattmetron.cache.answering import NotSentError, OtherVersionError
from wattmetron.cache.engines import Engine, InPlace
from wattmetron.cache.glimpse import Glimpse
from wattmetron.cache.must_wait import Failed, MustWait, Task, hurried
from wattmetron.core.errors import NotPossibleError, WattmetronError
from wattmetron.core.keep import Key
from wattmetron.shell.pages import page
from wattmetron.shell.requests import in_place

PATIENCE_S = 1.5
"""After so long a browser is shown what it waits for."""
GRACE_S = 4.0
"""So long a question is held between two looks of a browser that was shown that."""
LOOK_S = 0.25
LONGEST_S = 300.0
"""A worker that has not answered after so long is taken for lost."""
MOST_ATTEMPTS = 3
MOST_LEFT = 32
PROGRAMS_AT_ONCE = 2
"""So many questions of programs are looked at at once, that pages come first."""
logger = logging.getLogger("wattmetron")
Work = Callable[[], Awaitable[Response]]
Handler = Callable[[Request], Coroutine[Any, Any, Response]]
TaskKey = tuple[int, Key]


class QueuedComputation:
    """One question: how many requests wait for it, when a browser last looked."""

    def __init__(self, task: Task) -> None:
        self.task = task
        self.waiting = 0
        self.begun = False
        self.looked = -GRACE_S
        self.entered = _now()
        self.ended = asyncio.Event()
        self.value: Any = None
        self.error: BaseException | None = None

    @property
    def wanted(self) -> bool:
        return self.waiting > 0 or _now() - self.looked < GRACE_S


class ComputationQueue:
    """What one application has asked of its engine."""

    def __init__(
        self, engine: Engine | None = None, instead: Callable[[], Engine] = InPlace
    ) -> None:
        self.engine, self._instead = engine or InPlace(), instead
        self.programs = asyncio.Semaphore(PROGRAMS_AT_ONCE)
        self.running = self.given_up = self.ended = self.unanswered = 0
        self._lock = Lock()
        self._places: dict[TaskKey, QueuedComputation] = {}
        self._left: TTLCache[TaskKey, QueuedComputation] = TTLCache(MOST_LEFT, GRACE_S)
        self._tasks: set[asyncio.Task[None]] = set()

    @property
    def waiting(self) -> int:
        return len(self._places) - self.running

    def enter(self, task: Task) -> QueuedComputation:
        """A place for a question, or the one that it has."""
        key = task.key
        queued = self._places.get(key) or self._left.get(key)
        if queued is None:
            queued = self._places[key] = QueuedComputation(task)
            asyncio.get_running_loop().call_soon(self._begin)
        return queued

    def _begin(self) -> None:
        """Begins what comes next, as much as is worked out at once; what nobody wants goes."""
        for key, queued in [*self._places.items()]:
            if self.running >= self.engine.at_once:
                return
            if queued.begun:
                continue
            if not queued.wanted:
                self.given_up += 1
                del self._places[key]
                queued.ended.set()
                continue
            queued.begun = True
            self.running += 1
            task = asyncio.create_task(self._run(key, queued))
            self._tasks.add(task)
            task.add_done_callback(self._tasks.discard)

    def meanwhile(self, tasks: tuple[Task, ...]) -> None:
        """Asks what a page that was shown without will ask for in a moment."""
        for task in tasks:
            self.enter(task).looked = _now()

    def say_once(self, task: Task) -> None:
        """Forgets an error that has reached whoever waited: asked again it is tried again."""
        self._left.pop(task.key, None)

    def before(self, queued: QueuedComputation) -> int:
        """How many computations come before one that has not begun."""
        if queued.begun:
            return 0
        return sum(other.entered < queued.entered for other in self._places.values())

    async def wait(
        self, several: list[QueuedComputation], request: Request, patience_s: float | None
    ) -> bool:
        """Until all have ended; False where the request is gone, or its patience."""
        start, look_s = _now(), LOOK_S if patience_s is None else min(LOOK_S, patience_s)
        for queued in several:
            queued.waiting += 1
        try:
            while not all(queued.ended.is_set() for queued in several):
                unfinished = next(queued for queued in several if not queued.ended.is_set())
                try:
                    await asyncio.wait_for(unfinished.ended.wait(), look_s)
                except TimeoutError:
                    if await request.is_disconnected():
                        return False
                if patience_s is not None and _now() - start >= patience_s:
                    for queued in several:
                        queued.looked = _now()
                    return all(queued.ended.is_set() for queued in several)
            return True
        finally:
            for queued in several:
                queued.waiting -= 1

    async def _run(self, key: TaskKey, queued: QueuedComputation) -> None:
        about, computation = queued.task.about, queued.task.computation
        try:
            data = await self._worked_out(queued.task)
            queued.value = await run_in_threadpool(about.keep.bring, computation, about, data)
        except BaseException as error:
            queued.error = error
        finally:
            self.running -= 1
            self.ended += 1
            self._left[key] = self._places.pop(key)
            queued.ended.set()
            self._begin()

    async def _worked_out(self, task: Task) -> bytes:
        """What the engine answers; asked again where a worker was lost."""
        send = False
        for _ in range(MOST_ATTEMPTS):
            engine = self.engine
            generation = engine.generation
            try:
                return await _answer_of(engine, task, send)
            except NotSentError:
                send = True
            except TimeoutError as error:
                self.unanswered += 1
                await run_in_threadpool(self._renew, engine, generation)
                raise NotPossibleError(
                    f"A worker did not answer within {LONGEST_S / 60:.0f} minutes and was given up:"
                    " load the page again."
                ) from error
            except OtherVersionError as error:
                why = f"A worker runs another version and was refused ({error})."
                await run_in_threadpool(self._fall_back, engine, why)
            except Exception as error:
                if not engine.lost(error):
                    raise
                await run_in_threadpool(self._renew, engine, generation)
        raise NotPossibleError("Workers were lost again and again: load the page again in a while.")

    def _renew(self, engine: Engine, generation: int) -> None:
        """Another set of workers; where there is none to be had, those of this machine."""
        try:
            engine.renew(generation)
        except NotPossibleError as error:
            self._fall_back(engine, str(error))

    def _fall_back(self, engine: Engine, why: str) -> None:
        with self._lock:
            if engine is not self.engine:
                return
            logger.warning("%s Answers are worked out on this machine from now on.", why)
            self.engine = self._instead()
        engine.close()

    def close(self) -> None:
        self.engine.close()


async def _answer_of(engine: Engine, task: Task, send: bool) -> bytes:
    """Raises TimeoutError where it takes too long, BrokenExecutor where it was called off."""
    future = await run_in_threadpool(engine.submit, task, send)
    try:
        return await asyncio.wait_for(asyncio.wrap_future(future), LONGEST_S)
    except asyncio.CancelledError as error:
        if future.cancelled():
            raise BrokenExecutor("It was called off.") from error
        raise


async def answered(request: Request, work: Work, shows_wait: bool = True) -> Response:
    """The answer to a request: at once where no long computation is needed, else when that is
    there. A browser is shown how the wait goes on where what it waits for is a page of the
    application.
    """
    line: ComputationQueue = request.app.state.line
    looks_on, is_program = shows_wait and _looks_on(request), request.url.path.startswith("/api/")
    came: dict[TaskKey, Any] = {}
    waited_for: list[Task] = []
    """They keep their catalogues, so that none that comes meanwhile is taken for one of them."""
    patience_s = PATIENCE_S if looks_on else None
    request.state.meanwhile = ()
    while True:
        try:
            async with line.programs if is_program else nullcontext():
                with hurried(True, came):
                    response = await work()
            line.meanwhile(request.state.meanwhile)
            return response
        except MustWait as need:
            tasks = need.tasks
        waited_for += tasks
        several = [line.enter(task) for task in tasks]
        if not await line.wait(several, request, patience_s):
            return _waiting(request, line, several)
        for task, queued in zip(tasks, several, strict=True):
            if queued.error is not None and not isinstance(queued.error, WattmetronError):
                line.say_once(task)
                raise queued.error
            value = queued.value if queued.error is None else Failed(queued.error)
            came[task.key] = value


async def changed(request: Request, change: Callable[[], Callable[[], Response]]) -> Response:
    """Makes a change, once, and answers with what it says is to be shown then."""
    show = await run_in_threadpool(change)
    return await answered(request, lambda: run_in_threadpool(show))


def shown_at_once(request: Request) -> bool:
    """Whether a page is shown with what is known, and the rest asks for itself: in a browser, but
    for those without scripts, whose link says ``whole``.
    """
    params = request.query_params
    return _looks_on(request) and ("rest" in params or "whole" not in params)


def ask_meanwhile(request: Request, glimpse: Glimpse) -> None:
    """Has what was left out worked out while the page is looked at."""
    request.state.meanwhile = glimpse.tasks


def _looks_on(request: Request) -> bool:
    """Whether a browser asks for a page, which can show how the wait goes on."""
    headers = request.headers
    if request.method != "GET" or request.url.path.startswith("/api/"):
        return False
    return in_place(request) or headers.get("sec-fetch-mode") == "navigate"


def _waiting(
    request: Request, line: ComputationQueue, several: list[QueuedComputation]
) -> Response:
    """What is shown meanwhile: how far it is; the page looks again by itself."""
    content = {
        "words": waiting_words(line, several),
        "seconds": round(_now() - min(queued.entered for queued in several)),
    }
    again = request.url.path + (f"?{request.url.query}" if request.url.query else "")
    piece = "piece" in request.query_params
    template = "shell/waiting_piece.html" if piece else "shell/waiting.html"
    return page(request, template, content | {"again": again})


def waiting_words(line: ComputationQueue, several: list[QueuedComputation]) -> str:
    """How many of several answers are there, or how many come before the first of them."""
    done = sum(queued.ended.is_set() for queued in several)
    before = min(line.before(queued) for queued in several)
    if done or (len(several) > 1 and not before):
        return f"{done} of {len(several)} answers are there."
    if before:
        comes = "1 other question comes" if before == 1 else f"{before} other questions come"
        return f"{comes} first; this one begins as soon as a core is free."
    return "Every build that could be the answer is being looked at."


def _now() -> float:
    return asyncio.get_running_loop().time()


class PatientRoute(APIRoute):
    """A route that changes nothing, and whose answer may have to wait."""

    shows_wait = True

    def get_route_handler(self) -> Handler:
        handle = super().get_route_handler()

        async def patient(request: Request) -> Response:
            return await answered(request, lambda: handle(request), self.shows_wait)

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
