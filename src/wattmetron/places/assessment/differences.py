"""What an edit of a brief changed, in one sentence."""

from typing import Any, cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import BRIEF, Brief
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.words import listed
from wattmetron.words.figures import KIND_WORDS, money, money_range

LONGEST = 200


def differences(old: Brief, new: Brief, catalogue: Catalogue) -> str:
    """Every field that differs, in the order of their declaration; ``nothing`` where none does."""
    currency = catalogue.region(new.region).currency
    sentences = []
    if _budget(old) != _budget(new):
        sentences.append(f"budget to {money_range(*_budget(new), currency)}")
    if old.display != new.display:
        sentences.append("display")
    sentences += [
        field_words(field, getattr(new, field.name), currency)
        for field in BRIEF
        if field.spec.label
        and field.name not in ("budget_low_minor", "budget_high_minor")
        and getattr(old, field.name) != getattr(new, field.name)
    ]
    return "; ".join(sentences)[:LONGEST] or "nothing"


def _budget(brief: Brief) -> tuple[int, int]:
    return brief.budget_low_minor, brief.budget_high_minor


def field_words(field: Declared, value: Any, currency: str) -> str:
    """What a field of a brief is set to: ``noise in play to 36``."""
    words = field.spec.words
    if field.name == "notes":
        return words
    if value is None or value == "":
        return f"{words} off"
    if isinstance(value, bool):
        return f"{words} {field.spec.flag[0] if value else field.spec.flag[1]}"
    if field.name == "outside":
        kinds = [KIND_WORDS[kind] for kind in cast(tuple[Kind, ...], value)]
        return f"not in the budget: {listed(kinds) or 'nothing'}"
    if field.several:
        return f"{words}: {listed(list(value)) or 'none'}"
    if field.spec.amount:
        return f"{words} to {money(value, currency)}"
    return f"{words} to {value:g}" if isinstance(value, float) else f"{words} to {value}"
