"""Where answers are worked out: in this process, in others beside it, or on other machines.

All of them are executors of the standard library's kind and give the same answers.
"""

import multiprocessing
import os
from collections.abc import Callable
from concurrent.futures import (
    BrokenExecutor,
    Executor,
    Future,
    ProcessPoolExecutor,
    ThreadPoolExecutor,
)
from contextlib import suppress
from importlib import import_module
from pathlib import Path
from threading import Lock, Thread
from typing import Any, Protocol

from wattmetron.cache import answering
from wattmetron.cache.durable import code_digest
from wattmetron.cache.must_wait import Task
from wattmetron.cache.packing import pack, packed
from wattmetron.cache.process_memory import give_back
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import NotPossibleError

CORES = os.cpu_count() or 1
CONNECT_S = 5.0
"""So long a scheduler is waited for."""
LOST = ("CancelledError", "KilledWorker", "CommClosedError", "TimeoutError", "FutureCancelledError")
"""What Dask's errors are called where a worker or the scheduler is lost."""


class Engine(Protocol):
    """One way to work answers out, so many ``at_once``; ``kind`` is its name."""

    kind: str
    generation: int
    at_once: int

    def submit(self, task: Task, send: bool) -> Future[bytes]:
        """Begins; ``send``: the catalogue goes along."""
        ...

    def lost(self, error: BaseException) -> bool:
        """Whether an error says that the work was lost rather than that it failed."""
        ...

    def renew(self, generation: int) -> None:
        """Begins anew where workers of this generation were lost; what they did is given up."""
        ...

    def close(self) -> None:
        """Ends it; what is under way is given up."""
        ...


class InPlace:
    """Threads of this process, which need no sending."""

    kind, generation = "in place", 0

    def __init__(self, at_once: int = CORES) -> None:
        self.at_once = at_once
        self._executor = ThreadPoolExecutor(at_once)

    def submit(self, task: Task, send: bool) -> Future[bytes]:
        return self._executor.submit(_answered_here, task)

    def lost(self, error: BaseException) -> bool:
        return False

    def renew(self, generation: int) -> None:
        """A thread is not lost; one that does not end keeps its place."""

    def close(self) -> None:
        self._executor.shutdown(wait=False, cancel_futures=True)


def _answered_here(task: Task) -> bytes:
    try:
        about, keep = task.about, task.about.keep
        return pack(keep.worked_out(task.computation, about), about)
    finally:
        give_back()


class _Sending:
    """What engines share whose workers are sent catalogues."""

    def __init__(self, make: Callable[[], Executor]) -> None:
        self._make, self._executor = make, make()
        self._lock, self.generation = Lock(), 0

    def submit(self, task: Task, send: bool) -> Future[bytes]:
        catalogue: Catalogue = task.about
        whole = packed(catalogue)
        computation = pack(task.computation, catalogue)
        return self._executor.submit(
            answering.answer, code_digest(), whole.name, whole if send else None, computation
        )

    def renew(self, generation: int) -> None:
        with self._lock:
            if generation == self.generation:
                self.close()
                self._executor = self._make()
                self.generation += 1

    def close(self) -> None:
        self._executor.shutdown(wait=False, cancel_futures=True)


class Processes(_Sending):
    """Processes beside this one, one for each core. They are forked from one that does nothing
    else, for one with threads cannot be forked safely, and which has read in what is named.
    """

    kind = "processes"

    def __init__(
        self, at_once: int = CORES, answers: Path | None = None, preload: tuple[str, ...] = ()
    ) -> None:
        self.at_once = at_once
        context = multiprocessing.get_context("forkserver")
        context.set_forkserver_preload([answering.__name__, *preload])
        self._pool = (at_once, context, answering.begin, (answers, code_digest()))
        super().__init__(self._started)

    def _started(self) -> Executor:
        """With all its processes, so that the first question need not wait for them; in a thread,
        for the one that forks them reads in first what they need.
        """
        pool = ProcessPoolExecutor(*self._pool)
        Thread(target=_start_all, args=(pool, self.at_once), daemon=True).start()
        return pool

    def lost(self, error: BaseException) -> bool:
        return isinstance(error, BrokenExecutor)

    def close(self) -> None:
        super().close()
        for process in multiprocessing.active_children():
            process.kill()


def _start_all(pool: Executor, count: int) -> None:
    with suppress(RuntimeError):
        for _ in range(count):
            pool.submit(answering.ready)


class Cluster(_Sending):
    """The workers of a Dask scheduler, on this machine or others."""

    kind = "cluster"

    def __init__(self, address: str) -> None:
        self._address, self.at_once = address, 1
        self._client: Any = None
        super().__init__(self._connected)

    def _connected(self) -> Executor:
        try:
            client = import_module("distributed").Client
        except ImportError as error:
            raise NotPossibleError(
                "Other machines need Dask: install it with “pip install 'wattmetron[cluster]'”, or"
                " start without --compute."
            ) from error
        try:
            self._client = client(self._address, timeout=CONNECT_S, set_as_default=False)
        except (OSError, ValueError, TypeError) as error:
            raise NotPossibleError(
                f"No scheduler answers at {self._address}: start it there with “dask scheduler”, or"
                " name another address such as tcp://192.168.1.20:8786."
            ) from error
        executor: Executor = self._client.get_executor(pure=False)
        return executor

    def submit(self, task: Task, send: bool) -> Future[bytes]:
        """As many are then asked at once as the workers that are there have threads."""
        future = super().submit(task, send)
        workers = self._client.scheduler_info(n_workers=-1)["workers"].values()
        self.at_once = max(1, sum(int(worker["nthreads"]) for worker in workers))
        return future

    def lost(self, error: BaseException) -> bool:
        return isinstance(error, BrokenExecutor) or type(error).__name__ in LOST

    def close(self) -> None:
        self._client.close(timeout=1)
