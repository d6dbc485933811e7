"""The swap view: candidates around the present part and what each changes."""

from dataclasses import dataclass

from wattmetron.core.values.parts import Kind
from wattmetron.services.desk.assess import Assessment
from wattmetron.services.desk.swaps import Candidate, Effect, Swap, traits
from wattmetron.services.words.figures import GAP, KIND_WORDS, money, round_money
from wattmetron.web.shell.address import DeskQuery, encode_build


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


def swap_view(
    now: Assessment,
    swap: Swap,
    query: DeskQuery,
    brief_id: int,
    tried_id: str | None,
    names: dict[str, str],
) -> SwapView:
    """The swap view of one place."""
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
        close_url=query.url(
            brief_id, swap=None, place=None, tried=None, everything=False, unfit=False, search=""
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
        used = ", used" if candidate.offer.condition == "used" else ""
        price = money(candidate.offer.delivered_minor, now.currency)
        stale = ", stale" if candidate.stale else ""
        seen = f"{candidate.offer.shop}, {candidate.offer.seen_on:%-d %b}{used}{stale}"
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
        present=candidate.present,
        tried=candidate.part.id == tried_id,
        url=query.url(
            brief_id, tried=None if candidate.present else encode_build(candidate.build, now.build)
        ),
    )


def _effect(effect: Effect) -> EffectView:
    rate = "–" if effect.fps is None else f"{effect.fps:.0f}"
    change = ""
    if effect.change_fps is not None and abs(effect.change_fps) >= 0.5:
        change = f"{'+' if effect.change_fps > 0 else '−'}{abs(effect.change_fps):.0f}"
    interval = "" if effect.interval_fps is None else "{:.0f}–{:.0f}".format(*effect.interval_fps)
    return EffectView(rate, interval, change, effect.state)
