"""How many bytes a computed value holds, without what belongs to the catalogue."""

import sys
from dataclasses import fields, is_dataclass
from typing import Any, NamedTuple

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.games import Game
from wattmetron.core.values.offers import Offer, Region
from wattmetron.core.values.parts import Part

OF_THE_CATALOGUE = (Catalogue, Part, Game, Offer, Region)
PLAIN = (str, bytes, int, float, bool, type(None))
POINTER = 8
"""Bytes of a reference."""


class Weight(NamedTuple):
    """Bytes of a value, and whether more may be worked out within it later."""

    nbytes: int
    grows: bool


def weight(value: object) -> Weight:
    """Of a value and all that it refers to, each once; parts, games and offers count as
    references. What tells its own ``nbytes`` is taken at its word.
    """
    grows = False
    seen: set[int] = set()
    waiting: list[Any] = [value]
    total = 0
    while waiting:
        item = waiting.pop()
        if id(item) in seen or isinstance(item, OF_THE_CATALOGUE):
            continue
        seen.add(id(item))
        if isinstance(item, np.ndarray):
            base = item.base if isinstance(item.base, np.ndarray) else item
            if base is item or id(base) not in seen:
                seen.add(id(base))
                total += base.nbytes
            continue
        grows = grows or getattr(item, "grows", False)
        if hasattr(item, "nbytes"):
            total += int(item.nbytes)
        else:
            total += sys.getsizeof(item)
            waiting.extend(_members(item))
    return Weight(total, grows)


def _members(item: Any) -> list[Any]:
    """What an object refers to; of long tuples of parts nothing."""
    if isinstance(item, (*PLAIN, type)) or callable(item):
        return _held(item) if hasattr(item, "_compute") else []
    if isinstance(item, dict):
        return [*item.keys(), *item.values()]
    if isinstance(item, (tuple, list, set, frozenset)):
        first = next(iter(item), None)
        return [] if isinstance(first, OF_THE_CATALOGUE) else list(item)
    return _held(item)


def _held(item: Any) -> list[Any]:
    if is_dataclass(item):
        return [getattr(item, field.name) for field in fields(item) if hasattr(item, field.name)]
    slots = [
        getattr(item, name) for name in getattr(type(item), "__slots__", ()) if hasattr(item, name)
    ]
    return [*slots, *vars(item).values()] if hasattr(item, "__dict__") else slots
