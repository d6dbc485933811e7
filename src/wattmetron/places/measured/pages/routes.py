"""The place Measured: runs in a list and in full, before and after."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from fastapi import APIRouter, Request
from fastapi.responses import Response, StreamingResponse
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import NotFoundError, NotPossibleError, WattmetronError
from wattmetron.core.runs.difference import Difference, difference
from wattmetron.core.runs.report import Report
from wattmetron.core.values.runs import SCENES, Channel
from wattmetron.formats.run_file import frames_table
from wattmetron.places.measured.as_result import NoEvidenceError
from wattmetron.places.measured.evidence import (
    EvidenceEffect,
    effect,
    in_step,
    leave_as_evidence,
    take_as_evidence,
)
from wattmetron.places.measured.pages.forms import RunChangeForm, changed
from wattmetron.places.measured.pages.run_view import run_page
from wattmetron.places.measured.pages.views import honesty_view, run_row
from wattmetron.places.measured.promises import is_at
from wattmetron.places.measured.run_library import (
    MeasuredRun,
    all_runs,
    change_run,
    drawn_of,
    open_run,
    take_out,
    trace_of,
    undo_run,
)
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import Form, Short200, Typed, read, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False, route_class=PageRoute)
MOST_SHOWN = 200


@router.get("/measured")
def list_runs(request: Request) -> Response:
    return show_list(request)


def show_list(
    request: Request,
    notice: str = "",
    error: str = "",
    status: int = 200,
    undo: tuple[int, int] | None = None,
) -> Response:
    """The list; ``undo`` is the id and the version of a run that was taken out."""
    workshop = workshop_of(request)
    catalogue, runs = workshop.catalogue(), all_runs(workshop)
    content = {
        "rows": [run_row(catalogue, run) for run in runs[:MOST_SHOWN]],
        "more": max(0, len(runs) - MOST_SHOWN),
        "honesty": honesty_view(catalogue, runs),
        "briefs": workshop.briefs(),
        "live": request.app.state.recorder.live,
        "notice": notice,
        "undo": undo,
        "error": error,
    }
    return page(request, "places/measured/pages/measured.html", content, status, "/measured")


class DifferenceQuery(Form):
    """Runs before and after, by their ids with commas between."""

    before: Short200 = ""
    after: Short200 = ""


@router.get("/measured/difference")
def show_difference(request: Request) -> Response:
    """Two sets of runs, and whether what lies between them is real."""
    workshop = workshop_of(request)
    catalogue, query = workshop.catalogue(), read(DifferenceQuery, request.query_params)
    every = {run.id: run for run in all_runs(workshop)}
    sides = [[every[n] for n in _ids(text) if n in every] for text in (query.before, query.after)]
    comparison, problem = None, ""
    try:
        comparison = _compared(*sides)
    except NotPossibleError as error:
        problem = str(error)
    content = {
        "rows": [run_row(catalogue, run) for run in every.values()][:MOST_SHOWN],
        "before": {run.id for run in sides[0]},
        "after": {run.id for run in sides[1]},
        "found": comparison,
        "problem": problem,
        "beside": _beside(*sides),
        "sure": _sure,
    }
    return page(request, "places/measured/pages/difference.html", content)


def _ids(text: str) -> list[int]:
    return [int(word) for word in text.split(",") if word.strip().isdecimal() and len(word) < 12][
        :40
    ]


def _compared(
    before: list[MeasuredRun], after: list[MeasuredRun]
) -> list[tuple[str, Difference, str]] | None:
    """What changed in average, low, energy and heat; None where nothing is chosen yet."""
    if not before and not after:
        return None
    if not before or not after:
        raise NotPossibleError("Choose at least one run before and one after.")
    first = before[0].run
    same = all(
        (
            measured_run.run.game,
            measured_run.run.width_px,
            measured_run.run.height_px,
            measured_run.run.preset,
        )
        == (first.game, first.width_px, first.height_px, first.preset)
        for measured_run in (*before, *after)
    )
    if not same:
        raise NotPossibleError(
            "These runs are not all of one game at the same settings: what lies between them would"
            " say nothing about what was changed."
        )
    if any(run.report is not None and run.report.held for run in (*before, *after)):
        raise NotPossibleError(
            "A cap or the display held some of these runs back: measure without it to compare."
        )
    averages = [[run.measured for run in side if run.measured] for side in (before, after)]
    if not all(averages):
        raise NotPossibleError("One side has no run that says a rate.")
    rows = [("average", difference(*averages), _settled(difference(*averages)))]
    lows = [[run.report.summary.low for run in side if run.report] for side in (before, after)]
    if all(lows):
        rows.append(("1 % low", difference(*lows), _settled(difference(*lows))))
    return rows


def _beside(before: list[MeasuredRun], after: list[MeasuredRun]) -> list[tuple[str, str, str]]:
    """What both sides drew and how warm they became, where that was logged on both."""

    def mean(side: list[MeasuredRun], of: Callable[[Report], float | None]) -> float | None:
        known = [v for run in side if run.report and (v := of(run.report)) is not None]
        return sum(known) / len(known) if known else None

    rows = []
    for name, unit, of in BESIDE:
        first, second = mean(before, of), mean(after, of)
        if first is not None and second is not None:
            rows.append((name, f"{_plain(first)} {unit}", f"{_plain(second)} {unit}"))
    return rows


def _plain(value: float) -> str:
    return f"{value:,.2f}" if abs(value) < 20 else f"{value:,.0f}"


def _sure(chance: float) -> str:
    """A chance in per cent; nothing measured is ever sure."""
    return "over 99 %" if chance > 0.99 else f"{chance * 100:.0f} %"


def _level(name: Channel) -> Callable[[Report], float | None]:
    return lambda report: report.levels[name].high if name in report.levels else None


BESIDE: tuple[tuple[str, str, Callable[[Report], float | None]], ...] = (
    ("power while playing", "W", lambda report: report.watts.get("while playing")),
    ("energy a frame", "J", lambda report: report.energy_j),
    ("processor, warmest", "°C", _level("processor_c")),
    ("graphics, warmest", "°C", _level("graphics_c")),
    ("fans, fastest", "1/min", _level("fan_rpm")),
)


def _settled(compared: Difference) -> str:
    if compared.more_runs == 0:
        return "settled"
    if compared.more_runs is None:
        return "more runs would hardly settle it: the two are about alike"
    runs = "1 more run" if compared.more_runs == 1 else f"{compared.more_runs} more runs"
    return f"{runs} on either side would settle it, if it stays like this"


@router.get("/measured/{run_id}")
def show_one(request: Request, run_id: int) -> Response:
    return show_run(request, run_id)


def show_run(
    request: Request, run_id: int, notice: str = "", error: str = "", status: int = 200
) -> Response:
    workshop = workshop_of(request)
    catalogue, run = workshop.catalogue(), open_run(workshop, run_id)
    content = {
        "r": run_page(catalogue, run, drawn_of(workshop, run_id), _wanted_fps(workshop, run)),
        "scenes": SCENES,
        "notice": notice,
        "error": error,
    }
    return page(request, "places/measured/pages/run.html", content, status, f"/measured/{run_id}")


@router.get("/measured/{run_id}/would")
def would_change(request: Request, run_id: int) -> Response:
    """What taking a run as evidence would change, for its page."""
    workshop = workshop_of(request)
    try:
        run = open_run(workshop, run_id)
    except NotFoundError as error:
        gone = {"would": None, "refused": str(error), "id": run_id, "version": 0}
        return page(request, "places/measured/pages/would.html", gone)
    would, refused = _would(workshop, run)
    content = {"would": would, "refused": refused, "id": run_id, "version": run.version}
    return page(request, "places/measured/pages/would.html", content)


def _would(workshop: Workshop, run: MeasuredRun) -> tuple[EvidenceEffect | None, str]:
    """What taking a run as evidence would change, or why it cannot be taken."""
    try:
        return effect(workshop, run), ""
    except NoEvidenceError as error:
        return None, str(error)
    except WattmetronError:
        return None, "Its game or its parts are no longer in the catalogue."


def _wanted_fps(workshop: Workshop, measured_run: MeasuredRun) -> float | None:
    """The rate that a target of the run's brief wants at these settings."""
    try:
        brief = workshop.open(measured_run.run.brief_id).plan.brief
    except WattmetronError:
        return None
    return next(
        (
            target.fps
            for target in brief.targets
            if target.game_id == measured_run.run.game and is_at(measured_run.run, target)
        ),
        None,
    )


@router.get("/measured/{run_id}/frames.csv")
def frames_file(request: Request, run_id: int) -> Response:
    """The frames of a run as an open table."""
    trace = trace_of(workshop_of(request), run_id)
    if trace is None:
        raise NotPossibleError("This run was read by hand: it has no frames.")
    return StreamingResponse(
        frames_table(trace),
        media_type="text/csv",
        headers={"content-disposition": f'attachment; filename="run-{run_id}.csv"'},
    )


# --- changes --------------------------------------------------------------------------------------


@router.post("/measured/{run_id}")
async def edit(request: Request, run_id: int) -> Response:
    """What is said of a run, and what is kept of it."""
    entries = await typed(request)
    return await run_in_threadpool(_edit, request, run_id, entries)


def _edit(request: Request, run_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(RunChangeForm, entries)
    try:
        measured_run = open_run(workshop, run_id)
        change_run(workshop, run_id, form.version, changed(measured_run.run, form))
    except WattmetronError as error:
        return show_run(request, run_id, error=str(error), status=422)
    return show_run(request, run_id, "The run was changed.")


Action = Callable[[Workshop, int, int], str]


async def _acted(request: Request, run_id: int, action: Action) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_act, request, run_id, entries, action)


def _act(request: Request, run_id: int, entries: Typed, action: Action) -> Response:
    form = read(RunChangeForm, entries)
    try:
        sentence = action(workshop_of(request), run_id, form.version)
    except WattmetronError as error:
        return show_run(request, run_id, error=str(error), status=422)
    return show_run(request, run_id, sentence)


@router.post("/measured/{run_id}/evidence")
async def take(request: Request, run_id: int) -> Response:
    """Count the run as evidence of its game."""

    def action(workshop: Workshop, run_id: int, version: int) -> str:
        words = take_as_evidence(workshop, run_id, version)
        return f"The run counts as evidence now. Work a frame: {words}."

    return await _acted(request, run_id, action)


@router.post("/measured/{run_id}/leave")
async def leave(request: Request, run_id: int) -> Response:
    """Let the run no longer count."""

    def action(workshop: Workshop, run_id: int, version: int) -> str:
        words = leave_as_evidence(workshop, run_id, version)
        return f"The run no longer counts{f': {words}' if words else ''}."

    return await _acted(request, run_id, action)


@router.post("/measured/{run_id}/mute")
async def mute(request: Request, run_id: int) -> Response:
    """Leave a run out of everything, or let it count again."""

    def action(workshop: Workshop, run_id: int, version: int) -> str:
        measured_run = open_run(workshop, run_id)
        if measured_run.run.result:
            leave_as_evidence(workshop, run_id, version)
            measured_run, version = open_run(workshop, run_id), version + 1
        change_run(
            workshop, run_id, version, replace(measured_run.run, muted=not measured_run.run.muted)
        )
        return "The run is left out." if not measured_run.run.muted else "The run counts again."

    return await _acted(request, run_id, action)


@router.post("/measured/{run_id}/undo")
async def undo(request: Request, run_id: int) -> Response:
    """Take the last change back."""
    entries = await typed(request)
    return await run_in_threadpool(partial(_undo, request, run_id, entries))


def _undo(request: Request, run_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(RunChangeForm, entries)
    try:
        undo_run(workshop, run_id, form.version)
        in_step(workshop, run_id)
    except WattmetronError as error:
        return show_list(request, error=str(error), status=422)
    return show_run(request, run_id, "The last change was taken back.")


@router.post("/measured/{run_id}/remove")
async def remove(request: Request, run_id: int) -> Response:
    """Take a run out."""
    entries = await typed(request)
    return await run_in_threadpool(_remove, request, run_id, entries)


def _remove(request: Request, run_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(RunChangeForm, entries)
    try:
        measured_run = open_run(workshop, run_id)
        version = form.version
        if measured_run.run.result:
            leave_as_evidence(workshop, run_id, version)
            version += 1
        take_out(workshop, run_id, version)
    except WattmetronError as error:
        return show_run(request, run_id, error=str(error), status=422)
    return show_list(request, "The run was taken out.", undo=(run_id, version + 1))
