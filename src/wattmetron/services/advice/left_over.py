"""Owned parts that a build does not use, with a guess at what they may sell for."""

from collections import Counter
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.parts import KINDS, Part
from wattmetron.core.values.words import listed
from wattmetron.services.words.figures import money

RESALE_PERCENT = 70
"""What one gets oneself of the cheapest used price that shops ask today; assumed."""


@dataclass(frozen=True, slots=True)
class LeftOver:
    """A part that is left over; ``resale_minor`` is None where nobody offers it used."""

    part: Part
    resale_minor: int | None


def left_over(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[LeftOver, ...]:
    """The brief's owned parts of the eight kinds that are not in a build, in the order in which
    they are owned.
    """
    used = Counter(part_id for _, part_id in build.ids())
    left = []
    for part_id in brief.owned:
        if used[part_id]:
            used[part_id] -= 1
        elif part_id in catalogue.parts and kind_of(catalogue.part(part_id)) in KINDS:
            left.append(LeftOver(catalogue.part(part_id), _resale(catalogue, brief, part_id)))
    return tuple(left)


def _resale(catalogue: Catalogue, brief: Brief, part_id: str) -> int | None:
    asked = [
        offer.price_minor
        for offer in catalogue.offers
        if offer.part_id == part_id and offer.region == brief.region and offer.condition == "used"
    ]
    return min(asked) * RESALE_PERCENT // 100 if asked else None


def left_over_words(catalogue: Catalogue, brief: Brief, build: Build, currency: str) -> str:
    """One sentence about all of them; empty where nothing is left over."""
    left = left_over(catalogue, brief, build)
    if not left:
        return ""
    named = [f"{own.part.name} ({_resale_words(own.resale_minor, currency)})" for own in left]
    known = [own.resale_minor for own in left if own.resale_minor is not None]
    together = f", {money(sum(known), currency)} together" if len(known) > 1 else ""
    guess = (
        f" A guess, {RESALE_PERCENT} % of the cheapest used price today{together}; not counted in"
        " the total."
        if known
        else ""
    )
    return f"Left over of what you own: {listed(named)}.{guess}"


def _resale_words(resale_minor: int | None, currency: str) -> str:
    if resale_minor is None:
        return "nobody offers it used"
    return f"may sell for {money(resale_minor, currency)}"
