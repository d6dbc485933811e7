"""Taking runs in: recorded from meters, from files, by hand."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import JSONResponse, RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.errors import WattmetronError
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.runs import CHANNELS, SCENES, Run, Trace
from wattmetron.core.values.text import clean
from wattmetron.formats.frames_table import (
    HOLDS,
    UNITS,
    Columns,
    ColumnsUnclearError,
    FramesError,
    Holds,
    ReadFrames,
    Unit,
)
from wattmetron.places.measured.importing import bring_in, frames_in, remember
from wattmetron.places.measured.machines import chips_on_sale, own_machines, plan_of
from wattmetron.places.measured.memory_set import memory_in_run
from wattmetron.places.measured.meters import known_meter, note_meter
from wattmetron.places.measured.pages.forms import (
    HandForm,
    RunForm,
    by_hand,
    run_from,
    seconds_from,
)
from wattmetron.places.measured.pages.pending import Pending
from wattmetron.places.measured.recorder import Recorder, asked_at
from wattmetron.places.measured.run_library import take_in, usual_setup
from wattmetron.shell.forms import Typed, read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.listed_briefs import ListedBrief
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False)
MOST_FILES = 12
MOST_PART = 155_000_000


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasurableMachine:
    """A machine that may be measured: a brief with its targets."""

    id: int
    name: str
    targets: tuple[tuple[str, str], ...]


def _machines(workshop: Workshop, catalogue_games: dict[str, str]) -> tuple[MeasurableMachine, ...]:
    def words(row: ListedBrief) -> tuple[tuple[str, str], ...]:
        return tuple(
            (
                target.id,
                f"{catalogue_games.get(target.game_id, target.game_id)},"
                f" {target.width_px}x{target.height_px}, {target.preset},"
                f" {target.fps:g} fps{' shown' if target.generated else ''} wanted",
            )
            for target in row.plan.brief.targets
        )

    return tuple(
        MeasurableMachine(id=row.id, name=row.plan.brief.name, targets=words(row))
        for row in workshop.briefs()
        if row.plan.build.processor
    )


def _take_page(
    request: Request, form: RunForm, error: str = "", hand: HandForm | None = None, **more: object
) -> Response:
    """Recording, files and readings by hand, with what was typed."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    games = {game.id: game.name for game in catalogue.games_by_name}
    machines = _machines(workshop, games)
    beside = own_machines(workshop)
    chosen = next((machine for machine in machines if machine.id == form.brief), None)
    alone = not machines or form.other or (not form.brief and bool(form.chip or form.machine))
    simulated, scenarios = request.app.state.meters
    content = {
        "form": form,
        "hand": hand or HandForm(),
        "machines": machines,
        "chosen": None if alone else chosen or machines[0],
        "beside": beside,
        "chips": sorted(part.name for part in catalogue.by_kind["processor"]) if alone else (),
        "cards": chips_on_sale(catalogue) if alone else (),
        "games": games,
        "scenes": SCENES,
        "scenarios": scenarios,
        "meter": form.meter or known_meter(workshop) or simulated,
        "simulated": simulated,
        "live": request.app.state.recorder.live,
        "error": error,
        "columns": None,
        "holds": [(meaning, _holds_words(meaning)) for meaning in HOLDS],
        "units": tuple(UNITS),
        "key": "",
        "file": "",
        **more,
    }
    status = 422 if error else 200
    return page(
        request,
        "places/measured/pages/take.html",
        content,
        status,
        f"/measured/new?brief={form.brief}",
    )


def _holds_words(holds: Holds) -> str:
    if holds in CHANNELS:
        return f"{CHANNELS[holds][0]} ({CHANNELS[holds][1]})"
    return {"frame time": "time of each frame", "start": "when each frame began"}.get(holds, holds)


@router.get("/measured/new")
def new(request: Request) -> Response:
    workshop, form = workshop_of(request), read(RunForm, request.query_params)
    if form.brief and not form.setup:
        setup = usual_setup(workshop.open(form.brief).plan)
        form = form.model_copy(update={"setup": setup})
    if form.machine and not form.chip:
        form = form.model_copy(update=_remembered(workshop, form.machine))
    return _take_page(request, form)


def _remembered(workshop: Workshop, name: str) -> dict[str, str]:
    """The parts of a machine of its own, as they were said before."""
    own_machine = next((each for each in own_machines(workshop) if each.name == name), None)
    if own_machine is None:
        return {}
    catalogue = workshop.catalogue()
    card, chip = (
        scale_of(catalogue).standing(own_machine.graphics),
        catalogue.parts.get(own_machine.processor),
    )
    named = " ".join(card.name.split()) if card is not None and card.part_ids else ""
    return {"chip": chip.name if chip else "", "card": named}


# --- recording ------------------------------------------------------------------------------------


def recorder_of(request: Request) -> Recorder:
    recorder: Recorder = request.app.state.recorder
    return recorder


async def _texts(request: Request) -> Typed:
    """The entries of the form, files that were chosen beside it left aside."""
    form = await request.form(max_fields=200, max_files=MOST_FILES)
    return {name: clean(value) for name, value in form.items() if isinstance(value, str)}


@router.post("/measured/record")
async def record(request: Request) -> Response:
    entries = await _texts(request)
    return await run_in_threadpool(_record, request, entries)


def _record(request: Request, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(RunForm, entries)
    try:
        meter = form.meter or known_meter(workshop) or request.app.state.meters[0]
        simulated = meter == request.app.state.meters[0]
        if not simulated:
            note_meter(workshop, meter)
        seconds = seconds_from(form.seconds)
        run = run_from(workshop, workshop.catalogue(), form)
        run = replace(run, source=run.source or ("simulated meters" if simulated else meter))
        more = _simulated(workshop, form, run) if simulated else {}
        recorder_of(request).start(
            run,
            asked_at(meter, "frames", run, seconds, more),
            asked_at(meter, "watts", run, seconds, more),
        )
    except WattmetronError as error:
        return _take_page(request, form, str(error))
    return RedirectResponse("/measured/live", 303)


def _simulated(workshop: Workshop, form: RunForm, run: Run) -> dict[str, str]:
    """What the simulated meters are told besides: what is to happen, and how the machine is set."""
    today = datetime.now(UTC).date()
    catalogue = workshop.catalogue()
    plan = plan_of(workshop, catalogue, run)
    memory = memory_in_run(catalogue, plan, run, today)
    columns = {
        "scenario": form.scenario,
        "seed": str(form.seed or 1),
        "clock": form.clock,
        "power": form.power,
        "latency": f"{memory.latency_ns:.3f}" if memory else "",
        "bandwidth": f"{memory.bandwidth_gbs:.3f}" if memory else "",
    }
    return {name: value for name, value in columns.items() if value}


@router.get("/measured/live")
def live(request: Request) -> Response:
    recorder = recorder_of(request)
    if recorder.live.run is None:
        return RedirectResponse("/measured", 303)
    content = {"live": recorder.live, "error": ""}
    return page(request, "places/measured/pages/live.html", content, 200, "/measured/live")


@router.get("/measured/live/frames")
def live_frames(request: Request, since: int = 0) -> Response:
    """What came since so many frames, for the page that draws it."""
    recorder = recorder_of(request)
    total, rows = recorder.since(max(0, since))
    recording = recorder.live
    return JSONResponse(
        {
            "frames": total,
            "seconds": round(recording.seconds, 2),
            "running": recording.running,
            "wrong": recording.wrong,
            "noted": recording.noted,
            "now": recorder.now(),
            "rows": rows.round(4).tolist(),
        },
        headers={"cache-control": "no-store"},
    )


@router.post("/measured/live/stop")
async def stop(request: Request) -> Response:
    recorder_of(request).stop()
    return RedirectResponse("/measured/live", 303)


@router.post("/measured/live/discard")
async def discard(request: Request) -> Response:
    recorder_of(request).discard()
    return RedirectResponse("/measured", 303)


@router.post("/measured/live/keep")
async def keep(request: Request) -> Response:
    return await run_in_threadpool(_keep, request)


def _keep(request: Request) -> Response:
    recorder = recorder_of(request)
    try:
        run, trace = recorder.recorded()
        run_id = take_in(workshop_of(request), run, trace)
    except WattmetronError as error:
        if recorder.live.run is None:
            raise
        content = {"live": recorder.live, "error": str(error)}
        return page(request, "places/measured/pages/live.html", content, 422, "/measured/live")
    recorder.discard()
    return RedirectResponse(f"/measured/{run_id}", 303)


# --- files ----------------------------------------------------------------------------------------


def pending_of(request: Request) -> Pending:
    pending: Pending = request.app.state.pending
    return pending


@router.post("/measured/import")
async def bring(request: Request) -> Response:
    form = await request.form(max_fields=200, max_files=MOST_FILES, max_part_size=MOST_PART)
    entries = {name: clean(value) for name, value in form.items() if isinstance(value, str)}
    files = [
        (upload.filename, await upload.read())
        for upload in form.getlist("file")
        if isinstance(upload, UploadFile) and upload.filename
    ]
    return await run_in_threadpool(_bring, request, entries, files)


def _bring(request: Request, entries: Typed, files: list[tuple[str, bytes]]) -> Response:
    workshop, form = workshop_of(request), read(RunForm, entries)
    key = entries.get("key", "")
    upload = pending_of(request).of(key) if key else None
    files = [upload] if upload is not None else files
    holds, unit = _said_columns(entries)
    try:
        if not files:
            raise FramesError("No file was chosen, or it waited too long: choose it again.")
        run = run_from(workshop, workshop.catalogue(), form)
        taken: list[tuple[str, ReadFrames]] = []
        for name, data in files:
            try:
                read_frames = frames_in(
                    workshop, data, holds, unit, entries.get("of_game", "")[:120]
                )
            except ColumnsUnclearError as unclear:
                pending_key = key if upload is not None else pending_of(request).keep(name, data)
                return _unclear(request, form, unclear, name, pending_key)
            taken.append((name, read_frames))
        ids = _stored(workshop, run, taken)
        if holds:
            remember(workshop, taken[0][1].columns)
        pending_of(request).drop(key)
    except WattmetronError as error:
        return _take_page(request, form, str(error))
    return RedirectResponse(f"/measured/{ids[0]}" if len(ids) == 1 else "/measured", 303)


def _stored(workshop: Workshop, run: Run, taken: list[tuple[str, ReadFrames]]) -> list[int]:
    ids: list[int] = []
    for name, read_frames in taken:
        measured_run = replace(run, source=run.source or name[:80])
        traces: list[Trace] = [read_frames.trace]
        ids += bring_in(workshop, measured_run, traces)
    return ids


def _said_columns(entries: Typed) -> tuple[tuple[Holds, ...], Unit | None]:
    sentences: list[str] = []
    while f"column-{len(sentences)}" in entries:
        sentences.append(entries[f"column-{len(sentences)}"])
    holds = tuple(choice for text in sentences for choice in HOLDS if choice == text)
    unit = next((choice for choice in UNITS if choice == entries.get("unit")), None)
    return (holds if len(holds) == len(sentences) else ()), unit


def _unclear(
    request: Request, form: RunForm, unclear: ColumnsUnclearError, name: str, key: str
) -> Response:
    columns: Columns = unclear.columns
    return _take_page(
        request, form, f"{name[:60]}: {unclear}", columns=columns, key=key, file=name[:60]
    )


# --- by hand --------------------------------------------------------------------------------------


@router.post("/measured/hand")
async def hand(request: Request) -> Response:
    entries = await _texts(request)
    return await run_in_threadpool(_hand, request, entries)


def _hand(request: Request, entries: Typed) -> Response:
    workshop, form, hand_form = (
        workshop_of(request),
        read(RunForm, entries),
        read(HandForm, entries),
    )
    try:
        run = run_from(workshop, workshop.catalogue(), form)
        run_id = take_in(workshop, replace(run, by_hand=by_hand(hand_form)), None)
    except WattmetronError as error:
        return _take_page(request, form, str(error), hand_form)
    return RedirectResponse(f"/measured/{run_id}", 303)
