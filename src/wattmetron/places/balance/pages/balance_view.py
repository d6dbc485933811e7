"""The Balance view: split, account, what limits, pairings, frontier, next money, money that buys no
frames, price limits.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from wattmetron.core.balance.pairs import PairsMap
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import BAND
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.all_targets import at_once_words
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.balance.balance import (
    More,
    Tables,
    idle_money,
    map_of,
    more_money,
    tables,
)
from wattmetron.places.balance.balance_words import account, limit_rows, side_money
from wattmetron.places.balance.pages.balance_frontier import FrontierView, frontier_view
from wattmetron.places.balance.pages.balance_map import MapView, pairings_view
from wattmetron.places.balance.pages.balance_picture import PictureView, picture_view
from wattmetron.places.balance.pages.balance_savings import (
    IdleRow,
    cut_rows,
    for_years,
    idle_row,
    idle_words,
    left_words,
    trim_words,
)
from wattmetron.places.balance.pages.balance_summary import GlanceCard, glances
from wattmetron.places.balance.pages.coverage_view import CoverView, cover_view
from wattmetron.places.balance.pages.split_rows import SplitRow, split_rows
from wattmetron.places.balance.pages.suppositions import (
    SupposedRow,
    WishRow,
    YearRow,
    announced_row,
    elsewhere_row,
    supposed_rows,
    wishes_rows,
    years_rows,
)
from wattmetron.places.balance.pages.upgrade_path_view import PathView, path_view
from wattmetron.places.balance.price_limits import SIDES, PriceLimits, price_limits
from wattmetron.places.proposal.preference_answers import preference_lines
from wattmetron.shell.address import DeskQuery, Link, encode_build
from wattmetron.words.figures import KIND_WORDS, THIN, money, money_change

ALIKE_COST = 0.02
MOST_ALIKE = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class MoreRow:
    """What so much more or less buys."""

    change: str
    cost: str
    met: str
    effects: str
    swaps: str
    url: str
    nothing: str


@dataclass(frozen=True, kw_only=True)
class BalanceView:
    """Everything that the Balance view shows; ``subject`` says which build its figures are of."""

    subject: str
    glances: tuple[GlanceCard, ...]
    opened: frozenset[str]
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
    wishes: tuple[WishRow, ...] | None
    ask_wishes: str
    preferences: tuple[str, ...]
    supposed: tuple[SupposedRow, ...] | None
    ask_supposed: str
    announced: tuple[SupposedRow | None, str]
    elsewhere: tuple[SupposedRow | None, str]
    regions: tuple[tuple[str, str], ...]
    likes: tuple[tuple[str, str], ...]
    steps_url: str
    years: tuple[YearRow, ...]
    years_words: str
    cover: CoverView
    path: PathView | None
    ask_path: str


def balance_view(
    catalogue: Catalogue,
    now: Assessment,
    tried: Assessment | None,
    link: Link,
    trial: Callable[[Build], str],
    query: DeskQuery,
    steps_url: str,
) -> BalanceView:
    """Compute the view; where the build is not whole it is of the proposal instead. What is tried
    is marked.
    """
    all_tables = tables(catalogue, now.brief, now.build)
    step = all_tables.answer(all_tables.budget)
    answer = None if step is None else assess(catalogue, now.brief, all_tables.build_at(step))
    subject = now if not now.missing or answer is None else answer
    free = idle_money(catalogue, subject)
    shown = tuple(
        part
        for assessment in (now, answer, tried)
        if assessment
        for part in assessment.machine.parts()
    )
    pairs = map_of(all_tables, shown)
    more = more_money(all_tables, subject)
    limits = limit_rows(catalogue, subject)
    return BalanceView(
        subject="this build" if subject is now else "the proposal (the build is not complete)",
        opened=_opened(query),
        glances=glances(catalogue, now, subject, answer, more, free, trial),
        proposal=_proposal(now, answer, trial),
        account=account(all_tables, subject, answer, pairs, more, free),
        split=split_rows(catalogue, subject),
        limits=limits.rows,
        limit_map=limits.by_resolution,
        resolutions=limits.resolutions,
        map=pairings_view(all_tables, pairs, subject, tried, link),
        picture=picture_view(all_tables, subject, tried, link) if query.every else None,
        ask_picture=link(every=True),
        frontier=frontier_view(all_tables, subject, tried, link),
        more=tuple(_more(catalogue, extra, answer, subject, trial) for extra in more),
        idle=tuple(
            idle_row(catalogue, subject, kind, cut, trial)
            for kind, cut in sorted(free.items(), key=lambda row: -row[1].saves_minor)
        ),
        idle_words=idle_words(free, subject),
        for_years=tuple(for_years(catalogue, subject)),
        side_money=side_money(catalogue, subject),
        trim=trim_words(catalogue, subject, trial),
        cuts=tuple(cut_rows(catalogue, subject, trial)),
        alike=tuple(_alike(all_tables, pairs, answer, link)),
        left=left_words(catalogue, subject),
        prices=price_limits(all_tables) if query.limits else None,
        ask_prices=link(limits=True),
        wishes=tuple(wishes_rows(catalogue, now)) if query.wishes else None,
        ask_wishes=link(wishes=True),
        preferences=tuple(preference_lines(now.brief, all_tables.preferences, now.currency)),
        supposed=tuple(supposed_rows(catalogue, now, trial)) if query.suppose else None,
        ask_supposed=link(suppose=True),
        announced=announced_row(catalogue, now, query),
        elsewhere=elsewhere_row(catalogue, now, query),
        regions=tuple(
            (region.id, f"{region.name} ({region.currency})")
            for region in catalogue.regions.values()
            if region.id != now.brief.region
        ),
        likes=tuple(
            (part.id, part.name)
            for kind in SIDES
            for part in catalogue.by_kind[kind]
            if query.suppose
        ),
        steps_url=steps_url,
        years=tuple(years_rows(catalogue, subject)),
        years_words=_years_words(subject),
        cover=cover_view(catalogue, subject, query, link),
        path=path_view(catalogue, now, trial) if query.path else None,
        ask_path=link(path=True),
    )


def _opened(query: DeskQuery) -> frozenset[str]:
    """The panels that the address asks about."""
    about = {
        "picture": query.every,
        "frontier": query.step,
        "prices": query.limits,
        "wishes": query.wishes,
        "suppose": query.suppose,
        "coverage": query.cover or query.shelf or query.cell,
        "years": query.path,
    }
    return frozenset(panel for panel, sentences in about.items() if sentences)


def _proposal(
    now: Assessment, answer: Assessment | None, trial: Callable[[Build], str]
) -> tuple[str, str]:
    """What the aim answers for this budget, against the build, with its address; no address where
    it is the build.
    """
    if answer is None:
        return "No fitting build within the budget: Propose says what stands in the way.", ""
    if all(answer.build.of(kind) == now.build.of(kind) for kind in KIND_WORDS):
        return "This build is what the aim of most frames answers for the budget.", ""
    met = f"meets {answer.met} of {len(answer.counted)}" if answer.counted else "fits"
    delta = money_change(answer.spent_minor - now.spent_minor, now.currency)
    than = ""
    if not now.missing:
        compared = "as much as" if delta == "the same" else f"{delta} than"
        than = f": {compared} this one" + (f", which meets {now.met}" if now.counted else "")
    return (
        (
            f"For this budget the best build {met} for"
            f" {money(answer.spent_minor, answer.currency)}{than}."
        ),
        trial(answer.build),
    )


def _more(
    catalogue: Catalogue,
    more: More,
    answer: Assessment | None,
    subject: Assessment,
    trial: Callable[[Build], str],
) -> MoreRow:
    change, then, changed = more.change_minor, more.assessment, more.changed
    label = f"{money(abs(change), subject.currency)} {'more' if change > 0 else 'less'}"
    if then is None:
        return MoreRow(
            change=label, cost="", met="", effects="", swaps="", url="", nothing="nothing fits"
        )
    if not changed:
        return MoreRow(
            change=label,
            cost=money(then.spent_minor, subject.currency),
            met=_met(catalogue, then),
            effects="",
            swaps="",
            url="",
            nothing="the same build",
        )
    effects = []
    for before, after in zip(subject.counted, then.counted, strict=True):
        share = after.judged_fps / before.judged_fps - 1 if before.judged_fps else 0.0
        if abs(share) >= 0.01:
            effects.append(
                f"{before.game.name} {'+' if share > 0 else '−'}{abs(share):.0%}".replace(
                    "%", f"{THIN}%"
                )
            )
    swaps = [part.name for kind in changed for part in then.machine.of(kind)]
    if answer is not None and then.build == answer.build:
        effects = ["the same as this budget buys"]
    return MoreRow(
        change=label,
        cost=money(then.spent_minor, subject.currency),
        met=_met(catalogue, then),
        effects=", ".join(effects) or "the same frames",
        swaps=listed(swaps) or "a part less",
        url=trial(then.build),
        nothing="",
    )


def _met(catalogue: Catalogue, then: Assessment) -> str:
    met = f"{then.met} of {len(then.counted)}"
    return ", ".join(filter(None, [met, at_once_words(catalogue, then)]))


def _years_words(subject: Assessment) -> str:
    none = "" if subject.met else "No target is met today, so none can be lost. "
    return (
        f"{none}Assumed: each year the games ask for {subject.brief.growth_percent:g}{THIN}% more"
        f" of both sides, for 6{THIN}% more video memory and 5{THIN}% more main memory. Alone:"
        " targets that a side reaches on average with the other out of the"
        " way. The next step is the cheapest, at today's prices, that meets again what is met"
        " today; all other parts stay."
    )


def _alike(
    tables: Tables, pairs: PairsMap, answer: Assessment | None, link: Link
) -> Iterator[tuple[str, str]]:
    """Other pairings as good as the answer: as much weight met, U within the band, and no more than
    2 % dearer.
    """
    if answer is None:
        return
    step = tables.answer(tables.budget)
    assert step is not None
    sides = tables.sides
    good = [
        (cell.winner.cost, c, g)
        for (c, g), cell in pairs.cells.items()
        if cell.inside
        and cell.winner.rank >= step.rank - BAND
        and cell.winner.cost <= step.cost * (1 + ALIKE_COST)
    ]
    for cost, c, g in sorted(good, key=lambda row: (row[0], row[1], row[2] or -1))[:MOST_ALIKE]:
        chip, card = sides.chips[c], None if g is None else sides.cards[g]
        if (chip.id, card.id if card else "") != (
            answer.build.processor,
            answer.build.graphics or "",
        ):
            words = (
                f"{chip.name} with {card.name if card else 'integrated graphics'},"
                f" {money(cost + tables.besides, answer.currency)}"
            )
            yield words, link(pair=f"{chip.id}:{card.id if card else ''}", tried=None)


def _content(context: ViewContext) -> BalanceView:
    """Of the adopted build, with what is being tried marked in it."""

    def link(**changes: object) -> str:
        left: dict[str, object] = {"propose": None, "swap": None, "pair": None, "step": None}
        return context.query.url(context.opened.id, **(left | changes))

    def trial(build: Build) -> str:
        return link(tried=encode_build(build, context.opened.plan.build))

    return balance_view(
        context.catalogue,
        context.present,
        context.tried,
        link,
        trial,
        context.query,
        f"/briefs/{context.opened.id}/steps",
    )


BALANCE = ViewSpec(
    name="balance",
    title="Balance",
    key="2",
    template="places/balance/pages/balance.html",
    make=_content,
    folded=True,
)
