"""What is computed once and for all: answers found again after a start, by what they rest on."""

import hashlib
import pickle
from collections.abc import Callable, Mapping
from collections.abc import Set as AnySet
from dataclasses import fields, is_dataclass
from functools import cache
from pathlib import Path
from typing import Any, Protocol, TypeVar, cast

import numpy as np

import wattmetron

T = TypeVar("T")
ROOMS = ("core", "places", "words", "drawing", "cache")
"""Folders whose code answers rest on."""


class AnswerStore(Protocol):
    """Where answers are stored by a digest."""

    def get(self, key: str) -> bytes | None: ...

    def put(self, key: str, value: bytes) -> None: ...


def stored(
    store: AnswerStore | None, name: str, content: tuple[object, ...], compute: Callable[[], T]
) -> T:
    """What was computed from this content by this very code, or is now. An answer that cannot be
    read, such as one of another version of a library, is computed anew.
    """
    if store is None:
        return compute()
    key = digest((name, code_digest(), content))
    data = store.get(key)
    if data is not None:
        try:
            return cast(T, pickle.loads(data))
        except Exception:
            data = None
    value = compute()
    store.put(key, pickle.dumps(value))
    return value


def digest(value: object) -> str:
    """A digest of a value by its content alone: the same in every process, whatever the order of
    sets and whichever of its parts are the same object. Raises TypeError for what has no content
    of its own, such as a function.
    """
    hasher = hashlib.sha256()
    _add(hasher.update, value)
    return hasher.hexdigest()


def _add(update: Callable[[bytes], None], value: Any) -> None:
    update(type(value).__qualname__.encode())
    if value is None or isinstance(value, (str, int, float, bytes)) or _is_plain(value):
        text = value if isinstance(value, bytes) else repr(value).encode()
        update(b"%d:" % len(text) + text)
    elif isinstance(value, np.ndarray):
        update(
            repr((value.dtype.str, value.shape)).encode() + np.ascontiguousarray(value).tobytes()
        )
    elif is_dataclass(value) and not isinstance(value, type):
        for item in fields(value):
            _add(update, getattr(value, item.name))
    elif isinstance(value, Mapping):
        _add(update, sorted(((repr(key), key, item) for key, item in value.items()), key=_first))
    elif isinstance(value, AnySet):
        _add(update, sorted(map(digest, value)))
    elif isinstance(value, (tuple, list)):
        update(b"%d[" % len(value))
        for item in value:
            _add(update, item)
    else:
        raise TypeError(f"{type(value)} has no content to tell it by")


def _first(row: tuple[str, Any, Any]) -> str:
    return row[0]


def _is_plain(value: object) -> bool:
    """Dates, decimals, whole numbers of NumPy and the like: what they are stands in their repr."""
    return type(value).__module__ in ("datetime", "decimal") or isinstance(value, np.generic)


@cache
def code_digest() -> str:
    """A digest of what works answers out as it stands, for another one may answer otherwise."""
    hasher = hashlib.sha256(np.__version__.encode())
    for room in ROOMS:
        for path in sorted((Path(wattmetron.__file__).parent / room).rglob("*")):
            if path.suffix in (".py", ".toml"):
                hasher.update(path.name.encode() + path.read_bytes())
    return hasher.hexdigest()
