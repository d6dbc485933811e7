"""Systems and graphics APIs as lists name them: a name and a version."""

import re
from collections.abc import Sequence
from typing import NamedTuple

_VERSION = re.compile(r"\d+(?:[._]\d+)*")


class Version(NamedTuple):
    """A name and its version: ``Tidewater 10 64-bit`` is ``tidewater`` at ``(10,)``."""

    text: str = ""
    name: str = ""
    numbers: tuple[int, ...] = ()


def version_of(text: str) -> Version:
    """A text such as ``Tidewater 10 64-bit``, read."""
    match = _VERSION.search(text)
    name = text[: match.start()] if match else re.split(r"[,(]", text)[0]
    numbers = tuple(int(digits) for digits in re.split(r"[._]", match[0])) if match else ()
    return Version(text, " ".join(re.findall(r"[^\W\d_]+", name)).casefold(), numbers)


def offered(wanted: Version, had: Sequence[Version]) -> bool | None:
    """Whether one of the names is the wanted one at its version or newer; None where they cannot be
    compared.
    """
    alike = [version for version in had if version.name == wanted.name or not wanted.name]
    if not had or (not alike and not wanted.name):
        return None
    return any(version.numbers >= wanted.numbers for version in alike)
