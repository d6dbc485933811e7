"""Addresses that change the scale of speeds: charts and comparisons."""

from collections.abc import Callable

from fastapi import APIRouter, Request
from fastapi.responses import Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.table_text import text_of
from wattmetron.places.parts import charting
from wattmetron.places.parts.charting import ChartChange, ChartError
from wattmetron.places.parts.pages.chart_forms import ChartForm, OneChartForm
from wattmetron.places.parts.pages.edit_routes import typed_with_file
from wattmetron.places.parts.pages.routes import show_scale
from wattmetron.shell.computation_queue import changed
from wattmetron.shell.error_pages import status_of
from wattmetron.shell.forms import Typed, read
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False)
ChartEdit = Callable[[Workshop, Catalogue, Typed], ChartChange]


def _add_chart(workshop: Workshop, catalogue: Catalogue, entries: Typed) -> ChartChange:
    form = read(ChartForm, entries)
    chart = charting.pasted_chart(catalogue, form.source, form.table, form.unit)
    sentence = f"added {chart.name} with {len(chart.rows)} parts"
    return charting.store_chart(workshop, chart, chart.id, sentence)


def _add_comparison(workshop: Workshop, catalogue: Catalogue, entries: Typed) -> ChartChange:
    form = read(ChartForm, entries)
    chart = charting.typed_comparison(catalogue, form.source, form.ratio)
    sentence = f"added a comparison of {chart.rows[0].text} with {chart.rows[1].text}"
    return charting.store_chart(workshop, chart, chart.id, sentence)


def _mute(workshop: Workshop, catalogue: Catalogue, entries: Typed) -> ChartChange:
    form = read(OneChartForm, entries)
    return charting.mute(workshop, form.chart, form.muted)


def _remove_chart(workshop: Workshop, catalogue: Catalogue, entries: Typed) -> ChartChange:
    chart = catalogue.described.charts.get(read(OneChartForm, entries).chart)
    if chart is None:
        raise ChartError("There is no such chart any more: look at the list of sources.")
    return charting.store_chart(workshop, None, chart.id, f"removed {chart.name}")


def _undo_chart(workshop: Workshop, catalogue: Catalogue, entries: Typed) -> ChartChange:
    form = read(OneChartForm, entries)
    return charting.undo_chart(workshop, form.chart, form.version)


def _change_charts(request: Request, entries: Typed, edit: ChartEdit) -> Callable[[], Response]:
    workshop = workshop_of(request)
    names = ("measure", "reference", "part")
    params = {name: entries[name] for name in names if entries.get(name)}
    try:
        done = edit(workshop, workshop.catalogue(), entries)
    except WattmetronError as error:
        sentence, status = str(error), status_of(error)
        return lambda: show_scale(request, params, status, error=sentence, typed=entries)
    notice = f"{done.sentence[:1].upper()}{done.sentence[1:]}. Moved: {done.moved}."
    version = charting.chart_version(workshop, done.chart_id)
    return lambda: show_scale(
        request, params, notice=notice, changed=done.chart_id, version=version
    )


async def _typed_chart(request: Request) -> Typed:
    """A chart's form; a chosen file takes the place of the pasted table."""
    entries, name, data = await typed_with_file(request)
    return entries | {"table": text_of(data)} if name else entries


def _register(path: str, edit: ChartEdit) -> None:
    async def handle(request: Request) -> Response:
        entries = await _typed_chart(request)
        return await changed(request, lambda: _change_charts(request, entries, edit))

    router.add_api_route(f"/parts/scale/{path}", handle, methods=["POST"], response_model=None)


for _path, _edit in {
    "charts": _add_chart,
    "comparisons": _add_comparison,
    "mute": _mute,
    "remove": _remove_chart,
    "undo": _undo_chart,
}.items():
    _register(_path, _edit)
