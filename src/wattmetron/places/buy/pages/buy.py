"""The view Buy: which shop for each part, what fewer parcels cost, and what became of the parts."""

from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime
from functools import partial
from typing import Any

from markupsafe import Markup

from wattmetron.core.buying.basket import Parcel
from wattmetron.core.buying.purchase import Purchase
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.price_history import OfferSpan, price_steps, total_steps
from wattmetron.core.values.purchases import STATES, PartPurchase
from wattmetron.core.values.shops import Sale
from wattmetron.core.values.words import listed
from wattmetron.drawing.price_line import line_words, price_line
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.buy.pages.sold_out import SoldOut, sold_out
from wattmetron.places.buy.pages.systems_panel import SystemRow, system_rows
from wattmetron.places.buy.purchase_edits import Buying, arrived_build, buying, chosen_way
from wattmetron.places.shops.sale_prices import sale_words, sales_of
from wattmetron.shell.address import DeskQuery
from wattmetron.shell.pages import amount
from wattmetron.words.figures import THIN, money, money_change
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop

FEW_SHOPS = 1
STATE_WORDS = {
    "ordered": "ordered",
    "arrived": "arrived as ordered",
    "wrong": "something else came",
    "returned": "sent back",
    "refunded": "money is back",
}


@dataclass(frozen=True, slots=True)
class History:
    """What shops asked over time for the parts of a build, and when it changed, in words."""

    spans: tuple[OfferSpan, ...] = ()
    changes: tuple[tuple[date, str], ...] = ()
    sales: tuple[Sale, ...] = ()
    sale_words: tuple[str, ...] = ()


NOTCHES = "ABCDEFGHIJKL"
"""The last so many changes have letters on the line."""


@dataclass(frozen=True, slots=True)
class ParcelRow:
    """A parcel: its parts with what they cost there, and what is added and taken off."""

    shop: str
    parts: tuple[tuple[str, str, str], ...]
    more: tuple[str, ...]
    total: str


@dataclass(frozen=True, slots=True)
class WayRow:
    """The purchase in so many parcels: what it costs, against the cheapest, where it is chosen."""

    parcels: str
    total: str
    more: str
    url: str
    here: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class BoughtRow:
    """A part that is bought: state, planned and paid, and what came in its place."""

    part_id: str
    name: str
    shop: str
    state: str
    words: str
    planned: str
    paid: str
    paid_typed: str
    postage_typed: str
    instead: str
    can_keep: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class BuyView:
    """What the view shows; without parcels nothing is left to buy."""

    headline: str
    says: tuple[str, ...]
    parcels: tuple[ParcelRow, ...]
    ways: tuple[WayRow, ...]
    first: tuple[str, ...]
    nowhere: tuple[SoldOut, ...]
    chosen: str
    bought: tuple[BoughtRow, ...]
    sums: str
    sentences: tuple[str, ...]
    states: tuple[tuple[str, str], ...]
    currency: str
    below: str
    line: Markup
    line_words: str
    notches: tuple[str, ...]
    sale_words: tuple[str, ...]
    systems: tuple[SystemRow, ...]


def buy_view(
    catalogue: Catalogue,
    opened: Opened,
    now: Assessment,
    query: DeskQuery,
    today: date,
    history_of: Callable[[], History],
) -> BuyView:
    """The purchase of the adopted build, what was bought of it, and what it cost over time; the
    history is read when the purchase is there.
    """
    plan = opened.plan
    purchases = buying(catalogue, now, plan, today)
    way = chosen_way(purchases, query.parcels or "")
    history = history_of()
    bought = tuple(_bought(catalogue, now, entry) for entry in plan.purchases)
    return BuyView(
        headline=_headline(now, purchases, way),
        says=tuple(_says(catalogue, now, purchases, way)),
        parcels=() if way is None else tuple(_parcel(catalogue, now, p) for p in way.parcels),
        ways=tuple(_way(now, purchases, other, way, query, opened.id) for other in purchases.ways),
        first=tuple(_first(catalogue, purchases)),
        nowhere=tuple(
            sold_out(catalogue, now, part_id, history.spans, query, opened.id, today)
            for part_id in purchases.nowhere
        ),
        chosen="" if way is None else str(len(way.parcels)),
        bought=bought,
        sums=_sums(now, plan.purchases),
        sentences=_found(catalogue, now, arrived_build(plan, catalogue)),
        states=tuple((state, STATE_WORDS[state]) for state in STATES),
        currency=now.currency,
        below=amount(now.spent_minor * 95 // 10_000 * 100) if now.spent_minor else "",
        sale_words=history.sale_words,
        systems=system_rows(catalogue, now, query, opened.id),
        **_line(now, history, today),
    )


def _line(now: Assessment, history: History, today: date) -> dict[str, Any]:
    """What this list cost on each day, against the budget; nothing where one day is known."""
    times = Counter(line.part_id for line in now.lines if line.part and not line.owned)
    steps = total_steps(
        {
            part_id: price_steps(
                span
                for span in history.spans
                if span.part_id == part_id and (now.brief.allow_used or not span.used)
            )
            for part_id in times
        },
        times,
    )
    if len(steps) < 2:
        return {"line": Markup(""), "line_words": "", "notches": ()}
    words = line_words(steps, now.currency, "This list, each part delivered by itself")
    notches = [
        (day, NOTCHES[n], sentence)
        for n, (day, sentence) in enumerate(history.changes[-len(NOTCHES) :])
    ]
    drawn = [(day, letter) for day, letter, _ in notches if day >= steps[0].day]
    budget = now.brief.budget_high_minor
    return {
        "line": price_line(steps, today, now.currency, words, budget, drawn, history.sales),
        "line_words": words,
        "notches": tuple(
            f"{letter}: {day:%-d %b %Y}, {sentence}" for day, letter, sentence in notches
        ),
    }


def _headline(now: Assessment, purchases: Buying, way: Purchase | None) -> str:
    if now.build.empty:
        return "There is nothing to buy yet: choose parts, or adopt a proposal."
    if way is None:
        return "Nothing of this build is on sale." if purchases.nowhere else "Everything is bought."
    shops = [parcel.shop for parcel in way.parcels]
    parts = sum(want.times for want in purchases.market.wants)
    return (
        f"{parts} part{'' if parts == 1 else 's'} for {money(way.total_minor, now.currency)}"
        f" delivered, from {listed(shops)}."
    )


def _says(
    catalogue: Catalogue, now: Assessment, purchases: Buying, way: Purchase | None
) -> Iterator[str]:
    if way is None:
        return
    cheapest = purchases.ways[0]
    if way is cheapest:
        yield "No choice of shops is cheaper, with thresholds, codes and what is sold together."
    else:
        more = money(way.cost_minor - cheapest.cost_minor, now.currency)
        yield f"{more} more than the cheapest, in {len(cheapest.parcels)} parcels."
    if way.risk_minor:
        risk = money(way.risk_minor, now.currency)
        yield f"{risk} more are counted for the risk of used parts: set aside, not paid."
    fewest = len(purchases.ways[-1].parcels)
    if fewest > 1:
        yield f"With fewer than {fewest} parcels not all of it is to be had."
    old = [
        catalogue.part(bought.source.part_id).name
        for parcel in way.parcels
        for bought in parcel.bought
        if (bought.source.part_id, bought.source.shop) in purchases.old
    ]
    if old:
        days = now.brief.old_after_days
        yield f"Older than {days} days, so look again before you order: the price of {listed(old)}."
    saved = purchases.alone_minor - way.cost_minor
    if saved > 0:
        yield f"{money(saved, now.currency)} less than every part ordered by itself."
    elif saved < 0:
        yield f"{money(-saved, now.currency)} more than every part ordered by itself."


def _parcel(catalogue: Catalogue, now: Assessment, parcel: Parcel) -> ParcelRow:
    parts = [
        (
            _times(catalogue, bought.source.part_id, bought.times),
            money(bought.source.price_minor * bought.times, now.currency),
            "",
        )
        for bought in parcel.bought
    ]
    for lot in parcel.bundled:
        names = listed([catalogue.part(part_id).name for part_id in lot.together.parts])
        price = money(lot.together.price_minor * lot.times, now.currency)
        parts.append((names, price, "sold together"))
    shipping = money(parcel.shipping_minor, now.currency) if parcel.shipping_minor else "free"
    more = [f"shipping {shipping}"]
    if parcel.code is not None:
        more.append(f"code {parcel.code.code}: {money(parcel.off_minor, now.currency)} off")
    return ParcelRow(
        parcel.shop, tuple(parts), tuple(more), money(parcel.total_minor, now.currency)
    )


def _times(catalogue: Catalogue, part_id: str, times: int) -> str:
    name = catalogue.part(part_id).name
    return name if times == 1 else f"{times} {name}"


def _way(
    now: Assessment,
    purchases: Buying,
    other: Purchase,
    chosen: Purchase | None,
    query: DeskQuery,
    brief_id: int,
) -> WayRow:
    count = len(other.parcels)
    more = other.cost_minor - purchases.ways[0].cost_minor
    return WayRow(
        parcels=f"{count} parcel{'' if count == 1 else 's'}",
        total=money(other.total_minor, now.currency),
        more="cheapest" if not more else money_change(more, now.currency),
        url=query.url(brief_id, parcels=str(count)),
        here=other is chosen,
    )


def _first(catalogue: Catalogue, purchases: Buying) -> Iterator[str]:
    """What to order first: what few shops have."""
    for part_id, shops in purchases.scarce:
        if shops <= FEW_SHOPS:
            (shop,) = {
                source.shop for source in purchases.market.places if source.part_id == part_id
            }
            last = ", and the last few" if (part_id, shop) in purchases.few else ""
            yield f"{catalogue.part(part_id).name}: only {shop} has it{last}."


def _bought(catalogue: Catalogue, now: Assessment, purchase: PartPurchase) -> BoughtRow:
    instead = catalogue.parts.get(purchase.instead)
    part = catalogue.parts.get(purchase.part_id)
    name = part.name if part else purchase.part_id
    return BoughtRow(
        part_id=purchase.part_id,
        name=name if purchase.times == 1 else f"{purchase.times} {name}",
        shop=purchase.shop,
        state=purchase.state,
        words=STATE_WORDS[purchase.state],
        planned=money(purchase.planned_minor, now.currency),
        paid=money(purchase.cost_minor, now.currency),
        paid_typed=amount(purchase.paid_minor),
        postage_typed=amount(purchase.postage_minor) if purchase.postage_minor else "",
        instead=instead.name if instead else purchase.instead,
        can_keep=instead is not None and purchase.state == "wrong",
    )


def _sums(now: Assessment, bought: tuple[PartPurchase, ...]) -> str:
    """Planned against paid."""
    if not bought:
        return ""
    planned = sum(purchase.planned_minor for purchase in bought if purchase.state != "refunded")
    paid = sum(purchase.cost_minor for purchase in bought)
    arrived = sum(purchase.times for purchase in bought if purchase.state == "arrived")
    count = sum(purchase.times for purchase in bought)
    return (
        f"{arrived} of {count} arrived. Planned {money(planned, now.currency)}, paid"
        f" {money(paid, now.currency)}: {money_change(paid - planned, now.currency)}."
    )


def _found(catalogue: Catalogue, now: Assessment, came: Build) -> tuple[str, ...]:
    """What changes with what came in the place of what was ordered."""
    if came == now.build:
        return ()
    then = assess(catalogue, now.brief, came)
    strips = [
        f"{finding.level[:1].upper()}{finding.level[1:]}: {finding.sentence}"
        f" {finding.advice}".strip()
        for finding in then.findings
        if finding.level in ("blocks", "do first")
    ]
    met = f"{then.met} of {len(then.counted)} targets met, {now.met} as planned."
    fits = [] if then.blocking else ["With what came everything fits."]
    moved = [
        f"{new.game.name} {old.judged_fps:.0f} to {new.judged_fps:.0f}{THIN}fps"
        for old, new in zip(now.counted, then.counted, strict=False)
        if abs(new.judged_fps - old.judged_fps) >= 1
    ]
    return (*fits, *strips, met, *([f"{listed(moved)}."] if moved else []))


SALE_KINDS: frozenset[Kind] = frozenset({"processor", "graphics", "memory", "storage"})
"""Of what the view Buy says what sale days did: what costs most."""


def _history(workshop: Workshop, opened: Opened) -> History:
    """What shops asked over time for the parts of a build, and when the build changed."""
    part_ids = {part_id for _, part_id in opened.plan.build.ids()}
    spans = workshop.offer_spans(part_ids, opened.plan.brief.region)
    brief, catalogue = opened.plan.brief, workshop.catalogue()
    kinds = [kind for kind, _ in opened.plan.build.ids() if kind in SALE_KINDS]
    return History(
        spans,
        workshop.build_changes(opened.id),
        sales_of(catalogue, brief.region),
        sale_words(
            workshop, catalogue, dict.fromkeys(kinds), brief.region, datetime.now(UTC).date()
        ),
    )


def _content(context: ViewContext) -> BuyView:
    return buy_view(
        context.catalogue,
        context.opened,
        context.present,
        context.query,
        datetime.now(UTC).date(),
        partial(_history, context.workshop, context.opened),
    )


BUY = ViewSpec(
    name="buy",
    title="Buy",
    key="7",
    template="places/buy/pages/buy.html",
    make=_content,
    folded=True,
)
