"""Shops as a list, and what changed since a day, as pages."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import KIND_NAMES, KIND_PLURALS
from wattmetron.core.values.shops import BundleOffer, Code, ShopRules, shop_key
from wattmetron.core.values.words import listed
from wattmetron.places.shops.market_changes import (
    BriefNow,
    Changes,
    Moved,
    brief_now,
    changes,
    kinds_words,
)
from wattmetron.words.figures import THIN, money, money_change
from wattmetron.workshop.workshop import Imported, Workshop

MOST_ROWS = 12


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopRow:
    """A shop in a region: what it has, how old its prices are, how it sells, in words."""

    shop: str
    region: str
    offers: int
    in_stock: int
    used: int
    newest: str
    sells: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PriceChangeRow:
    """A part that moved: name, kind, prices and change, in words."""

    part_id: str
    name: str
    kind: str
    then: str
    now: str
    change: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangesPage:
    """What changed since an import; ``more`` says how many rows of a list are not shown."""

    days: tuple[tuple[int, str], ...]
    since: int
    day: str
    regions: tuple[tuple[str, str], ...]
    region: str
    kinds: str
    lists: tuple[tuple[str, str, tuple[PriceChangeRow, ...], int], ...]
    briefs: tuple[tuple[BriefNow, str, str], ...]
    nothing: str = ""


def shop_rows(catalogue: Catalogue, today: date) -> tuple[ShopRow, ...]:
    """Every shop that has an offer or rules, by region."""
    offers: dict[str, list[Offer]] = {}
    names: dict[str, tuple[str, str]] = {}
    for offer in catalogue.offers:
        key = shop_key(offer.shop, offer.region)
        offers.setdefault(key, []).append(offer)
        names[key] = offer.shop, offer.region
    for rules in catalogue.shops.values():
        names.setdefault(rules.key, (rules.shop, rules.region))
    return tuple(
        _shop(catalogue, *names[key], offers.get(key, []), today)
        for key in sorted(names, key=lambda key: (names[key][1], names[key][0]))
    )


def _shop(
    catalogue: Catalogue, shop: str, region_id: str, offers: list[Offer], today: date
) -> ShopRow:
    region = catalogue.regions.get(region_id)
    newest = max((offer.seen_on for offer in offers), default=None)
    rules = catalogue.shops.get(shop_key(shop, region_id))
    currency = region.currency if region else ""
    return ShopRow(
        shop=shop,
        region=region.name if region else region_id,
        offers=len(offers),
        in_stock=sum(offer.in_stock for offer in offers),
        used=sum(offer.condition != "new" for offer in offers),
        newest=f"{newest:%-d %b %Y}" if newest else "–",
        sells=tuple(_sells(catalogue, rules, currency, today)),
    )


def _sales(rules: ShopRules, today: date) -> Iterator[str]:
    ahead = sorted(sale.start for sale in rules.sales if sale.end >= today)
    for sale_days in rules.sales:
        if ahead and sale_days.start == ahead[0]:
            yield f"Sale days: {sale_days.words}."


def _sells(
    catalogue: Catalogue, rules: ShopRules | None, currency: str, today: date
) -> Iterator[str]:
    if rules is None:
        yield "How it sends is not known: each part is reckoned with its own shipping."
        return
    heavy = (
        f", {money(rules.heavy_minor, currency)} more with a case or a display"
        if rules.heavy_minor
        else ""
    )
    if rules.trust != "plain":
        why = f": {rules.trust_why}" if rules.trust_why else ""
        counts = ", counts only in briefs that take anything" if rules.trust == "doubtful" else ""
        yield f"{rules.trust.capitalize()}{counts}{why}."
    yield f"A parcel costs {money(rules.parcel_minor, currency)}{heavy}."
    if rules.free_above_minor is not None:
        yield f"Free from {money(rules.free_above_minor, currency)} on."
    if rules.returns_days is not None:
        days = rules.returns_days
        yield f"Takes back within {days} days." if days else "Takes nothing back."
    for code in rules.codes:
        if code.holds_on(today):
            yield _code(code, currency)
    for lot in rules.together:
        if lot.holds_on(today):
            yield _together(catalogue, lot, currency)
    yield from _sales(rules, today)


def _code(code: Code, currency: str) -> str:
    off = [f"{code.percent:g}{THIN}%"] if code.percent else []
    off += [money(code.minor, currency)] if code.minor else []
    start = f" from {money(code.from_minor, currency)} on" if code.from_minor else ""
    of = f" on {listed([KIND_PLURALS[kind] for kind in code.kinds])}" if code.kinds else ""
    until = f", until {code.until:%-d %b %Y}" if code.until else ""
    return f"Code {code.code}: {listed(off)} off{of}{start}{until}."


def _together(catalogue: Catalogue, lot: BundleOffer, currency: str) -> str:
    names = [catalogue.parts[part].name if part in catalogue.parts else part for part in lot.parts]
    until = f", until {lot.until:%-d %b %Y}" if lot.until else ""
    return f"{listed(names)} together for {money(lot.price_minor, currency)}{until}."


def changes_page(workshop: Workshop, since: int, region: str) -> ChangesPage:
    """What changed in a region between an import and today; by default since the one before."""
    catalogue, imports = workshop.catalogue(), workshop.imports()
    earlier = imports[1:]
    regions = tuple((region.id, region.name) for region in catalogue.regions.values())
    where = region if region in catalogue.regions else regions[0][0]
    chosen = next(
        (imported for imported in earlier if imported.id == since), earlier[0] if earlier else None
    )
    days = tuple((imported.id, _day(imported)) for imported in earlier)
    if chosen is None:
        return ChangesPage(
            days=days,
            since=0,
            day="",
            regions=regions,
            region=where,
            kinds="",
            lists=(),
            briefs=(),
            nothing="Only one day's prices are known: bring in newer ones, and this page says what"
            " changed.",
        )
    then = workshop.catalogue_of(chosen.id)
    market = changes(then, catalogue, where)
    briefs = tuple(
        brief_now(then, catalogue, row.id, row.plan, market)
        for row in workshop.briefs()
        if row.plan.brief.region == where and not row.plan.build.empty
    )
    return ChangesPage(
        days=days,
        since=chosen.id,
        day=_day(chosen),
        regions=regions,
        region=where,
        kinds=kinds_words(market.kinds),
        lists=tuple(_lists(then, catalogue, market, where)),
        briefs=tuple(
            (
                brief,
                "–" if brief.then_minor is None else money(brief.then_minor, brief.currency),
                money(brief.now_minor, brief.currency),
            )
            for brief in briefs
        ),
    )


def _day(imported: Imported) -> str:
    return f"{imported.at:%-d %b %Y}"


def _lists(
    then: Catalogue, now: Catalogue, market: Changes, region: str
) -> Iterator[tuple[str, str, tuple[PriceChangeRow, ...], int]]:
    currency = now.region(region).currency
    for key, title, rows in (
        ("fell", "Cheaper", market.fell),
        ("rose", "Dearer", market.rose),
        ("out", "Sold out", market.sold_out),
        ("back", "To be had again", market.back),
        ("new", "New on sale", market.new),
        ("gone", "No longer offered", market.gone),
    ):
        if rows:
            shown = tuple(_change(then, now, move, currency) for move in rows[:MOST_ROWS])
            yield key, f"{title}: {len(rows)}", shown, len(rows) - len(shown)


def _change(then: Catalogue, now: Catalogue, move: Moved, currency: str) -> PriceChangeRow:
    part = now.parts.get(move.part_id) or then.parts[move.part_id]
    change = ""
    if move.then_minor is not None and move.now_minor is not None:
        change = (
            f"{money_change(move.now_minor - move.then_minor, currency)},"
            f" {abs(move.share) * 100:.0f}{THIN}%"
        )
    return PriceChangeRow(
        part_id=move.part_id if move.part_id in now.parts else "",
        name=part.name,
        kind=KIND_NAMES[move.kind],
        then="–" if move.then_minor is None else money(move.then_minor, currency),
        now="–" if move.now_minor is None else money(move.now_minor, currency),
        change=change,
    )
