"""What became of the parts of a build as they were bought: planned and paid, right and wrong."""

from dataclasses import dataclass
from datetime import date
from typing import Literal

from wattmetron.core.errors import BriefError

State = Literal["ordered", "arrived", "wrong", "returned", "refunded"]
STATES: tuple[State, ...] = ("ordered", "arrived", "wrong", "returned", "refunded")
MOST_PURCHASES, MOST_MINOR = 100, 10**11


@dataclass(frozen=True, slots=True, kw_only=True)
class PartPurchase:
    """One part as it was bought: where, what was planned and paid for all of it in minor units, how
    many, what came in its place where that was wrong, and what sending it back cost.
    """

    part_id: str
    shop: str
    state: State
    planned_minor: int
    paid_minor: int
    times: int = 1
    instead: str = ""
    postage_minor: int = 0
    on: date

    @property
    def cost_minor(self) -> int:
        """What it comes to: money that was given back is not spent, postage is."""
        return self.postage_minor + (0 if self.state == "refunded" else self.paid_minor)


def read_state(text: str) -> State:
    """A state by its name; raises BriefError for one that there is not."""
    for state in STATES:
        if state == text:
            return state
    raise BriefError(f"“{text[:20]}” is none of {', '.join(STATES)}: choose one of them.")


def checked_purchase(purchase: PartPurchase) -> PartPurchase:
    """The same; raises BriefError for amounts that cannot be."""
    for minor, what in (
        (purchase.paid_minor, "What was paid"),
        (purchase.postage_minor, "The postage"),
    ):
        if not 0 <= minor <= MOST_MINOR:
            raise BriefError(f"{what} cannot be that much: enter an amount from 0 on.")
    return purchase
