"""A brief's page: everything that it shows, put together from the address and the stored plan."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.remedies import Remedy
from wattmetron.core.errors import WattmetronError
from wattmetron.core.speeds.equal_parts import Use
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.all_targets import at_once_words, together_words
from wattmetron.places.assessment.assess import Assessment, assess, known_build
from wattmetron.places.assessment.remaining import finding_remedies, remaining
from wattmetron.places.balance.balance import cell_of, tables
from wattmetron.places.balance.pages.balance_view import BalanceView, balance_view
from wattmetron.places.brief.pages.brief_form import BriefForm, brief_form
from wattmetron.places.buy.pages.buy import NO_HISTORY, BuyView, History, buy_view
from wattmetron.places.compare.pages.compare_view import CompareView, compare_view
from wattmetron.places.compare.pages.snapshot_panel import Past
from wattmetron.places.compatibility.cures import Cure
from wattmetron.places.compatibility.pages.compatibility_view import FitView, fit_view
from wattmetron.places.frames.pages.frames import FIGURE_NAMES, FrameRowView, frame_rows
from wattmetron.places.frames.pages.meters_panel import MeterView, meters
from wattmetron.places.frames.pages.settings import SettingsView, settings_view
from wattmetron.places.frames.pages.workings import WorkingView, working_view
from wattmetron.places.games.contenders import machine_contender
from wattmetron.places.games.pages.equals_panel import EqualsView, equals_view
from wattmetron.places.games.pages.game import GamePanel, game_panel
from wattmetron.places.games.pages.machine_panel import MeasuredMachine
from wattmetron.places.games.pages.required import Required, required, tier_words
from wattmetron.places.games.publishing import GameState
from wattmetron.places.handout.pages.view import Handing, HandoutView, handout_view
from wattmetron.places.measured.pages.views import MeasuredView, measured_view
from wattmetron.places.measured.promises import outcomes_of
from wattmetron.places.measured.run_library import MeasuredRun
from wattmetron.places.proposal.pages.build_panel import BuildView, build_view
from wattmetron.places.proposal.pages.first_panel import FirstRow, first_rows
from wattmetron.places.proposal.pages.leftover_panel import RestView, rest_view
from wattmetron.places.proposal.pages.swap import ChipsView, SwapView, chips_view, swap_view
from wattmetron.places.proposal.proposals import Answer, Reason, answer, reasons_of
from wattmetron.places.proposal.swaps import SwapQuery, swap
from wattmetron.places.proposal.trust_costs import trust_costs
from wattmetron.places.review.pages.review_view import ReviewView, review_view
from wattmetron.shell.address import AIM_WORDS, DeskQuery, decode_build, encode_build, trial_of
from wattmetron.words.figures import KIND_WORDS, money, money_change
from wattmetron.workshop.listed_briefs import ListedBrief, Opened

NO_PAST, NO_HANDING = Past(), Handing()


@dataclass(frozen=True, slots=True)
class FindingView:
    """A finding with actions that clear it."""

    finding: Finding
    remedies: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class Trying:
    """What is being tried: the encoded build and one sentence about it."""

    code: str
    sentence: str
    leave_url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TrustRow:
    """A trust floor with the cost of its proposal, how that differs, what it meets, and its parts
    below plain.
    """

    floor: str
    is_current: bool
    cost: str
    change: str
    met: str
    below: str


@dataclass(frozen=True, kw_only=True)
class Desk:
    """The page's content."""

    opened: Opened
    query: DeskQuery
    brief: Brief
    catalogue: Catalogue
    now: Assessment
    meters: tuple[MeterView, ...]
    rows: tuple[FrameRowView, ...]
    build: BuildView
    findings: tuple[FindingView, ...]
    trying: Trying | None
    swap: SwapView | None
    chips: ChipsView | None
    answer: Answer | None
    reasons: tuple[Reason, ...]
    working: WorkingView | None
    prices: str
    ghost_words: str
    together: str
    required: Required | None
    tier_words: dict[str, str]
    game: GamePanel | None
    equals: EqualsView | None
    settings: SettingsView | None
    fit: FitView | None
    balance: BalanceView | None
    review: ReviewView | None
    handout: HandoutView | None
    buy: BuyView | None
    measured: MeasuredView | None
    compare: CompareView | None
    rest: RestView | None
    first: tuple[FirstRow, ...]
    trust_rows: tuple[TrustRow, ...]
    notice: str = ""
    offers_redo: bool = False
    error: str = ""
    drafts: dict[str, str] = field(default_factory=dict)

    def url(self, **changes: object) -> str:
        return self.query.url(self.opened.id, **changes)

    @property
    def figure_names(self) -> tuple[str, ...]:
        return FIGURE_NAMES

    @property
    def form(self) -> BriefForm:
        """The form of the brief, with what could not be taken still in it."""
        return brief_form(self.catalogue, self.brief, self.drafts, self.tier_words)

    @property
    def region_name(self) -> str:
        return self.catalogue.regions[self.brief.region].name

    @property
    def base(self) -> str:
        return f"/briefs/{self.opened.id}"


def make_desk(
    catalogue: Catalogue,
    opened: Opened,
    query: DeskQuery,
    state_of: Callable[[str], GameState],
    handing: Handing = NO_HANDING,
    briefs: tuple[ListedBrief, ...] = (),
    past: Past = NO_PAST,
    history: History = NO_HISTORY,
    runs: tuple[MeasuredRun, ...] = (),
) -> Desk:
    """Compute what the page shows; ``state_of`` gives the standing revision of a game's
    requirements, ``handing`` is what its handout takes from elsewhere, ``briefs`` and ``past``
    what to compare with, ``history`` what its parts cost over time, ``runs`` what was measured on
    its machine.
    """
    plan = opened.plan
    brief = plan.brief
    present = assess(catalogue, brief, plan.build)
    proposal = (
        answer(catalogue, brief, plan.build, AIM_WORDS[query.propose]) if query.propose else None
    )
    tried = _tried(catalogue, plan, query, proposal)
    now = present if tried is None else assess(catalogue, brief, tried)
    ghost, ghost_words = _ghost(catalogue, opened, present, tried is not None)
    left = remaining(catalogue, now)
    findings = tuple(_finding(catalogue, now, finding, opened, query) for finding in now.findings)
    fill = (
        encode_build(left.build, plan.build)
        if left is not None and left.build is not None and tried is None
        else None
    )
    prices = _prices(catalogue, brief, now)
    names = {game.id: game.name for game in catalogue.games.values()}
    trial = None if tried is None else now
    return Desk(
        opened=opened,
        query=query,
        brief=brief,
        catalogue=catalogue,
        now=now,
        meters=meters(now, ghost, at_once_words(catalogue, now)),
        rows=frame_rows(now, ghost, names),
        build=build_view(
            now, ghost if tried is not None or plan.pinned else None, left, query, opened.id, fill
        ),
        findings=findings,
        trying=None if tried is None else _trying(present, now, plan.build, query, opened.id),
        swap=None if _by_chip(query) else _swap(catalogue, present, query, opened.id, tried, names),
        chips=(
            chips_view(catalogue, present, query, opened.id, names) if _by_chip(query) else None
        ),
        answer=proposal,
        reasons=() if proposal is None else reasons_of(catalogue, proposal.assessment),
        working=working_view(catalogue, now, query.working, prices) if query.working else None,
        prices=prices,
        ghost_words=ghost_words,
        together=together_words(catalogue, now) if query.view == "frames" else "",
        required=(
            required(catalogue, brief, machine_contender(now.machine, brief.system))
            if query.view == "frames"
            else None
        ),
        tier_words=tier_words(catalogue, brief),
        game=_game(catalogue, opened, query, present, now, state_of),
        equals=_equals(catalogue, opened, query, present),
        settings=(
            settings_view(
                catalogue, now, query.settings, query.money, query.url(opened.id, money=True)
            )
            if query.settings
            else None
        ),
        fit=_fit(catalogue, now, opened, query, findings) if query.view == "fit" else None,
        balance=(
            _balance(catalogue, present, trial, opened, query) if query.view == "balance" else None
        ),
        review=_review(catalogue, present, opened, query) if query.view == "review" else None,
        handout=(
            handout_view(catalogue, opened, handing, datetime.now(UTC).date())
            if query.view == "handout"
            else None
        ),
        measured=(
            measured_view(
                catalogue,
                opened.id,
                outcomes_of(catalogue, opened.plan, runs),
                runs,
                bool(opened.plan.build.processor) and present.machine.can_draw,
            )
            if query.view == "measured"
            else None
        ),
        buy=(
            buy_view(catalogue, opened, present, query, datetime.now(UTC).date(), history)
            if query.view == "buy"
            else None
        ),
        compare=_compare(catalogue, opened, briefs, past, query)
        if query.view == "compare"
        else None,
        rest=_rest(catalogue, proposal, now, opened, query),
        first=_first(catalogue, now, present, opened, query),
        trust_rows=_trust(catalogue, brief, plan.build) if query.trust else (),
    )


def _trust(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[TrustRow, ...]:
    """What each floor costs, against the brief's own."""
    floor_costs = trust_costs(catalogue, brief, build, "most frames")
    base = next((cost.assessment for cost in floor_costs if cost.is_current), None)
    rows = []
    for cost in floor_costs:
        if cost.assessment is None:
            rows.append(
                TrustRow(
                    floor=cost.floor,
                    is_current=cost.is_current,
                    cost="nothing fits within the budget",
                    change="",
                    met="",
                    below="",
                )
            )
            continue
        now = cost.assessment
        delta = (
            ""
            if base is None or cost.is_current
            else money_change(now.spent_minor - base.spent_minor, now.currency)
        )
        worst = (
            ""
            if now.worst is None
            else f"{100 * now.worst.judged_fps / now.worst.target.fps:.0f}\u202f%"
        )
        below = listed(list(cost.below)) or "none"
        rows.append(
            TrustRow(
                floor=cost.floor,
                is_current=cost.is_current,
                cost=money(now.spent_minor, now.currency),
                change=delta,
                met=f"{now.met} of {len(now.counted)} met, worst at {worst}",
                below=below,
            )
        )
    return tuple(rows)


def _balance(
    catalogue: Catalogue,
    present: Assessment,
    tried: Assessment | None,
    opened: Opened,
    query: DeskQuery,
) -> BalanceView:
    """The Balance view of the adopted build, with what is being tried marked in it."""

    def link(**changes: object) -> str:
        return query.url(
            opened.id, **({"propose": None, "swap": None, "pair": None, "step": None} | changes)
        )

    def trial(build: Build) -> str:
        return link(tried=encode_build(build, opened.plan.build))

    return balance_view(catalogue, present, tried, link, trial, query, f"/briefs/{opened.id}/steps")


def _review(
    catalogue: Catalogue, present: Assessment, opened: Opened, query: DeskQuery
) -> ReviewView:
    """The Review view of the adopted build."""

    def link(**changes: object) -> str:
        return query.url(opened.id, **({"propose": None, "swap": None, "tried": None} | changes))

    def trial(build: Build) -> str:
        return link(tried=encode_build(build, opened.plan.build))

    return review_view(catalogue, opened.plan, present, query, link, trial)


def _compare(
    catalogue: Catalogue,
    opened: Opened,
    briefs: tuple[ListedBrief, ...],
    past: Past,
    query: DeskQuery,
) -> CompareView:
    """The Compare view of the adopted build."""

    def link(**changes: object) -> str:
        return query.url(opened.id, **({"propose": None, "swap": None, "tried": None} | changes))

    return compare_view(catalogue, opened, briefs, past, query, link)


def _rest(
    catalogue: Catalogue, proposal: Answer | None, now: Assessment, opened: Opened, query: DeskQuery
) -> RestView | None:
    """What could be added to the proposal, or in the Balance view to what is in the build or being
    tried.
    """

    def trial(build: Build) -> str:
        return query.url(
            opened.id, tried=encode_build(build, opened.plan.build), propose=None, swap=None
        )

    if proposal is not None:
        return rest_view(catalogue, proposal.assessment, trial)
    return rest_view(catalogue, now, trial) if query.view == "balance" else None


def _first(
    catalogue: Catalogue,
    now: Assessment,
    present: Assessment,
    opened: Opened,
    query: DeskQuery,
) -> tuple[FirstRow, ...]:
    """In which order the present machine becomes the one that is proposed or tried; one step alone
    says nothing that the trial does not.
    """

    def trial(build: Build) -> str:
        return query.url(
            opened.id, tried=encode_build(build, opened.plan.build), propose=None, swap=None
        )

    rows = () if now is present else first_rows(catalogue, present, now, trial)
    return rows if len(rows) > 1 else ()


def _fit(
    catalogue: Catalogue,
    now: Assessment,
    opened: Opened,
    query: DeskQuery,
    findings: tuple[FindingView, ...],
) -> FitView:
    """The Fit view of what is in the build or being tried."""

    def trial(cure: Cure) -> str:
        return query.url(
            opened.id, tried=encode_build(cure.build, opened.plan.build), propose=None, swap=None
        )

    def part_trial(kind: Kind, part_id: str) -> str:
        return query.url(
            opened.id, tried=trial_of(opened.plan.build, kind, part_id), propose=None, swap=None
        )

    actions = {finding.finding: finding.remedies for finding in findings}
    return fit_view(catalogue, now, query.by or "level", actions, trial, part_trial)


def _equals(
    catalogue: Catalogue, opened: Opened, query: DeskQuery, present: Assessment
) -> EqualsView | None:
    """Parts as good as any part, where no game stands beside."""
    if query.equal is None or query.game is not None:
        return None
    brief = opened.plan.brief
    machine = MeasuredMachine(
        contender=None, words="", brief=opened, typed="", sureness=brief.chance, now=present
    )
    pixels = brief.display.width_px * brief.display.height_px / 1e6

    def link(equal: str | None = None) -> str:
        return query.url(opened.id, equal=equal, swap=None, propose=None, working=None)

    def trial(code: str) -> str:
        return query.url(opened.id, tried=code, swap=None, propose=None, working=None)

    return equals_view(catalogue, query.equal, machine, Use(rendered_mpx=pixels), link, trial)


def _game(
    catalogue: Catalogue,
    opened: Opened,
    query: DeskQuery,
    present: Assessment,
    now: Assessment,
    state_of: Callable[[str], GameState],
) -> GamePanel | None:
    """The game beside the brief, measured against what is in the build or being tried."""
    if query.game is None or query.game not in catalogue.games:
        return None
    brief = opened.plan.brief
    words = f"{brief.name}, as tried" if now is not present else brief.name
    machine = MeasuredMachine(
        contender=machine_contender(now.machine, brief.system),
        words=words,
        brief=opened,
        typed="",
        sureness=brief.chance,
        now=present,
    )

    def link(equal: str | None = query.equal) -> str:
        return query.url(opened.id, equal=equal, swap=None, propose=None, working=None)

    def trial(code: str) -> str:
        return query.url(opened.id, tried=code, swap=None, propose=None, working=None)

    return game_panel(
        catalogue, query.game, machine, state_of(query.game), link, query.equal or "", trial
    )


def _tried(
    catalogue: Catalogue, plan: Plan, query: DeskQuery, answer: Answer | None
) -> Build | None:
    """The build being tried, unless it is the present one or names unknown parts."""
    build = plan.build
    if query.tried is not None:
        try:
            tried = decode_build(query.tried, build)
            catalogue.machine(known_build(catalogue, tried))
        except WattmetronError:
            return None
        return None if _same(tried, build) else tried
    if query.pair is not None or query.step is not None:
        chosen = chosen_build(catalogue, plan, query)
        return None if chosen is None or _same(chosen, build) else chosen
    if (
        answer is not None
        and answer.proposal.build is not None
        and not _same(answer.proposal.build, build)
    ):
        return answer.proposal.build
    return None


def chosen_build(catalogue: Catalogue, plan: Plan, query: DeskQuery) -> Build | None:
    """The build of a pairing of the map or of a step of the frontier that the address names."""
    all_tables = tables(catalogue, plan.brief, plan.build)
    if query.step is not None:
        step = all_tables.frontier.best(int(query.step)) if query.step.isdecimal() else None
        return None if step is None else all_tables.build_at(step)
    processor, _, card = (query.pair or "").partition(":")
    cell = cell_of(all_tables, processor, card)
    return None if cell is None else all_tables.build_at(cell.winner)


def _same(build: Build, other: Build) -> bool:
    return all(build.of(kind) == other.of(kind) for kind in ALL_KINDS)


def _ghost(
    catalogue: Catalogue, opened: Opened, present: Assessment, trying: bool
) -> tuple[Assessment | None, str]:
    """What the pointers' ghosts stand for: the pinned build, else the adopted one, else the last
    state.
    """
    if opened.plan.pinned is not None:
        return (
            assess(catalogue, opened.plan.brief, opened.plan.pinned),
            "compared with the pinned build",
        )
    if trying:
        return present, "compared with the adopted build"
    before = opened.before
    if before is None or before.brief.region not in catalogue.regions:
        return None, ""
    return assess(catalogue, before.brief, before.build), "compared with before the last change"


def _trying(
    present: Assessment, now: Assessment, build: Build, query: DeskQuery, brief_id: int
) -> Trying:
    changed = [kind for kind in ALL_KINDS if now.build.of(kind) != build.of(kind)]
    delta = now.spent_minor - present.spent_minor
    cost = "at the same price"
    if delta:
        cost = f"{money(abs(delta), now.currency)} {'more' if delta > 0 else 'less'}"
    words = KIND_WORDS[changed[0]] if len(changed) == 1 else f"{len(changed)} changes"
    what = words
    if len(changed) == 1 and now.build.of(changed[0]):
        part = next(
            (line.part for line in now.lines if line.part_id == now.build.of(changed[0])[-1]), None
        )
        what = part.name if part else words
    met = f"{now.met} of {len(now.counted)} targets met" if now.counted else ""
    if present.counted and now.met != present.met:
        met += f" (was {present.met})"
    leave = query.url(brief_id, tried=None, propose=None, pair=None, step=None)
    sentence = f"Trying {what}: {cost}" + (f", {met}" if met else "") + "."
    return Trying(encode_build(now.build, build), sentence, leave)


def _finding(
    catalogue: Catalogue, now: Assessment, finding: Finding, opened: Opened, query: DeskQuery
) -> FindingView:
    def action(remedy: Remedy) -> tuple[str, str]:
        price = money(remedy.delivered_minor, now.currency)
        code = encode_build(remedy.build, opened.plan.build)
        name = (
            f"another {remedy.part.name}"
            if remedy.part.id in now.build.of(remedy.kind)
            else remedy.part.name
        )
        return f"{name}, {price}", query.url(opened.id, tried=code, propose=None, swap=None)

    remedies = finding_remedies(catalogue, now, finding) if finding.remedy_kinds else ()
    return FindingView(finding, tuple(action(remedy) for remedy in remedies))


def _swap(
    catalogue: Catalogue,
    present: Assessment,
    query: DeskQuery,
    brief_id: int,
    tried: Build | None,
    names: dict[str, str],
) -> SwapView | None:
    if query.swap is None:
        return None
    standing = present.build.of(query.swap)
    drive_id = query.place if query.place in standing else None
    if drive_id is None and standing and query.swap != "storage":
        drive_id = standing[0]
    new = [] if tried is None else [text for text in tried.of(query.swap) if text not in standing]
    tried_id = new[-1] if new else None
    swap_query = SwapQuery(
        kind=query.swap,
        present=drive_id,
        everything=query.everything,
        search=query.search,
        with_unfit=query.unfit,
        again_first=query.again,
        also=tried_id,
    )
    offered = swap(catalogue, present, swap_query)
    placed = query.model_copy(update={"place": drive_id})
    marked = any(part.again for part in catalogue.by_kind[query.swap])
    return swap_view(present, offered, placed, brief_id, tried_id, names, marked)


def _by_chip(query: DeskQuery) -> bool:
    """Whether graphics are chosen by chip: unless single cards are asked for."""
    single = (
        query.cards or query.everything or query.unfit or query.again or query.search or query.tried
    )
    return query.swap == "graphics" and not single


def _prices(catalogue: Catalogue, brief: Brief, now: Assessment) -> str:
    newest = catalogue.prices(brief.region, brief.may_buy).newest
    if newest is None:
        return "no prices for this region"
    stale = f", {now.stale} stale" if now.stale else ""
    return f"prices of {newest:%-d %b %Y}{stale}"
