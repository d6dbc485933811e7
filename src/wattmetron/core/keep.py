"""Where what was computed is kept: the core asks for it, whoever owns a catalogue provides it."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from typing import Any, Protocol, TypeVar

T = TypeVar("T")
Key = tuple[Hashable, ...]


@dataclass(frozen=True, slots=True)
class Computation:
    """A long computation as a value: a function of a module, which takes a catalogue first, and
    what else it takes. It can be hashed, pickled and compared, and so can its answer be pickled.
    """

    function: Callable[..., Any]
    arguments: tuple[Hashable, ...] = ()

    @property
    def key(self) -> Key:
        return self.function.__name__, self.function.__module__, *self.arguments


class Keep(Protocol):
    """Keeps what was computed from one catalogue; a key begins with the name of what is kept."""

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        """What was computed under this key, or is now; one computation however many ask at once."""
        ...

    def answer(self, computation: Computation, about: Any) -> Any:
        """The answer to a question about a catalogue, for which whoever asks may have to wait."""
        ...

    def answers(self, computations: tuple[Computation, ...], about: Any) -> tuple[Any, ...]:
        """The answers to several, for which whoever asks waits together."""
        ...

    def lasting(self, key: Key, content: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The same for what rests on ``content`` alone, and may be found again after a start."""
        ...

    def digest(self, value: object) -> str:
        """A short text that stands for the content of something large among what an answer rests
        on.
        """
        ...

    def branch(self, shared: frozenset[str]) -> "Keep":
        """A place for a catalogue that differs: what has one of these names stays shared."""
        ...


class NothingKept:
    """Computes anew whenever it is asked."""

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        return compute()

    def answer(self, computation: Computation, about: Any) -> Any:
        return computation.function(about, *computation.arguments)

    def answers(self, computations: tuple[Computation, ...], about: Any) -> tuple[Any, ...]:
        return tuple(self.answer(computation, about) for computation in computations)

    def lasting(self, key: Key, content: tuple[object, ...], compute: Callable[[], T]) -> T:
        return compute()

    def digest(self, value: object) -> str:
        return ""

    def branch(self, shared: frozenset[str]) -> "NothingKept":
        return self


NOTHING_KEPT = NothingKept()
