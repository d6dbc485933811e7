"""A part that nobody has: what comes nearest to it, and how long such a part was away before."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from math import log

from wattmetron.core.catalogue import BESIDE_PRICES, Catalogue
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.price_history import PriceStep
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.proposal.swaps import Candidate, SwapQuery, swap

MOST_SHOWN, MOST_LOOKED_AT = 3, 12
GRAVE = ("blocks", "do first")


@dataclass(frozen=True, slots=True, kw_only=True)
class PartReplacement:
    """A part that could stand in the place: ``then`` is the machine with it, ``more_minor`` what
    it costs more than the part last did (None: that is not known).
    """

    candidate: Candidate
    then: Assessment
    more_minor: int | None


def replacements(
    catalogue: Catalogue,
    now: Assessment,
    kind: Kind,
    part_id: str,
    last_minor: int | None,
    awaited_minor: int,
) -> tuple[PartReplacement, ...]:
    """The nearest parts on sale, as whole machines without anything grave that was not there
    before and within the brief's wishes: first by targets met, then by how far frames and price are
    from those of the part. ``awaited_minor`` is what it costs where it is on its way, and stands
    for its price where none was ever known.
    """
    swaps = swap(catalogue, now, SwapQuery(kind=kind, present=part_id, everything=True))
    usable = [
        candidate
        for candidate in swaps.candidates
        if not (candidate.present or candidate.floors or candidate.missing)
        and candidate.cost_minor is not None
    ]
    usable.sort(key=lambda candidate: _far(candidate, last_minor))
    base = _as_before(catalogue, now, part_id, last_minor or awaited_minor)
    before = {finding.rule for finding in base.findings if finding.level in GRAVE}
    made: list[PartReplacement] = []
    for usable_part in usable[:MOST_LOOKED_AT]:
        then = assess(catalogue, now.brief, usable_part.build)
        grave = {finding.rule for finding in then.findings if finding.level in GRAVE} - before
        if grave or len(then.floors) > len(base.floors):
            continue
        more = None if last_minor is None else (usable_part.cost_minor or 0) - last_minor
        made.append(PartReplacement(candidate=usable_part, then=then, more_minor=more))
    return tuple(
        sorted(
            made,
            key=lambda replacement: (
                -replacement.then.met,
                _far(replacement.candidate, last_minor),
            ),
        )
    )[:MOST_SHOWN]


def _as_before(catalogue: Catalogue, now: Assessment, part_id: str, price_minor: int) -> Assessment:
    """The build with the part on sale at that price: what is wrong with it then is no matter."""
    region = catalogue.region(now.brief.region)
    offer = Offer(
        part_id=part_id,
        shop="as before",
        region=region.id,
        currency=region.currency,
        price_minor=price_minor,
        shipping_minor=0,
        stock="in",
        condition="new",
        seen_on=date.min,
    )
    then = replace(catalogue, offers=(*catalogue.offers, offer))
    return assess(then.kept_by(catalogue.keep.branch(BESIDE_PRICES)), now.brief, now.build)


def _far(candidate: Candidate, last_minor: int | None) -> tuple[float, str]:
    """How far frames and price are from those of the part, both as ratios."""
    frames = [
        abs(log(effect.fps / (effect.fps - effect.change_fps)))
        for effect in candidate.effects
        if effect.fps and effect.change_fps is not None and effect.fps > effect.change_fps
    ]
    cost = max(1, candidate.cost_minor or 0)
    price = abs(log(cost / last_minor)) if last_minor else 0.0
    return (sum(frames) / len(frames) if frames else 0.0) + price / 2, candidate.part.id


@dataclass(frozen=True, slots=True)
class Away:
    """Since when a part is sold out, what it last cost in minor units, and how many days it was
    away each time before.
    """

    since: date
    last_minor: int | None
    before_days: tuple[int, ...]


def away(steps: Sequence[PriceStep]) -> Away | None:
    """None where it is not sold out, or nothing is known of it."""
    if not steps or steps[-1].least_minor is not None:
        return None
    spells: list[int] = []
    since: date | None = None
    last: int | None = None
    for step in steps:
        if step.least_minor is not None:
            if since is not None and last is not None:
                spells.append((step.day - since).days)
            since, last = None, step.least_minor
        elif since is None:
            since = step.day
    return Away(since or steps[-1].day, last, tuple(spells))
