"""A brief's page and every change that it can make."""

from collections.abc import Callable
from dataclasses import replace
from zlib import crc32

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.deciding import deciding_words
from wattmetron.places.balance.pages.beside import beside_view, cell_view
from wattmetron.places.balance.pages.budget_steps_page import steps_page
from wattmetron.places.compatibility.pages.assembly_page import assembly_page
from wattmetron.places.desk.pages.desk import make_desk
from wattmetron.places.proposal.pages.find_page import found_view
from wattmetron.shell.address import VIEWS, DeskQuery
from wattmetron.shell.computation_queue import PageRoute, ask_meanwhile, shown_at_once
from wattmetron.shell.forms import read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)
MOST_ASKED = 999
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
    drafts: dict[str, str] | None = None,
    fresh_link: str = "",
    **more: object,
) -> Response:
    """The page in its present state; ``more`` are notice or error."""
    query = read(DeskQuery, {**params, "view": view})
    at_once = shown_at_once(request)
    desk = make_desk(workshop_of(request), brief_id, query, drafts or {}, fresh_link, at_once)
    desk = replace(desk, **more)  # type: ignore[arg-type]
    ask_meanwhile(request, desk.glimpse)
    left, missing = desk.glimpse.left_out, len(desk.glimpse.tasks)
    most = max(missing, min(MOST_ASKED, _whole_number(params.get("of", ""))))
    address = request.url.remove_query_params(["rest", "of"]).include_query_params(whole="1")
    whole_url = f"{address.path}?{address.query}"
    content = {
        "desk": desk,
        "whole_url": whole_url,
        "rest_url": f"{whole_url}&rest={left}&of={most}",
        "rest_id": f"rest-{crc32(whole_url.encode())}",
        "done": most - missing,
        "of": most,
    }
    if left and params.get("rest") == str(left):
        answer = page(request, "shell/waiting_rest.html", content)
        answer.headers["hx-reswap"] = "none"
        return answer
    return page(request, "places/desk/pages/desk.html", content, status, url)


def _whole_number(text: str) -> int:
    return int(text) if text.isascii() and text.isdigit() and len(text) < 4 else 0
