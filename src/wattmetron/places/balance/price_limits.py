"""Still the pick up to: for the parts of the answer and for near misses."""

from dataclasses import dataclass

from wattmetron.core.balance.part_price_limits import PriceLimit, price_limit
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import BAND, propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.places.balance.balance import Tables

NEAR_MISSES = 3
SIDES: tuple[Kind, ...] = ("processor", "graphics")


@dataclass(frozen=True, slots=True)
class PriceLimits:
    """Limits of the answer's parts, and of the near misses on either side; prices of a date belong
    to them.
    """

    inside: tuple[PriceLimit, ...]
    near: tuple[PriceLimit, ...]
    currency: str


def price_limits(tables: Tables) -> PriceLimits:
    """For each part of the answer, and for the parts next to it in price of either side."""
    return tables.catalogue.ask(_price_limits, tables.brief, tables.fixed_build)


def _price_limits(catalogue: Catalogue, brief: Brief, fixed: Build) -> PriceLimits:
    answer = propose(catalogue, brief, "most frames", fixed)
    currency = catalogue.region(brief.region).currency
    if answer.build is None:
        return PriceLimits((), (), currency)
    inside = [
        price_limit(catalogue, brief, fixed, catalogue.part(part_id), answer, BAND)
        for kind, part_id in dict.fromkeys(answer.build.ids())
        if kind in KINDS
    ]
    near = [
        price_limit(catalogue, brief, fixed, catalogue.part(part_id), answer, BAND)
        for kind in SIDES
        for part_id in _next_to(catalogue, brief, kind, answer.build.of(kind))
    ]
    return PriceLimits(
        tuple(limit for limit in inside if limit), tuple(limit for limit in near if limit), currency
    )


def _next_to(catalogue: Catalogue, brief: Brief, kind: Kind, present: tuple[str, ...]) -> list[str]:
    """The parts next dearer than the present one, each a different chip or model."""
    book = catalogue.prices(brief.region, brief.may_buy)
    price = book.cost(present[0]) if present else 0
    seen = {_sort(catalogue, part) for part in present}
    dearer: list[str] = []
    for cost, part_id in sorted(
        (cost, part.id)
        for part in catalogue.by_kind[kind]
        if (cost := book.cost(part.id)) is not None
    ):
        if (
            cost > (price or 0)
            and _sort(catalogue, part_id) not in seen
            and len(dearer) < NEAR_MISSES
        ):
            seen.add(_sort(catalogue, part_id))
            dearer.append(part_id)
    return dearer


def _sort(catalogue: Catalogue, part_id: str) -> str:
    part = catalogue.part(part_id)
    return str(getattr(part, "chip", part.model))
