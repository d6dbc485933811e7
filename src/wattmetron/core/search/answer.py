"""What a proposal says."""

from dataclasses import dataclass
from typing import Literal

from wattmetron.core.values.build import Build

Aim = Literal["most frames", "least money", "same frames"]
AIMS: tuple[Aim, ...] = ("most frames", "least money", "same frames")
NEVER = 10**13
"""A cost in minor units that no build has: stands for "cannot be done"."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Proposal:
    """The answer to a brief, or None with the reason.

    ``cost_minor`` is the delivered cost of all parts that are not owned, without the brief's
    extras; ``gain`` is U = the weighted mean of ln r in millionths; ``best_gain`` and
    ``best_cost_minor`` are those of the best build before money was saved within the band.
    """

    aim: Aim
    build: Build | None
    cost_minor: int
    budget_minor: int
    weight_met: int
    weight_all: int
    gain: int
    best_gain: int
    best_cost_minor: int
    pairings: int
    pairings_in_budget: int
    estimated: int
