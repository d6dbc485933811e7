"""What a brief asks for beyond what is usual, group by group, in words."""

from collections.abc import Iterator, Mapping

from wattmetron.core.values.brief import BRIEF, Brief
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.part_kinds import KIND_PLURALS
from wattmetron.core.values.words import listed
from wattmetron.words.drive_words import drives_words, later_words
from wattmetron.words.figures import KIND_WORDS, THIN, money
from wattmetron.words.wish_words import wish_words

GROUPS: dict[str, str] = {
    "parts": "Rules for parts",
    "machine": "Machine and looks",
    "features": "Mainboard, processor and power supply",
    "drives": "Drives",
    "power": "Power and quiet",
    "work": "Other work",
    "later": "Room for later",
    "years": "Years",
    "keeps": "What every proposal keeps to",
    "about": "Name, sureness and notes",
}
"""Groups of a brief's fields that stand folded, with what each is called."""
USUAL: dict[str, str] = {
    "parts": "new parts, nothing doubtful, clocks as shipped",
    "machine": "any size, colour and lights",
    "features": "nothing asked",
    "power": "usual headroom, no limit for watts or noise",
    "work": "games alone",
    "years": "not asked",
    "keeps": "all of it",
}
"""What holds where nothing else is said."""
NOT_SHOWN = frozenset({"name", "notes", "region", "owned", "stays", "resale", "extras"})
SHOWN = 4


def differing(brief: Brief) -> Iterator[Declared]:
    """The fields beyond money, games and display that are not as usual."""
    for field in BRIEF:
        if field.required or field.name in NOT_SHOWN or field.spec.group in ("money", "display"):
            continue
        shown = bool(field.spec.label) or field.wish is not None
        if shown and getattr(brief, field.name) != field.default:
            yield field


def standing_words(
    brief: Brief, field: Declared, currency: str, names: Mapping[str, str] | None = None
) -> str:
    """A field that is not as usual: ``no lights``, ``memory 32 GB``, ``likely``."""
    value, spec = getattr(brief, field.name), field.spec
    if field.name == "outside":
        return f"not in the budget: {listed([KIND_PLURALS[kind] for kind in value])}"
    if field.name == "buys":
        return f"also to be bought: {listed([KIND_WORDS[kind] for kind in value])}"
    if field.name in ("later_card", "later_processor"):
        return f"room for {(names or {}).get(value, value)}"
    if value is False:
        return f"not asked: {spec.label[:1].lower()}{spec.label[1:]}"
    if field.wish is not None and value != field.wish.without:
        return wish_words(brief, field, currency, dict(names or {}))
    if value is None:
        return f"no {spec.words}"
    if field.options:
        return f"{spec.label[:1].lower()}{spec.label[1:]} {value}"
    words = money(value, currency) if spec.amount else _figure(value, spec.unit)
    return f"{spec.words} {words}"


def _figure(value: object, unit: str) -> str:
    shown = f"{value:g}" if isinstance(value, float) else str(value)
    return f"{shown}{THIN}{unit}" if unit else shown


def group_words(brief: Brief, group: str, currency: str, names: Mapping[str, str]) -> str:
    """What holds of a group, in one line."""
    if group == "drives":
        return drives_words(brief)
    if group == "later":
        return later_words(brief, names)
    fields = [field for field in differing(brief) if field.spec.group == group]
    sentences = [standing_words(brief, field, currency, names) for field in fields[:SHOWN]]
    if len(fields) > SHOWN:
        sentences.append(f"{len(fields) - SHOWN} more")
    if group == "about":
        return ", ".join([f"{brief.sureness} ({brief.chance:.0%})", *sentences])
    return "; ".join(sentences) or USUAL[group]
