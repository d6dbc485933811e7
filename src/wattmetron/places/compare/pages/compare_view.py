"""The view Compare: this build beside the pinned one and those of other briefs."""

from collections.abc import Sequence
from dataclasses import dataclass
from urllib.parse import urlencode

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.references import ReachedRate, Reference
from wattmetron.core.values.words import listed
from wattmetron.drawing.compare_row import compare_row
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.compare.compare import MOST_SIDES, Comparison, Pace, compared
from wattmetron.places.compare.pages.snapshot_panel import (
    Past,
    SinceView,
    SnapshotListRow,
    past_of,
    since_view,
    snapshot_rows,
)
from wattmetron.shell.address import DeskQuery, Link, encode_build
from wattmetron.words.figures import THIN, amount, money, money_change, percent
from wattmetron.workshop.listed_briefs import ListedBrief, Opened

LETTERS = "ABCDEF"
PINNED, SURE = "pinned", 0.9
AROUND = (0.8, 1.0, 1.2)


@dataclass(frozen=True, slots=True)
class SideHead:
    """A machine's letter, name, and the address that takes it out of the comparison."""

    letter: str
    name: str
    out_url: str
    try_url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PaceRow:
    """A target: what is wanted, the picture, a cell for each machine."""

    game: str
    wanted: str
    picture: Markup
    cells: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class FixedHead:
    """A machine that is bought as it is: its price against this build, what is in the box and what
    is not, where this is from; where its money is asked what it would buy.
    """

    id: str
    name: str
    price: str
    change: str
    includes: str
    lacks: str
    source: str
    buys_url: str


@dataclass(frozen=True, slots=True)
class FixedRow:
    """A target: what is wanted, what this build does, and what each fixed machine is known to do
    (rate as stated, settings, what that means for the target).
    """

    game: str
    wanted: str
    here: str
    cells: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class CompareView:
    """Heads, the answer in sentences, targets, lines that differ and those that are alike."""

    heads: tuple[SideHead, ...]
    says: tuple[str, ...]
    paces: tuple[PaceRow, ...]
    differing: tuple[tuple[str, tuple[str, ...]], ...]
    alike: tuple[tuple[str, str], ...]
    more: tuple[tuple[str, str], ...]
    full: bool
    fixed: tuple[FixedHead, ...]
    fixed_rows: tuple[FixedRow, ...]
    games: tuple[tuple[str, str], ...]
    spent: str
    snapshots: tuple[tuple[SnapshotListRow, str, str], ...]
    since: SinceView | None
    sets: tuple[tuple[int, str], ...]


def compare_view(
    catalogue: Catalogue,
    opened: Opened,
    others: Sequence[ListedBrief],
    past: Past,
    query: DeskQuery,
    link: Link,
) -> CompareView:
    """This build and those that the address names, all under this brief."""
    plan = opened.plan
    known: dict[str, tuple[str, Build]] = {}
    if plan.pinned is not None and plan.pinned != plan.build:
        known[PINNED] = ("the pinned build", plan.pinned)
    for row in others:
        if row.id != opened.id and not row.plan.build.empty:
            known[str(row.id)] = (row.plan.brief.name, row.plan.build)
    for dated in past.frozen:
        made = f"{dated.snapshot.name or 'snapshot'}, {dated.snapshot.made_at:%-d %b %Y}"
        known[f"s{dated.snapshot.id}"] = (made, dated.plan.build)
    wanted = (query.beside or (PINNED if PINNED in known else "")).split(".")
    chosen = [key for key in dict.fromkeys(wanted) if key in known][: MOST_SIDES - 1]
    builds = [("", "this build", plan.build), *((key, *known[key]) for key in chosen)]
    comparison = compared(catalogue, plan.brief, builds)
    currency = comparison.sides[0].assessment.currency

    def beside(keys: Sequence[str]) -> str:
        return link(beside=".".join(keys) or "none")

    return CompareView(
        heads=tuple(
            SideHead(
                LETTERS[n],
                side.name,
                beside([key for key in chosen if key != side.key]) if n else "",
                link(tried=encode_build(side.assessment.build, plan.build)) if n else "",
            )
            for n, side in enumerate(comparison.sides)
        ),
        says=tuple(_says(comparison)),
        paces=tuple(_pace(pace) for pace in comparison.paces),
        differing=tuple((line.title, line.cells) for line in comparison.lines if not line.same),
        alike=tuple((line.title, line.cells[0]) for line in comparison.lines if line.same),
        more=tuple(
            (name, beside([*chosen, key])) for key, (name, _) in known.items() if key not in chosen
        ),
        full=len(chosen) >= MOST_SIDES - 1,
        fixed=tuple(
            _fixed(reference, comparison, opened.id) for reference in catalogue.references.values()
        ),
        fixed_rows=tuple(_fixed_row(catalogue, pace) for pace in comparison.paces)
        if catalogue.references
        else (),
        games=tuple(
            dict.fromkeys(
                (target.game_id, catalogue.games[target.game_id].name)
                for target in plan.brief.targets
                if target.game_id in catalogue.games
            )
        ),
        spent=money(comparison.sides[0].assessment.spent_minor, currency),
        snapshots=tuple(
            (row, beside([*chosen, f"s{row.id}"]), link(since=str(row.id)))
            for row in snapshot_rows(past, currency)
        ),
        since=since_view(catalogue, past, currency),
        sets=past.sets,
    )


def _fixed(reference: Reference, comparison: Comparison, brief_id: int) -> FixedHead:
    now = comparison.sides[0].assessment
    same = reference.currency == now.currency
    price = money(reference.price_minor, reference.currency)
    change = money_change(reference.price_minor - now.spent_minor, now.currency) if same else ""
    dated = f"{reference.seen_on:%-d %b %Y}" if reference.seen_on else ""
    return FixedHead(
        id=reference.id,
        name=reference.name,
        price=price,
        change=change,
        includes=reference.includes,
        lacks=reference.lacks,
        source=", ".join(filter(None, [reference.source, dated])),
        buys_url=f"/briefs/{brief_id}/steps?{_around(reference.price_minor)}" if same else "",
    )


def _around(price_minor: int) -> str:
    """The price as a budget, between a fifth less and a fifth more."""
    amounts = (amount(round(price_minor * share / 100) * 100) for share in AROUND)
    return urlencode({"amounts": " ".join(amounts)})


def _fixed_row(catalogue: Catalogue, pace: Pace) -> FixedRow:
    rate = pace.rates[0]
    here = "cannot run it" if rate is None else f"{rate[0]:.0f}{THIN}fps, {pace.states[0]}"
    return FixedRow(
        pace.game,
        f"{pace.wanted_fps:g}{THIN}fps",
        here,
        tuple(
            _stated(reference.in_game(pace.game_id), pace.wanted_fps)
            for reference in catalogue.references.values()
        ),
    )


def _stated(rate: ReachedRate | None, wanted_fps: float) -> tuple[str, str, str]:
    """What is stated, never more: a rate at other settings meets nothing."""
    if rate is None or rate.low_fps is None or rate.high_fps is None:
        return "not known", "", ""
    if rate.low_fps >= wanted_fps:
        means = "as much as is wanted, at its settings"
    elif rate.high_fps < wanted_fps:
        means = "less than is wanted"
    else:
        means = "about what is wanted, at its settings"
    return rate.words, rate.settings, means


def _says(comparison: Comparison) -> list[str]:
    """The comparison in sentences, each machine against the first."""
    if len(comparison.sides) == 1:
        return ["Choose one or more machines to stand beside this build."]
    base = comparison.sides[0].assessment
    sentences = []
    for n, side in enumerate(comparison.sides[1:], 1):
        now = side.assessment
        chances = [
            (pace.game, chance)
            for pace in comparison.paces
            if (chance := pace.faster[n]) is not None
        ]
        surely = [game for game, chance in chances if chance >= SURE]
        slower = [game for game, chance in chances if chance <= 1 - SURE]
        pieces = [
            f"{LETTERS[n]}, {side.name}, meets {now.met} of {len(now.counted)} targets, this build"
            f" {base.met}."
        ]
        if surely:
            pieces.append(f"It is surely faster in {listed(surely)}.")
        if slower:
            pieces.append(f"It is surely slower in {listed(slower)}.")
        if now.blocking:
            pieces.append("It does not fit together as it stands.")
        sentences.append(" ".join(pieces))
    return sentences


def _pace(pace: Pace) -> PaceRow:
    cells = []
    for n, rate in enumerate(pace.rates):
        if rate is None:
            cells.append(("cannot run it", "", ""))
            continue
        chance = pace.faster[n]
        sure = "" if chance is None else f"faster than A: {percent(chance)}"
        limit = pace.limits[n]
        words = "both sides alike" if limit == "evenly matched" else f"limited by {limit}"
        cells.append(
            (
                f"{rate[0]:.0f}{THIN}fps ({rate[1]:.0f}–{rate[2]:.0f})",
                pace.states[n],
                f"{words}; {sure}" if sure else words,
            )
        )
    names = ", ".join(
        f"{LETTERS[n]} {rate[0]:.0f}" for n, rate in enumerate(pace.rates) if rate is not None
    )
    label = f"{pace.game}: {names} fps, {pace.wanted_fps:g} wanted"
    return PaceRow(
        game=pace.game,
        wanted=f"{pace.wanted_fps:g}{THIN}fps",
        picture=compare_row(pace.rates, pace.wanted_fps, label),
        cells=tuple(cells),
    )


def _content(context: ViewContext) -> CompareView:
    workshop, opened = context.workshop, context.opened
    return compare_view(
        context.catalogue,
        opened,
        tuple(workshop.briefs()),
        past_of(workshop, context.catalogue, opened, context.query.since or ""),
        context.query,
        context.link,
    )


COMPARE = ViewSpec(
    name="compare",
    title="Compare",
    key="5",
    template="places/compare/pages/compare.html",
    make=_content,
    folded=True,
)
