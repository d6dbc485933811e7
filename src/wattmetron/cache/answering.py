"""What a process does that works answers out: it is sent a catalogue once, then asked."""

import os
import sys
from multiprocessing import connection, parent_process
from pathlib import Path
from threading import Thread
from typing import cast

from cachetools import LRUCache

from wattmetron.cache.cache import Keeper
from wattmetron.cache.catalogue_cache import studied
from wattmetron.cache.durable import AnswerStore, code_digest
from wattmetron.cache.packing import PackedCatalogue, pack, unpack, unpacked
from wattmetron.cache.process_memory import give_back
from wattmetron.core.catalogue import Catalogue
from wattmetron.store.stored_answers import StoredAnswers

MOST_CATALOGUES = 3
"""Today's, and two of days before, as the application itself has them."""
_catalogues: LRUCache[str, Catalogue] = LRUCache(MOST_CATALOGUES)
_stores: list[AnswerStore] = []
_codes: list[str] = []
"""The code of whoever began this process; that of its files may be newer than what it has read."""


class NotSentError(Exception):
    """A process was asked about a catalogue that it was not sent yet."""


class OtherVersionError(Exception):
    """A process works answers out by other code than the one that asks."""


def begin(answers: Path | None, code: str) -> None:
    """Makes this process one that answers: it ends with the one that asks, has its code, and looks
    for what lasts in the same file.
    """
    _codes.append(code)
    if answers is not None:
        _stores.append(StoredAnswers(answers))
    parent = parent_process()
    if parent is not None:
        Thread(target=_end_with, args=(parent.sentinel,), daemon=True).start()


def _end_with(sentinel: int) -> None:
    connection.wait([sentinel])
    os._exit(0)


def ready() -> int:
    """Something to ask a process that is to be there when it is needed; its number."""
    return os.getpid()


def answer(code: str, name: str, sent: PackedCatalogue | None, packed: bytes) -> bytes:
    """The packed answer to a packed question about the catalogue of this name. Raises NotSentError
    where it has to be sent along, OtherVersionError where answers would not be those of who asks,
    and whatever the question ends in.
    """
    if code != (_codes[0] if _codes else code_digest()):
        raise OtherVersionError(f"Python {sys.version.split()[0]}, process {os.getpid()}")
    if sent is not None and name not in _catalogues:
        _catalogues[name] = studied(unpacked(sent), *_stores)
    if name not in _catalogues:
        raise NotSentError(name)
    catalogue = _catalogues[name]
    keeper = cast(Keeper, catalogue.keep)
    try:
        computation = unpack(packed, catalogue)
        return pack(keeper.worked_out(computation, catalogue), catalogue)
    finally:
        give_back()
