"""The Balance view: split, account, what limits, pairings, frontier, next money, money that buys no frames, price limits."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import exp

from wattmetron.core.balance.cuts import Cut
from wattmetron.core.balance.pairs import PairsMap
from wattmetron.core.balance.search import BAND
from wattmetron.core.briefs import Build
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.parts import FURTHER_KINDS, Kind, Part, trust_of
from wattmetron.services.assess import Assessment, assess
from wattmetron.services.balance import (
    More,
    Tables,
    bought_for_years,
    cuts_of,
    idle_money,
    map_of,
    more_money,
    split_of,
    tables,
    trimmed,
)
from wattmetron.services.balance_words import account, limit_rows, side_money
from wattmetron.services.preferences import preference_lines
from wattmetron.services.price_limits import SIDES, PriceLimits, price_limits
from wattmetron.services.swaps import traits
from wattmetron.services.words import KIND_WORDS, THIN, listed, money, money_change, percent
from wattmetron.web.views.balance_frontier import FrontierView, frontier_view
from wattmetron.web.views.balance_map import MapView, pairings_view
from wattmetron.web.views.balance_picture import PictureView, picture_view
from wattmetron.web.views.query import DeskQuery, Link
from wattmetron.web.views.suppositions import (
    SupposedRow,
    announced_row,
    elsewhere_row,
    supposed_rows,
    wishes_rows,
    years_rows,
)

ALIKE_COST = 0.02
MOST_ALIKE = 4


@dataclass(frozen=True, slots=True)
class SplitRow:
    """One side's money with its share of the whole, and what it consists of."""

    name: str
    fill: str
    amount: str
    share: str
    wide: float
    words: str


@dataclass(frozen=True, slots=True)
class MoreRow:
    """What so much more or less buys."""

    change: str
    cost: str
    met: str
    effects: str
    swaps: str
    url: str
    nothing: str


@dataclass(frozen=True, slots=True)
class IdleRow:
    """A part with the cheapest one that costs no frames."""

    kind: str
    now: str
    instead: str
    saves: str
    gives_up: str
    url: str


@dataclass(frozen=True)
class BalanceView:
    """Everything that the Balance view shows; ``subject`` says which build its figures are of."""

    subject: str
    proposal: tuple[str, str]
    account: tuple[str, ...]
    split: tuple[SplitRow, ...]
    limits: tuple[tuple[str, ...], ...]
    limit_map: tuple[tuple[str, tuple[tuple[str, str], ...]], ...]
    resolutions: tuple[str, ...]
    map: MapView
    picture: PictureView | None
    ask_picture: str
    frontier: FrontierView | None
    more: tuple[MoreRow, ...]
    idle: tuple[IdleRow, ...]
    idle_words: str
    for_years: tuple[str, ...]
    side_money: str
    trim: tuple[str, str]
    cuts: tuple[IdleRow, ...]
    alike: tuple[tuple[str, str], ...]
    left: str
    prices: PriceLimits | None
    ask_prices: str
    wishes: tuple[tuple[str, str, str, str], ...] | None
    ask_wishes: str
    preferences: tuple[str, ...]
    supposed: tuple[SupposedRow, ...] | None
    ask_supposed: str
    announced: tuple[SupposedRow | None, str]
    elsewhere: tuple[SupposedRow | None, str]
    regions: tuple[tuple[str, str], ...]
    likes: tuple[tuple[str, str], ...]
    steps_url: str
    years: tuple[tuple[str, str, str, str, str, str], ...]
    years_words: str


def balance_view(catalogue: Catalogue, now: Assessment, tried: Assessment | None, link: Link, trial: Callable[[Build], str], asked: DeskQuery, steps_url: str) -> BalanceView:
    """Compute the view; where the build is not whole it is of the proposal instead. What is tried is marked."""
    found = tables(catalogue, now.brief, now.build)
    step = found.answer(found.budget)
    answer = None if step is None else assess(catalogue, now.brief, found.build_at(step))
    subject = now if not now.missing or answer is None else answer
    free = idle_money(catalogue, subject)
    shown = tuple(part for one in (now, answer, tried) if one for part in one.machine.parts())
    pairs = map_of(found, shown)
    more = more_money(found, subject)
    limits = limit_rows(catalogue, subject)
    return BalanceView(
        "this build" if subject is now else "the proposal, for the build is not whole",
        _proposal(now, answer, trial),
        account(found, subject, answer, pairs, more, free),
        _split(catalogue, subject),
        limits.rows,
        limits.by_resolution,
        limits.resolutions,
        pairings_view(found, pairs, subject, tried, link),
        picture_view(found, subject, tried, link) if asked.every else None,
        link(every=True),
        frontier_view(found, subject, tried, link),
        tuple(_more(one, answer, subject, trial) for one in more),
        tuple(_idle(catalogue, subject, kind, cut, trial) for kind, cut in sorted(free.items(), key=lambda one: -one[1].saves_minor)),
        _idle_words(free, subject),
        tuple(_for_years(catalogue, subject)),
        side_money(catalogue, subject),
        _trim(catalogue, subject, trial),
        tuple(_cuts(catalogue, subject, trial)),
        tuple(_alike(found, pairs, answer, link)),
        _left(catalogue, subject),
        price_limits(found) if asked.limits else None,
        link(limits=True),
        tuple(wishes_rows(catalogue, now)) if asked.wishes else None,
        link(wishes=True),
        tuple(preference_lines(now.brief, found.preferences, now.currency)),
        tuple(supposed_rows(catalogue, now, trial)) if asked.suppose else None,
        link(suppose=True),
        announced_row(catalogue, now, asked),
        elsewhere_row(catalogue, now, asked),
        tuple((one.id, f"{one.name} ({one.currency})") for one in catalogue.regions.values() if one.id != now.brief.region),
        tuple((part.id, part.name) for kind in SIDES for part in catalogue.by_kind[kind] if asked.suppose),
        steps_url,
        tuple(years_rows(catalogue, subject)),
        f"Assumed: the games ask for {now.brief.growth_percent:g}{THIN}% more of both sides each year. Alone: targets that a side reaches on average with the other out of the way. The next step is the cheapest, at today's prices, that meets again what is met today; all other parts stay.",
    )


def _proposal(now: Assessment, answer: Assessment | None, trial: Callable[[Build], str]) -> tuple[str, str]:
    """What the aim answers for this budget, against the build, with its address; no address where it is the build."""
    if answer is None:
        return "No fitting build within the budget: Propose says what stands in the way.", ""
    if all(answer.build.of(kind) == now.build.of(kind) for kind in KIND_WORDS):
        return "This build is what the aim of most frames answers for the budget.", ""
    met = f"meets {answer.met} of {len(answer.counted)}" if answer.counted else "fits"
    delta = money_change(answer.spent_minor - now.spent_minor, now.currency)
    than = "" if now.missing else f": {'as much as' if delta == 'the same' else f'{delta} than'} this one" + (f", which meets {now.met}" if now.counted else "")
    return f"For this budget the best build {met} for {money(answer.spent_minor, answer.currency)}{than}.", trial(answer.build)


def _split(catalogue: Catalogue, subject: Assessment) -> tuple[SplitRow, ...]:
    found = split_of(catalogue, subject)
    if found is None or not found.total_minor:
        return ()
    rows: list[tuple[str, str, int, str]] = []
    for name, side, fill, words in (
        ("Processor side", found.processor, "hatch", "processor and cooler"),
        ("Graphics side", found.graphics, "dots", "card"),
    ):
        if side is None:
            continue
        forced = money(abs(side.forced_minor), subject.currency)
        said = f"{words} {money(side.own_minor, subject.currency)}, and it {'forces' if side.forced_minor >= 0 else 'spares'} {forced} elsewhere"
        rows.append((name, fill, side.total_minor, said))
    rows.append(("Rest", "", found.rest_minor, "what any such machine needs"))
    return tuple(
        SplitRow(name, fill, money(minor, subject.currency), percent(minor / found.total_minor), max(0.0, round(100 * minor / found.total_minor, 2)), said)
        for name, fill, minor, said in rows
    )


def _more(one: More, answer: Assessment | None, subject: Assessment, trial: Callable[[Build], str]) -> MoreRow:
    change, then, changed = one.change_minor, one.assessment, one.changed
    label = f"{money(abs(change), subject.currency)} {'more' if change > 0 else 'less'}"
    if then is None:
        return MoreRow(label, "", "", "", "", "", "nothing fits")
    if not changed:
        return MoreRow(label, money(then.spent_minor, subject.currency), f"{then.met} of {len(then.counted)}", "", "", "", "the same build")
    effects = []
    for before, after in zip(subject.counted, then.counted, strict=True):
        share = after.judged_fps / before.judged_fps - 1 if before.judged_fps else 0.0
        if abs(share) >= 0.01:
            effects.append(f"{before.game.name} {'+' if share > 0 else '−'}{abs(share):.0%}".replace("%", f"{THIN}%"))
    swaps = [part.name for kind in changed for part in then.machine.of(kind)]
    if answer is not None and then.build == answer.build:
        effects = ["the same as this budget buys"]
    return MoreRow(
        label,
        money(then.spent_minor, subject.currency),
        f"{then.met} of {len(then.counted)}",
        ", ".join(effects) or "the same frames",
        listed(swaps) or "a part less",
        trial(then.build),
        "",
    )


def _idle(catalogue: Catalogue, subject: Assessment, kind: Kind, cut: Cut, trial: Callable[[Build], str]) -> IdleRow:
    old = catalogue.part(cut.instead_of)
    return IdleRow(KIND_WORDS[kind], old.name, cut.part.name, money(cut.saves_minor, subject.currency), _gives_up(old, cut.part), trial(cut.build))


def _gives_up(old: Part, new: Part) -> str:
    """What was perhaps bought on purpose: trust, warranty, noise, and the figures that differ."""
    said = []
    if trust_of(old) != trust_of(new):
        said.append(f"{trust_of(old)} becomes {trust_of(new)}")
    if old.warranty_years and old.warranty_years != new.warranty_years:
        said.append(f"warranty {old.warranty_years:g} to {new.warranty_years or 0:g} years")
    before, after = (getattr(one, "noise_dba", None) for one in (old, new))
    if before is not None and after is not None and before != after:
        said.append(f"{before:g} to {after:g} dB(A)")
    had, has = ("; ".join(filter(None, traits(one))) for one in (old, new))
    if had != has:
        said.append(f"{had} becomes {has}")
    return "; ".join(said) or "nothing that is known"


def _idle_words(free: dict[Kind, Cut], subject: Assessment) -> str:
    if subject.missing or not subject.counted:
        return "Said of a whole build with targets."
    if not free:
        return "Every part here buys frames, or the cheapest that fits stands already."
    return "One swap at a time, everything else kept; no target falls by 2 % or into a worse state. What it gives up may have been bought on purpose."


def _for_years(catalogue: Catalogue, subject: Assessment) -> Iterator[str]:
    """Money that buys no frames today but is not called waste, for it carries targets in the years to keep."""
    for kind, (cut, mine, other) in bought_for_years(catalogue, subject).items():
        saves = money(cut.saves_minor, subject.currency)
        old, years = catalogue.part(cut.instead_of).name, f"{subject.brief.years} {'year' if subject.brief.years == 1 else 'years'}"
        yield f"Bought for the years: {cut.part.name} would free {saves} today, but in {years} the {KIND_WORDS[kind]} alone carries {other} of {len(subject.counted)} targets with it, {mine} with {old}."


def _cuts(catalogue: Catalogue, subject: Assessment, trial: Callable[[Build], str]) -> Iterator[IdleRow]:
    """While the build is over the budget: for each kind the cut that loses least per unit of money."""
    if subject.left_minor >= 0:
        return
    weights = tuple(one.target.weight for one in subject.counted)
    best: dict[Kind, Cut] = {}
    for one in cuts_of(catalogue, subject):
        rate = one.loss(weights) / one.saves_minor
        if one.kind not in best or rate < best[one.kind].loss(weights) / best[one.kind].saves_minor:
            best[one.kind] = one
    for kind, cut in sorted(best.items(), key=lambda one: one[1].loss(weights) / one[1].saves_minor):
        lost = 1 - exp(-cut.loss(weights))
        words = "no frames" if lost < 0.0005 else f"{100 * lost:.1f}{THIN}% of the frames"
        yield IdleRow(KIND_WORDS[kind], catalogue.part(cut.instead_of).name, cut.part.name, money(cut.saves_minor, subject.currency), words, trial(cut.build))


def _alike(found: Tables, pairs: PairsMap, answer: Assessment | None, link: Link) -> Iterator[tuple[str, str]]:
    """Other pairings as good as the answer: as much weight met, U within the band, and no more than 2 % dearer."""
    if answer is None:
        return
    step = found.answer(found.budget)
    assert step is not None
    pool = found.frontier.scenes[0].pool
    good = [
        (cell.winner.cost, c, g)
        for (c, g), cell in pairs.cells.items()
        if cell.inside and cell.winner.rank >= step.rank - BAND and cell.winner.cost <= step.cost * (1 + ALIKE_COST)
    ]
    for cost, c, g in sorted(good, key=lambda one: (one[0], one[1], one[2] or -1))[:MOST_ALIKE]:
        chip, card = pool.processors.parts[c], None if g is None else pool.cards.parts[g]
        if (chip.id, card.id if card else "") != (answer.build.processor, answer.build.graphics or ""):
            words = f"{chip.name} with {card.name if card else 'integrated graphics'}, {money(cost + found.besides, answer.currency)}"
            yield words, link(pair=f"{chip.id}:{card.id if card else ''}", tried=None)


def _left(catalogue: Catalogue, subject: Assessment) -> str:
    """What the money that is left would buy outside the machine: of each further kind the dearest that it pays."""
    if subject.left_minor <= 0 or subject.missing:
        return ""
    book = catalogue.prices(subject.brief.region, subject.brief.allow_used)
    said = []
    for kind in FURTHER_KINDS:
        priced = [(price, part.name) for part in catalogue.by_kind[kind] if (price := book.delivered(part.id)) is not None and price <= subject.left_minor]
        if priced and not subject.build.of(kind):
            price, name = max(priced)
            said.append(f"{name} ({money(price, subject.currency)})")
    return f"{money(subject.left_minor, subject.currency)} is left: outside the machine it would pay for {', '.join(said[:-1]) + ' or ' if len(said) > 1 else ''}{said[-1]}." if said else ""


def _trim(catalogue: Catalogue, subject: Assessment, trial: Callable[[Build], str]) -> tuple[str, str]:
    over = -subject.left_minor
    if over <= 0 or not cuts_of(catalogue, subject):
        return "", ""
    made = trimmed(catalogue, subject, over)
    if not made:
        return "", ""
    names = listed([f"{one.part.name} ({money(one.saves_minor, subject.currency)})" for one in made])
    then = assess(catalogue, subject.brief, made[-1].build)
    return f"{money(over, subject.currency)} over the budget. The cuts of least loss: {names}; then {then.met} of {len(then.counted)} targets are met.", trial(made[-1].build)
