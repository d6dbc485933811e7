"""What is still to be bought for a build, and remedies for its findings."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.remedies import Remedy, remedies
from wattmetron.core.errors import UnknownPartError
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Brief, searched
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import (
    Assessment,
    Remaining,
    assess,
    known_brief,
    known_build,
)


def remaining(catalogue: Catalogue, assessment: Assessment) -> Remaining | None:
    """The least that the missing kinds cost with everything chosen kept, or None for a whole
    machine.
    """
    if not assessment.missing:
        return None
    return catalogue.ask(_remaining, assessment.brief, assessment.build)


def _remaining(catalogue: Catalogue, brief: Brief, build: Build) -> Remaining:
    assessment = assess(catalogue, brief, build)
    answer = cheapest_fit(
        catalogue,
        known_brief(catalogue, assessment.brief),
        known_build(catalogue, assessment.build),
    )
    if answer.build is None or answer.cost_minor >= NEVER:
        return Remaining(assessment.missing, None, None)
    second = sum(
        line.price_minor
        for line in [line for line in assessment.lines if line.kind == "graphics"][1:]
    )
    least = max(0, answer.cost_minor - (assessment.machine_minor - second))
    return Remaining(
        assessment.missing, least, replace(answer.build, second_card=assessment.build.second_card)
    )


def finding_remedies(
    catalogue: Catalogue, assessment: Assessment, finding: Finding
) -> tuple[Remedy, ...]:
    """Actions that clear a finding."""
    brief = known_brief(catalogue, searched(assessment.brief))
    return catalogue.ask(_finding_remedies, brief, assessment.build, finding)


def _finding_remedies(
    catalogue: Catalogue, brief: Brief, build: Build, finding: Finding
) -> tuple[Remedy, ...]:
    try:
        return remedies(catalogue, brief, build, finding)
    except UnknownPartError:
        return ()
