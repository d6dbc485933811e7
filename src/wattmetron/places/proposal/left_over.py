"""Owned parts that a build does not use, with a guess at what they may sell for."""

from collections.abc import Sequence
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.resale import RESALE_PERCENT, left_of, resale_minor
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.words import listed
from wattmetron.words.figures import money


@dataclass(frozen=True, slots=True)
class LeftOver:
    """A part that is left over; ``resale_minor`` is None where nobody offers it used and the brief
    does not say.
    """

    part: Part
    resale_minor: int | None
    by_hand: bool = False


def left_over(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[LeftOver, ...]:
    """The brief's owned parts of the eight kinds that are not in a build, in the order in which
    they are owned.
    """
    by_hand = {each_resale.part for each_resale in brief.resale}
    return tuple(
        LeftOver(
            catalogue.part(part_id), resale_minor(catalogue, brief, part_id), part_id in by_hand
        )
        for part_id in left_of(brief, build)
        if part_id in catalogue.parts and kind_of(catalogue.part(part_id)) in KINDS
    )


def left_over_words(catalogue: Catalogue, brief: Brief, build: Build, currency: str) -> str:
    """One sentence about all of them; empty where nothing is left over."""
    left = left_over(catalogue, brief, build)
    if not left:
        return ""
    named = [
        f"{leftover.part.name} ({_resale_words(leftover.resale_minor, currency)})"
        for leftover in left
    ]
    return f"Left over of what you own: {listed(named)}.{_account(brief, left, currency)}"


def _account(brief: Brief, left: Sequence[LeftOver], currency: str) -> str:
    """Where the figures come from, and whether they count."""
    known = [leftover.resale_minor for leftover in left if leftover.resale_minor is not None]
    if not known:
        return ""
    together = f"{money(sum(known), currency)} together; " if len(known) > 1 else ""
    guessed = any(not leftover.by_hand for leftover in left if leftover.resale_minor is not None)
    source = f"a guess, {RESALE_PERCENT} % of the cheapest used price today; " if guessed else ""
    counts = "taken off the total" if brief.counts_resale else "not counted in the total"
    sentence = f"{together}{source}{counts}"
    return f" {sentence[:1].upper()}{sentence[1:]}."


def _resale_words(resale_minor: int | None, currency: str) -> str:
    if resale_minor is None:
        return "nobody offers it used"
    return f"may sell for {money(resale_minor, currency)}"
