"""Memory that was let go is given back to the system: after large tables the allocator would keep
it.
"""

import ctypes
from collections.abc import Callable


def _trim() -> Callable[[int], int] | None:
    """The C library's own way to do so, where it has one."""
    try:
        trim: Callable[[int], int] = ctypes.CDLL(None).malloc_trim
    except (OSError, AttributeError, TypeError):
        return None
    return trim


_TRIM = _trim()


def give_back() -> None:
    if _TRIM is not None:
        _TRIM(0)
