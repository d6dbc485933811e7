"""A plan: a brief with its build, and what stands beside them."""

from dataclasses import dataclass

from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.handout import HandoutChoice
from wattmetron.core.values.house import House
from wattmetron.core.values.purchases import PartPurchase
from wattmetron.core.values.sent_list import Sent

EMPTY, USUAL_HANDOUT = Build(), HandoutChoice()


@dataclass(frozen=True, slots=True)
class Plan:
    """What one brief's page works on: perhaps a pinned build, the list that the build came from,
    what is chosen for the handout, what was bought, and, in a plan that was handed over, the house
    rules and peripherals of that day (None: those of today).
    """

    brief: Brief
    build: Build = EMPTY
    pinned: Build | None = None
    sent: tuple[Sent, ...] = ()
    handout: HandoutChoice = USUAL_HANDOUT
    house: House | None = None
    purchases: tuple[PartPurchase, ...] = ()
