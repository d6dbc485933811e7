"""How many of a part a line wants, and what one of them costs there."""

import re
from typing import NamedTuple

from wattmetron.core.texts.messages.money_amounts import CURRENCIES, NUMBER, minor_of

NUMBERS = {"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "eight": 8}
_WORDS = "|".join(NUMBERS)
BEFORE = (
    re.compile(r"(?:^|[\s|(])(\d{1,4})\s*(?:x|×|\*|pcs?\.?|pieces?|stück|of)\s+\W*$", re.I),
    re.compile(r"(?:^|\s)x\s?(\d{1,4})\s+$", re.I),
    re.compile(rf"\b({_WORDS})\s+(?:of\s+)?$", re.I),
    re.compile(r"^(\d{1,4})\s+$"),
)
AFTER = (
    re.compile(r"^\W*[x×]\s?(\d{1,4})\b(?!\s*(?:gb|tb))", re.I),
    re.compile(r"^\s*\((?:qty\.?\s*)?(\d{1,4})(?:\s*(?:x|pcs?|pieces?))?\)", re.I),
    re.compile(r"^\W*(?:qty|quantity|menge|antall)\W*(\d{1,4})\b", re.I),
    re.compile(r"^\W*(\d{1,4})\s*(?:pcs?|pieces?|stück|stk)\b", re.I),
    re.compile(
        rf"^\W*(?:just |times )?({_WORDS})\b(?: of (?:them|those|these))?(?!\s*\w+\s*(?:cores|gb))",
        re.I,
    ),
    re.compile(r"^\s*[-–]\s*(\d)\s*$"),
)
ANYWHERE = re.compile(r"\b(?:qty|quantity|menge|antall)\W{0,3}(\d{1,4})\b", re.I)
_MONEY = "|".join(re.escape(word) for word in sorted(CURRENCIES, key=len, reverse=True)) + "|bucks"
AMOUNT = re.compile(
    rf"(?P<before>(?:{_MONEY})\s?)?(?<![\w.,-])(?P<number>{NUMBER})(?:,-)?"
    rf"(?P<after>\s?(?:{_MONEY})(?!\w))?(?![\w%])",
    re.I,
)
UNITS = re.compile(
    r"^\s*(?:gb|tb|mb|w\b|watts?|mm|hz|mhz|ghz|mt/s|cores?|inch|\"|x\s*\d|years?|dba?|l\b|fps)",
    re.I,
)
DATES = re.compile(r"\d{4}-\d{2}-\d{2}|\d{1,2}\.\d{1,2}\.\d{2,4}")
LEAST_BARE_MINOR, MOST_MINOR = 5_00, 100_000_00
MOST_QUANTITY = 1000


class Price(NamedTuple):
    """An amount in minor units with its currency; ``plain`` where a currency or decimals say that
    it is money.
    """

    minor: int
    currency: str
    plain: bool


def quantity_of(before: str, after: str) -> int | None:
    """How many the text around a part's name says; None where it says nothing."""
    for text, patterns in ((before, BEFORE), (after, AFTER)):
        for pattern in patterns:
            if match := pattern.search(text):
                return _count(match[1])
    return None


def _count(word: str) -> int:
    return NUMBERS[word.lower()] if word.lower() in NUMBERS else int(word)


def whole_quantity(cell: str) -> int | None:
    """The number that stands alone in a cell."""
    match = re.fullmatch(r"\s*(\d{1,4})(?:\s*(?:x|pcs?\.?|pieces?|stück))?\s*", cell, re.I)
    return int(match[1]) if match else None


def prices_of(text: str, bare: bool) -> list[Price]:
    """The amounts of a text that can be prices; without a currency only where ``bare`` ones
    count.
    """
    prices = []
    dateless = DATES.sub(lambda match: " " * len(match[0]), text)
    for match in AMOUNT.finditer(dateless):
        if UNITS.match(dateless[match.end() :]) or dateless[
            : match.start("number")
        ].rstrip().endswith("@"):
            continue
        words = (match["before"] or match["after"] or "").strip().lower()
        minor = minor_of(match["number"])
        decimals = bool(re.search(r"[.,]\d{2}$", match["number"])) or match[0].endswith(",-")
        if not 0 < minor <= MOST_MINOR:
            continue
        if not words and not decimals and (not bare or minor < LEAST_BARE_MINOR):
            continue
        prices.append(Price(minor, CURRENCIES.get(words, ""), bool(words) or decimals))
    return prices


def price_at_end(text: str) -> tuple[str, Price | None]:
    """A line without the price that it ends in, and that price; None where it ends in none."""
    matches = [match for match in AMOUNT.finditer(text) if match.end() == len(text.rstrip())]
    prices = prices_of(text[matches[-1].start() :], bare=True) if matches else []
    if not prices:
        return text, None
    return text[: matches[-1].start()].rstrip(" ,:;-–"), prices[-1]


def unit_price(prices: list[Price], quantity: int) -> Price | None:
    """What one costs: the price that times the quantity makes another, else the last plain one."""
    for price in prices:
        if quantity > 1 and any(other.minor == price.minor * quantity for other in prices):
            return price
    plain = [price for price in prices if price.plain]
    return (plain or prices)[-1] if prices else None
