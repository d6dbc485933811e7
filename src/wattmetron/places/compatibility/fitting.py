"""What speaks against every part of a kind in a build's machine."""

from collections.abc import Mapping

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.places.assessment.assess import Assessment, assess


def against_all(
    catalogue: Catalogue, now: Assessment, kind: Kind
) -> Mapping[str, tuple[Finding, ...]]:
    """By part id the findings that would block because of the part; none for those that go in."""
    return catalogue.ask(_against_all, now.brief, now.build, kind)


def _against_all(
    catalogue: Catalogue, brief: Brief, build: Build, kind: Kind
) -> Mapping[str, tuple[Finding, ...]]:
    now, parts = assess(catalogue, brief, build), catalogue.by_kind[kind]
    reasons = reasons_against(now.machine, kind, parts, wishes_of(now.brief))
    return {part.id: findings for part, findings in zip(parts, reasons, strict=True)}
