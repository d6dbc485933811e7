"""Wishes in words."""

from dataclasses import replace
from typing import Any

from wattmetron.core.values.brief import Brief
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.wishes import PREFERRED, insisting, wish_name
from wattmetron.core.values.words import listed
from wattmetron.words.figures import KIND_WORDS, THIN, money

SHOWN_PARTS = 4


def wish_words(
    brief: Brief, wish: Declared, currency: str, part_names: dict[str, str] | None = None
) -> str:
    """A wish with its figure: ``largest case 20 l``."""
    assert wish.wish is not None
    value: Any = getattr(brief, wish.name)
    values: dict[str, Any] = {"value": value, "thin": THIN}
    if wish.several:
        names = [(part_names or {}).get(str(item), str(item)) for item in value]
        values |= {"listed": listed(list(map(str, value))), "names": listed(names[:SHOWN_PARTS])}
    if wish.spec.amount and value is not None:
        values["money"] = money(value, currency)
    if wish.wish.preference == "maker":
        values["makers"] = "; ".join(f"{KIND_WORDS[kind]} of {maker}" for kind, maker in value)
    return wish.wish.phrase.format(**values) or wish_name(wish)


def preference_words(brief: Brief, preference: Preference, currency: str) -> str:
    """A preference as a wish reads: ``colour white``."""
    field = PREFERRED[preference.wish]
    assert field.wish is not None
    changes: dict[str, Any] = {field.name: field.wish.without}
    return wish_words(insisting(replace(brief, **changes), preference), field, currency)
