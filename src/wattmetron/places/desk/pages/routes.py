"""A brief's page and every change that it can make."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.deciding import deciding_words
from wattmetron.places.balance.pages.beside import beside_view, cell_view
from wattmetron.places.balance.pages.budget_steps_page import steps_page
from wattmetron.places.buy.pages.buy import NO_HISTORY, History
from wattmetron.places.compare.pages.snapshot_panel import past_of
from wattmetron.places.compatibility.pages.assembly_page import assembly_page
from wattmetron.places.desk.pages.desk import NO_PAST, make_desk
from wattmetron.places.games.publishing import game_state
from wattmetron.places.handout.handout_links import Of, links_of
from wattmetron.places.handout.house_rules import housed
from wattmetron.places.handout.pages.view import Handing
from wattmetron.places.measured.run_library import all_runs
from wattmetron.places.proposal.pages.find_page import found_view
from wattmetron.places.shops.sale_prices import sale_words, sales_of
from wattmetron.shell.address import VIEWS, DeskQuery
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False, route_class=PageRoute)
Edit = Callable[[Plan, dict[str, str], Catalogue], tuple[Plan, str]]


@router.get("/briefs/{brief_id}")
def open_brief(brief_id: int) -> Response:
    return RedirectResponse(f"/briefs/{brief_id}/brief", 303)


@router.get("/briefs/{brief_id}/find")
def find(request: Request, brief_id: int, q: str = "") -> Response:
    """Parts and games by name, for the finder."""
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    return page(
        request,
        "places/proposal/pages/found.html",
        {"found": found_view(catalogue, opened, q), "opened": opened},
    )


@router.get("/briefs/{brief_id}/answer")
def answer_beside(request: Request, brief_id: int) -> Response:
    """The proposal that stands beside the brief."""
    workshop = workshop_of(request)
    beside = beside_view(workshop.catalogue(), workshop.open(brief_id))
    return page(request, "places/balance/pages/beside.html", {"b": beside})


@router.get("/briefs/{brief_id}/cell")
def cell_beside(request: Request, brief_id: int, pair: str = "") -> Response:
    """The build of a pairing that stands beside the map."""
    workshop = workshop_of(request)
    view = cell_view(workshop.catalogue(), workshop.open(brief_id), pair[:170])
    return page(request, "places/balance/pages/cell.html", {"b": view})


@router.get("/briefs/{brief_id}/decides")
def wishes_that_decide(request: Request, brief_id: int) -> Response:
    """Which wishes of the brief decide the best build, in one sentence."""
    workshop = workshop_of(request)
    catalogue, plan = workshop.catalogue(), workshop.open(brief_id).plan
    words = deciding_words(catalogue, assess(catalogue, plan.brief, plan.build))
    return page(request, "places/balance/pages/decides.html", {"words": words})


@router.get("/briefs/{brief_id}/assembly")
def show_assembly(request: Request, brief_id: int) -> Response:
    """The assembly list of the build, to be ticked off."""
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    return page(
        request,
        "places/compatibility/pages/assembly.html",
        {"list": assembly_page(catalogue, opened)},
    )


@router.get("/briefs/{brief_id}/steps")
def show_steps(request: Request, brief_id: int, amounts: str = "", rise: str = "") -> Response:
    """A few budgets side by side."""
    workshop = workshop_of(request)
    steps = steps_page(workshop.catalogue(), workshop.open(brief_id), amounts[:120], rise[:20])
    return page(
        request, "places/balance/pages/budget_steps.html", {"s": steps}, 422 if steps.error else 200
    )


@router.get("/briefs/{brief_id}/{view}")
def show_view(request: Request, brief_id: int, view: str) -> Response:
    if view not in VIEWS:
        return RedirectResponse(f"/briefs/{brief_id}/brief", 303)
    return show(request, brief_id, view, dict(request.query_params))


def show(
    request: Request,
    brief_id: int,
    view: str,
    params: dict[str, str],
    status: int = 200,
    url: str | None = None,
    **more: object,
) -> Response:
    """The page in its present state; ``more`` are notice, error or drafts."""
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    compares = view == "compare"
    desk = make_desk(
        catalogue,
        opened,
        read(DeskQuery, {**params, "view": view}),
        lambda game_id: game_state(workshop, game_id),
        Handing(links_of(workshop, Of(brief_id)), housed(workshop))
        if view == "handout"
        else Handing(),
        tuple(workshop.briefs()) if compares else (),
        past_of(workshop, catalogue, opened, params.get("since", "")) if compares else NO_PAST,
        _history(workshop, opened) if view == "buy" else NO_HISTORY,
        all_runs(workshop, brief_id) if view == "measured" else (),
    )
    fresh_link = more.pop("fresh_link", "")
    if desk.handout is not None and fresh_link:
        more["handout"] = replace(desk.handout, fresh_link=str(fresh_link))
    desk = replace(desk, **more)  # type: ignore[arg-type]
    return page(request, "places/desk/pages/desk.html", {"desk": desk}, status, url)


SALE_KINDS: frozenset[Kind] = frozenset({"processor", "graphics", "memory", "storage"})
"""Of what the view Buy says what sale days did: what costs most."""


def _history(workshop: Workshop, opened: Opened) -> History:
    """What shops asked over time for the parts of a build, and when the build changed."""
    part_ids = {part_id for _, part_id in opened.plan.build.ids()}
    spans = workshop.offer_spans(part_ids, opened.plan.brief.region)
    brief, catalogue = opened.plan.brief, workshop.catalogue()
    kinds = [kind for kind, _ in opened.plan.build.ids() if kind in SALE_KINDS]
    return History(
        spans,
        workshop.build_changes(opened.id),
        sales_of(catalogue, brief.region),
        sale_words(
            workshop, catalogue, dict.fromkeys(kinds), brief.region, datetime.now(UTC).date()
        ),
    )
