"""The best complete, fitting build for a brief, exactly."""

from wattmetron.core.balance.answer import AIMS, Aim, Proposal
from wattmetron.core.balance.search import cheapest_fit, propose

__all__ = ["AIMS", "Aim", "Proposal", "cheapest_fit", "propose"]
