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
LONG = 256
"""Of so many items all are weighed."""


class Weight(NamedTuple):
    """Bytes of a value, and whether more may be worked out within it later."""

    nbytes: int
    grows: bool


def weight(value: object) -> Weight:
    """Of a value and all that it refers to, each once; parts, games and offers count as
    references. What tells its own ``nbytes`` is taken at its word; of what is long a sample is
    weighed, and what each further item adds.
    """
    return _weigh([value], set())


def _weigh(waiting: list[Any], seen: set[int]) -> Weight:
    grows, total = False, 0
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
            continue
        total += sys.getsizeof(item)
        members = _members(item)
        if len(members) <= LONG:
            waiting.extend(members)
        else:
            sampled = _sampled(members, seen)
            total, grows = total + sampled.nbytes, grows or sampled.grows
    return Weight(total, grows)


def _sampled(members: list[Any], seen: set[int]) -> Weight:
    """Some of many; what they share is in the first half of the sample."""
    sample = members[:: len(members) // (LONG // 2)]
    shared, each = _weigh(sample[::2], seen), _weigh(sample[1::2], seen)
    others = (len(members) - len(sample[::2])) / len(sample[1::2])
    return Weight(shared.nbytes + round(each.nbytes * others), shared.grows or each.grows)


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
