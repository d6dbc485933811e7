"""The tuning bench as a page: attempts side by side, what is best for a watt, writing back."""

from dataclasses import dataclass, replace
from datetime import UTC, date, datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.frames.memory_class import memory_class
from wattmetron.core.values.build import OwnTuning
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Part
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.measured.bench import Attempt, attempts, tuning_of
from wattmetron.places.measured.memory_set import (
    expected_change,
    memory_as_set,
    memory_said,
    with_memory,
)
from wattmetron.places.measured.run_library import all_runs
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import (
    Form,
    Number,
    Place,
    Short20,
    Short80,
    Tick,
    Typed,
    read,
    read_number,
    typed,
)
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.words.figures import THIN, percent

router = APIRouter(include_in_schema=False, route_class=PageRoute)


@dataclass(frozen=True, slots=True, kw_only=True)
class AttemptRow:
    """An attempt in words."""

    number: int
    setup: str
    duration: str
    fps: str
    change: str
    chance: str
    watts: str
    per_watt: str
    best: bool
    warmest: str
    clock: str
    side: str
    trouble: str
    can_write: bool
    memory: str


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchGame:
    """All attempts in one game at one setting."""

    title: str
    rows: tuple[AttemptRow, ...]


class BenchForm(Form):
    """Which attempt becomes the machine's own figures, which part runs as shipped again, or how the
    memory is set: by what the attempt's setup says of it, or as typed.
    """

    version: Number = 0
    attempt: Place = -1
    part: Short80 = ""
    memory: Tick = False
    mts: Short20 = ""
    cl: Short20 = ""
    setup: Short80 = ""


@router.get("/measured/bench/{brief_id}")
def show_bench(request: Request, brief_id: int) -> Response:
    return _page(request, brief_id)


def _page(
    request: Request,
    brief_id: int,
    notice: str = "",
    error: str = "",
    status: int = 200,
    form: BenchForm | None = None,
) -> Response:
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    tried = attempts(all_runs(workshop, brief_id))
    now = assess(catalogue, opened.plan.brief, opened.plan.build)
    content = {
        "opened": opened,
        "games": _games(catalogue, tried),
        "limits": _limits(now),
        "own": _own(catalogue, opened.plan),
        "kit": _kit(now),
        "typed_memory": (form.mts, form.cl, form.setup) if form else ("", "", ""),
        "notice": notice,
        "error": error,
    }
    return page(
        request, "places/measured/pages/bench.html", content, status, f"/measured/bench/{brief_id}"
    )


def _games(catalogue: Catalogue, tried: tuple[Attempt, ...]) -> tuple[BenchGame, ...]:
    games: dict[object, list[AttemptRow]] = {}
    best = {
        settings: max(
            (attempt.per_watt or 0 for attempt in tried if attempt.settings == settings), default=0
        )
        for settings in {attempt.settings for attempt in tried}
    }
    for index, row in enumerate(tried):
        games.setdefault(row.settings, []).append(_row(index, row, best[row.settings]))
    return tuple(
        BenchGame(title=_title(catalogue, each_attempt), rows=tuple(games[each_attempt.settings]))
        for each_attempt in {attempt.settings: attempt for attempt in tried}.values()
    )


def _title(catalogue: Catalogue, attempt: Attempt) -> str:
    game, width, height, preset, rays, upscaled, lowered = attempt.settings
    known = catalogue.games.get(game)
    more = (", ray tracing" if rays else "") + (", upscaling" if upscaled else "")
    more += f", lower {listed(lowered)}" if lowered else ""
    return f"{known.name if known else game}, {width}x{height}, {preset}{more}"


def _row(index: int, attempt: Attempt, best: float) -> AttemptRow:
    change = attempt.change
    runs = "1 run" if len(attempt.runs) == 1 else f"{len(attempt.runs)} runs"
    return AttemptRow(
        number=index,
        setup=attempt.setup,
        duration=f"{attempt.seconds:.0f}{THIN}s in {runs}",
        fps=f"{attempt.fps:.1f}",
        change=_percent(change.change, change.least, change.most) if change else "–",
        chance=percent(change.chance) if change else "–",
        watts=f"{attempt.watts:.0f}{THIN}W" if attempt.watts else "–",
        per_watt=f"{attempt.per_watt:.3f}" if attempt.per_watt else "–",
        best=bool(attempt.per_watt) and attempt.per_watt == best,
        warmest=f"{attempt.warmest_c:.0f}{THIN}°C" if attempt.warmest_c else "–",
        clock=f"{attempt.clock_mhz:,.0f}{THIN}MHz" if attempt.clock_mhz else "–",
        side=attempt.side or "both in turn",
        trouble=", ".join(attempt.trouble),
        can_write=change is not None
        and attempt.side is not None
        and not memory_said(attempt.setup),
        memory=_memory_words(attempt.setup),
    )


def _memory_words(setup: str) -> str:
    memory_text = memory_said(setup)
    return f"{memory_text[0]:,}{THIN}MT/s CL{memory_text[1]}" if memory_text else ""


def _percent(middle: float, least: float, most: float) -> str:
    return f"{middle:+.1%} ({least:+.1%} to {most:+.1%})".replace("-", "−")


def _limits(now: Assessment) -> str:
    """What the cooler and the supply carry, against what the machine draws as it is set."""
    machine = now.machine
    sentences = []
    if machine.processor is not None and machine.cooler is not None:
        sentences.append(
            f"the cooler carries {machine.cooler.capacity_w:g}{THIN}W, the processor draws up to"
            f" {machine.processor.sustained_w:g}{THIN}W"
        )
    if machine.supply is not None:
        sentences.append(
            f"the supply gives {machine.supply.watts:g}{THIN}W, the machine draws up to"
            f" {now.draw.full_w:g}{THIN}W"
        )
    words = "; ".join(sentences)
    return f"{words[0].upper()}{words[1:]}." if words else ""


def _kit(now: Assessment) -> str:
    """How the memory runs now; empty where there is none."""
    kit, chip = now.machine.memory, now.machine.processor
    if kit is None or chip is None:
        return ""
    memory = memory_class(chip, now.machine.mainboard, kit)
    reduced = (
        "" if memory.mts == kit.mts else f", held at {memory.mts:,}{THIN}MT/s by processor or board"
    )
    return (
        f"{kit.name}: {kit.mts:,}{THIN}MT/s CL{kit.cl}, {memory.latency_ns:.1f}{THIN}ns{reduced}."
    )


def _own(catalogue: Catalogue, plan: Plan) -> tuple[tuple[str, str, str], ...]:
    """Parts that run as they were measured: id, name, what was found."""
    rows = []
    for tuning in plan.build.tuned:
        part = catalogue.parts.get(tuning.part)
        if part is None:
            continue
        sentences = _set_words(part, tuning) if tuning.mts else _tuned_words(tuning)
        sentences += [f"{tuning.clock_mhz:,.0f}{THIN}MHz"] if tuning.clock_mhz else []
        sentences += [f"{tuning.celsius:.0f}{THIN}°C"] if tuning.celsius else []
        sentences.append(f"{tuning.setup or 'tuned'}, {tuning.noted_on:%-d %b %Y}")
        rows.append((tuning.part, part.name, ", ".join(sentences)))
    return tuple(rows)


def _tuned_words(tuning: OwnTuning) -> list[str]:
    gain = f"{tuning.gain:+.1%} speed (±{tuning.gain_sd:.1%})".replace("-", "−")
    return [gain, f"{tuning.power:.0%} of its power"]


def _set_words(part: Part, tuning: OwnTuning) -> list[str]:
    sold = f" (sold as {part.mts:,} CL{part.cl})" if isinstance(part, Memory) else ""
    return [f"runs at {tuning.mts:,}{THIN}MT/s CL{tuning.cl}{sold}"]


@router.post("/measured/bench/{brief_id}")
async def write_back(request: Request, brief_id: int) -> Response:
    """Note an attempt as the machine's own figures."""
    entries = await typed(request)
    return await run_in_threadpool(_write_back, request, brief_id, entries)


def _write_back(request: Request, brief_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(BenchForm, entries)
    catalogue, today = workshop.catalogue(), datetime.now(UTC).date()

    def edit(plan: Plan) -> tuple[Plan, str]:
        if form.part:
            name = catalogue.part(form.part).name
            return (
                replace(plan, build=plan.build.as_shipped(form.part)),
                f"{name} as shipped again",
            )
        if form.memory and form.attempt < 0:
            return _typed_memory(catalogue, plan, form, today)
        tried = attempts(all_runs(workshop, brief_id))
        if not 0 <= form.attempt < len(tried):
            raise InvalidError("That attempt is no longer there: look at the list.")
        if form.memory:
            return _tried_memory(catalogue, plan, tried[form.attempt], today)
        tuning = tuning_of(catalogue, plan, tried[form.attempt], today)
        name = catalogue.part(tuning.part).name
        return (
            replace(plan, build=plan.build.running(tuning)),
            f"{name} as measured: {tuning.gain:+.1%} speed",
        )

    try:
        sentence = workshop.change(brief_id, form.version, edit)
    except WattmetronError as error:
        return _page(request, brief_id, error=str(error), status=422, form=form)
    return _page(request, brief_id, f"Noted: {sentence}. Every estimate of this build counts it.")


def _typed_memory(
    catalogue: Catalogue, plan: Plan, form: BenchForm, today: date
) -> tuple[Plan, str]:
    mts, cl = read_number(form.mts, "The memory's rate"), read_number(form.cl, "The latency CL")
    tunings = memory_as_set(catalogue, plan, round(mts), round(cl), form.setup, today)
    return with_memory(plan, tunings), f"memory at {round(mts):,}{THIN}MT/s CL{round(cl)}"


def _tried_memory(
    catalogue: Catalogue, plan: Plan, attempt: Attempt, today: date
) -> tuple[Plan, str]:
    """What an attempt's setup says of the memory, with what was gained and what the model says."""
    memory_text = memory_said(attempt.setup)
    if memory_text is None:
        raise InvalidError(
            f"“{attempt.setup}” names no rate and latency: type them below, as in 6400 and 32."
        )
    after = with_memory(plan, memory_as_set(catalogue, plan, *memory_text, attempt.setup, today))
    words = f"memory at {memory_text[0]:,}{THIN}MT/s CL{memory_text[1]}"
    expected = expected_change(catalogue, plan, after, attempt.runs[0].run)
    if attempt.change is not None and expected is not None:
        gained = f"{attempt.change.change:+.1%} measured, {expected:+.1%} by the model"
        words += f" ({gained})".replace("-", "−")
    return after, words
