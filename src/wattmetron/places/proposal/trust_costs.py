"""What each trust floor costs: the same question asked with every floor."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import Aim
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.trust import TRUST_FLOORS, TrustFloor, trust_of
from wattmetron.places.assessment.assess import Assessment, assess, known_brief
from wattmetron.places.proposal.proposals import kept_parts


@dataclass(frozen=True, slots=True)
class FloorCost:
    """One floor with its proposal (None where nothing fits) and the parts of it that are doubtful
    or unknown.
    """

    floor: TrustFloor
    is_current: bool
    assessment: Assessment | None
    below: tuple[str, ...]


def trust_costs(
    catalogue: Catalogue, brief: Brief, build: Build, aim: Aim
) -> tuple[FloorCost, ...]:
    """One proposal for each floor, from anything to proven only."""
    return catalogue.ask(_trust_costs, brief, build, aim)


def _trust_costs(
    catalogue: Catalogue, brief: Brief, build: Build, aim: Aim
) -> tuple[FloorCost, ...]:
    costs = []
    for floor in TRUST_FLOORS:
        floored = replace(known_brief(catalogue, brief), trust_floor=floor)
        proposed = propose(catalogue, floored, aim, kept_parts(catalogue, brief, build)).build
        assessment = None if proposed is None else assess(catalogue, floored, proposed)
        parts = assessment.machine.parts() if assessment else ()
        below = tuple(
            f"{part.name} ({trust})"
            for part in parts
            if (trust := trust_of(part)) in ("doubtful", "unknown")
        )
        costs.append(FloorCost(floor, floor == brief.trust_floor, assessment, below))
    return tuple(costs)
