"""The rest well spent: what the money that is left could add to a build."""

from dataclasses import dataclass

from wattmetron.core.balance.additions import Addition, additions, together
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import Assessment, known_brief, known_build


@dataclass(frozen=True, slots=True, kw_only=True)
class Rest:
    """Additions that each fit into the money that is left, and all that fit into it together, with
    what they cost; minor units.
    """

    left_minor: int
    additions: tuple[Addition, ...]
    together: Build
    together_minor: int


def rest_of(catalogue: Catalogue, now: Assessment) -> Rest | None:
    """What could be added to a whole build within its budget; None where nothing is left."""
    if not now.whole or now.left_minor <= 0 or now.build.second_card is not None:
        return None
    return catalogue.ask(_rest, now.brief, now.build, now.left_minor)


def _rest(catalogue: Catalogue, brief: Brief, build: Build, left_minor: int) -> Rest:
    brief, build = known_brief(catalogue, brief), known_build(catalogue, build)
    offered = additions(catalogue, brief, build, left_minor)
    whole, spent = together(catalogue, brief, build, offered, left_minor)
    return Rest(
        left_minor=left_minor,
        additions=tuple(offered),
        together=whole,
        together_minor=spent,
    )
