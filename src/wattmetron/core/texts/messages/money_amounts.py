"""The money of a letter: every amount with its currency, and the budget that they come to."""

import re
from typing import NamedTuple

from wattmetron.core.texts.messages.statements import Clause, MessageReading

CURRENCIES = {
    "eur": "EUR",
    "euro": "EUR",
    "euros": "EUR",
    "€": "EUR",
    "nok": "NOK",
    "kr": "NOK",
    "kroner": "NOK",
    "usd": "USD",
    "dollars": "USD",
    "$": "USD",
    "gbp": "GBP",
    "pounds": "GBP",
    "£": "GBP",
}
_WORDS = "|".join(re.escape(word) for word in sorted(CURRENCIES, key=len, reverse=True))
NUMBER = r"\d{1,3}(?:[ .,]\d{3}){1,3}(?:[.,]\d{2})?|\d{1,9}(?:[.,]\d{1,2})?"
"""A number of at most so many digits: longer ones are no money."""
AMOUNT = re.compile(
    rf"(?P<before>(?:{_WORDS})\s*)?(?<![\w.,])(?P<number>{NUMBER})(?P<k>k\b(?!\s*\d))?"
    rf"(?P<after>\s*(?:{_WORDS}|bucks)(?!\w))?(?![\w%])"
)
NOT_MONEY = re.compile(
    r"\s*[-x/]?\s*(?:hz|hertz|fps|frames|p\b|gb|tb|mb|w\b|watts?|mm|inch|cm|l\b|litres|years?|yrs?|"
    r"cores?|ssd|pixels|x\s*\d|by\s*\d|%|\+?\s*(?:hz|fps)|mhz|ghz|percent)"
)
TELLS = re.compile(
    r"budget|spend|spent|cost|pay|price|money|funds|at most|max|up to|limit|exceed|between|around|"
    r"roughly|about|tops|stretch|cap\b|mark|saves|has\b|more than|for \d|total|not a cent|"
    r"range|\badds?\b|\bplus\b"
)
LEAST_MINOR, USUAL_LEAST_MINOR, MOST_MINOR = 100_00, 300_00, 10_000_000
NEAR = 60
"""Letters beside an amount in which its unit, the other end of a range or a word on it stands."""
APART = 2.5
"""Two amounts that are further apart than this are hardly one budget."""
RANGE_AFTER = re.compile(rf"\s*(?:-|to|until|and)\s*(?:{_WORDS})?\s*\d[\d .,]{{2,}}")
RANGE_BEFORE = re.compile(rf"\d{{2}}\s*(?:{_WORDS})?\s*(?:-|to|until)\s*(?:{_WORDS})?\s*$")
SHOWN = re.compile(r"\s*(?:display|screen|monitor|panel|resolution)")
AT_MOST = re.compile(r"\s{0,9}(?:tops|max)")
ADDED = re.compile(r"\badds?\b|\bplus\b|\bon top\b|\bgives\b")


class Amount(NamedTuple):
    """An amount in minor units, its currency or an empty word, its place, how plainly it is
    money.
    """

    minor: int
    currency: str
    start: int
    end: int
    weight: int


def amounts(clause: Clause) -> list[Amount]:
    """The amounts of a clause that may be money."""
    matches = []
    tells = 2 if TELLS.search(clause.text) else 0
    added = ADDED.search(clause.text)
    for match in AMOUNT.finditer(clause.text):
        rest = clause.text[match.end() : match.end() + NEAR]
        if NOT_MONEY.match(rest) or _of_size(clause.text, match):
            continue
        minor = minor_of(match["number"], bool(match["k"]))
        words = (match["before"] or match["after"] or "").strip()
        small = minor < USUAL_LEAST_MINOR and not (words or added)
        if not LEAST_MINOR <= minor <= MOST_MINOR or small:
            continue
        if match["k"] and not words and (match["number"] in ("4", "8") or SHOWN.match(rest)):
            continue
        weight = tells + (3 if words else 0) + (2 if match["k"] else 0)
        start = clause.start + match.start()
        end = clause.start + match.end()
        matches.append(Amount(minor, CURRENCIES.get(words, ""), start, end, weight))
    return matches


def _of_size(text: str, match: re.Match[str]) -> bool:
    """Whether a number belongs to a resolution, as the second of 2560x1440 does."""
    return bool(re.search(r"\d\s*(?:x|by)\s*$", _before(text, match.start("number"))))


def _before(text: str, position: int) -> str:
    return text[max(0, position - NEAR) : position]


def minor_of(number: str, thousands: bool = False) -> int:
    """``1,350.00``, ``1.400``, ``12 000``, ``49,90``, ``1.4`` with k, in minor units."""
    whole = re.fullmatch(r"(\d{1,3}(?:[ .,]\d{3}){1,3})(?:[.,](\d{2}))?", number)
    if whole and not thousands:
        return int(re.sub(r"\D", "", whole[1])) * 100 + int(whole[2] or 0)
    units, _, rest = re.sub(r"[ ]", "", number).replace(",", ".").partition(".")
    places = 5 if thousands else 2
    return int(units) * (100_000 if thousands else 100) + int(
        rest.replace(".", "")[:places].ljust(places, "0")
    )


def budget(text: str, pieces: list[Clause]) -> list[MessageReading]:
    """The budget and its currency, as (low, high) minor units; nothing where no amount is plain.

    One amount is the most; of several the plainest count: they are added where one is added to the
    other, else the least and the greatest are the range.
    """
    matches = [amount for piece in pieces for amount in amounts(piece)]
    best = max((amount.weight for amount in matches), default=0)
    if best < 2:
        ranged = [amount for amount in matches if _is_range(text, amount)]
        matches = ranged or [
            amount
            for amount in matches
            if re.match(r"\s*(?:tops|max)", text[amount.end : amount.end + NEAR])
        ]
        if not matches:
            return []
    else:
        matches = [
            amount for amount in matches if amount.weight >= min(best, 2) or _is_range(text, amount)
        ]
    values = sorted({amount.minor for amount in matches})
    between = text[min(amount.start for amount in matches) : max(amount.end for amount in matches)]
    sure = best >= 2
    if len(values) == 2 and ADDED.search(
        between + text[max(amount.end for amount in matches) :][:30]
    ):
        low, high = 0, sum(values)
    else:
        low, high = (values[0] if len(values) > 1 else 0), values[-1]
        sure = sure and len(values) < 3 and (not low or high / low < APART)
    start, end = min(amount.start for amount in matches), max(amount.end for amount in matches)
    stated = [MessageReading(field="budget", value=(low, high), start=start, end=end, sure=sure)]
    named = {amount.currency for amount in matches if amount.currency}
    stated += [
        MessageReading(field="currency", value=name, start=start, end=end, sure=len(named) == 1)
        for name in sorted(named)
    ]
    return stated


def _is_range(text: str, amount: Amount) -> bool:
    """Whether an amount is an end of ``1700-1850`` or ``650 to 750``."""
    before, after = _before(text, amount.start), text[amount.end : amount.end + NEAR]
    return bool(RANGE_AFTER.match(after) or RANGE_BEFORE.search(before))
