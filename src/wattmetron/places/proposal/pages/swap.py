"""The swap view: candidates around the present part and what each changes."""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.words import listed
from wattmetron.drawing.part_picture import part_picture
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.pages.view_spec import ViewContext
from wattmetron.places.proposal.chips import ChipOffer, chips, compared
from wattmetron.places.proposal.part_traits import traits
from wattmetron.places.proposal.swaps import Candidate, Swap, SwapEffect, SwapQuery, swap
from wattmetron.shell.address import DeskQuery, encode_build
from wattmetron.words.figures import GAP, KIND_WORDS, THIN, money, round_money
from wattmetron.words.offer_words import offer_marks


@dataclass(frozen=True, slots=True)
class EffectView:
    """A target's rate with a candidate, its 80 % interval, and by how much it changes."""

    rate: str
    interval: str
    change: str
    state: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class CandidateView:
    """One line of the table."""

    id: str
    name: str
    price: str
    change: str
    seen: str
    speed: str
    size: str
    effects: tuple[EffectView, ...]
    findings: tuple[tuple[str, str], ...]
    present: bool
    tried: bool
    url: str
    forced: str
    again: bool
    picture: Markup


@dataclass(frozen=True, slots=True, kw_only=True)
class ChipView:
    """A chip at its cheapest card: what it draws of each target by itself, the processor that it
    would take, the whole machine around it, how it stands to the cheaper one before it.
    """

    id: str
    name: str
    card: str
    price: str
    per_frame: str
    seen: str
    alone: tuple[tuple[str, bool | None], ...]
    memory: str
    short: bool
    processor: str
    total: str
    met: str
    inside: bool
    whole_url: str
    url: str
    compared: str
    present: bool
    others: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class ChipsView:
    """Graphics by chip, from where targets are met within the money; what is cheaper stands folded
    before, what is dearer behind.
    """

    heads: tuple[tuple[str, str], ...]
    rows: tuple[ChipView, ...]
    before: tuple[ChipView, ...]
    after: tuple[ChipView, ...]
    present: bool
    cards_url: str
    close_url: str
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class SwapView:
    """The table with its heads and switches."""

    kind: Kind
    word: str
    present: str | None
    heads: tuple[tuple[str, str], ...]
    rows: tuple[CandidateView, ...]
    hidden: str
    all_url: str
    unfit: int
    unfit_url: str
    close_url: str
    search: str
    search_url: str
    place: str | None
    again_url: str
    again_first: bool


def swap_view(
    now: Assessment,
    swap: Swap,
    query: DeskQuery,
    brief_id: int,
    tried_id: str | None,
    names: dict[str, str],
    marked: bool,
) -> SwapView:
    """The swap view of one place; ``marked``: there are parts that one would buy again."""
    heads = tuple((names.get(t.game_id, t.game_id), f"{t.fps:g}") for t in now.brief.targets)
    hidden = [
        f"{n} {word}"
        for n, word in ((swap.cheaper_hidden, "cheaper"), (swap.dearer_hidden, "dearer"))
        if n
    ]
    return SwapView(
        kind=swap.kind,
        word=KIND_WORDS[swap.kind],
        present=swap.present,
        heads=heads,
        rows=tuple(
            _candidate(now, candidate, query, brief_id, tried_id) for candidate in swap.candidates
        ),
        hidden=f"{' and '.join(hidden)} not shown" if hidden else "",
        all_url=query.url(brief_id, everything=True, tried=None),
        unfit=swap.unfit_hidden,
        unfit_url=query.url(brief_id, unfit=True, everything=True, tried=None),
        again_url=query.url(brief_id, again=not query.again, tried=None) if marked else "",
        again_first=query.again,
        close_url=query.url(
            brief_id,
            swap=None,
            place=None,
            tried=None,
            everything=False,
            unfit=False,
            again=False,
            search="",
        ),
        search=query.search,
        search_url=f"/briefs/{brief_id}/{query.view}",
        place=query.place,
    )


def _candidate(
    now: Assessment, candidate: Candidate, query: DeskQuery, brief_id: int, tried_id: str | None
) -> CandidateView:
    speed, size = traits(candidate.part)
    if candidate.owned:
        price, seen = "owned", ""
    elif candidate.offer is None:
        price, seen = "no offer", ""
    else:
        marks = "".join(f", {offer_mark}" for offer_mark in offer_marks(candidate.offer))
        price = money(candidate.offer.cost_minor, now.currency)
        stale = ", stale" if candidate.stale else ""
        seen = f"{candidate.offer.shop}, {candidate.offer.seen_on:%-d %b}{marks}{stale}"
    change = ""
    if not candidate.present and candidate.change_minor:
        sign = "+" if candidate.change_minor > 0 else "−"
        change = f"{sign}{round_money(abs(candidate.change_minor), now.currency).split(GAP)[-1]}"
    grave: tuple[tuple[str, str], ...] = tuple(
        (f.level, f.sentence)
        for f in candidate.findings
        if f.level != "good to know" and query.swap in f.kinds
    )
    grave += tuple(("below the brief", sentence) for sentence in candidate.floors)
    return CandidateView(
        id=candidate.part.id,
        name=candidate.part.name,
        price=price,
        change=change,
        seen=seen,
        speed=speed,
        size=size,
        effects=tuple(_effect(effect) for effect in candidate.effects),
        findings=grave,
        forced=_forced(candidate, now),
        again=candidate.part.again,
        picture=part_picture(candidate.part),
        present=candidate.present,
        tried=candidate.part.id == tried_id,
        url=query.url(
            brief_id, tried=None if candidate.present else encode_build(candidate.build, now.build)
        ),
    )


def _forced(candidate: Candidate, now: Assessment) -> str:
    """What comes with a candidate, and what the whole move costs."""
    if not candidate.forced or candidate.change_minor is None:
        return ""
    delta = money(abs(candidate.change_minor), now.currency)
    more = "more" if candidate.change_minor >= 0 else "less"
    return f"with {listed([part.name for part in candidate.forced])}: {delta} {more} in all"


def _effect(effect: SwapEffect) -> EffectView:
    rate = "–" if effect.fps is None else f"{effect.fps:.0f}"
    change = ""
    if effect.change_fps is not None and abs(effect.change_fps) >= 0.5:
        change = f"{'+' if effect.change_fps > 0 else '−'}{abs(effect.change_fps):.0f}"
    interval = "" if effect.interval_fps is None else "{:.0f}–{:.0f}".format(*effect.interval_fps)
    return EffectView(rate, interval, change, effect.state)


NEIGHBOURS_BEFORE, SHOWN_CHIPS = 2, 8


def chips_view(
    catalogue: Catalogue, now: Assessment, query: DeskQuery, brief_id: int, names: dict[str, str]
) -> ChipsView:
    """The chooser of graphics by chip."""
    chip_rows = chips(catalogue, now)
    rows = [
        _chip(catalogue, now, chip, chip_rows[n - 1] if n else None, query, brief_id)
        for n, chip in enumerate(chip_rows)
    ]
    most = max((chip.met for chip in chip_rows), default=0)
    first = next((n for n, chip in enumerate(chip_rows) if chip.met == most), 0) if most else 0
    start = max(0, first - NEIGHBOURS_BEFORE)
    counted = now.brief.counted_targets
    words = (
        "Nothing in the budget meets a target."
        if not most
        else (
            f"{chip_rows[first].name} is the cheapest chip with which the budget meets {most} of"
            f" {len(counted)} targets."
        )
    )
    if not counted:
        words = "Without targets only prices can be compared: add a game to the brief."
    return ChipsView(
        heads=tuple((names.get(t.game_id, t.game_id), f"{t.fps:g}") for t in counted),
        rows=tuple(rows[start : start + SHOWN_CHIPS]),
        before=tuple(rows[:start]),
        after=tuple(rows[start + SHOWN_CHIPS :]),
        present=bool(now.build.graphics),
        cards_url=query.url(brief_id, cards=True, tried=None),
        close_url=query.url(brief_id, swap=None, place=None, tried=None),
        words=words,
    )


def _chip(
    catalogue: Catalogue,
    now: Assessment,
    chip: ChipOffer,
    before: ChipOffer | None,
    query: DeskQuery,
    brief_id: int,
) -> ChipView:
    currency, around, card = now.currency, chip.around, chip.card

    def trial(part_id: str) -> str:
        build = now.build.with_part("graphics", part_id, now.build.graphics)
        return query.url(brief_id, tried=encode_build(build, now.build), pair=None, propose=None)

    more = ""
    if before is not None:
        delta = chip.offer.cost_minor - before.offer.cost_minor
        more = compared(chip, before, money(delta, currency))
    counted = len(now.brief.counted_targets)
    meets = around.meets if around else (None,) * len(chip.alone_fps)
    return ChipView(
        id=card.id,
        name=chip.name,
        card=card.name,
        price=money(chip.offer.cost_minor, currency),
        per_frame=_per_frame(chip, currency),
        seen=f"{chip.offer.shop}, {chip.offer.seen_on:%-d %b}",
        alone=tuple(
            (f"{fps:.0f}" if fps else "–", met)
            for fps, met in zip(chip.alone_fps, meets, strict=True)
        ),
        memory=f"{chip.short_gb:.1f}{THIN}GB of video memory short" if chip.short_gb else "",
        short=bool(chip.short_gb),
        processor=catalogue.part(around.processor_id).name if around else "",
        total=money(around.cost_minor, currency) if around else "",
        met=f"{around.met} of {counted}" if around else "nothing fits",
        inside=bool(around and around.inside),
        whole_url=(
            query.url(brief_id, pair=f"{around.processor_id}:{card.id}", tried=None, propose=None)
            if around
            else ""
        ),
        url=trial(card.id),
        compared=more,
        present=now.build.graphics in (card.id, *(other.id for other, _ in chip.others)),
        others=tuple(
            (other.name, money(offer.cost_minor, currency), trial(other.id))
            for other, offer in chip.others
        ),
    )


def _per_frame(chip: ChipOffer, currency: str) -> str:
    """The card's price by the frames that it draws on average."""
    if not chip.mean_fps:
        return ""
    return f"{money(round(chip.offer.cost_minor / chip.mean_fps), currency)} a frame"


def chips_panel(context: ViewContext) -> ChipsView | None:
    """Graphics by chip, where they are swapped and single cards are not asked for."""
    if not _by_chip(context.query):
        return None
    return chips_view(
        context.catalogue, context.present, context.query, context.opened.id, context.game_names
    )


def swap_panel(context: ViewContext, tried: Build | None) -> SwapView | None:
    """What could stand in the place that the address names."""
    query, present = context.query, context.present
    if query.swap is None or _by_chip(query):
        return None
    standing = present.build.of(query.swap)
    part_id = query.place if query.place in standing else None
    if part_id is None and standing and query.swap != "storage":
        part_id = standing[0]
    new = [] if tried is None else [text for text in tried.of(query.swap) if text not in standing]
    tried_id = new[-1] if new else None
    swap_query = SwapQuery(
        kind=query.swap,
        present=part_id,
        everything=query.everything,
        search=query.search,
        with_unfit=query.unfit,
        again_first=query.again,
        also=tried_id,
    )
    offered = swap(context.catalogue, present, swap_query)
    placed = query.model_copy(update={"place": part_id})
    marked = any(part.again for part in context.catalogue.by_kind[query.swap])
    return swap_view(
        present, offered, placed, context.opened.id, tried_id, context.game_names, marked
    )


def _by_chip(query: DeskQuery) -> bool:
    """Whether graphics are chosen by chip: unless single cards are asked for."""
    single = (
        query.cards or query.everything or query.unfit or query.again or query.search or query.tried
    )
    return query.swap == "graphics" and not single
