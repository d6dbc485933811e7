"""A brief's page: everything that it shows, put together from the address and the stored plan."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Any

from wattmetron.cache.glimpse import Glimpse
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.remedies import Remedy
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.all_targets import at_once_words
from wattmetron.places.assessment.assess import Assessment, Remaining, assess
from wattmetron.places.assessment.pages.view_spec import FindingView, ViewContext, ViewSpec
from wattmetron.places.assessment.remaining import finding_remedies, remaining
from wattmetron.places.desk.pages.trial import Trying, ghost_of, tried_build, trying
from wattmetron.places.desk.pages.view_registry import BY_NAME, REGISTERED
from wattmetron.places.frames.pages.frames import FIGURE_NAMES, FrameRowView, frame_rows
from wattmetron.places.frames.pages.meters_panel import MeterView, meters
from wattmetron.places.frames.pages.settings import SettingsView, settings_view
from wattmetron.places.frames.pages.workings import WorkingView, working_view
from wattmetron.places.games.pages.beside_brief import equals_beside, game_beside
from wattmetron.places.games.pages.equals_panel import EqualsView
from wattmetron.places.games.pages.game import GamePanel
from wattmetron.places.proposal.no_answer import Answer, Reason
from wattmetron.places.proposal.pages.build_panel import BuildView, build_view
from wattmetron.places.proposal.pages.first_panel import FirstRow, first_panel
from wattmetron.places.proposal.pages.leftover_panel import RestView, leftover_panel
from wattmetron.places.proposal.pages.swap import ChipsView, SwapView, chips_panel, swap_panel
from wattmetron.places.proposal.proposals import answer, reasons_of
from wattmetron.shell.address import AIM_WORDS, DeskQuery, encode_build
from wattmetron.words.figures import money
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop


@dataclass(frozen=True, kw_only=True)
class Desk:
    """The page's content; ``content`` is what its view shows (None while it is worked out), the
    panels stand in the place of the view or beside it; ``drafts`` are what a form could not take;
    ``glimpse`` says what is still worked out.
    """

    opened: Opened
    query: DeskQuery
    catalogue: Catalogue
    now: Assessment
    meters: tuple[MeterView, ...]
    rows: tuple[FrameRowView, ...]
    build: BuildView
    findings: tuple[FindingView, ...]
    trying: Trying | None
    prices: str
    ghost_words: str
    view: ViewSpec
    content: Any
    swap: SwapView | None
    chips: ChipsView | None
    game: GamePanel | None
    equals: EqualsView | None
    settings: SettingsView | None
    working: WorkingView | None
    answer: Answer | None
    reasons: tuple[Reason, ...]
    rest: RestView | None
    first: tuple[FirstRow, ...]
    drafts: Mapping[str, str]
    glimpse: Glimpse
    notice: str = ""
    offers_redo: bool = False
    error: str = ""

    def url(self, **changes: object) -> str:
        return self.query.url(self.opened.id, **changes)

    @property
    def brief(self) -> Brief:
        return self.opened.plan.brief

    @property
    def waits(self) -> bool:
        """Whether some of the page is still worked out."""
        return self.glimpse.left_out > 0

    @property
    def views(self) -> tuple[ViewSpec, ...]:
        return REGISTERED

    @property
    def covered(self) -> bool:
        """Whether a panel stands in the place of the view."""
        return bool(self.swap or self.chips or self.game)

    @property
    def folded(self) -> bool:
        """Whether what is shown takes the width of the page."""
        return self.view.folded and not self.covered and not self.equals

    @property
    def figure_names(self) -> tuple[str, ...]:
        return FIGURE_NAMES

    @property
    def region_name(self) -> str:
        return self.catalogue.regions[self.brief.region].name

    @property
    def base(self) -> str:
        return f"/briefs/{self.opened.id}"


def make_desk(
    workshop: Workshop,
    brief_id: int,
    query: DeskQuery,
    drafts: Mapping[str, str],
    fresh_link: str = "",
    at_once: bool = False,
) -> Desk:
    """Compute what the page shows; ``drafts`` are what a form could not take, ``fresh_link`` is the
    link to the handout that was made just now. ``at_once``: what has to wait is left out.
    """
    glimpse = Glimpse(at_once)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    plan = opened.plan
    present = assess(catalogue, plan.brief, plan.build)
    proposal = glimpse.part(lambda: _proposal(catalogue, plan, query), None)
    tried = glimpse.part(lambda: tried_build(catalogue, plan, query, proposal), None)
    now = present if tried is None else assess(catalogue, plan.brief, tried)
    context = ViewContext(
        workshop=workshop,
        catalogue=catalogue,
        opened=opened,
        query=query,
        present=present,
        shown=now,
        drafts=drafts,
        fresh_link=fresh_link,
        glimpse=glimpse,
    )
    context = replace(context, findings=tuple(_findings(context, glimpse)))
    ghost, ghost_words = ghost_of(catalogue, opened, present, tried is not None)
    prices, view = _prices(catalogue, plan.brief, now), BY_NAME[query.view]
    left = glimpse.part(lambda: remaining(catalogue, now), None)
    panels = _panels(context, glimpse, tried, proposal)
    content = glimpse.part(lambda: view.make(context), None)
    return Desk(
        opened=opened,
        query=query,
        catalogue=catalogue,
        now=now,
        meters=meters(now, ghost, at_once_words(catalogue, now)),
        rows=frame_rows(now, ghost, context.game_names),
        build=_build(context, ghost, left),
        findings=context.findings,
        trying=None if tried is None else trying(present, now, plan.build, query, opened.id),
        prices=prices,
        ghost_words=ghost_words,
        view=view,
        content=content,
        working=working_view(catalogue, now, query.working, prices) if query.working else None,
        answer=proposal,
        reasons=() if proposal is None else reasons_of(catalogue, proposal.assessment),
        drafts=drafts,
        glimpse=glimpse,
        **panels,
    )


def _proposal(catalogue: Catalogue, plan: Plan, query: DeskQuery) -> Answer | None:
    if not query.propose:
        return None
    return answer(catalogue, plan.brief, plan.build, AIM_WORDS[query.propose])


def _panels(
    context: ViewContext, glimpse: Glimpse, tried: Build | None, proposal: Answer | None
) -> dict[str, Any]:
    """The panels by the names of their fields."""
    return {
        "swap": glimpse.part(lambda: swap_panel(context, tried), None),
        "chips": glimpse.part(lambda: chips_panel(context), None),
        "game": glimpse.part(lambda: game_beside(context), None),
        "equals": glimpse.part(lambda: equals_beside(context), None),
        "settings": glimpse.part(lambda: _settings(context), None),
        "rest": glimpse.part(lambda: leftover_panel(context, proposal), None),
        "first": glimpse.part(lambda: first_panel(context), ()),
    }


def _build(context: ViewContext, ghost: Assessment | None, left: Remaining | None) -> BuildView:
    """The list of parts, with what is left to choose."""
    plan, now = context.opened.plan, context.shown
    fill = (
        encode_build(left.build, plan.build)
        if left is not None and left.build is not None and context.tried is None
        else None
    )
    against = ghost if context.tried is not None or plan.pinned else None
    return build_view(now, against, left, context.query, context.opened.id, fill)


def _remedies(context: ViewContext, finding: Finding) -> tuple[Remedy, ...]:
    if not finding.remedy_kinds:
        return ()
    return finding_remedies(context.catalogue, context.shown, finding)


def _settings(context: ViewContext) -> SettingsView | None:
    query = context.query
    if not query.settings:
        return None
    url = query.url(context.opened.id, money=True)
    return settings_view(context.catalogue, context.shown, query.settings, query.money, url)


def _findings(context: ViewContext, glimpse: Glimpse) -> Iterator[FindingView]:
    """What the rules find, each with what clears it."""
    now = context.shown

    def action(remedy: Remedy) -> tuple[str, str]:
        price = money(remedy.delivered_minor, now.currency)
        name = remedy.part.name
        if remedy.part.id in now.build.of(remedy.kind):
            name = f"another {name}"
        return f"{name}, {price}", context.trial(remedy.build)

    for finding in now.findings:
        remedies = glimpse.part(partial(_remedies, context, finding), ())
        yield FindingView(finding, tuple(map(action, remedies)))


def _prices(catalogue: Catalogue, brief: Brief, now: Assessment) -> str:
    newest = catalogue.prices(brief.region, brief.may_buy).newest
    if newest is None:
        return "no prices for this region"
    stale = f", {now.stale} stale" if now.stale else ""
    return f"prices of {newest:%-d %b %Y}{stale}"
