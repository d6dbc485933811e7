"""Memory that was let go is given back to the system: after large tables the allocator would keep
it, and the collector would come by late.
"""

import ctypes
import gc
from collections.abc import Callable


def _trim() -> Callable[[int], int] | None:
    """The C library's own way to do so, where it has one."""
    try:
        trim: Callable[[int], int] = ctypes.CDLL(None).malloc_trim
    except (OSError, AttributeError, TypeError):
        return None
    return trim


_TRIM = _trim()
M_ARENA_MAX = -8
"""The name of the C library's option for how many places it takes memory from."""


def one_arena() -> None:
    """Memory comes from one place for all threads: with one for each, as is usual, a computation
    leaves gaps in all of them. Before there are threads.
    """
    if _TRIM is not None:
        ctypes.CDLL(None).mallopt(M_ARENA_MAX, 1)


def stays() -> None:
    """What is loaded by now stays as long as the process: the collector need not look at it."""
    gc.collect()
    gc.freeze()


def give_back() -> None:
    gc.collect()
    if _TRIM is not None:
        _TRIM(0)
