"""The place Parts: the list by kind, one part in full, the scale of speeds and the charts behind
it.
"""

from collections.abc import Callable
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import FormData, UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, WattmetronError
from wattmetron.core.values.charts import MEASURES
from wattmetron.services.parts.charting import (
    Changed,
    ChartError,
    chart_version,
    mute,
    pasted_chart,
    store_chart,
    typed_comparison,
    undo_chart,
)
from wattmetron.services.workshop import Workshop
from wattmetron.web.parts.edit_routes import notice_of
from wattmetron.web.parts.scale import MEASURE_WORDS, read_scale_query, scale_page
from wattmetron.web.parts.shelf import shelf_page
from wattmetron.web.parts.shelf_state import read_state
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)
Form = dict[str, str]


@router.get("/parts")
def list_page(request: Request) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    state = read_state(workshop, catalogue, dict(request.query_params))
    content = {
        "s": shelf_page(catalogue, state),
        "briefs": [(one.id, one.plan.brief.name) for one in workshop.briefs()],
        "regions": [(one.id, one.name) for one in catalogue.regions.values()],
        **notice_of(workshop, dict(request.query_params)),
    }
    return page(request, "parts/shelf.html", content)


@router.get("/parts/scale")
def show_scale(request: Request) -> Response:
    return _scale(request, dict(request.query_params))


def _scale(request: Request, params: Form, status: int = 200, **more: Any) -> Response:
    catalogue = workshop_of(request).catalogue()
    query = read_scale_query(catalogue, params)
    shown = scale_page(catalogue, query)
    content = {
        "s": shown,
        "measures": [(one, MEASURE_WORDS[one]) for one in MEASURES],
        "error": shown.error,
        "notice": "",
        "changed": None,
        "version": 0,
        "typed": {},
    }
    return page(
        request,
        "parts/scale.html",
        content | more,
        status,
        query.url() if request.method == "POST" else None,
    )


async def _form(request: Request) -> Form:
    data: FormData = await request.form(max_fields=40, max_files=1)
    found = {name: value for name, value in data.items() if isinstance(value, str)}
    upload = data.get("file")
    if isinstance(upload, UploadFile) and upload.filename:
        found["table"] = (await upload.read()).decode("utf-8-sig", errors="replace")
    return found


def _change(
    request: Request, form: Form, change: Callable[[Workshop, Catalogue], Changed]
) -> Response:
    workshop = workshop_of(request)
    params = {name: form[name] for name in ("measure", "reference", "part") if form.get(name)}
    try:
        done = change(workshop, workshop.catalogue())
    except WattmetronError as error:
        status = 409 if isinstance(error, ConflictError) else 422
        return _scale(request, params, status, error=str(error), typed=form)
    notice = f"{done.said[:1].upper()}{done.said[1:]}. Moved: {done.moved}."
    version = chart_version(workshop, done.chart_id)
    return _scale(request, params, notice=notice, changed=done.chart_id, version=version)


def _route(path: str, change: Callable[[Workshop, Catalogue, Form], Changed]) -> None:
    async def handle(request: Request) -> Response:
        form = await _form(request)
        return await run_in_threadpool(
            _change, request, form, lambda workshop, catalogue: change(workshop, catalogue, form)
        )

    router.add_api_route(f"/parts/scale/{path}", handle, methods=["POST"], response_model=None)


def _add_chart(workshop: Workshop, catalogue: Catalogue, form: Form) -> Changed:
    chart = pasted_chart(catalogue, form)
    return store_chart(
        workshop, chart, chart.id, f"added {chart.name} with {len(chart.rows)} parts"
    )


def _add_comparison(workshop: Workshop, catalogue: Catalogue, form: Form) -> Changed:
    chart = typed_comparison(catalogue, form)
    return store_chart(
        workshop,
        chart,
        chart.id,
        f"added a comparison of {chart.rows[0].text} with {chart.rows[1].text}",
    )


def _mute(workshop: Workshop, catalogue: Catalogue, form: Form) -> Changed:
    return mute(workshop, form.get("chart", ""), form.get("muted") == "1")


def _remove(workshop: Workshop, catalogue: Catalogue, form: Form) -> Changed:
    chart = catalogue.described.charts.get(form.get("chart", ""))
    if chart is None:
        raise ChartError("There is no such chart any more: look at the list of sources.")
    return store_chart(workshop, None, chart.id, f"removed {chart.name}")


def _undo(workshop: Workshop, catalogue: Catalogue, form: Form) -> Changed:
    version = form.get("version", "")
    return undo_chart(workshop, form.get("chart", ""), int(version) if version.isdecimal() else 0)


_route("charts", _add_chart)
_route("comparisons", _add_comparison)
_route("mute", _mute)
_route("remove", _remove)
_route("undo", _undo)
