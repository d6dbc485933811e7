"""Whether who asks may stay for a long computation, or has to come back when it is done."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from wattmetron.core.keep import Key

_hurried: ContextVar[bool] = ContextVar("hurried", default=False)


class MustWait(BaseException):
    """A long computation that is not there yet was asked for in a hurry: it has to wait in line.

    Not an ``Exception``, so that nobody on the way takes it for an error.
    """

    def __init__(self, key: Key) -> None:
        super().__init__(str(key[0]))
        self.key = key


@contextmanager
def hurried(yes: bool = True) -> Iterator[None]:
    """Within it long computations that are not there yet raise MustWait."""
    token = _hurried.set(yes)
    try:
        yield
    finally:
        _hurried.reset(token)


def must_wait(key: Key) -> None:
    """Raises MustWait for who is in a hurry."""
    if _hurried.get():
        raise MustWait(key)
