"""One set of changes that clears everything that blocks: as few kinds as possible, for the least
money.
"""

from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.floor_violations import broken
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.wishes import letting_go
from wattmetron.places.assessment.assess import Assessment, assess, known_brief, known_build

SIDES: frozenset[Kind] = frozenset({"processor", "graphics"})
OTHERS: frozenset[Kind] = frozenset({"mainboard", "memory", "cooler", "supply", "case"})


@dataclass(frozen=True, slots=True)
class Cure:
    """A build in which nothing blocks, the kinds that change, what that costs more (or less), minor
    units, and what it brings along: findings and missed floors that were not there before.
    """

    build: Build
    changed: tuple[Kind, ...]
    cost_minor: int
    cleared: int
    brings: tuple[str, ...]


def cure(catalogue: Catalogue, now: Assessment) -> Cure | None:
    """The cheapest such build; processor and card stay where that is possible. None where nothing
    blocks or helps.
    """
    if not _blocking(now):
        return None
    return catalogue.ask(_cure, now.brief, now.build)


def _cure(catalogue: Catalogue, brief: Brief, build: Build) -> Cure | None:
    now = assess(catalogue, brief, build)
    blocking = _blocking(now)
    for freed in _widening(now, blocking):
        clearing = _fitted(catalogue, now, freed)
        if clearing is not None:
            return _narrowed(catalogue, now, freed, clearing, len(blocking))
    return None


def _blocking(now: Assessment) -> list[Finding]:
    return [finding for finding in now.findings if finding.level == "blocks"]


def _widening(now: Assessment, blocking: list[Finding]) -> list[frozenset[Kind]]:
    """Sets of kinds to free, the smallest first: what the findings prefer, all that they name, then
    the frames' sides.
    """
    first = frozenset[Kind]().union(*(_preferred(finding) for finding in blocking))
    named: frozenset[Kind] = frozenset(
        kind for finding in blocking for kind in finding.remedy_kinds
    )
    sets = [first, named - SIDES, named, named | OTHERS]
    return list(dict.fromkeys(kind for kind in sets if kind))


def _preferred(finding: Finding) -> tuple[Kind, ...]:
    """The first kind that a finding would change and that decides no frames."""
    return tuple(kind for kind in finding.remedy_kinds if kind not in SIDES)[:1]


def _fitted(catalogue: Catalogue, now: Assessment, freed: frozenset[Kind]) -> Build | None:
    """The cheapest build that keeps all other kinds; floors that the present one misses are no
    matter.
    """
    remaining = known_build(catalogue, now.build)
    for kind in freed:
        for part_id in remaining.of(kind):
            remaining = remaining.without(kind, part_id)
    gone = {part_id for kind in freed for part_id in now.build.of(kind)}
    brief = known_brief(catalogue, now.brief)
    missed = broken(now.machine, floors_of(catalogue, brief))
    brief = replace(
        letting_go(brief, missed),
        owned=tuple(each_part_id for each_part_id in brief.owned if each_part_id not in gone),
        targets=(),
        **(NO_DRIVES_ASKED if remaining.storage else {}),
        memory_gb=0.0 if remaining.memory else brief.memory_gb,
    )
    return cheapest_fit(catalogue, brief, remaining).build


NO_DRIVES_ASKED: dict[str, Any] = {
    "storage_gb": 0.0,
    "system_gb": 0.0,
    "games_gb": 0.0,
    "bulk_gb": 0.0,
    "drives_apart": False,
}


def _narrowed(
    catalogue: Catalogue, now: Assessment, freed: frozenset[Kind], clearing: Build, cleared: int
) -> Cure:
    """The cure with every kind kept that need not change.

    A present part that nobody sells can be kept but not bought, so keeping one may make room for
    keeping another: the kinds are gone through until none is left that can be kept.
    """
    before: frozenset[Kind] | None = None
    while freed != before:
        before = freed
        for kind in [
            each_kind for each_kind in KINDS if each_kind in freed and now.build.of(each_kind)
        ]:
            fewer = freed - {kind}
            same = clearing.of(kind) == now.build.of(kind)
            better: Build | None = clearing if same else None
            if not same and fewer:
                better = _fitted(catalogue, now, fewer)
            if better is not None:
                freed, clearing = fewer, better
    build = replace(clearing, kept=now.build.kept & {part_id for _, part_id in clearing.ids()})
    changed = tuple(kind for kind in KINDS if build.of(kind) != now.build.of(kind))
    after = assess(catalogue, now.brief, build)
    vetting = Vetting(catalogue, known_brief(catalogue, now.brief), now.machine)
    brings = tuple(vetting.objections(after.machine))
    return Cure(build, changed, after.spent_minor - now.spent_minor, cleared, brings)
