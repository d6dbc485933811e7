"""Where what was computed is kept: the core asks for it, whoever owns a catalogue provides it."""

from collections.abc import Callable, Hashable
from typing import Protocol, TypeVar

T = TypeVar("T")
Key = tuple[Hashable, ...]


class Keep(Protocol):
    """Keeps what was computed from one catalogue; a key begins with the name of what is kept."""

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        """What was computed under this key, or is now; one computation however many ask at once."""
        ...

    def long(self, key: Key, compute: Callable[[], T]) -> T:
        """The same for what takes so long that it may have to wait in line."""
        ...

    def lasting(self, key: Key, content: tuple[object, ...], compute: Callable[[], T]) -> T:
        """The same for what rests on ``content`` alone, and may be found again after a start."""
        ...

    def digest(self, value: object) -> str:
        """A short text that stands for the content of something large among what an answer rests
        on.
        """
        ...

    def tell(self, done: int, of: int) -> None:
        """Says how far what takes long is."""
        ...

    def branch(self, shared: frozenset[str]) -> "Keep":
        """A place for a catalogue that differs: what has one of these names stays shared."""
        ...


class NothingKept:
    """Computes anew whenever it is asked."""

    def once(self, key: Key, compute: Callable[[], T]) -> T:
        return compute()

    long = once

    def lasting(self, key: Key, content: tuple[object, ...], compute: Callable[[], T]) -> T:
        return compute()

    def digest(self, value: object) -> str:
        return ""

    def tell(self, done: int, of: int) -> None:
        """Nobody waits."""

    def branch(self, shared: frozenset[str]) -> "NothingKept":
        return self


NOTHING_KEPT = NothingKept()
