"""The build beside every view: rows by side, what is spent, left and still to come."""

from dataclasses import dataclass, replace

from markupsafe import Markup

from wattmetron.core.compatibility.extras import has_wireless
from wattmetron.core.values.build import MAX_KITS
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KINDS, Kind
from wattmetron.core.values.words import listed, with_article
from wattmetron.drawing.part_picture import part_picture
from wattmetron.places.assessment.assess import Assessment, CostLine, Remaining
from wattmetron.places.proposal.part_traits import traits
from wattmetron.shell.address import DeskQuery
from wattmetron.shell.pages import amount
from wattmetron.words.drive_words import role_words
from wattmetron.words.figures import KIND_WORDS, money
from wattmetron.words.offer_words import offer_marks

NO_PICTURE = Markup()
SIDES: tuple[tuple[str, str, tuple[Kind, ...]], ...] = (
    ("Processor side", "c-hue", ("processor", "cooler", "mainboard", "memory")),
    ("Graphics side", "g-hue", ("graphics", "supply", "case")),
    ("Rest", "", ("storage", *FURTHER_KINDS)),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildRow:
    """A part in its place, or an empty place."""

    kind: Kind
    word: str
    part_id: str | None
    name: str
    meta: str
    price: str
    swap_url: str
    is_kept: bool
    owned: bool
    changed: bool
    last_drive: bool = False
    key: str = ""
    another_url: str = ""
    until: str = ""
    resale: str = ""
    later: bool = False
    picture: Markup = NO_PICTURE


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildView:
    """All rows by side, and the sums."""

    groups: tuple[tuple[str, str, tuple[BuildRow, ...]], ...]
    total: str
    extras: str
    left: str
    over: bool
    coming: str
    coming_over: bool
    fill_try: str | None
    empty: bool


def build_view(
    now: Assessment,
    ghost: Assessment | None,
    remaining: Remaining | None,
    query: DeskQuery,
    brief_id: int,
    fill_try: str | None,
) -> BuildView:
    """The build panel."""
    before = set() if ghost is None else {part_id for _, part_id in ghost.build.ids()}
    groups = []
    for title, hue, kinds in SIDES:
        rows: list[BuildRow] = []
        for kind in kinds:
            lines = [line for line in now.lines if line.kind == kind]
            build_rows = [
                _row(now, line, query, brief_id, ghost is not None and line.part_id not in before)
                for line in lines
            ]
            build_rows = [
                replace(row, key=f"{kind}-{row.part_id}" + (f"-{n}" if n else ""))
                for n, row in enumerate(build_rows)
            ]
            rows += [
                *build_rows[:-1],
                *(
                    replace(
                        row,
                        last_drive=kind == "storage",
                        another_url=_another(now, kind, query, brief_id),
                    )
                    for row in build_rows[-1:]
                ),
            ]
            if not lines and (kind in KINDS or _wanted(now, kind)):
                rows.append(_empty(now, kind, query, brief_id))
        groups.append((title, hue, tuple(rows)))
    coming, coming_over = _coming(now, remaining)
    over = now.left_minor < 0
    return BuildView(
        groups=tuple(groups),
        total=money(now.spent_minor, now.currency),
        extras="; ".join(_besides(now)),
        left=(
            f"over by {money(-now.left_minor, now.currency)}"
            if over
            else f"left {money(now.left_minor, now.currency)}"
        ),
        over=over,
        coming=coming,
        coming_over=coming_over,
        fill_try=fill_try,
        empty=now.build.empty,
    )


def _row(
    now: Assessment, line: CostLine, query: DeskQuery, brief_id: int, changed: bool
) -> BuildRow:
    url = query.url(
        brief_id,
        swap=line.kind,
        place=line.part_id,
        everything=False,
        search="",
        propose=None,
        working=None,
    )
    if line.owned:
        stays = line.part_id in now.brief.stays
        price, meta = "owned", "costs nothing" + ("; stays" if stays else "")
    elif line.offer is None:
        price, meta = "no offer", f"not sold in {now.brief.region} today: price unknown"
    else:
        price = money(line.offer.cost_minor, now.currency)
        marks = "".join(f", {offer_mark}" for offer_mark in offer_marks(line.offer))
        stale = ", stale" if line.stale else ""
        outside = ", not in the budget" if line.outside else ""
        meta = f"{line.offer.shop}, {_day(line.offer.seen_on)}{marks}{stale}{outside}"
    name = line.part.name if line.part else f"{line.part_id} (no longer in the catalogue)"
    if line.part:
        meta = " · ".join(filter(None, [traits(line.part)[0], role_words(line.roles), meta]))
    if line.later:
        price, meta = f"later, {price}", f"not in the total · {meta}"
    if line.stand_in:
        back = (
            f", then perhaps {money(line.stand_in.resale_minor, now.currency)} back"
            if line.stand_in.resale_minor
            else ""
        )
        meta = f"stand-in until {line.stand_in.until:%-d %b %Y}{back} · {meta}"
    return BuildRow(
        kind=line.kind,
        word=KIND_WORDS[line.kind],
        part_id=line.part_id,
        name=name,
        meta=meta,
        price=price,
        swap_url=url,
        is_kept=line.is_kept,
        owned=line.owned,
        changed=changed,
        until=line.stand_in.until.isoformat() if line.stand_in else "",
        resale=amount(line.stand_in.resale_minor) if line.stand_in else "",
        later=line.later,
        picture=part_picture(line.part) if line.part else NO_PICTURE,
    )


def _wanted(now: Assessment, kind: Kind) -> bool:
    """Whether the brief wants a further kind and nothing brings it."""
    if kind == "wireless":
        return now.brief.wireless and not has_wireless(now.machine)
    return kind in now.brief.buys


def _besides(now: Assessment) -> list[str]:
    """What is in the total besides parts, and what may come back of it."""
    extras = now.brief.extras_minor
    sentences = [f"with {money(extras, now.currency)} for extras"] if extras else []
    if now.risk_minor:
        sentences.append(f"of it {money(now.risk_minor, now.currency)} for the risk of used parts")
    if now.later_minor:
        sentences.append(f"{money(now.later_minor, now.currency)} more for what is bought later")
    if now.sold_minor:
        sentences.append(f"less {money(now.sold_minor, now.currency)} for owned parts left over")
    if now.back_minor:
        sentences.append(f"stand-ins may bring back {money(now.back_minor, now.currency)}, a guess")
    return sentences


def _another(now: Assessment, kind: Kind, query: DeskQuery, brief_id: int) -> str:
    """The address that tries another kit like the last one, or a second card, where slots are
    free.
    """
    if kind == "graphics":
        return _second_card(now, query, brief_id)
    kits, board = now.build.of("memory"), now.machine.mainboard
    if kind != "memory" or board is None or now.machine.memory is None or len(kits) >= MAX_KITS:
        return ""
    last = now.machine.of("memory")[-1]
    if not isinstance(last, Memory) or now.machine.memory.sticks + last.sticks > board.memory_slots:
        return ""
    return query.url(
        brief_id,
        tried=f"memory:{' '.join((*kits, kits[-1]))}",
        swap=None,
        propose=None,
        working=None,
    )


def _second_card(now: Assessment, query: DeskQuery, brief_id: int) -> str:
    board, cards = now.machine.mainboard, now.build.of("graphics")
    if board is None or (board.card_slots or 0) < 2 or len(cards) != 1:
        return ""
    return query.url(
        brief_id, tried=f"graphics:{cards[0]} {cards[0]}", swap=None, propose=None, working=None
    )


def _empty(now: Assessment, kind: Kind, query: DeskQuery, brief_id: int) -> BuildRow:
    url = query.url(
        brief_id, swap=kind, place=None, everything=False, search="", propose=None, working=None
    )
    needed = kind in now.missing
    meta = "missing"
    if kind == "cooler" and not needed:
        meta = "the boxed one suffices"
    elif kind == "graphics" and not needed:
        meta = "integrated graphics draw"
    elif kind in FURTHER_KINDS:
        meta = "the brief wants it"
    return BuildRow(
        kind=kind,
        word=KIND_WORDS[kind],
        part_id=None,
        name=f"choose {with_article(KIND_WORDS[kind])}",
        meta=meta,
        price="",
        swap_url=url,
        is_kept=False,
        owned=False,
        changed=False,
    )


def _coming(now: Assessment, remaining: Remaining | None) -> tuple[str, bool]:
    if remaining is None:
        return "", False
    names = listed([KIND_WORDS[kind] for kind in remaining.kinds])
    if remaining.least_minor is None:
        return (
            f"No {names} on sale fits what is chosen: free a part or change the brief's rules.",
            True,
        )
    verb = "costs" if len(remaining.kinds) == 1 else "cost"
    least = money(remaining.least_minor, now.currency)
    return (
        f"{names[:1].upper()}{names[1:]} that fit {verb} at least {least}.".replace(
            "that fit costs", "that fits costs"
        ),
        remaining.least_minor > now.left_minor,
    )


def _day(day: object) -> str:
    return f"{day:%-d %b}"
