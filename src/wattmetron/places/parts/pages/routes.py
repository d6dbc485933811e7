"""The place Parts: the list of a kind, one part in full, forms, the scale of speeds."""

from collections.abc import Mapping
from typing import Any, get_args

from fastapi import APIRouter, Request
from fastapi.responses import Response

from wattmetron.core.values.charts import MEASURES
from wattmetron.core.values.offers import Condition
from wattmetron.core.values.part_kinds import KIND_PLURALS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.risk import HIRE, NO_RETURNS, UNTESTED
from wattmetron.formats.template import template
from wattmetron.places.parts import part_edits
from wattmetron.places.parts.pages.part import part_page
from wattmetron.places.parts.pages.part_form import part_form
from wattmetron.places.parts.pages.part_forms import cells_of, known_kind
from wattmetron.places.parts.pages.parts_list_state import read_state
from wattmetron.places.parts.pages.parts_list_view import shelf_page
from wattmetron.places.parts.pages.scale_page import MEASURE_WORDS, read_scale_query, scale_page
from wattmetron.places.parts.table_import import TablePreview
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import Form, Number, Short40, Typed, read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import sayings_of, workshop_of
from wattmetron.words.offer_words import STOCK_WORDS

router = APIRouter(include_in_schema=False, route_class=PageRoute)
KEPT_BY_BROWSERS = "private, max-age=31536000, immutable"


class NoticeQuery(Form):
    """What was just done, as the address says it."""

    done: Number = 0
    said: Short40 = ""
    error: Short40 = ""


def notice_of(request: Request, params: Mapping[str, str]) -> dict[str, Any]:
    """What was just done, with the edit that can be taken back, or what could not be done."""
    query = read(NoticeQuery, params)
    done = part_edits.edit_said(workshop_of(request), query.done) if query.done else ""
    sayings = sayings_of(request)
    notice = f"{done[:1].upper()}{done[1:]}." if done else sayings.of(query.said)
    return {
        "notice": notice,
        "edit": query.done if done else "",
        "refused": sayings.of(query.error),
    }


@router.get("/parts")
def list_page(request: Request) -> Response:
    workshop, params = workshop_of(request), dict(request.query_params)
    catalogue = workshop.catalogue()
    content = {
        "s": shelf_page(catalogue, read_state(workshop, catalogue, params)),
        "briefs": [(row.id, row.plan.brief.name) for row in workshop.briefs()],
        "regions": [(region.id, region.name) for region in catalogue.regions.values()],
        **notice_of(request, params),
    }
    return page(request, "places/parts/pages/shelf.html", content)


@router.get("/parts/{part_id}/picture")
def picture(request: Request, part_id: str) -> Response:
    """The user's picture of a part; its address changes with it."""
    data = part_edits.picture_of(workshop_of(request), part_id)
    if data is None:
        return Response("This part has no picture.", 404)
    return Response(data, media_type="image/webp", headers={"cache-control": KEPT_BY_BROWSERS})


@router.get("/parts/scale")
def scale(request: Request) -> Response:
    return show_scale(request, request.query_params)


def show_scale(
    request: Request, params: Mapping[str, str], status: int = 200, **more: Any
) -> Response:
    """The scale of speeds; ``more`` are a notice with what was changed, or an error with what was
    typed.
    """
    catalogue = workshop_of(request).catalogue()
    query = read_scale_query(catalogue, params)
    shown = scale_page(catalogue, query)
    content = {
        "s": shown,
        "measures": [(measure, MEASURE_WORDS[measure]) for measure in MEASURES],
        "error": shown.error,
        "notice": "",
        "changed": None,
        "version": 0,
        "typed": {},
    }
    url = query.url() if request.method == "POST" else None
    return page(request, "places/parts/pages/scale.html", content | more, status, url)


@router.get("/parts/new")
def new_part(request: Request, kind: str = "processor", like: str = "") -> Response:
    """An empty form, or that of a variant of another part."""
    old = workshop_of(request).catalogue().described.parts.get(like)
    cells = cells_of(part_edits.variant_of(old)) if old else {}
    shown = part_form(kind_of(old) if old else known_kind(kind), "", "", cells, 0)
    return page(request, "places/parts/pages/part_form.html", {"f": shown, "error": ""})


@router.get("/parts/template.zip")
def download_template() -> Response:
    """A catalogue folder with heads alone, to be filled in."""
    headers = {"content-disposition": 'attachment; filename="wattmetron-catalogue.zip"'}
    return Response(template(), media_type="application/zip", headers=headers)


@router.get("/parts/import")
def import_page(request: Request) -> Response:
    return show_import(request, None, "")


def show_import(
    request: Request, preview: TablePreview | None, name: str, error: str = ""
) -> Response:
    """The form for a table, with what the table would do where it was read."""
    content = {"p": preview, "name": name, "error": error, "kinds": list(KIND_PLURALS.items())}
    return page(request, "places/parts/pages/part_import.html", content, 422 if error else 200)


@router.get("/parts/{part_id}/edit")
def edit_part(request: Request, part_id: str) -> Response:
    return show_edit(request, part_id)


def show_edit(
    request: Request,
    part_id: str,
    cells: Typed | None = None,
    error: str = "",
    status: int = 200,
) -> Response:
    """A part's form, as it is or as it was typed."""
    workshop = workshop_of(request)
    part = workshop.catalogue().described.part(part_id)
    kind = kind_of(part)
    version = part_edits.part_version(workshop, part_id, kind)
    typed = cells_of(part) if cells is None else cells
    shown = part_form(kind, part_id, part.name, typed, version)
    return page(request, "places/parts/pages/part_form.html", {"f": shown, "error": error}, status)


@router.get("/parts/{part_id}")
def one_part(request: Request, part_id: str) -> Response:
    workshop, params = workshop_of(request), dict(request.query_params)
    catalogue = workshop.catalogue()
    content = {
        "s": part_page(workshop, catalogue, part_id, params),
        "regions": [
            (region.id, f"{region.name} ({region.currency})")
            for region in catalogue.regions.values()
        ],
        "conditions": get_args(Condition),
        "stocks": STOCK_WORDS,
        "known_remarks": (HIRE, UNTESTED, NO_RETURNS),
        **notice_of(request, params),
    }
    return page(request, "places/parts/pages/part.html", content)
