"""Measured runs: taken in with what was promised of them, changed, trimmed, taken out."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Literal

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import StorageError, WattmetronError
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import Estimate, estimate
from wattmetron.core.game_fit.informed import fitted_game, informed_game
from wattmetron.core.runs.drawn import RunPicture, drawn
from wattmetron.core.runs.log_errors import mended
from wattmetron.core.runs.prediction import Promised, promised
from wattmetron.core.runs.report import Report, report, trimmed
from wattmetron.core.runs.statistics import MeasuredRate as Measured
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.brief import Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.runs import Run, Trace
from wattmetron.formats.run_file import (
    RunDocument,
    drawn_document,
    drawn_from,
    packed,
    report_document,
    report_from,
    run_document,
    run_from,
    unpacked,
)
from wattmetron.places.assessment.assess import assess
from wattmetron.places.measured.machines import plan_of
from wattmetron.store import stored_runs as store
from wattmetron.store.database import Transaction
from wattmetron.workshop.workshop import Workshop

RANGE_SD = 0.39
"""A range read off a screen is taken for the middle four fifths of what went by: so many of its
halves are a standard deviation of the average.
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredRun:
    """A run as stored; ``report`` is None for what was read by hand."""

    id: int
    version: int
    run: Run
    promised: Promised | None
    report: Report | None
    can_undo: bool
    has_frames: bool

    @property
    def measured(self) -> Measured | None:
        """The average that was measured, or what was read by hand comes to."""
        if self.report is not None:
            return self.report.summary.average
        return by_hand_average(self.run)


def by_hand_average(run: Run) -> Measured | None:
    """What a reading by hand says of the average, with its honest width; None where it says
    nothing of it: a locked rate tells only that the machine can do as much.
    """
    by_hand = run.by_hand
    if by_hand is None or by_hand.low_fps is None or by_hand.high_fps is None:
        return None
    middle = (by_hand.low_fps * by_hand.high_fps) ** 0.5
    sd = max(0.03, RANGE_SD * (by_hand.high_fps / by_hand.low_fps - 1) / 2)
    return Measured(middle, middle * (1 - 1.28 * sd), middle * (1 + 1.28 * sd), sd)


def all_runs(workshop: Workshop, brief_id: int | None = None) -> tuple[MeasuredRun, ...]:
    """All runs, or those of a brief's machine, the newest first."""
    with workshop.database.reading() as session:
        rows = store.runs_of(session, brief_id)
    return tuple(_measured(row) for row in rows)


def open_run(workshop: Workshop, run_id: int, version: int | None = None) -> MeasuredRun:
    """A run; raises ConflictError where it is no longer at the version given."""
    with workshop.database.reading() as session:
        row = store.get(session, run_id, version)
    return _measured(row)


def _measured(row: store.StoredRun) -> MeasuredRun:
    try:
        document, figures = run_from(row.document), report_from(row.figures)
    except ValueError as error:
        raise StorageError(
            f"Run {row.id} cannot be read: it was written by another version, or damaged."
        ) from error
    return MeasuredRun(
        id=row.id,
        version=row.version,
        run=document.run,
        promised=document.promised,
        report=figures,
        can_undo=row.can_undo,
        has_frames=row.has_frames,
    )


def drawn_of(workshop: Workshop, run_id: int) -> RunPicture | None:
    """What is drawn of a run; None for one by hand."""
    with workshop.database.reading() as session:
        text = store.drawing(session, run_id)
    return None if text is None else drawn_from(text)


def trace_of(workshop: Workshop, run_id: int) -> Trace | None:
    """The frames of a run as logged; None for one by hand."""
    with workshop.database.reading() as session:
        data = store.frames(session, run_id)
    return None if data is None else unpacked(data)


# --- taking in ------------------------------------------------------------------------------------


def take_in(workshop: Workshop, run: Run, trace: Trace | None) -> int:
    """Store a run with what is promised of it today; raises TooShortError for frames too few."""
    catalogue = workshop.catalogue()
    document = RunDocument(run=run, promised=promise_of(workshop, catalogue, run))
    with workshop.database.writing() as session:
        return store.add(
            session,
            game=run.game,
            brief_id=run.brief_id,
            document=run_document(document),
            worked_out=worked_out(catalogue, run, trace),
            packed=None if trace is None else packed(trace),
        )


def worked_out(catalogue: Catalogue, run: Run, trace: Trace | None) -> store.WorkedOut:
    """What a run's frames say, and what is drawn of them."""
    if trace is None:
        return store.WorkedOut(report_document(None))
    card = scale_of(catalogue).standing(run.graphics)
    game = catalogue.games.get(run.game)
    usual = (game.processor_variation, game.graphics_variation) if game else (0.18, 0.08)
    figures = report(
        trace,
        usual,
        run.refresh_hz,
        card.memory_gb if card else None,
        run.from_s,
        run.to_s,
    )
    shown = drawn(trimmed(mended(trace).trace, run.from_s, run.to_s))
    return store.WorkedOut(report_document(figures), drawn_document(shown))


def promise_of(workshop: Workshop, catalogue: Catalogue, run: Run) -> Promised | None:
    """What is estimated of a run's machine at its settings, as it was set; None where its machine
    cannot be estimated.
    """
    try:
        plan = plan_of(workshop, catalogue, run)
    except WattmetronError:
        return None
    estimated = estimate_of(catalogue, as_run(plan, run), run)
    return None if estimated is None else promised(estimated, evidence_words(catalogue, run.game))


SHIPPED = ("", "as shipped")


def as_run(plan: Plan, run: Run) -> Plan:
    """A plan as its machine was set in a run: as shipped, or with what was noted of the setup that
    the run names.
    """
    setup = run.setup.casefold()
    if setup in SHIPPED:
        return replace(
            plan,
            brief=replace(plan.brief, clocks="as shipped"),
            build=replace(plan.build, tuned=()),
        )
    tuned = tuple(tuning for tuning in plan.build.tuned if tuning.setup.casefold() in setup)
    return replace(plan, build=replace(plan.build, tuned=tuned))


def bare(plan: Plan) -> Plan:
    """Processor and graphics alone, as shipped, on the memory that the processor is rated for: what
    results of a game are of.
    """
    brief = replace(plan.brief, clocks="as shipped", owned=())
    build = Build(processor=plan.build.processor, graphics=plan.build.graphics)
    return replace(plan, brief=brief, build=build)


def usual_setup(plan: Plan) -> str:
    """What is set on a plan's machine, as far as it was noted; empty for nothing."""
    noted = dict.fromkeys(tuning.setup for tuning in plan.build.tuned if tuning.setup)
    if noted:
        return ", ".join(noted)
    return "" if plan.brief.clocks == "as shipped" else plan.brief.clocks


def estimate_of(catalogue: Catalogue, plan: Plan, run: Run) -> Estimate | None:
    """The estimate of a plan's machine at a run's settings, on the average."""
    if run.game not in catalogue.games:
        return None
    machine = assess(catalogue, plan.brief, plan.build).machine
    if machine.processor is None or not machine.can_draw:
        return None
    return estimate(
        machine,
        fitted_game(catalogue, run.game),
        target_of(run),
        plan.brief,
        curves_of(catalogue.keep),
    )


def target_of(
    run: Run, fps: float = 60.0, measure: Literal["average", "low"] = "average"
) -> Target:
    return Target(
        id="measured",
        game_id=run.game,
        width_px=run.width_px,
        height_px=run.height_px,
        preset=run.preset,
        ray_tracing=run.ray_tracing,
        upscaling=run.upscaling,
        scale=run.scale,
        lowered=run.lowered,
        generated=run.generated,
        fps=fps,
        measure=measure,
    )


def evidence_words(catalogue: Catalogue, game_id: str) -> str:
    """On what an estimate of a game rests, in its order of strength."""
    facts = informed_game(catalogue, game_id)
    results = catalogue.results.get(game_id)
    counted = [result for result in results.items if not result.muted] if results else []
    if any(result.own for result in counted):
        return "own runs"
    if counted:
        return "published results"
    return "requirements" if facts.items else "genre alone"


# --- changing -------------------------------------------------------------------------------------


def change_run(workshop: Workshop, run_id: int, version: int, run: Run) -> None:
    """Put what is said of a run anew; what it says is worked out again where that hangs on it."""
    change = prepared_change(workshop, run_id, version, run)
    with workshop.database.writing() as session:
        change(session)


def prepared_change(
    workshop: Workshop, run_id: int, version: int, run: Run
) -> Callable[[Transaction], None]:
    """The change of a run, worked out, to be made within a change that stores more."""
    before = open_run(workshop, run_id)
    catalogue = workshop.catalogue()
    fresh = None
    again = ("from_s", "to_s", "refresh_hz", "graphics", "game")
    if before.report is not None and any(
        getattr(before.run, name) != getattr(run, name) for name in again
    ):
        trace = trace_of(workshop, run_id)
        fresh = worked_out(catalogue, run, trace)
    settings = (
        "game",
        "width_px",
        "height_px",
        "preset",
        "ray_tracing",
        "upscaling",
        "scale",
        "lowered",
        "generated",
        "brief_id",
        "setup",
    )
    same = all(getattr(before.run, name) == getattr(run, name) for name in settings)
    promise = before.promised if same else promise_of(workshop, catalogue, run)
    document = run_document(RunDocument(run=run, promised=promise))

    def change(session: Transaction) -> None:
        store.change(session, run_id, version, document, fresh, run.brief_id)

    return change


def take_out(workshop: Workshop, run_id: int, version: int) -> None:
    with workshop.database.writing() as session:
        store.change(session, run_id, version, None)


def undo_run(workshop: Workshop, run_id: int, version: int) -> None:
    """Take the last change of a run back, its being taken out among them."""
    with workshop.database.writing() as session:
        text = store.taken_back(session, run_id, version)
    if not text:
        return
    run, trace = run_from(text).run, trace_of(workshop, run_id)
    if trace is not None:
        fresh = worked_out(workshop.catalogue(), run, trace)
        with workshop.database.writing() as session:
            store.worked_out_again(session, run_id, fresh)


def counting(runs: Iterable[MeasuredRun]) -> tuple[MeasuredRun, ...]:
    """Runs that may say something about how a game runs."""
    return tuple(
        measured_run
        for measured_run in runs
        if measured_run.run.is_evidence and measured_run.measured is not None
    )


def with_result(run: Run, result: str) -> Run:
    return replace(run, result=result)
