"""The best complete, fitting build for a brief, exactly."""

from wattmetron.core.balance.answer import AIMS, Aim, Proposal
from wattmetron.core.balance.search import besides_minor, cheapest_fit, propose

__all__ = ["AIMS", "Aim", "Proposal", "besides_minor", "cheapest_fit", "propose"]
