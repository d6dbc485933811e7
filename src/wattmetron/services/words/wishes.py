"""Wishes of a brief in words."""

from dataclasses import replace

from wattmetron.core.balance.conflict import WISHES, Wish
from wattmetron.core.values.brief import Brief, insisting
from wattmetron.core.values.preferences import FIELDS, Preference
from wattmetron.services.words.figures import KIND_WORDS, THIN, listed, money


def wish_words(
    brief: Brief, wish: Wish, currency: str, part_names: dict[str, str] | None = None
) -> str:
    """A wish with its figure: ``largest case 20 l``."""
    value = getattr(brief, wish.field)
    match wish.field:
        case "part_cap_minor":
            return f"no part above {money(value, currency)}"
        case "trust_floor":
            return f"trust in parts: {value}"
        case "watt_limit_w":
            return f"at most {value}{THIN}W"
        case "memory_gb" | "storage_gb":
            return f"at least {value:g}{THIN}GB of {wish.field.removesuffix('_gb')}"
        case "headroom_percent":
            return f"supply headroom of {value}{THIN}%"
        case "no_makers":
            return f"nothing of {listed(list(value))}"
        case "only_of":
            return "; ".join(f"{KIND_WORDS[kind]} of {maker}" for kind, maker in value)
        case "wireless":
            return "wireless"
        case "banned":
            return f"without {listed([(part_names or {}).get(one, one) for one in value][:4])}"
        case "colour":
            return f"colour {value}"
        case "noise_limit_dba":
            return f"cooler at most {value:g}{THIN}dB(A)"
        case "volume_limit_l":
            return f"case at most {value:g}{THIN}l"
        case "work":
            return f"other work: {listed(list(value))}"
        case "clocks":
            return f"clocks {value}"
    return wish.name


def preference_words(brief: Brief, preference: Preference, currency: str) -> str:
    """A preference as a wish reads: ``colour white``."""
    field = FIELDS[preference.wish]
    wish = next(one for one in WISHES if one.field == field)
    bare = replace(brief, **{field: wish.without})
    return wish_words(insisting(bare, preference), wish, currency)
