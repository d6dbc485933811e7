"""One owner of what is computed once: thread-safe, bounded in bytes, counted."""

from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from functools import partial
from threading import Event, Lock, get_ident
from typing import Any, TypeVar, cast

from cachetools import LRUCache

from wattmetron.cache.durable import AnswerStore, digest, stored
from wattmetron.cache.must_wait import Failed, MustWait, Task, all_of, brought, hurried, in_a_hurry
from wattmetron.cache.packing import named_by_content, pack, unpack
from wattmetron.cache.weight import weight
from wattmetron.core.keep import Computation, Key

T = TypeVar("T")
MISSING = object()
MOST_BYTES = 96_000_000
WEIGHED_AT = (1, 4, 16, 64)
"""At which questions a value that may have grown is weighed again; then at every last of them."""
BRANCH_BYTES = 24_000_000
"""What a supposed catalogue may keep of its own."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Count:
    """How a keeper has done: questions answered before, questions that were new, what it holds."""

    hits: int
    misses: int
    entries: int
    held_bytes: int
    most_bytes: int


class _UnderWay:
    """A computation under way: who does it, and an end for which others wait."""

    __slots__ = ("done", "error", "owner", "value")

    def __init__(self) -> None:
        self.owner = get_ident()
        self.done = Event()
        self.value: Any = None
        self.error: BaseException | None = None

    def result(self) -> Any:
        if self.error is not None:
            raise self.error
        return self.value


class _Held:
    """A value with what it weighed when it was last weighed, and how often it was asked for."""

    __slots__ = ("grows", "hits", "nbytes", "value")

    def __init__(self, value: object) -> None:
        self.value, self.hits = value, 0
        self.nbytes, self.grows = weight(value)

    def count_use(self) -> bool:
        """Counts a question; whether it is time to weigh again what may have grown: now and then,
        for it takes some milliseconds.
        """
        self.hits += 1
        return self.grows and (self.hits in WEIGHED_AT or self.hits % WEIGHED_AT[-1] == 0)


class Keeper:
    """Keeps values by key, the least recently used go first; one computation per key at a time."""

    def __init__(self, most_bytes: int = MOST_BYTES, store: AnswerStore | None = None) -> None:
        self._lock, self._store = Lock(), store
        self._held: LRUCache[Key, _Held] = LRUCache(most_bytes, getsizeof=lambda byte: byte.nbytes)
        self._under_way: dict[Key, _UnderWay] = {}
        self._hits = self._misses = 0

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        """What was computed under this key, or is now; the others that ask wait for it."""
        while True:
            with self._lock:
                entry = self._held.get(key)
                if entry is not None:
                    self._hits += 1
                    due = entry.count_use()
                    break
                running = self._under_way.get(key)
                if running is None or running.owner == get_ident():
                    self._misses += 1
                    mine = self._under_way[key] = _UnderWay()
                    break
            running.done.wait()
            if not isinstance(running.error, MustWait):
                with self._lock:
                    self._hits += 1
                return cast(T, running.result())
        if entry is None:
            return self._computed(key, mine, compute)
        if due:
            self._weigh_again(key, entry)
        return cast(T, entry.value)

    def answer(self, computation: Computation, about: Any) -> Any:
        """The answer to a question about the catalogue that this keeps for: as it is here, as it
        came for whoever asks, or as it was stored. Raises MustWait where it is not there and the
        asker is in a hurry.
        """
        key = computation.key
        came = brought().get((id(self), key), MISSING)
        if isinstance(came, Failed):
            raise came.error
        if came is not MISSING:
            return came
        if in_a_hurry() and key not in self:
            stored_answer = self._found(computation, about)
            if stored_answer is None:
                raise MustWait([Task(computation, about)])
            return self.once(key, lambda: stored_answer[0])
        return self.once(key, lambda: self._found_or_worked_out(computation, about))

    def _found_or_worked_out(self, computation: Computation, about: Any) -> Any:
        """Stores it as well, for questions of other processes that rest on this one."""
        stored_answer = self._found(computation, about)
        if stored_answer is not None:
            return stored_answer[0]
        value = computation.function(about, *computation.arguments)
        if self._store is not None:
            self._store.put(named_by_content(computation, about), pack(value, about))
        return value

    def answers(self, computations: tuple[Computation, ...], about: Any) -> tuple[Any, ...]:
        """The answers to several; where they have to wait, they are waited for together."""
        return all_of(*(partial(self.answer, computation, about) for computation in computations))

    def _found(self, computation: Computation, about: Any) -> tuple[Any] | None:
        """A stored answer; None where there is none, or one of another version of a library."""
        if self._store is not None:
            data = self._store.get(named_by_content(computation, about))
            if data is not None:
                with suppress(Exception):
                    return (unpack(data, about),)
        return None

    def bring(self, computation: Computation, about: Any, data: bytes) -> Any:
        """Takes an answer in that was worked out elsewhere, and stores it."""
        if self._store is not None:
            self._store.put(named_by_content(computation, about), data)
        return self.once(computation.key, lambda: unpack(data, about))

    def worked_out(self, computation: Computation, about: Any) -> Any:
        """An answer for whoever has looked for it in the store already, and stores it."""
        return self.once(
            computation.key, lambda: computation.function(about, *computation.arguments)
        )

    def lasting(self, key: Key, content: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The same for what rests on ``content`` alone: it is looked for in the store first."""
        name = str(key[0])
        return self.once(key, lambda: stored(self._store, name, content, compute))

    def digest(self, value: object) -> str:
        """What stands for a large value in the content of others."""
        return digest(value)

    def __contains__(self, key: Key) -> bool:
        with self._lock:
            return key in self._held

    def branch(self, shared: frozenset[str]) -> "SupposedKeeper":
        """A keeper of its own for what differs, which goes when nobody uses it any more."""
        return SupposedKeeper(self, shared)

    def _computed(self, key: Key, running: _UnderWay, compute: Callable[[], T]) -> T:
        entry = None
        try:
            running.value = compute()
            entry = _Held(running.value)
        except BaseException as error:
            running.error = MustWait(error.tasks) if isinstance(error, MustWait) else error
            raise
        finally:
            with self._lock:
                if entry is not None:
                    self._put(key, entry)
                if self._under_way.get(key) is running:
                    del self._under_way[key]
            running.done.set()
        return cast(T, running.value)

    def _put(self, key: Key, entry: _Held) -> None:
        if entry.nbytes <= self._held.maxsize:
            self._held[key] = entry

    def _weigh_again(self, key: Key, entry: _Held) -> None:
        """What has grown since is counted as large as it is now."""
        fresh = weight(entry.value)
        with self._lock:
            if fresh.nbytes != entry.nbytes and self._held.get(key) is entry:
                del self._held[key]
                entry.nbytes, entry.grows = fresh
                self._put(key, entry)

    @property
    def count(self) -> Count:
        with self._lock:
            return Count(
                hits=self._hits,
                misses=self._misses,
                entries=len(self._held),
                held_bytes=int(self._held.currsize),
                most_bytes=int(self._held.maxsize),
            )


class Branch(Keeper):
    """A keeper beside another: what has a shared name is kept there."""

    def __init__(
        self,
        trunk: Keeper,
        shared: frozenset[str],
        most_bytes: int = BRANCH_BYTES,
        store: AnswerStore | None = None,
    ) -> None:
        super().__init__(most_bytes, store or trunk._store)
        self._trunk, self._shared = trunk, shared

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        if key[0] in self._shared:
            return self._trunk.once(key, compute)
        return super().once(key, compute)


class SupposedKeeper(Branch):
    """Of a catalogue that is known here alone: what is asked of it is worked out at once."""

    def answer(self, computation: Computation, about: Any) -> Any:
        with hurried(False):
            return self.worked_out(computation, about)
