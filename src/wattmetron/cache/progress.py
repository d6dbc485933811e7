"""How far a long computation is, told by whichever process does it and seen by all that were forked
from one.
"""

import mmap
import struct

_COUNTS = struct.Struct("QQ")
_shared = mmap.mmap(-1, _COUNTS.size)


def tell(done: int, of: int) -> None:
    _COUNTS.pack_into(_shared, 0, done, of)


def told() -> tuple[int, int]:
    """How many steps are done, of how many; 0 of 0 before the first was told."""
    done, of = _COUNTS.unpack_from(_shared, 0)
    return int(done), int(of)
