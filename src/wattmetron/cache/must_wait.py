"""Whether who asks may stay for a long computation, or has to come back when it is done."""

from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import Any, NamedTuple, TypeVar

from wattmetron.core.keep import Computation, Key

T = TypeVar("T")
_hurried: ContextVar[bool] = ContextVar("hurried", default=False)
_brought: ContextVar[dict[tuple[int, Key], Any] | None] = ContextVar("brought", default=None)


@dataclass(frozen=True, slots=True)
class Task:
    """A computation and the catalogue that it is about, known by whichever keeps its answer."""

    computation: Computation
    about: Any = field(compare=False)
    kept_at: int = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "kept_at", id(self.about.keep))

    @property
    def key(self) -> tuple[int, Key]:
        return self.kept_at, self.computation.key


class MustWait(BaseException):
    """Long computations that are not there yet were asked for in a hurry: they have to be waited
    for.

    Not an ``Exception``, so that nobody on the way takes it for an error.
    """

    def __init__(self, tasks: Iterable[Task]) -> None:
        self.tasks = tuple(tasks)
        super().__init__(", ".join(task.computation.function.__name__ for task in self.tasks))


class Failed(NamedTuple):
    """An error that a question ended in, to be raised where it is asked."""

    error: BaseException


@contextmanager
def hurried(yes: bool = True, brought: dict[tuple[int, Key], Any] | None = None) -> Iterator[None]:
    """Within it long computations that are not there yet raise MustWait; ``brought`` are answers
    that came for whoever asks, also those that are too large to be kept.
    """
    tokens = _hurried.set(yes), _brought.set(brought)
    try:
        yield
    finally:
        _hurried.reset(tokens[0])
        _brought.reset(tokens[1])


def in_a_hurry() -> bool:
    return _hurried.get()


def brought() -> dict[tuple[int, Key], Any]:
    """Answers that came for whoever asks, by the place of the keeper and the key."""
    return _brought.get() or {}


def all_of(*computes: Callable[[], T]) -> tuple[T, ...]:
    """The results of all; where several have to wait, they are waited for together."""
    results, waits = list[T](), list[Task]()
    for compute in computes:
        try:
            results.append(compute())
        except MustWait as wait:
            waits += wait.tasks
    if waits:
        raise MustWait(dict.fromkeys(waits))
    return tuple(results)
