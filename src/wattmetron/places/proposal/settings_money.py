"""What a step of the settings is worth in money."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import besides_minor, propose
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import (
    known_brief,
)
from wattmetron.places.proposal.no_answer import easier_settings
from wattmetron.places.proposal.proposals import kept_parts


@dataclass(frozen=True, slots=True)
class InMoney:
    """Settings of a target, None as they are, and what the cheapest build that meets everything
    then costs.
    """

    words: str
    target: Target | None
    cost_minor: int | None


def settings_in_money(
    catalogue: Catalogue, brief: Brief, build: Build, target: Target
) -> tuple[InMoney, ...]:
    """What the target's settings cost as they are and with each single step down, the present ones
    first.
    """
    return catalogue.ask(_settings_in_money, brief, build, target)


def _settings_in_money(
    catalogue: Catalogue, brief: Brief, build: Build, target: Target
) -> tuple[InMoney, ...]:
    brief, fixed = known_brief(catalogue, brief), kept_parts(catalogue, brief, build)
    moneys = []
    for words, changed in [("as it is", target), *easier_settings(catalogue, target, [])]:
        targets = tuple(changed if other.id == target.id else other for other in brief.targets)
        result = propose(catalogue, replace(brief, targets=targets), "least money", fixed)
        cost = (
            None
            if result.build is None
            else result.cost_minor + besides_minor(catalogue, brief, fixed)
        )
        moneys.append(InMoney(words, None if changed == target else changed, cost))
    return tuple(moneys)
