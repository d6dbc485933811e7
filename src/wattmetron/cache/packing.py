"""Catalogues, questions and answers as bytes that other processes can take."""

import hashlib
import io
import pickle
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.cache.durable import code_digest, digest
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.keep import Computation
from wattmetron.core.values.parts import Part

WHOLE = "catalogue"
"""What stands for the catalogue itself; a part stands there by its id."""


@dataclass(frozen=True, slots=True)
class PackedCatalogue:
    """A catalogue as it was described, and a digest of it by which it is called."""

    name: str
    data: bytes


def packed(catalogue: Catalogue) -> PackedCatalogue:
    """A catalogue as bytes, once: of 20,000 parts it takes half a second."""
    return catalogue.keep.once(("packed",), lambda: _packed(catalogue))


def _packed(catalogue: Catalogue) -> PackedCatalogue:
    data = pickle.dumps(replace(catalogue.described), pickle.HIGHEST_PROTOCOL)
    return PackedCatalogue(hashlib.sha256(data).hexdigest(), data)


def unpacked(sent: PackedCatalogue) -> Catalogue:
    """The catalogue as it was described."""
    catalogue: Catalogue = pickle.loads(sent.data)
    return catalogue


def named_by_content(computation: Computation, catalogue: Catalogue) -> str:
    """What an answer is stored under: the computation, the catalogue and the code."""
    function = f"{computation.function.__module__}.{computation.function.__qualname__}"
    return digest((function, computation.arguments, packed(catalogue).name, code_digest()))


class _Packer(pickle.Pickler):
    """Writes the catalogue and its parts as references to them."""

    def __init__(self, file: io.BytesIO, catalogue: Catalogue) -> None:
        super().__init__(file, pickle.HIGHEST_PROTOCOL)
        self._catalogue = catalogue

    def persistent_id(self, value: object) -> str | tuple[str] | None:
        if value is self._catalogue:
            return WHOLE
        if isinstance(value, Part) and self._catalogue.parts.get(value.id) is value:
            return (value.id,)
        return None


class _Unpacker(pickle.Unpickler):
    def __init__(self, file: io.BytesIO, catalogue: Catalogue) -> None:
        super().__init__(file)
        self._catalogue = catalogue

    def persistent_load(self, name: str | tuple[str]) -> Any:
        return self._catalogue if name == WHOLE else self._catalogue.parts[name[0]]


def pack(value: object, catalogue: Catalogue) -> bytes:
    """A value that was worked out from a catalogue."""
    file = io.BytesIO()
    _Packer(file, catalogue).dump(value)
    return file.getvalue()


def unpack(data: bytes, catalogue: Catalogue) -> Any:
    """The value for the same catalogue, of another process."""
    return _Unpacker(io.BytesIO(data), catalogue).load()
