"""What owned parts may sell for, and what that does to the budget where it counts.

Where it counts, a proposal that goes on using an owned part goes without its resale: the part costs
that much, and the budget is larger by what all of them together would bring.
"""

from collections import Counter
from collections.abc import Iterator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.part_types import kind_of

RESALE_PERCENT = 70
"""What one gets oneself of the cheapest used price that shops ask today; assumed."""
FREE_KINDS: frozenset[Kind] = frozenset(KINDS) - {"storage"}
"""Kinds of which an owned part is a candidate like those on sale."""


def resale_minor(catalogue: Catalogue, brief: Brief, part_id: str) -> int | None:
    """What an owned part may sell for, minor units: as the brief says, else by the cheapest used
    price; None where neither tells.
    """
    for sale in brief.resale:
        if sale.part == part_id:
            return sale.minor
    price_minors = [
        offer.price_minor
        for offer in catalogue.offers
        if offer.part_id == part_id and offer.region == brief.region and offer.condition != "new"
    ]
    return min(price_minors) * RESALE_PERCENT // 100 if price_minors else None


def forgone_minor(catalogue: Catalogue, brief: Brief, part_id: str) -> int:
    """What using an owned part costs: its resale where that counts, else nothing."""
    if not brief.counts_resale or part_id in brief.stays:
        return 0
    return resale_minor(catalogue, brief, part_id) or 0


def left_of(brief: Brief, build: Build) -> Iterator[str]:
    """Ids of owned parts that a build does not use, in the order in which they are owned."""
    used = Counter(part_id for _, part_id in build.ids())
    for part_id in brief.owned:
        if used[part_id]:
            used[part_id] -= 1
        else:
            yield part_id


def back_minor(catalogue: Catalogue, brief: Brief, build: Build) -> int:
    """What the owned parts that a build leaves over bring where that counts, minor units: those of
    the kinds that a proposal may replace.
    """
    if not brief.counts_resale:
        return 0
    return sum(
        forgone_minor(catalogue, brief, part_id)
        for part_id in left_of(brief, build)
        if part_id in catalogue.parts and kind_of(catalogue.part(part_id)) in FREE_KINDS
    )
