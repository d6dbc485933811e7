"""What the fields of a brief can be chosen from."""

from typing import Literal, get_args

Sureness = Literal["even odds", "likely", "near certain"]
SURENESS: dict[Sureness, float] = {"even odds": 0.5, "likely": 0.8, "near certain": 0.95}
Measure = Literal["average", "low"]
Clocks = Literal["as shipped", "tuned", "undervolted"]
Cooling = Literal["any", "air", "liquid"]
Availability = Literal["anywhere", "not few", "two shops"]
BoughtKind = Literal["system", "display", "input", "optical", "capture"]
BOUGHT_KINDS: tuple[BoughtKind, ...] = get_args(BoughtKind)
"""What a brief can ask for besides the machine, wireless apart."""
Period = Literal["month", "year"]
GROWING_SLOTS, GROWING_M2 = 4, 2
MOST_PIXELS = 16_384
Group = Literal[
    "money",
    "display",
    "parts",
    "machine",
    "features",
    "drives",
    "power",
    "work",
    "later",
    "years",
    "owned",
    "keeps",
    "about",
]
"""Groups of fields that stand together in the form, in its order."""
