"""A part that nobody has, in the view Buy: its price line, since when, and what comes nearest."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.price_history import OfferSpan, PriceStep, least_until, price_steps
from wattmetron.core.values.words import listed
from wattmetron.drawing.price_line import price_line
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.buy.replacements import Away, PartReplacement, away, replacements
from wattmetron.shell.address import DeskQuery, encode_build
from wattmetron.shell.pages import amount
from wattmetron.words.figures import THIN, money, money_change

LEAST_FPS = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class InsteadRow:
    """A part that could stand in the place: price, change, what it does to frames and fit, and
    where it is tried.
    """

    name: str
    price: str
    change: str
    frames: str
    fit: str
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class SoldOut:
    """The part, what is known of its being away, and the nearest others; ``below`` is the price to
    wait for.
    """

    part_id: str
    name: str
    words: str
    line: Markup
    instead: tuple[InsteadRow, ...]
    swap_url: str
    below: str


def sold_out(
    catalogue: Catalogue,
    now: Assessment,
    part_id: str,
    spans: Iterable[OfferSpan],
    query: DeskQuery,
    brief_id: int,
    today: date,
) -> SoldOut:
    (kind, *_) = [line.kind for line in now.lines if line.part_id == part_id]
    used = now.brief.may_buy.used
    of_part = [span for span in spans if span.part_id == part_id and (used or not span.used)]
    steps = price_steps(of_part)
    gone = away(steps)
    last = (gone.last_minor or least_until(of_part, gone.since)) if gone else None
    awaited = _asked(catalogue, now, part_id)
    below = last or awaited
    return SoldOut(
        part_id=part_id,
        name=catalogue.part(part_id).name,
        words=" ".join(
            (_words(gone, last, now.currency, today), *_coming(catalogue, now, part_id))
        ),
        line=_line(steps, now.currency, today) if gone else Markup(""),
        instead=tuple(
            _instead(now, replacement, query, brief_id)
            for replacement in replacements(catalogue, now, kind, part_id, last, awaited)
        ),
        swap_url=query.url(brief_id, swap=kind, place=part_id),
        below=amount(below) if below else "",
    )


def _asked(catalogue: Catalogue, now: Assessment, part_id: str) -> int:
    """What it costs where it will be had again, in minor units; 0 where nobody lists it."""
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    return next((offer.cost_minor for offer in book.all_of(part_id)), 0)


def _line(steps: tuple[PriceStep, ...], currency: str, today: date) -> Markup:
    return price_line(steps, today, currency, "What it cost, dashed while it is sold out")


def _words(gone: Away | None, last: int | None, currency: str, today: date) -> str:
    if gone is None:
        return "Nothing is known of what it cost before."
    last_price = f", last at {money(last, currency)}" if last else ""
    days = (today - gone.since).days
    since = f"since {gone.since:%-d %b %Y}, {days} days" if days else "since today"
    sentence = f"Sold out {since}{last_price}."
    if not gone.before_days:
        return f"{sentence} It was not sold out before in the time that is known."
    spells = sorted(gone.before_days)
    length = f"{spells[0]}" if spells[0] == spells[-1] else f"{spells[0]} to {spells[-1]}"
    times = "once" if len(spells) == 1 else f"{len(spells)} times"
    return f"{sentence} Before that it was sold out {times}, for {length} days."


def _coming(catalogue: Catalogue, now: Assessment, part_id: str) -> Iterator[str]:
    """Shops that say they have ordered it."""
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    shops = sorted({offer.shop for offer in book.all_of(part_id) if offer.stock == "ordered"})
    if shops:
        yield f"On its way to {listed(shops)}."


def _instead(
    now: Assessment, replacement: PartReplacement, query: DeskQuery, brief_id: int
) -> InsteadRow:
    candidate = replacement.candidate
    cost = candidate.cost_minor or 0
    forced = [part.name for part in candidate.forced]
    return InsteadRow(
        name=candidate.part.name,
        price=money(cost, now.currency) if cost else "owned",
        change=""
        if replacement.more_minor is None
        else money_change(replacement.more_minor, now.currency),
        frames=_frames(now, replacement),
        fit=f"fits with {', '.join(forced)}" if forced else "fits",
        url=query.url(brief_id, tried=encode_build(candidate.build, now.build)),
    )


def _frames(now: Assessment, replacement: PartReplacement) -> str:
    """Targets met, and the target that moves most."""
    moves = [
        (new.judged_fps - old.judged_fps, new.game.name)
        for old, new in zip(now.counted, replacement.then.counted, strict=False)
        if abs(new.judged_fps - old.judged_fps) >= LEAST_FPS
    ]
    met = f"{replacement.then.met} of {len(replacement.then.counted)} met"
    if not moves:
        return f"{met}, same frames"
    most, game = max(moves, key=lambda move: abs(move[0]))
    return f"{met}; {game} {'+' if most > 0 else '−'}{abs(most):.0f}{THIN}fps"
