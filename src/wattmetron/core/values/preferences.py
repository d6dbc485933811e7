"""Preferences: wishes that are granted where they cost little, unlike floors, which always hold."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, get_args

from wattmetron.core.errors import BriefError
from wattmetron.core.values.parts import KIND_NAMES, KINDS
from wattmetron.core.values.trust import TRUST_FLOORS

Preferred = Literal[
    "colour",
    "maker",
    "noise_limit_dba",
    "volume_limit_l",
    "watt_limit_w",
    "memory_gb",
    "storage_gb",
    "headroom_percent",
    "trust_floor",
    "wireless",
    "room_to_grow",
    "new",
]
PREFERRED: tuple[Preferred, ...] = get_args(Preferred)
MOST_PREFERENCES = 10
USUAL_SHARE = 0.05
"""What a preference may cost where the brief does not say: a twentieth of the budget."""


@dataclass(frozen=True, slots=True)
class Preference:
    """One preference as it was typed: ``("colour", "white")``, ``("maker", "graphics:
    Pellworth")``.
    """

    wish: Preferred
    value: str = ""


FIELDS: dict[Preferred, str] = {one: one for one in PREFERRED} | {
    "maker": "only_of",
    "new": "allow_used",
}
"""The field of a brief that holds each as a floor."""


def read(preference: Preference) -> Any:
    """The value that the brief's field takes; raises BriefError for what cannot be read."""
    return _READERS[preference.wish](preference.value.strip())


def stricter(field: str, floor: Any, preferred: Any) -> Any:
    """A floor and a preference of one field together."""
    if field in ("memory_gb", "storage_gb", "headroom_percent"):
        return max(floor, preferred)
    if field in ("noise_limit_dba", "volume_limit_l", "watt_limit_w"):
        return preferred if floor is None else min(floor, preferred)
    if field == "trust_floor":
        return min(floor, preferred, key=lambda one: len(TRUST_FLOORS[one]))
    if field == "only_of":
        return (*floor, *(one for one in preferred if one not in floor))
    return preferred


def _number(what: str, whole: bool = False) -> Callable[[str], float]:
    def read_number(text: str) -> float:
        try:
            value = float(text.replace(",", "."))
        except ValueError:
            value = -1.0
        if not 0 < value < 1e6 or (whole and value != int(value)):
            raise BriefError(
                f"The preference for {what} is “{text}”: enter a {'whole ' if whole else ''}number"
                " above 0."
            )
        return int(value) if whole else value

    return read_number


def _colour(text: str) -> str:
    if not text:
        raise BriefError("The preference for a colour names none: enter one, such as white.")
    return text


def _maker(text: str) -> tuple[tuple[str, str], ...]:
    kind, _, maker = (one.strip() for one in text.partition(":"))
    key = next((one for one in KINDS if kind in (one, KIND_NAMES[one])), None)
    if key is None or not maker:
        raise BriefError(
            f"The preference for a maker is “{text}”: write kind and maker, as in “graphics: …”."
        )
    return ((key, maker),)


def _trust(text: str) -> str:
    if text not in TRUST_FLOORS:
        raise BriefError(
            f"The preference for trust is “{text}”: choose one of {', '.join(TRUST_FLOORS)}."
        )
    return text


_READERS: dict[Preferred, Callable[[str], Any]] = {
    "colour": _colour,
    "maker": _maker,
    "noise_limit_dba": _number("a quiet cooler"),
    "volume_limit_l": _number("a small case"),
    "watt_limit_w": _number("a small draw", whole=True),
    "memory_gb": _number("memory"),
    "storage_gb": _number("storage"),
    "headroom_percent": _number("supply headroom", whole=True),
    "trust_floor": _trust,
    "wireless": lambda _: True,
    "room_to_grow": lambda _: True,
    "new": lambda _: False,
}
