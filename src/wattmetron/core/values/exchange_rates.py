"""Rates between currencies as dated data: nothing is converted without one, nor silently."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from decimal import ROUND_HALF_EVEN, Decimal, InvalidOperation

from wattmetron.core.errors import BriefError

MOST_RATES = 2_000
LINE = re.compile(
    r"^\s*(\d{4}-\d{2}-\d{2})[\s,;]+([A-Za-z]{3})[\s,;]+([A-Za-z]{3})[\s,;]+(\d+(?:[.,]\d+)?)\s*$"
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Rate:
    """On a day one unit of ``base`` was so many of ``quote``."""

    on: date
    base: str
    quote: str
    rate: Decimal


@dataclass(frozen=True, slots=True)
class Converted:
    """An amount in another currency in minor units, with the rate that made it."""

    minor: int
    rate: Rate


def read_rates(text: str) -> tuple[Rate, ...]:
    """Lines such as ``2026-11-20 EUR NOK 11.70``; raises BriefError for the first that is none."""
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines:
        raise BriefError("No rate is entered: write a line such as 2026-11-20 EUR NOK 11.70.")
    if len(lines) > MOST_RATES:
        raise BriefError(f"There are more than {MOST_RATES:,} rates: leave the oldest out.")
    return tuple(_read(line) for line in lines)


def _read(line: str) -> Rate:
    match = LINE.match(line)
    if match is None:
        raise BriefError(
            f"“{line.strip()[:60]}” is no rate: write day, two currencies and the rate, such as"
            " 2026-11-20 EUR NOK 11.70."
        )
    try:
        day, rate = date.fromisoformat(match[1]), Decimal(match[4].replace(",", "."))
    except (ValueError, InvalidOperation) as error:
        raise BriefError(f"“{line.strip()[:60]}” names a day that there is not.") from error
    base, quote = match[2].upper(), match[3].upper()
    if base == quote or not Decimal("0.000001") <= rate <= Decimal(1_000_000):
        raise BriefError(
            f"“{line.strip()[:60]}” cannot be: two different currencies and a rate above 0."
        )
    return Rate(on=day, base=base, quote=quote, rate=rate)


def with_rates(rates: Iterable[Rate], new: Iterable[Rate]) -> tuple[Rate, ...]:
    """The rates with new ones in the place of those of the same day and pair, the newest first."""
    by_day_and_pair = {(rate.on, rate.base, rate.quote): rate for rate in (*rates, *new)}
    return tuple(
        sorted(
            by_day_and_pair.values(),
            key=lambda rate: (rate.on, rate.base, rate.quote),
            reverse=True,
        )
    )


def converted(
    minor: int, currency: str, wanted: str, rates: Iterable[Rate], day: date
) -> Converted | None:
    """By the newest rate of the pair, either way round, up to a day; None where there is none."""
    pair = {currency, wanted}
    known = [rate for rate in rates if {rate.base, rate.quote} == pair and rate.on <= day]
    if not known:
        return None
    latest = max(known, key=lambda rate: (rate.on, rate.base))
    amount = (
        Decimal(minor) * latest.rate if latest.base == currency else Decimal(minor) / latest.rate
    )
    return Converted(int(amount.quantize(Decimal(1), ROUND_HALF_EVEN)), latest)
