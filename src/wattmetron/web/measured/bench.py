"""The tuning bench as a page: attempts side by side, what is best for a watt, writing back."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.values.plan import Plan
from wattmetron.services.desk.assess import Assessment, assess
from wattmetron.services.measured.bench import Attempt, attempts, tuning_of
from wattmetron.services.measured.runs import all_runs
from wattmetron.services.words.figures import THIN
from wattmetron.web.shell.forms import Form, Number, Place, Short80, Typed, read, typed
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)


@dataclass(frozen=True, slots=True, kw_only=True)
class AttemptRow:
    """An attempt in words."""

    place: int
    setup: str
    held: str
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


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchGame:
    """All attempts in one game at one setting."""

    title: str
    rows: tuple[AttemptRow, ...]


class BenchForm(Form):
    """Which attempt becomes the machine's own figures, or which part runs as shipped again."""

    version: Number = 0
    attempt: Place = -1
    part: Short80 = ""


@router.get("/measured/bench/{brief_id}")
def show_bench(request: Request, brief_id: int) -> Response:
    return _page(request, brief_id)


def _page(
    request: Request, brief_id: int, notice: str = "", error: str = "", status: int = 200
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
        "notice": notice,
        "error": error,
    }
    return page(request, "measured/bench.html", content, status, f"/measured/bench/{brief_id}")


def _games(catalogue: Catalogue, tried: tuple[Attempt, ...]) -> tuple[BenchGame, ...]:
    games: dict[object, list[AttemptRow]] = {}
    best = {
        settings: max((own.per_watt or 0 for own in tried if own.settings == settings), default=0)
        for settings in {own.settings for own in tried}
    }
    for place, own in enumerate(tried):
        games.setdefault(own.settings, []).append(_row(place, own, best[own.settings]))
    return tuple(
        BenchGame(title=_title(catalogue, own), rows=tuple(games[own.settings]))
        for own in {own.settings: own for own in tried}.values()
    )


def _title(catalogue: Catalogue, own: Attempt) -> str:
    game, width, height, preset, rays, upscaled = own.settings
    known = catalogue.games.get(game)
    more = (", ray tracing" if rays else "") + (", upscaling" if upscaled else "")
    return f"{known.name if known else game}, {width}x{height}, {preset}{more}"


def _row(place: int, own: Attempt, best: float) -> AttemptRow:
    change = own.change
    runs = "1 run" if len(own.runs) == 1 else f"{len(own.runs)} runs"
    return AttemptRow(
        place=place,
        setup=own.setup,
        held=f"{own.seconds:.0f}{THIN}s in {runs}",
        fps=f"{own.fps:.1f}",
        change=_percent(change.change, change.least, change.most) if change else "–",
        chance=f"{change.chance:.0%}" if change else "–",
        watts=f"{own.watts:.0f}{THIN}W" if own.watts else "–",
        per_watt=f"{own.per_watt:.3f}" if own.per_watt else "–",
        best=bool(own.per_watt) and own.per_watt == best,
        warmest=f"{own.warmest_c:.0f}{THIN}°C" if own.warmest_c else "–",
        clock=f"{own.clock_mhz:,.0f}{THIN}MHz" if own.clock_mhz else "–",
        side=own.side or "both in turn",
        trouble=", ".join(own.trouble),
        can_write=change is not None and own.side is not None,
    )


def _percent(middle: float, least: float, most: float) -> str:
    return f"{middle:+.1%} ({least:+.1%} to {most:+.1%})".replace("-", "−")


def _limits(now: Assessment) -> str:
    """What the cooler and the supply carry, against what the machine draws as it is set."""
    machine = now.machine
    said = []
    if machine.processor is not None and machine.cooler is not None:
        said.append(
            f"the cooler carries {machine.cooler.capacity_w:g}{THIN}W, the processor draws up to"
            f" {machine.processor.sustained_w:g}{THIN}W"
        )
    if machine.supply is not None:
        said.append(
            f"the supply gives {machine.supply.watts:g}{THIN}W, the machine draws up to"
            f" {now.draw.full_w:g}{THIN}W"
        )
    words = "; ".join(said)
    return f"{words[0].upper()}{words[1:]}." if words else ""


def _own(catalogue: Catalogue, plan: Plan) -> tuple[tuple[str, str, str], ...]:
    """Parts that run as they were measured: id, name, what was found."""
    rows = []
    for own in plan.build.tuned:
        part = catalogue.parts.get(own.part)
        if part is None:
            continue
        said = [
            f"{own.gain:+.1%} speed (±{own.gain_sd:.1%})".replace("-", "−"),
            f"{own.power:.0%} of its power",
        ]
        said += [f"{own.clock_mhz:,.0f}{THIN}MHz"] if own.clock_mhz else []
        said += [f"{own.celsius:.0f}{THIN}°C"] if own.celsius else []
        said.append(f"{own.setup or 'tuned'}, {own.noted_on:%-d %b %Y}")
        rows.append((own.part, part.name, ", ".join(said)))
    return tuple(rows)


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
        tried = attempts(all_runs(workshop, brief_id))
        if not 0 <= form.attempt < len(tried):
            raise InvalidError("That attempt is no longer there: look at the list.")
        tuning = tuning_of(catalogue, plan, tried[form.attempt], today)
        name = catalogue.part(tuning.part).name
        return (
            replace(plan, build=plan.build.running(tuning)),
            f"{name} as measured: {tuning.gain:+.1%} speed",
        )

    try:
        said = workshop.change(brief_id, form.version, edit)
    except WattmetronError as error:
        return _page(request, brief_id, error=str(error), status=422)
    return _page(request, brief_id, f"Noted: {said}. It stands in the place of the rule of thumb.")
