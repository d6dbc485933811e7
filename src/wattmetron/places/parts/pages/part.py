"""One part in full: figures, trust with its reasons, offers, where it is used, whether it fits a
build.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.sources import dissents, figure_name
from wattmetron.core.values.build import StandIn
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.own_record import OwnRecord, Subject, record_key
from wattmetron.core.values.part_kinds import KIND_PLURALS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.price_history import (
    USUAL_SPAN,
    PriceStep,
    price_steps,
    usual_minor,
)
from wattmetron.core.values.trust import Judgement, judge
from wattmetron.core.values.words import listed
from wattmetron.drawing.part_picture import part_picture
from wattmetron.drawing.price_line import line_words, price_line
from wattmetron.places.assessment.assess import assess
from wattmetron.places.parts.pages.offer_lines import OfferLine, look_at, offer_lines
from wattmetron.places.parts.pages.part_figures import figures_of
from wattmetron.places.parts.pages.parts_list_state import (
    kind_url,
    part_url,
    read_state,
    try_in_brief,
)
from wattmetron.places.parts.part_edits import own_version, part_version, picture_version
from wattmetron.places.parts.parts_list import ShelfQuery
from wattmetron.places.proposal.part_traits import traits
from wattmetron.places.shops.sale_prices import sale_words, sales_of
from wattmetron.places.shops.wait_or_buy import wait_words
from wattmetron.shell.pages import amount
from wattmetron.words.figures import THIN, money, money_change
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop

LEAST_OFF = 0.02
"""Over what the usual price is taken, and from which share on today differs from it."""


@dataclass(frozen=True, slots=True)
class OwnNote:
    """What was noted of a part or its maker, to be changed in place, with its version."""

    record: OwnRecord
    version: int


@dataclass(frozen=True, slots=True)
class WaitRow:
    """A region in which a price can be waited for, with one to begin from."""

    region_id: str
    region: str
    currency: str
    below: str


@dataclass(frozen=True, slots=True)
class PriceHistory:
    """The price line of a region with its sentence and its days as a table."""

    region: str
    words: str
    picture: Markup
    rows: tuple[tuple[str, str], ...]
    says: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PartPage:
    """One part in full; ``used_in`` are briefs with the way in which they use it."""

    part: Part
    kind: str
    key: Kind
    version: int
    list_url: str
    trust: Judgement
    notes: tuple[OwnNote, ...]
    picture: Markup
    picture_version: int
    reviews: str
    figures: tuple[tuple[str, str], ...]
    sources: tuple[str, ...]
    offers: tuple[OfferLine, ...]
    look_at: tuple[str, ...]
    waits: tuple[WaitRow, ...]
    lines: tuple[PriceHistory, ...]
    used_in: tuple[tuple[int, str, str], ...]
    brief: Opened | None
    briefs: tuple[tuple[int, str], ...]
    fits: str
    against: tuple[str, ...]
    replaces: str
    try_url: str
    in_build: bool
    stand_in: StandIn | None
    scaled: bool
    neighbours: tuple[tuple[str, str, str], ...]


def part_page(
    workshop: Workshop, catalogue: Catalogue, part_id: str, params: dict[str, str]
) -> PartPage:
    """Compute what a part's page shows; raises UnknownPartError."""
    part = catalogue.part(part_id)
    kind = kind_of(part)
    state = replace(
        read_state(workshop, catalogue, {"brief": params.get("brief", "")}),
        query=ShelfQuery(kind=kind),
    )
    opened = state.brief
    fits, against, replaces, try_url = _in_brief(catalogue, opened, part, kind)
    reviews = ""
    if part.reviews is not None and part.review_percent is not None:
        reviews = f"{part.reviews:,} reviews average {part.review_percent:g}{THIN}%"
        reviews += f", {part.reviews_from}" if part.reviews_from else ""
        reviews += f", {part.reviews_on:%-d %b %Y}" if part.reviews_on else ""
    return PartPage(
        part=part,
        kind=KIND_PLURALS[kind],
        key=kind,
        version=part_version(workshop, part_id, kind),
        list_url=kind_url(replace(state, typed={"brief": params.get("brief", "")}), kind),
        trust=judge(part),
        notes=tuple(_notes(workshop, catalogue, part)),
        picture=part_picture(part, large=True),
        picture_version=picture_version(workshop, part_id),
        reviews=reviews,
        figures=tuple(figures_of(part)),
        sources=tuple(of_sources(part)),
        offers=tuple(offer_lines(workshop, catalogue, part)),
        look_at=look_at(kind, catalogue, part_id),
        waits=tuple(_waits(catalogue, part)),
        lines=tuple(_lines(workshop, catalogue, part)),
        used_in=tuple(_used_in(workshop, part_id)),
        brief=opened,
        briefs=tuple((brief.id, brief.plan.brief.name) for brief in workshop.briefs()),
        fits=fits,
        against=against,
        replaces=replaces,
        try_url=try_url,
        in_build=opened is not None and part_id in opened.plan.build.of(kind),
        stand_in=(
            next(
                (stand_in for stand_in in opened.plan.build.stand_ins if stand_in.part == part_id),
                None,
            )
            if opened
            else None
        ),
        scaled=kind in ("processor", "graphics"),
        neighbours=tuple(_neighbours(catalogue, part, kind, opened)),
    )


def _notes(workshop: Workshop, catalogue: Catalogue, part: Part) -> Iterator[OwnNote]:
    """Of the part, then of its maker."""
    names: tuple[tuple[Subject, str], ...] = (("part", part.id), ("maker", part.maker))
    for of, name in names:
        key = record_key(of, name)
        record = catalogue.own.get(key, OwnRecord(of=of, name=name))
        yield OwnNote(record, own_version(workshop, key))


def of_sources(part: Part) -> list[str]:
    """What is only claimed, and where sources disagree, in sentences."""
    sentences = [f"Only claimed: {figure_name(part, column)}." for column in part.claimed]
    for dissent in dissents(part):
        stated = getattr(part, dissent.column)
        sentences.append(
            f"Sources disagree on {figure_name(part, dissent.column)}: {stated:g} by"
            f" {part.source or 'the catalogue'}, {dissent.value:g} by {dissent.source}."
        )
    return sentences


def _in_brief(
    catalogue: Catalogue, opened: Opened | None, part: Part, kind: Kind
) -> tuple[str, tuple[str, ...], str, str]:
    """Whether it fits the brief's build, what speaks against it, what it would replace, where it is
    tried.
    """
    if opened is None:
        return "", (), "", ""
    now = assess(catalogue, opened.plan.brief, opened.plan.build)
    standing = opened.plan.build.of(kind)
    if part.id in standing:
        return f"In the build of {now.brief.name}.", (), "", ""
    (findings,) = reasons_against(now.machine, kind, [part], wishes_of(now.brief))
    words = (
        f"Does not fit the build of {now.brief.name}:"
        if findings
        else f"Fits the build of {now.brief.name}."
    )
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    price = book.cost(part.id)
    replaces = ""
    if standing and kind != "storage":
        old = book.cost(standing[0])
        name = catalogue.parts[standing[0]].name if standing[0] in catalogue.parts else standing[0]
        replaces = f"It would replace {name}"
        if price is not None and old is not None:
            replaces += f", for {money_change(price - old, book.currency)}"
        replaces += "."
    return (
        words,
        tuple(finding.sentence for finding in findings),
        replaces,
        try_in_brief(opened, kind, part.id),
    )


def _used_in(workshop: Workshop, part_id: str) -> list[tuple[int, str, str]]:
    uses = []
    for brief in workshop.briefs():
        plan = brief.plan
        ways = []
        if part_id in plan.brief.owned:
            ways.append("owned")
        if any(present_id == part_id for _, present_id in plan.build.ids()):
            ways.append("in the build")
        if plan.pinned is not None and any(
            present_id == part_id for _, present_id in plan.pinned.ids()
        ):
            ways.append("in the pinned build")
        if ways:
            uses.append((brief.id, plan.brief.name, listed(ways)))
    return uses


def _neighbours(
    catalogue: Catalogue, part: Part, kind: Kind, opened: Opened | None
) -> list[tuple[str, str, str]]:
    """The nearest in price on either side: three cheaper, three dearer."""
    region = opened.plan.brief.region if opened else next(iter(catalogue.regions), "")
    if not region:
        return []
    book = catalogue.prices(region, NEW_PARTS if opened is None else opened.plan.brief.may_buy)
    price = book.cost(part.id)
    if price is None:
        return []
    priced = sorted(
        (cost, other.id)
        for other in catalogue.by_kind[kind]
        if other.id != part.id and (cost := book.cost(other.id)) is not None
    )
    cheaper = [row for row in priced if row[0] <= price][-3:]
    dearer = [row for row in priced if row[0] > price][:3]
    return [
        (
            f"{catalogue.parts[other].name}: {traits(catalogue.parts[other])[0]}",
            money(cost, book.currency),
            part_url(other, opened),
        )
        for cost, other in (*cheaper, *dearer)
    ]


def _lines(workshop: Workshop, catalogue: Catalogue, part: Part) -> Iterator[PriceHistory]:
    """What the part cost new in each region, where more than one day is known."""
    for region in catalogue.regions.values():
        spans = workshop.offer_spans([part.id], region.id)
        steps = price_steps(span for span in spans if not span.used)
        if len(steps) < 2:
            continue
        words = f"{line_words(steps, region.currency, part.name)}{_usual(steps, region.currency)}"
        rows = tuple(
            (f"{step.day:%-d %b %Y}", _least(step, region.currency)) for step in reversed(steps)
        )
        picture = price_line(
            steps, steps[-1].day, region.currency, words, sales=sales_of(catalogue, region.id)
        )
        today = datetime.now(UTC).date()
        wait = wait_words(workshop, catalogue, part.id, region.id, today)
        sentences = sale_words(workshop, catalogue, (kind_of(part),), region.id, today)
        yield PriceHistory(region.name, words, picture, rows, (*filter(None, [wait]), *sentences))


def _usual(steps: tuple[PriceStep, ...], currency: str) -> str:
    """What it usually costs, and how far today is from that."""
    last = steps[-1]
    usual = usual_minor(steps, last.day - USUAL_SPAN, last.day - timedelta(days=1))
    if usual is None:
        return ""
    sentence = f" Usually {money(usual, currency)}: the median of {USUAL_SPAN.days} days before."
    if last.least_minor is None or abs(last.least_minor / usual - 1) < LEAST_OFF:
        return sentence
    share = last.least_minor / usual - 1
    return (
        f"{sentence} Today {abs(share) * 100:.0f}{THIN}% {'above' if share > 0 else 'below'} that."
    )


def _least(step: PriceStep, currency: str) -> str:
    return "sold out" if step.least_minor is None else money(step.least_minor, currency)


def _waits(catalogue: Catalogue, part: Part) -> Iterator[WaitRow]:
    """Where the part is offered; a tenth less than today to begin from."""
    for region in catalogue.regions.values():
        book = catalogue.prices(region.id, NEW_PARTS)
        if book.all_of(part.id):
            price = book.cost(part.id)
            below = "" if price is None else amount(price * 9 // 1000 * 100)
            yield WaitRow(region.id, region.name, region.currency, below)
