"""What if: the answer to the same brief when prices, stock or the region change, beside the present
answer.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date

from wattmetron.core.catalogue import BESIDE_PRICES, OF_GAMES, Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.power.tuning import TuningEffect, card_at, chip_at
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Processor
from wattmetron.places.assessment.assess import Assessment, assess, known_brief
from wattmetron.places.proposal.preference_answers import settled
from wattmetron.places.proposal.proposals import kept_parts
from wattmetron.words.figures import money

RISE_PERCENT = 10


@dataclass(frozen=True, slots=True)
class Supposed:
    """A supposition in words, its answer (None where nothing fits) and the kinds that differ from
    the answer today.
    """

    words: str
    assessment: Assessment | None
    changed: tuple[Kind, ...]


def what_if(
    catalogue: Catalogue, brief: Brief, build: Build
) -> tuple[Assessment | None, tuple[Supposed, ...]]:
    """The answer today, and under each supposition: dearer cards and processors, each side's part
    sold out, other regions.
    """
    return catalogue.ask(_what_if, known_brief(catalogue, brief), build)


def _what_if(
    catalogue: Catalogue, brief: Brief, build: Build
) -> tuple[Assessment | None, tuple[Supposed, ...]]:
    fixed = kept_parts(catalogue, brief, build)
    today = _answer(catalogue, brief, fixed)
    supposeds = []
    for words, changed, supposed in _suppositions(catalogue, brief, fixed, today):
        then = _answer(changed, supposed, fixed)
        kinds = _changed(today, then)
        supposeds.append(Supposed(words, then, kinds))
    return today, tuple(supposeds)


def _answer(catalogue: Catalogue, brief: Brief, fixed: Build) -> Assessment | None:
    supposed, _ = settled(catalogue, brief, fixed)
    build = propose(catalogue, supposed, "most frames", fixed).build
    return None if build is None else assess(catalogue, supposed, build)


def _suppositions(
    catalogue: Catalogue, brief: Brief, build: Build, today: Assessment | None
) -> list[tuple[str, Catalogue, Brief]]:
    suppositions: list[tuple[str, Catalogue, Brief]] = []
    for kind, word in (
        ("graphics", "Graphics cards"),
        ("processor", "Processors"),
        ("memory", "Memory"),
    ):
        suppositions.append(
            (
                f"{word} cost {RISE_PERCENT} % more",
                repriced(catalogue, _dearer(catalogue, kind)),
                brief,
            )
        )
    for kind in ("graphics", "processor"):
        part = next(iter(today.machine.of(kind)), None) if today else None  # type: ignore[arg-type]
        if (
            part is not None
            and part.id not in brief.owned
            and part.id not in build.of(kind_of(part))
        ):
            suppositions.append(
                (
                    f"{part.name} sells out",
                    catalogue,
                    replace(brief, banned=(*brief.banned, part.id)),
                )
            )
    if not brief.allow_used:
        suppositions.append(("Used parts allowed", catalogue, replace(brief, allow_used=True)))
    return suppositions


def _dearer(catalogue: Catalogue, kind: str) -> Callable[[Offer], Offer]:
    def changed(offer: Offer) -> Offer:
        part = catalogue.parts.get(offer.part_id)
        if part is None or kind_of(part) != kind:
            return offer
        return replace(offer, price_minor=round(offer.price_minor * (100 + RISE_PERCENT) / 100))

    return changed


def repriced(catalogue: Catalogue, change: Callable[[Offer], Offer]) -> Catalogue:
    """The catalogue with other offers; what does not hang on prices is shared."""
    offers = tuple(change(offer) for offer in catalogue.offers)
    return replace(catalogue, offers=offers).kept_by(catalogue.keep.branch(BESIDE_PRICES))


def elsewhere(
    catalogue: Catalogue, brief: Brief, build: Build, region_id: str, budget_minor: int | None
) -> Supposed:
    """The answer if everything were bought in another region for a budget in its currency (minor
    units).

    Without one the brief's budget holds where the currency is the same. Amounts of the brief in
    another currency (extras, part price cap, what a preference may cost) do not count there. Raises
    BriefError for an unknown region, its own, or a budget that is missing.
    """
    known = known_brief(catalogue, brief)
    here, there = catalogue.region(known.region), catalogue.region(region_id)
    if here.id == there.id:
        raise BriefError(f"{there.name} is where the brief buys already: choose another region.")
    same = here.currency == there.currency
    if budget_minor is None and not same:
        raise BriefError(
            f"The budget in {there.name} is empty: enter an amount in {there.currency}, for amounts"
            f" in {here.currency} do not compare."
        )
    supposed = replace(known, region=there.id)
    if budget_minor is not None:
        supposed = replace(supposed, budget_high_minor=budget_minor, budget_low_minor=0)
    if not same:
        supposed = replace(
            supposed, extras=(), part_cap_minor=None, preference_minor=None, tariff_per_kwh=None
        )
    fixed = kept_parts(catalogue, brief, build)
    today, then = _answer(catalogue, known, fixed), _answer(catalogue, supposed, fixed)
    kinds = _changed(today, then)
    return Supposed(
        f"Bought in {there.name} for up to {money(supposed.budget_high_minor, there.currency)}",
        then,
        kinds,
    )


ANNOUNCED = "announced-part"
ANNOUNCED_SD = 0.06
"""How little the speed of a part is known before anybody has measured it: added in quadrature, in
ln.
"""


def announced(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    like: str,
    faster_percent: float,
    price_minor: int,
) -> Supposed:
    """The answer if a part like another, so much faster, were on sale at a delivered price (minor
    units).

    Raises UnknownPartError, and BriefError for a part that is neither processor nor card or a speed
    below a tenth.
    """
    base = catalogue.part(like)
    if not isinstance(base, (Processor, Graphics)):
        raise BriefError(
            f"{base.name} is neither a processor nor a graphics card: choose one that the announced"
            " part resembles."
        )
    if not -90 <= faster_percent <= 400:
        raise BriefError(
            "The announced part must be within −90 and 400 % of the other's speed: enter such a"
            " number."
        )
    known = known_brief(catalogue, brief)
    part = _announced(base, 1 + faster_percent / 100)
    offer = Offer(
        part_id=part.id,
        shop="announced",
        region=known.region,
        currency=catalogue.region(known.region).currency,
        price_minor=price_minor,
        shipping_minor=0,
        stock="in",
        condition="new",
        seen_on=catalogue.prices(known.region, known.may_buy).newest or date.min,
    )
    later = replace(
        catalogue,
        parts={**catalogue.parts, part.id: part},
        offers=(*catalogue.offers, offer),
    ).kept_by(catalogue.keep.branch(OF_GAMES | {"table"}))
    fixed = kept_parts(catalogue, brief, build)
    today, then = _answer(catalogue, known, fixed), _answer(later, known, fixed)
    kinds = _changed(today, then)
    picked = then is not None and part.id in then.build.of(kind_of(part))
    price = money(price_minor, catalogue.region(known.region).currency)
    words = (
        f"{base.name} {faster_percent:+g} % at {price}:"
        f" {'it would be the pick' if picked else 'not the pick'}"
    )
    return Supposed(words, then, kinds)


def _announced(base: Processor | Graphics, times: float) -> Processor | Graphics:
    change = TuningEffect(times - 1, ANNOUNCED_SD, 1.0)
    if isinstance(base, Processor):
        return replace(
            chip_at(base, change), id=ANNOUNCED, model=f"{base.model}, announced", withdrawn=None
        )
    return replace(
        card_at(base, change),
        id=ANNOUNCED,
        model=f"{base.model}, announced",
        chip=f"{base.chip}, announced",
        withdrawn=None,
    )


def _changed(today: Assessment | None, then: Assessment | None) -> tuple[Kind, ...]:
    """The kinds in which two answers differ."""
    if today is None or then is None:
        return ()
    return tuple(kind for kind in ALL_KINDS if today.build.of(kind) != then.build.of(kind))
