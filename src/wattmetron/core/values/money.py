"""Money: integer minor units inside, Decimal at the edges, never a float."""

import re
from decimal import Decimal, InvalidOperation

from wattmetron.core.errors import InvalidError

MINOR_PER_MAJOR = 100
MAX_MINOR = 10_000_000_00
"""Ten million: sums of these fit into 64 bits many times over."""


class MoneyError(InvalidError):
    """An amount that cannot be read as money."""


def to_decimal(minor: int) -> Decimal:
    """Minor units as a Decimal with two places: ``129950`` gives ``Decimal('1299.50')``."""
    return (Decimal(minor) / MINOR_PER_MAJOR).quantize(Decimal("0.01"))


def to_minor(text: str | Decimal | int, what: str = "The amount") -> int:
    """Read an amount such as ``1299.50`` or ``1,299`` into minor units.

    Raises MoneyError for anything that is not a finite, non-negative amount with at most two
    decimals and below ten million.
    """
    cleaned = str(text).strip().replace(" ", "").replace(" ", "")
    if re.fullmatch(r"\d{1,3}(?:\.\d{3})+,\d{1,2}", cleaned):
        cleaned = cleaned.replace(".", "").replace(",", ".")
    if "," in cleaned and "." not in cleaned and len(cleaned.rsplit(",", 1)[1]) in (1, 2):
        cleaned = cleaned.replace(",", ".")
    cleaned = cleaned.replace(",", "")
    if not cleaned:
        raise MoneyError(f"{what} is empty: enter a number such as 1200.")
    try:
        value = Decimal(cleaned)
    except InvalidOperation as error:
        raise MoneyError(
            f"{what} is “{text}”, which is not a number: enter one such as 1200."
        ) from error
    if not value.is_finite():
        raise MoneyError(f"{what} is “{text}”, which is not a number: enter one such as 1200.")
    if value < 0:
        raise MoneyError(f"{what} is {text}, below zero: enter zero or more.")
    if value > MAX_MINOR // MINOR_PER_MAJOR:
        raise MoneyError(f"{what} is {text}, too large: enter at most 10,000,000.")
    minor = value * MINOR_PER_MAJOR
    if minor != minor.to_integral_value():
        raise MoneyError(f"{what} is {text}, finer than a hundredth: enter at most two decimals.")
    return int(minor)
