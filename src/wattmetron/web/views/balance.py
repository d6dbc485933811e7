"""The Balance view: split, account, what limits, pairings, frontier, next money, money that buys no frames, price limits."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import exp, log

from markupsafe import Markup

from wattmetron.core.balance.cuts import Cut
from wattmetron.core.balance.pairs import Cell, PairsMap
from wattmetron.core.balance.search import BAND
from wattmetron.core.briefs import Build
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.money import to_minor
from wattmetron.core.parts import FURTHER_KINDS, Kind, Part, trust_of
from wattmetron.services.assess import Assessment, assess
from wattmetron.services.balance import (
    More,
    Tables,
    cuts_of,
    idle_money,
    map_of,
    more_money,
    split_of,
    tables,
    trimmed,
)
from wattmetron.services.balance_words import account, limit_rows
from wattmetron.services.price_limits import SIDES, PriceLimits, price_limits
from wattmetron.services.swaps import traits
from wattmetron.services.what_if import announced, what_if
from wattmetron.services.wish_costs import wish_costs
from wattmetron.services.wish_words import wish_words
from wattmetron.services.words import KIND_WORDS, THIN, listed, money, money_change, percent
from wattmetron.services.years import years_kept
from wattmetron.web.charts import frontier as chart
from wattmetron.web.views.query import DeskQuery

LESS = 0.02
LEFT_END = 0.4
"""Where the axis of the frontier begins, as a share of the budget."""
MOST_MARKS = 40
BEST_ON_NARROW = 12
MOST_ALIKE = 4
ALIKE = 0.1


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
class CellView:
    """A pairing: targets met, edges of the sides that limit, whether it is within the budget, where that ends."""

    met: str
    edges: str
    inside: bool
    border: str
    own: bool
    tried: bool
    url: str
    title: str


@dataclass(frozen=True, slots=True)
class MapView:
    """The map: cards across with full names, processors down each with its cells (None where nothing fits)."""

    cards: tuple[tuple[str, str], ...]
    rows: tuple[tuple[str, str, tuple[CellView | None, ...]], ...]
    best: tuple[CellView, ...]
    targets: int


@dataclass(frozen=True, slots=True)
class Strip:
    """A target along the frontier."""

    name: str
    chart: Markup
    words: str


@dataclass(frozen=True, slots=True)
class FrontierView:
    """The chart with its axis, strips and steps as rows of a table."""

    steps: Markup
    scale: Markup
    strips: tuple[Strip, ...]
    rows: tuple[tuple[str, str, str, str], ...]
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


@dataclass(frozen=True, slots=True)
class SupposedRow:
    """A supposition, what its answer costs and meets, and what differs."""

    words: str
    cost: str
    met: str
    change: str
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
    frontier: FrontierView | None
    more: tuple[MoreRow, ...]
    idle: tuple[IdleRow, ...]
    idle_words: str
    trim: tuple[str, str]
    cuts: tuple[IdleRow, ...]
    alike: tuple[tuple[str, str], ...]
    left: str
    prices: PriceLimits | None
    ask_prices: str
    wishes: tuple[tuple[str, str, str, str], ...] | None
    ask_wishes: str
    supposed: tuple[SupposedRow, ...] | None
    ask_supposed: str
    announced: tuple[SupposedRow | None, str]
    likes: tuple[tuple[str, str], ...]
    steps_url: str
    years: tuple[tuple[str, str, str, str], ...]
    years_words: str


Link = Callable[..., str]


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
        _map(found, pairs, subject, tried, link),
        _frontier(found, subject, tried, link),
        tuple(_more(one, answer, subject, trial) for one in more),
        tuple(_idle(catalogue, subject, kind, cut, trial) for kind, cut in sorted(free.items(), key=lambda one: -one[1].saves_minor)),
        _idle_words(free, subject),
        _trim(catalogue, subject, trial),
        tuple(_cuts(catalogue, subject, trial)),
        tuple(_alike(found, pairs, answer, link)),
        _left(catalogue, subject),
        price_limits(found) if asked.limits else None,
        link(limits=True),
        tuple(_wishes(catalogue, now)) if asked.wishes else None,
        link(wishes=True),
        tuple(_supposed(catalogue, now, trial)) if asked.suppose else None,
        link(suppose=True),
        _announced(catalogue, now, asked),
        tuple((part.id, part.name) for kind in SIDES for part in catalogue.by_kind[kind] if asked.suppose),
        steps_url,
        tuple(_years(catalogue, subject)),
        f"Assumed: the games ask for {now.brief.growth_percent:g}{THIN}% more of both sides each year. Steps at today's prices, nothing else changed.",
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


def edges_of(cell: Cell) -> str:
    """Which side limits: by targets, or both where it changes with the game."""
    sides = {"c" if share > 0.5 + ALIKE else "g" if share < 0.5 - ALIKE else "cg" for share in cell.processor_shares}
    return "cg" if len(sides) > 1 or "cg" in sides else next(iter(sides), "")


EDGE_WORDS = {"c": "processor limits", "g": "graphics limits", "cg": "the limit changes with the game", "": "no targets"}


def _map(found: Tables, pairs: PairsMap, subject: Assessment, tried: Assessment | None, link: Link) -> MapView:
    pool = found.frontier.scenes[0].pool
    chips, cards = pool.processors.parts, pool.cards.parts

    def is_of(one: Assessment | None, c: int, g: int | None) -> bool:
        card = "" if g is None else cards[g].id
        return one is not None and (one.build.processor, one.build.graphics or "") == (chips[c].id, card)

    def view(c: int, g: int | None) -> CellView | None:
        cell = pairs.cells.get((c, g))
        if cell is None:
            return None
        card = cards[g] if g is not None else None
        cost = money(cell.winner.cost + found.besides, subject.currency)
        met = sum(cell.meets)
        title = f"{chips[c].name} with {card.name if card else 'integrated graphics'}: {met} of {len(cell.meets)} met for {cost}, {EDGE_WORDS[edges_of(cell)]}"
        right, below = _neighbour(pairs, c, g, 0, 1), _neighbour(pairs, c, g, 1, 0)
        border = "".join(side for side, other in (("r", right), ("b", below)) if cell.inside and other is not None and not other.inside)
        url = link(pair=f"{chips[c].id}:{card.id if card else ''}", tried=None)
        return CellView(str(met), edges_of(cell), cell.inside, border, is_of(subject, c, g), is_of(tried, c, g), url, title + ("" if cell.inside else ", over the budget"))

    rows = tuple((_short(chips[c]), chips[c].name, tuple(view(c, g) for g in pairs.cards)) for c in pairs.processors)
    best = sorted(
        (key for key, cell in pairs.cells.items() if cell.inside), key=lambda key: (-pairs.cells[key].winner.rank, pairs.cells[key].winner.cost)
    )[:BEST_ON_NARROW]
    heads = tuple((_short(cards[g]) if g is not None else "integrated", cards[g].name if g is not None else "integrated graphics") for g in pairs.cards)
    return MapView(heads, rows, tuple(one for key in best if (one := view(*key)) is not None), len(found.brief.counted_targets))


def _neighbour(pairs: PairsMap, c: int, g: int | None, down: int, right: int) -> Cell | None:
    row, column = pairs.processors.index(c) + down, pairs.cards.index(g) + right
    if row >= len(pairs.processors) or column >= len(pairs.cards):
        return None
    return pairs.cells.get((pairs.processors[row], pairs.cards[column]))


def _short(part: Part) -> str:
    """The model without the maker, the last words of a long one first to go."""
    return part.model if len(part.model) <= 30 else f"{part.model[:29]}…"


def _worst_percent(gains: tuple[int, ...]) -> float:
    return 100 * exp(min(gains, default=0) / 1e6)


def _frontier(found: Tables, subject: Assessment, tried: Assessment | None, link: Link) -> FrontierView | None:
    steps, gains = found.frontier.steps, found.frontier.gains
    if not steps or not found.brief.counted_targets:
        return None
    besides, currency = found.besides, subject.currency
    shown = _worth_marking(found)
    low = max(steps[0].cost + besides, int(LEFT_END * found.brief.budget_high_minor)) // 5000 * 5000
    high = max(steps[-1].cost + besides, found.brief.budget_high_minor * 5 // 4)
    axis = chart.Axis(low, max(high, low + 10_000), currency)
    marks = tuple(
        chart.Mark(
            steps[i].cost + besides,
            _worst_percent(gains[i]),
            link(step=str(steps[i].cost), tried=None),
            f"{money(steps[i].cost + besides, currency)}: {_met(found, i)} of {len(gains[i])} met, worst at {_worst_percent(gains[i]):.0f} %",
        )
        for i in shown
    )
    knee = found.knee
    own, trying = _place(subject), _place(tried)
    budget = (found.brief.budget_low_minor, found.brief.budget_high_minor)
    rows = tuple((money(steps[i].cost + besides, currency), f"{_met(found, i)} of {len(gains[i])}", f"{_worst_percent(gains[i]):.0f}{THIN}%", link(step=str(steps[i].cost), tried=None)) for i in shown)
    words = "Each square is the best complete build for its money; a stretch without squares gains under 2 %."
    if knee is not None:
        words += f" The knee lies at {money(steps[knee].cost + besides, currency)}: from there on 2 % of the budget bring less than 1 %."
    return FrontierView(
        chart.steps(marks, axis, budget, None if knee is None else steps[knee].cost + besides, own, trying), chart.scale(axis), tuple(_strips(found, axis)), rows, words
    )


def _place(one: Assessment | None) -> tuple[int, float] | None:
    """Cost and worst target in % of a whole build."""
    if one is None or one.worst is None or one.missing:
        return None
    return one.spent_minor, min(150.0, 100 * one.worst.share_of_target)


def _met(found: Tables, at: int) -> int:
    sides = found.frontier.scenes[0].targets.sides
    return sum(gain >= 0 and side.can_be_met for gain, side in zip(found.frontier.gains[at], sides, strict=True))


def _worth_marking(found: Tables) -> list[int]:
    """Places of the steps that gain 2 % or meet more than the last one shown."""
    shown: list[int] = []
    for at, step in enumerate(found.frontier.steps):
        before = found.frontier.steps[shown[-1]] if shown else None
        if before is None or step.met != before.met or step.gain - before.gain >= log(1 + LESS) * 1e6:
            shown.append(at)
    if len(shown) > MOST_MARKS:
        shown = [shown[round(n * (len(shown) - 1) / (MOST_MARKS - 1))] for n in range(MOST_MARKS)]
    return shown


def _strips(found: Tables, axis: chart.Axis) -> list[Strip]:
    steps, rows = found.frontier.steps, []
    for place, (target, side) in enumerate(zip(found.brief.counted_targets, found.frontier.scenes[0].targets.sides, strict=True)):
        spans: list[tuple[int, int]] = []
        for at, step in enumerate(steps):
            if found.frontier.gains[at][place] < 0 or not side.can_be_met:
                continue
            end = steps[at + 1].cost + found.besides if at + 1 < len(steps) else axis.high
            start = step.cost + found.besides
            spans = [*spans[:-1], (spans[-1][0], end)] if spans and spans[-1][1] == start else [*spans, (start, end)]
        words = f"from {money(spans[0][0], axis.currency)}" if spans else "by no build shown"
        if len(spans) > 1:
            words += ", with gaps"
        name = f"{found.catalogue.game(target.game_id).name} {target.fps:g}{THIN}fps"
        rows.append(Strip(name, chart.strip(spans, axis, f"{name} met {words}"), words))
    return rows


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
        if cell.inside and cell.winner.rank >= step.rank - BAND and cell.winner.cost <= step.cost * (1 + LESS)
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


def _years(catalogue: Catalogue, subject: Assessment) -> Iterator[tuple[str, str, str, str]]:
    """Each year with what is met, what is lost, and the next step where something is lost first."""
    for one in years_kept(catalogue, subject):
        steps = [
            f"another {KIND_WORDS[step.kind]}: {step.part.name}, {money(step.cost_minor, subject.currency)}" if step.part else f"no other {KIND_WORDS[step.kind]} alone"
            for step in one.steps
        ]
        name = "today" if not one.year else f"in {one.year} {'year' if one.year == 1 else 'years'}"
        yield name, f"{one.met} of {len(subject.counted)}", listed(list(one.lost)) or "none", "; ".join(steps)


def _wishes(catalogue: Catalogue, now: Assessment) -> Iterator[tuple[str, str, str, str]]:
    """Each wish with what it costs in money, frames and targets."""
    names = {part_id: part.name for part_id, part in catalogue.parts.items()}
    for one in wish_costs(catalogue, now.brief, now.build):
        words = wish_words(now.brief, one.wish, now.currency, names)
        if one.cost_minor is None or one.frames_lost is None or one.weight_lost is None:
            yield words, "", "", "stands in the way of any answer" if one.nothing_with_it else "no answer either way"
            continue
        frames = "none" if abs(one.frames_lost) < 0.0005 else f"{100 * one.frames_lost:.1f}{THIN}%"
        weight = f"{one.weight_lost} of the weight unmet because of it" if one.weight_lost > 0 else "no target"
        yield words, money_change(one.cost_minor, now.currency), frames, weight


def _announced(catalogue: Catalogue, now: Assessment, asked: DeskQuery) -> tuple[SupposedRow | None, str]:
    """The answer with an announced part as typed, or what is wrong with it."""
    if not asked.suppose or asked.like is None:
        return None, ""
    try:
        faster = float((asked.faster or "0").replace(",", "."))
        one = announced(catalogue, now.brief, now.build, asked.like, faster, to_minor(asked.price or "", "The expected price"))
    except ValueError:
        return None, f"“{asked.faster}” is no number of per cent: enter one such as 15."
    except WattmetronError as problem:
        return None, str(problem)
    then = one.assessment
    if then is None:
        return SupposedRow(one.words, "", "", "nothing fits within the budget", ""), ""
    parts = listed([part.name for kind in one.changed for part in then.machine.of(kind)])
    return SupposedRow(one.words, money(then.spent_minor, now.currency), f"{then.met} of {len(then.counted)}", parts or "the same parts", ""), ""


def _supposed(catalogue: Catalogue, now: Assessment, trial: Callable[[Build], str]) -> Iterator[SupposedRow]:
    today, found = what_if(catalogue, now.brief, now.build)
    if today is not None:
        yield SupposedRow("as it is today", money(today.spent_minor, now.currency), f"{today.met} of {len(today.counted)}", "", trial(today.build))
    for one in found:
        then = one.assessment
        if then is None:
            yield SupposedRow(one.words, "", "", "nothing fits within the budget", "")
            continue
        parts = listed([part.name for kind in one.changed for part in then.machine.of(kind)])
        yield SupposedRow(one.words, money(then.spent_minor, now.currency), f"{then.met} of {len(then.counted)}", parts or "the same parts", trial(then.build))


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
