"""What each wish of a brief costs: the answer with it against the answer with it let go."""

from dataclasses import dataclass
from math import exp

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.wishes import wishes_held, without
from wattmetron.places.assessment.assess import known_brief
from wattmetron.places.proposal.preference_answers import settled
from wattmetron.places.proposal.proposals import kept_parts


@dataclass(frozen=True, slots=True, kw_only=True)
class WishCost:
    """A wish; what the answer costs more with it in minor units, the share of frames that it loses,
    the weight of targets that it leaves unmet. None where there is no answer on either side.
    """

    wish: Declared
    cost_minor: int | None
    frames_lost: float | None
    weight_lost: int | None
    nothing_with_it: bool


def wish_costs(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[WishCost, ...]:
    """One line for each wish that the brief makes, by the aim of most frames within the budget."""
    return catalogue.ask(_wish_costs, known_brief(catalogue, brief), build)


def _wish_costs(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[WishCost, ...]:
    fixed = kept_parts(catalogue, brief, build)
    insisted, _ = settled(catalogue, brief, fixed)
    proposal = propose(catalogue, insisted, "most frames", fixed)
    costs = []
    for wish in wishes_held(brief):
        free = propose(catalogue, without(insisted, (wish,)), "most frames", fixed)
        if proposal.build is None or free.build is None:
            costs.append(
                WishCost(
                    wish=wish,
                    cost_minor=None,
                    frames_lost=None,
                    weight_lost=None,
                    nothing_with_it=proposal.build is None and free.build is not None,
                )
            )
            continue
        lost = 1 - exp((proposal.gain - free.gain) / 1e6)
        costs.append(
            WishCost(
                wish=wish,
                cost_minor=proposal.cost_minor - free.cost_minor,
                frames_lost=lost,
                weight_lost=free.weight_met - proposal.weight_met,
                nothing_with_it=False,
            )
        )
    return tuple(costs)
