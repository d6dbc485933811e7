"""What a part that is not new may cost more: a share of them fails, part of the loss is borne by
the shop.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.housing import Cooler
from wattmetron.core.values.offers import Condition, Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part

FAILING: Mapping[Kind, float] = {
    "processor": 0.01,
    "memory": 0.02,
    "mainboard": 0.06,
    "graphics": 0.08,
    "storage": 0.06,
    "supply": 0.08,
    "case": 0.005,
    "cooler": 0.02,
    "display": 0.06,
    "system": 0.25,
}
"""Share of used parts that fail within two years: an assumption of this application, from what
repairers say of their benches, to be replaced by counts of one's own.
"""
SOURCE = "assumed: what repairers say of their benches, not counted"
USUAL_FAILING, SPINNING, LIQUID = 0.05, 0.12, 0.10
MENDED: Mapping[Condition, float] = {
    "new": 0.0,
    "refurbished": 0.5,
    "remanufactured": 0.7,
    "used": 1.0,
}
"""What a condition does to that share: whoever looked a part over found the worst ones."""
HIRE, UNTESTED = "worked hard for hire", "display output not tested"
NO_RETURNS, RESOLD_KEY = "no returns", "a resold key, which can be locked"
SPAN_MONTHS, AT_ONCE = 24, 1 / 3
"""The time that counts, over which failures spread evenly but for those that show at once."""
LOOK_AT: Mapping[Kind, tuple[str, ...]] = {
    "graphics": (
        "run a game for an hour: picture faults, a fan that grinds, a hot spot",
        "try every display output",
        "ask whether it worked for hire, and see that no screw is worn",
    ),
    "processor": ("look for bent or missing contacts and old paste under the lid",),
    "mainboard": (
        "look into the socket for bent contacts",
        "try every memory slot and M.2 place",
        "see that it starts with the firmware it has",
    ),
    "memory": ("run a memory test for a night, at the speed of its profile",),
    "storage": ("read its own count of hours and of what was written", "run its long self-test"),
    "supply": (
        "take it only with its own cables",
        "listen and smell at full load; let it be if the warranty is over",
    ),
    "cooler": ("see that every bracket for the socket is there", "listen to pump and fans"),
    "case": ("see that standoffs and screws are all there",),
    "system": (
        "activate it on the day it comes, and keep the receipt: a resold key can be locked",
    ),
    "display": ("look for dead points on one colour, and try every input",),
}
LOOK_AT_ANY = ("try it in the days in which it can be sent back",)


@dataclass(frozen=True, slots=True)
class Risk:
    """What a used part loses on average: the share that fails in two years, the share of that which
    the shop bears, and what is left in minor units.
    """

    failing: float
    borne: float
    minor: int


def risk_of(part: Part, offer: Offer) -> Risk:
    """Expected loss = what is paid x share that fails x (1 - share that the shop bears). The shop
    bears what fails at once where it takes the part back, and what fails within its warranty.
    """
    failing = _failing(part) * MENDED[offer.condition]
    terms = offer.terms
    if HIRE in terms.remarks:
        failing *= 2
    if UNTESTED in terms.remarks:
        failing += 0.15
    failing = min(1.0, failing)
    taken_back = AT_ONCE if terms.returns and NO_RETURNS not in terms.remarks else 0.0
    borne = min(1.0, max(taken_back, (terms.warranty_months or 0) / SPAN_MONTHS))
    return Risk(failing, borne, round(offer.delivered_minor * failing * (1 - borne)))


def _failing(part: Part) -> float:
    if isinstance(part, Storage) and part.kind == "hard disk":
        return SPINNING
    if isinstance(part, Cooler) and part.radiator_mm is not None:
        return LIQUID
    return FAILING.get(kind_of(part), USUAL_FAILING)
