"""What is known already, of a page whose other parts are still to be worked out."""

from collections.abc import Callable
from typing import TypeVar

from wattmetron.cache.must_wait import MustWait

T = TypeVar("T")
U = TypeVar("U")


class Glimpse:
    """Gathers the parts of a page. Where it shows what there is (``at_once``), a part that has to
    wait is left out, and noted; else whoever asks waits for it.
    """

    def __init__(self, at_once: bool) -> None:
        self.at_once, self.left_out = at_once, False

    def part(self, compute: Callable[[], T], otherwise: U) -> T | U:
        """A part, or what stands for it until it is there."""
        if not self.at_once:
            return compute()
        try:
            return compute()
        except MustWait:
            self.left_out = True
            return otherwise
