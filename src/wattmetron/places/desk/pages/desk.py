"""A brief's page: everything that it shows, put together from the address and the stored plan."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.remedies import Remedy
from wattmetron.core.values.brief import Brief
from wattmetron.places.assessment.all_targets import at_once_words
from wattmetron.places.assessment.assess import Assessment, assess
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
    """The page's content; ``content`` is what its view shows, the panels stand in the place of the
    view or beside it; ``drafts`` are what a form could not take.
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
    notice: str = ""
    offers_redo: bool = False
    error: str = ""

    def url(self, **changes: object) -> str:
        return self.query.url(self.opened.id, **changes)

    @property
    def brief(self) -> Brief:
        return self.opened.plan.brief

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
) -> Desk:
    """Compute what the page shows; ``drafts`` are what a form could not take, ``fresh_link`` is the
    link to the handout that was made just now.
    """
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    plan = opened.plan
    present = assess(catalogue, plan.brief, plan.build)
    proposal = (
        answer(catalogue, plan.brief, plan.build, AIM_WORDS[query.propose])
        if query.propose
        else None
    )
    tried = tried_build(catalogue, plan, query, proposal)
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
    )
    context = replace(context, findings=tuple(_findings(context)))
    ghost, ghost_words = ghost_of(catalogue, opened, present, tried is not None)
    prices, view = _prices(catalogue, plan.brief, now), BY_NAME[query.view]
    return Desk(
        opened=opened,
        query=query,
        catalogue=catalogue,
        now=now,
        meters=meters(now, ghost, at_once_words(catalogue, now)),
        rows=frame_rows(now, ghost, context.game_names),
        build=_build(context, ghost),
        findings=context.findings,
        trying=None if tried is None else trying(present, now, plan.build, query, opened.id),
        prices=prices,
        ghost_words=ghost_words,
        view=view,
        content=view.make(context),
        swap=swap_panel(context, tried),
        chips=chips_panel(context),
        game=game_beside(context),
        equals=equals_beside(context),
        settings=_settings(context),
        working=working_view(catalogue, now, query.working, prices) if query.working else None,
        answer=proposal,
        reasons=() if proposal is None else reasons_of(catalogue, proposal.assessment),
        rest=leftover_panel(context, proposal),
        first=first_panel(context),
        drafts=drafts,
    )


def _build(context: ViewContext, ghost: Assessment | None) -> BuildView:
    """The list of parts, with what is left to choose."""
    plan, now = context.opened.plan, context.shown
    left = remaining(context.catalogue, now)
    fill = (
        encode_build(left.build, plan.build)
        if left is not None and left.build is not None and context.tried is None
        else None
    )
    against = ghost if context.tried is not None or plan.pinned else None
    return build_view(now, against, left, context.query, context.opened.id, fill)


def _settings(context: ViewContext) -> SettingsView | None:
    query = context.query
    if not query.settings:
        return None
    url = query.url(context.opened.id, money=True)
    return settings_view(context.catalogue, context.shown, query.settings, query.money, url)


def _findings(context: ViewContext) -> Iterator[FindingView]:
    """What the rules find, each with what clears it."""
    now = context.shown

    def action(remedy: Remedy) -> tuple[str, str]:
        price = money(remedy.delivered_minor, now.currency)
        name = remedy.part.name
        if remedy.part.id in now.build.of(remedy.kind):
            name = f"another {name}"
        return f"{name}, {price}", context.trial(remedy.build)

    for finding in now.findings:
        remedies = finding_remedies(context.catalogue, now, finding) if finding.remedy_kinds else ()
        yield FindingView(finding, tuple(map(action, remedies)))


def _prices(catalogue: Catalogue, brief: Brief, now: Assessment) -> str:
    newest = catalogue.prices(brief.region, brief.may_buy).newest
    if newest is None:
        return "no prices for this region"
    stale = f", {now.stale} stale" if now.stale else ""
    return f"prices of {newest:%-d %b %Y}{stale}"
