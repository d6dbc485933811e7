"""One place for how money, figures and names are written."""

from dataclasses import dataclass
from decimal import Decimal

from babel import Locale, UnknownLocaleError
from babel.numbers import get_decimal_symbol, get_group_symbol

from wattmetron.core.errors import InvalidError
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.brief import Target
from wattmetron.core.values.money import to_decimal
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.words import listed

THIN = "\u202f"
GAP = "\u00a0"
KIND_WORDS = KIND_NAMES


@dataclass(frozen=True, slots=True)
class Style:
    """How amounts are written: the signs between thousands and before cents."""

    group: str = ","
    point: str = "."

    def written(self, amount: Decimal, places: int) -> str:
        marks = {",": self.group, ".": self.point}
        return "".join(marks.get(sign, sign) for sign in f"{amount:,.{places}f}")


def style_of(locale: str) -> Style:
    """The signs of a locale such as ``de_DE``; raises InvalidError for one that is not known."""
    try:
        parsed = Locale.parse(locale.partition(".")[0].replace("-", "_"))
    except (ValueError, UnknownLocaleError) as error:
        raise InvalidError(
            f"The locale “{locale[:40]}” is not known: name one such as en_GB or de_DE."
        ) from error
    group = str(get_group_symbol(parsed))
    return Style(group if group.strip() else THIN, str(get_decimal_symbol(parsed)))


_style = Style()


def write_as(locale: str) -> None:
    """Write all amounts of this process as in a locale: set once, before anybody asks."""
    global _style
    _style = style_of(locale)


def money(minor: int, currency: str) -> str:
    """``EUR 1,284`` or, where there are cents, ``EUR 1,284.50``; a minus sign before the
    currency.
    """
    amount = to_decimal(abs(minor))
    text = _style.written(amount, 0 if amount == amount.to_integral_value() else 2)
    return f"{'−' if minor < 0 else ''}{currency}{GAP}{text}"


def money_range(low_minor: int, high_minor: int, currency: str) -> str:
    """``EUR 1,050–1,250`` in whole units, or the upper end alone where there is no lower one."""
    low, high = round_money(low_minor, currency), round_money(high_minor, currency)
    return f"{low}–{high.split(GAP)[-1]}" if low_minor and low != high else high


def money_change(minor: int, currency: str) -> str:
    """``EUR 38 more``, ``EUR 5 less`` or ``the same``."""
    if not minor:
        return "the same"
    return f"{money(abs(minor), currency)} {'more' if minor > 0 else 'less'}"


def round_money(minor: int, currency: str) -> str:
    """Money to the whole unit."""
    amount = to_decimal(abs(minor)).quantize(Decimal(1))
    return f"{'−' if minor < 0 else ''}{currency}{GAP}{_style.written(amount, 0)}"


def percent(share: float) -> str:
    """A share as whole per cent; neither nought nor all where it is not quite."""
    if 0 < share < 0.005:
        return f"under 1{THIN}%"
    if 0.995 <= share < 1:
        return f"over 99{THIN}%"
    return f"{share * 100:.0f}{THIN}%"


def resolution(target: Target) -> str:
    return f"{target.width_px}x{target.height_px}"


def settings(target: Target) -> str:
    """``2560x1440, high, upscaling 67 %, ray tracing``."""
    words = [resolution(target), target.preset]
    if target.upscaling:
        words.append(f"upscaling {target.scale:.0%}".replace("%", f"{THIN}%"))
    if target.ray_tracing:
        words.append("ray tracing")
    if target.generated:
        words.append("frame generation")
    if target.lowered:
        words.append(f"lower {listed(list(target.lowered))}")
    return ", ".join(words)


def shown_words(estimate: Estimate) -> str:
    """`` shown, 59 drawn`` behind a rate where frames are generated; empty where all are drawn."""
    if not estimate.generated:
        return ""
    return f" shown, {estimate.drawn_fps:.0f} drawn"


def amount(minor: int) -> str:
    """Money as a decimal string."""
    return str(to_decimal(minor))
