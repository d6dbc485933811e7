"""Where the parts of a build are bought, and what became of them."""

from collections import Counter
from dataclasses import dataclass, replace
from datetime import date

from wattmetron.core.buying.basket import Market, PartSource, Want
from wattmetron.core.buying.purchase import Purchase, by_parcels
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.purchases import (
    MOST_PURCHASES,
    PartPurchase,
    State,
    checked_purchase,
)
from wattmetron.core.values.shops import rules_in
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.brief_edits import Edited


@dataclass(frozen=True, slots=True, kw_only=True)
class Buying:
    """What is still to be bought and how: the ways by number of parcels, the cheapest first; ids of
    parts that nobody has in stock, and of those that few shops have with how many, scarcest first.
    """

    market: Market
    ways: tuple[Purchase, ...]
    nowhere: tuple[str, ...]
    scarce: tuple[tuple[str, int], ...]
    few: frozenset[tuple[str, str]]
    old: frozenset[tuple[str, str]]
    """Parts and shops whose price was seen long before the newest."""
    alone_minor: int
    """What each part delivered by itself would cost together."""


def buying(catalogue: Catalogue, now: Assessment, plan: Plan, day: date) -> Buying:
    """The purchase of what is not owned, not for later and not bought yet."""
    market, nowhere = market_of(catalogue, now, plan, day)
    ways = catalogue.ask(_ways, now.brief.region, market.wants, market.places, day)
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    shops = Counter(source.part_id for source in market.places)
    scarce = sorted(((want.part_id, shops[want.part_id]) for want in market.wants), key=_scarcity)
    alone: dict[str, int] = {}
    for source in market.places:
        cost = source.price_minor + source.alone_minor + source.risk_minor
        alone[source.part_id] = min(cost, alone.get(source.part_id, cost))
    return Buying(
        market=market,
        ways=ways,
        nowhere=nowhere,
        scarce=tuple(scarce),
        few=frozenset(
            (offer.part_id, offer.shop)
            for want in market.wants
            for offer in book.all_of(want.part_id)
            if offer.stock == "few"
        ),
        old=frozenset(
            (offer.part_id, offer.shop)
            for want in market.wants
            for offer in book.all_of(want.part_id)
            if book.is_stale(offer, now.brief.old_after)
        ),
        alone_minor=sum(alone[want.part_id] * want.times for want in market.wants),
    )


def chosen_way(purchases: Buying, parcels: str) -> Purchase | None:
    """The way with so many parcels, else the cheapest; None where nothing can be bought."""
    ways = [way for way in purchases.ways if way.parcels]
    fitting = [way for way in ways if str(len(way.parcels)) == parcels]
    return next(iter((*fitting, *ways)), None)


def _scarcity(pair: tuple[str, int]) -> tuple[int, str]:
    return pair[1], pair[0]


def _ways(
    catalogue: Catalogue,
    region_id: str,
    wants: tuple[Want, ...],
    places: tuple[PartSource, ...],
    day: date,
) -> tuple[Purchase, ...]:
    return by_parcels(Market(wants, places, rules_in(catalogue.shops.values(), region_id), day))


def market_of(
    catalogue: Catalogue, now: Assessment, plan: Plan, day: date
) -> tuple[Market, tuple[str, ...]]:
    """What is to be bought with where it is to be had, and what nobody has."""
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    times = Counter(
        line.part_id for line in now.lines if line.part and not (line.owned or line.later)
    )
    for purchase in plan.purchases:
        if purchase.state != "refunded":
            times[purchase.part_id] -= purchase.times
    times = +times
    places: list[PartSource] = []
    for part_id in times:
        cheapest: dict[str, PartSource] = {}
        for offer in book.all_of(part_id):
            if book.lets(offer) and offer.shop not in cheapest:
                cheapest[offer.shop] = PartSource(
                    part_id,
                    offer.shop,
                    offer.price_minor,
                    offer.shipping_minor,
                    offer.risk_minor,
                )
        places += cheapest.values()
    had = {source.part_id for source in places}
    wants = tuple(
        Want(part_id, kind_of(catalogue.part(part_id)), count)
        for part_id, count in times.items()
        if part_id in had
    )
    rules = rules_in(catalogue.shops.values(), now.brief.region)
    nowhere = tuple(part_id for part_id in times if part_id not in had)
    return Market(wants, tuple(places), rules, day), nowhere


def order(plan: Plan, purchase: Purchase, day: date) -> Edited:
    """Note a whole purchase as ordered, each part with its share of its parcel."""
    bought = [
        PartPurchase(
            part_id=part_id,
            shop=parcel.shop,
            state="ordered",
            planned_minor=minor,
            paid_minor=minor,
            times=parcel.times(part_id),
            on=day,
        )
        for parcel in purchase.parcels
        for part_id, minor in parcel.shares().items()
    ]
    merged: dict[str, PartPurchase] = {purchase.part_id: purchase for purchase in plan.purchases}
    for source in bought:
        before = merged.get(source.part_id)
        if before is not None and before.state != "refunded":
            source = _joined(before, source)
        merged[source.part_id] = source
    if not bought:
        return plan, "nothing"
    parts = sum(purchase.times for purchase in bought)
    sentence = f"ordered {parts} part{'' if parts == 1 else 's'}"
    return replace(plan, purchases=tuple(merged.values())[:MOST_PURCHASES]), sentence


def _joined(before: PartPurchase, purchase: PartPurchase) -> PartPurchase:
    """Two purchases of one part, from two shops or twice."""
    shops = before.shop if before.shop == purchase.shop else f"{before.shop}, {purchase.shop}"
    return replace(
        before,
        shop=shops[:120],
        planned_minor=before.planned_minor + purchase.planned_minor,
        paid_minor=before.paid_minor + purchase.paid_minor,
        times=before.times + purchase.times,
    )


def mark(
    plan: Plan,
    catalogue: Catalogue,
    part_id: str,
    state: State,
    paid_minor: int | None,
    instead: str,
    postage_minor: int,
) -> Edited:
    """Note what became of a part; raises BriefError for what cannot be."""
    before = next((purchase for purchase in plan.purchases if purchase.part_id == part_id), None)
    if before is None:
        raise BriefError("This part is not ordered yet: order it first.")
    if instead and state != "wrong":
        instead = ""
    if instead:
        catalogue.part(instead)
    purchase = checked_purchase(
        replace(
            before,
            state=state,
            paid_minor=before.paid_minor if paid_minor is None else paid_minor,
            instead=instead,
            postage_minor=postage_minor,
        )
    )
    if purchase == before:
        return plan, "nothing"
    name = catalogue.part(part_id).name if part_id in catalogue.parts else part_id
    others = tuple(purchase if old.part_id == part_id else old for old in plan.purchases)
    return replace(plan, purchases=others), f"noted {name} as {state}"


def keep_what_came(plan: Plan, catalogue: Catalogue, part_id: str) -> Edited:
    """Keep what came in the place of a part: it stands in the build from now on."""
    purchase = next((old for old in plan.purchases if old.part_id == part_id), None)
    if purchase is None or not purchase.instead:
        raise BriefError("Nothing else came in the place of this part.")
    part = catalogue.part(purchase.instead)
    kind = kind_of(part)
    if part_id not in plan.build.of(kind):
        raise BriefError(f"{part.name} is no {kind} that could take this place.")
    build = plan.build
    for _ in range(build.of(kind).count(part_id)):
        build = build.with_part(kind, purchase.instead, part_id)
    arrived = replace(purchase, part_id=purchase.instead, state="arrived", instead="")
    purchases = tuple(arrived if old.part_id == part_id else old for old in plan.purchases)
    return replace(plan, build=build, purchases=purchases), f"kept {part.name}, which came instead"


def forget(plan: Plan, part_id: str) -> Edited:
    """Take the note of a purchase out: the part is to be bought again."""
    left = tuple(purchase for purchase in plan.purchases if purchase.part_id != part_id)
    if left == plan.purchases:
        return plan, "nothing"
    return replace(plan, purchases=left), "took out the note of a purchase"


def arrived_build(plan: Plan, catalogue: Catalogue) -> Build:
    """The build with what came in the place of what was ordered."""
    build = plan.build
    for purchase in plan.purchases:
        if purchase.state != "wrong" or purchase.instead not in catalogue.parts:
            continue
        kind = kind_of(catalogue.part(purchase.instead))
        if purchase.part_id in build.of(kind):
            build = build.with_part(kind, purchase.instead, purchase.part_id)
    return build
