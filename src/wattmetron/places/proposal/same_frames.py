"""The same frames for less: what is saved part by part, and what each saving gives up."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.proposal.gives_up import gives_up
from wattmetron.places.proposal.outside_budget import outside_words
from wattmetron.words.figures import money

NOTHING = "none"


@dataclass(frozen=True, slots=True, kw_only=True)
class Saving:
    """A kind of which other parts stand in the answer; ``saves_minor`` is below nought where these
    cost more.
    """

    kind: Kind
    now: str
    then: str
    saves_minor: int
    gives_up: str


def savings(catalogue: Catalogue, now: Assessment, then: Assessment) -> tuple[Saving, ...]:
    """What differs between two builds, kind by kind."""
    return tuple(
        saving for kind in ALL_KINDS if (saving := _saving(catalogue, now, then, kind)) is not None
    )


def _saving(catalogue: Catalogue, now: Assessment, then: Assessment, kind: Kind) -> Saving | None:
    had, has = Counter(now.build.of(kind)), Counter(then.build.of(kind))
    gone, come = [*(had - has).elements()], [*(has - had).elements()]
    if not gone and not come:
        return None
    parts = [
        [catalogue.parts[part_id] for part_id in ids if part_id in catalogue.parts]
        for ids in (gone, come)
    ]
    names = [listed([part.name for part in each_part]) or NOTHING for each_part in parts]
    costs = [
        sum(line.cost_minor for line in side.lines if line.kind == kind) for side in (now, then)
    ]
    one_for_one = len(parts[0]) == len(parts[1]) == 1
    return Saving(
        kind=kind,
        now=names[0],
        then=names[1],
        saves_minor=costs[0] - costs[1],
        gives_up=gives_up(parts[0][0], parts[1][0]) if one_for_one else "",
    )


def headline(now: Assessment, then: Assessment) -> str:
    saved = now.spent_minor - then.spent_minor
    if saved > 0:
        cost, less = money(then.spent_minor, now.currency), money(saved, now.currency)
        return f"The same frames for {cost}: {less} less than now."
    if saved == 0:
        return "Nothing has the same frames for less than the present build."
    more = money(-saved, now.currency)
    return f"The same frames with all that the brief asks for cost {more} more than now."


def account(catalogue: Catalogue, now: Assessment, then: Assessment) -> Iterator[str]:
    """What was asked, and what the sum buys outside."""
    yield (
        "No fitting build costs less while every target keeps its state and every frame rate stays"
        " within 2 % of the present one, or above."
    )
    saved = now.spent_minor - then.spent_minor
    sold = then.sold_minor - now.sold_minor
    if sold:
        words = "bring back" if sold > 0 else "no longer bring back"
        yield f"Owned parts that are left over {words} {money(abs(sold), now.currency)} of that."
    if saved > 0:
        outside = outside_words(catalogue, then, saved)
        yield from filter(None, [outside])
    elif saved < 0 and now.floors:
        yield f"The present build falls short of the brief: {now.floors[0]}"
