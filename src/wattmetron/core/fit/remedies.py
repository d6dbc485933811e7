"""What clears a finding: for each kind that can, a part after which the rule is silent.

Processors and cards decide the frames, so there it is the nearest in price; of the other kinds the cheapest.
"""

from dataclasses import dataclass

from wattmetron.core.briefs import Build
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.finding import Finding
from wattmetron.core.fit.rules import check
from wattmetron.core.parts import Kind, Part
from wattmetron.core.prices.offers import PriceBook


@dataclass(frozen=True, slots=True)
class Remedy:
    """Put this part in (in place of ``instead_of``), at its delivered price in minor units."""

    kind: Kind
    part: Part
    delivered_minor: int
    instead_of: str | None
    build: Build


def remedies(
    catalogue: Catalogue, book: PriceBook, build: Build, finding: Finding, headroom_percent: int
) -> tuple[Remedy, ...]:
    """One remedy per kind at most, in the order that the finding prefers."""
    before = _graver(catalogue, build, headroom_percent)
    found = []
    for kind in finding.remedy_kinds:
        remedy = _first(catalogue, book, build, finding, kind, headroom_percent, before)
        if remedy is not None:
            found.append(remedy)
    return tuple(found)


def _first(
    catalogue: Catalogue,
    book: PriceBook,
    build: Build,
    finding: Finding,
    kind: Kind,
    headroom_percent: int,
    before: int,
) -> Remedy | None:
    present = build.of(kind)
    if kind == "storage" and len(present) != 1:
        return None
    instead_of = present[0] if present else None
    present_minor = book.delivered(instead_of) if instead_of else None
    near = present_minor if kind in ("processor", "graphics") and present_minor is not None else 0
    candidates = [
        (abs(price - near), price, part)
        for part in catalogue.by_kind[kind]
        if (price := book.delivered(part.id)) is not None and part.id not in present
    ]
    for _, price, part in sorted(candidates, key=lambda one: (one[0], one[1], one[2].id)):
        changed = build.with_part(kind, part.id, instead_of)
        left = check(catalogue.machine(changed), headroom_percent)
        silent = all((one.rule, one.kinds) != (finding.rule, finding.kinds) for one in left)
        if silent and sum(one.level == "blocks" for one in left) <= before - (finding.level == "blocks"):
            return Remedy(kind, part, price, instead_of, changed)
    return None


def _graver(catalogue: Catalogue, build: Build, headroom_percent: int) -> int:
    return sum(one.level == "blocks" for one in check(catalogue.machine(build), headroom_percent))
