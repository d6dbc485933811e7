"""What is known already, of a page whose other parts are still to be worked out."""

from collections.abc import Callable
from typing import TypeVar

from wattmetron.cache.must_wait import MustWait, Task

T = TypeVar("T")
U = TypeVar("U")


class Glimpse:
    """Gathers the parts of a page. Where it shows what there is (``at_once``), a part that has to
    wait is left out, and what it waits for noted; else whoever asks waits for it.
    """

    def __init__(self, at_once: bool) -> None:
        self.at_once, self.left_out = at_once, 0
        self._tasks: dict[Task, None] = {}

    @property
    def tasks(self) -> tuple[Task, ...]:
        """What the parts that were left out wait for."""
        return tuple(self._tasks)

    def part(self, compute: Callable[[], T], otherwise: U) -> T | U:
        """A part, or what stands for it until it is there."""
        try:
            return compute()
        except MustWait as wait:
            if not self.at_once:
                raise
            self.left_out += 1
            self._tasks |= dict.fromkeys(wait.tasks)
            return otherwise


WHOLE = Glimpse(False)
"""Leaves nothing out."""
