"""The wishes of a brief, as its fields declare them: held, let go, preferred, insisted on."""

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Any

from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief import BRIEF, Brief, check_fields
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.part_kinds import KIND_NAMES, KINDS
from wattmetron.core.values.preferences import MOST_PREFERENCES, Preference
from wattmetron.core.values.trust import TRUST_FLOORS

WISHES: tuple[Declared, ...] = tuple(field for field in BRIEF if field.wish is not None)


def wish_name(field: Declared) -> str:
    assert field.wish is not None
    return field.wish.name


def preference_name(field: Declared) -> str:
    """The name by which a wish is preferred."""
    assert field.wish is not None
    return field.wish.preference or field.name


PREFERRED: dict[str, Declared] = {
    preference_name(field): field for field in WISHES if field.wish and field.wish.preferred
}


def wishes_held(brief: Brief) -> tuple[Declared, ...]:
    """The wishes that a brief makes."""
    return tuple(
        field for field in WISHES if field.wish and getattr(brief, field.name) != field.wish.without
    )


def without(brief: Brief, wishes: tuple[Declared, ...]) -> Brief:
    """The brief with these wishes let go."""
    changes: dict[str, Any] = {field.name: field.wish.without for field in wishes if field.wish}
    return replace(brief, **changes)


def letting_go(brief: Brief, names: Iterable[str]) -> Brief:
    """The brief with the wishes of these fields let go."""
    gone = {*names}
    return without(brief, tuple(field for field in WISHES if field.name in gone))


def read_preference(preference: Preference) -> Any:
    """The value that the brief's field takes; raises BriefError for what cannot be read."""
    field = PREFERRED.get(preference.wish)
    if field is None or field.wish is None:
        raise BriefError(
            f"The preference “{preference.wish}” is not known: choose from {', '.join(PREFERRED)}."
        )
    if field.wish.value is not None:
        return field.wish.value
    return _reader(field)(field, preference.value.strip())


def insisting(brief: Brief, preference: Preference) -> Brief:
    """The brief with a preference as a floor; raises BriefError where its value cannot be read."""
    value = read_preference(preference)
    field = PREFERRED[preference.wish]
    left = tuple(other for other in brief.preferences if other != preference)
    stricter = _stricter(field, getattr(brief, field.name), value)
    changes: dict[str, Any] = {"preferences": left, field.name: stricter}
    return replace(brief, **changes)


def check_brief(brief: Brief) -> None:
    """Raises BriefError with one clear sentence for the first entry that cannot be worked with."""
    check_fields(brief)
    check_preferences(brief)


def check_preferences(brief: Brief) -> None:
    """Raises BriefError for preferences that are too many or cannot be read."""
    if len(brief.preferences) > MOST_PREFERENCES:
        raise BriefError(
            f"The brief has more than {MOST_PREFERENCES} preferences: keep those that matter."
        )
    for preference in brief.preferences:
        check_fields(insisting(replace(brief, preferences=()), preference))


def _stricter(field: Declared, floor: Any, preferred: Any) -> Any:
    """A floor and a preference of one field together."""
    assert field.wish is not None
    match field.wish.sense:
        case "at least":
            return max(floor, preferred)
        case "at most":
            return preferred if floor is None else min(floor, preferred)
        case "strictest":
            return min(floor, preferred, key=lambda item: len(TRUST_FLOORS[item]))
        case "also":
            return (*floor, *(item for item in preferred if item not in floor))
    return preferred


def _reader(field: Declared) -> Callable[[Declared, str], Any]:
    if field.bare in (int, float):
        return _number
    if field.options:
        return _choice
    return _maker if field.several else _text


def _preferred(field: Declared) -> str:
    assert field.wish is not None
    return field.wish.preferred


def _number(field: Declared, text: str) -> float:
    whole = field.bare is int
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        value = -1.0
    if not 0 < value < 1e6 or (whole and value != int(value)):
        raise BriefError(
            f"The preference for {_preferred(field)} is “{text}”: enter a"
            f" {'whole ' if whole else ''}number above 0."
        )
    return int(value) if whole else value


def _choice(field: Declared, text: str) -> str:
    if text not in field.options:
        raise BriefError(
            f"The preference for {_preferred(field)} is “{text}”: choose one of"
            f" {', '.join(field.options)}."
        )
    return text


def _text(field: Declared, text: str) -> str:
    if not text:
        raise BriefError(f"The preference for {_preferred(field)} names none: {field.spec.hint}.")
    return text


def _maker(field: Declared, text: str) -> tuple[tuple[str, str], ...]:
    kind, _, maker = (word.strip() for word in text.partition(":"))
    key = next(
        (each_kind for each_kind in KINDS if kind in (each_kind, KIND_NAMES[each_kind])), None
    )
    if key is None or not maker:
        raise BriefError(
            f"The preference for a maker is “{text}”: write kind and maker, as in “graphics: …”."
        )
    return ((key, maker),)
