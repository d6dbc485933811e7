"""A run as evidence of its game: what it would change, in which briefs, and taking it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.values.results import Result, Results
from wattmetron.core.values.runs import Run
from wattmetron.core.workloads.informed import fitted_game
from wattmetron.services.desk.assess import assess
from wattmetron.services.games.measuring import (
    change_results,
    effect_words,
    results_state,
    without,
)
from wattmetron.services.measured.machines import machine_keys, plan_of
from wattmetron.services.measured.runs import (
    SHIPPED,
    MeasuredRun,
    as_run,
    bare,
    change_run,
    estimate_of,
    open_run,
    with_result,
)
from wattmetron.services.workshop import ListedBrief, Workshop

USUAL_SD = 0.04
MOST_BRIEFS = 40
PASSING = {
    "menu": "trim it, or the game looks lighter than it is",
    "warm-up": "trim the beginning, or the low looks worse than it is",
    "throttling": "trim it, or the machine looks slower than it is",
    "background task": "trim it, or the processor looks slower than it is",
    "memory overflow": "a card with more video memory would do better than this teaches",
}
"""What passes in a run, and what to do about it before it counts."""


class NoEvidenceError(InvalidError):
    """A run that cannot count as evidence; the message says why and what to do."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TargetChange:
    """What a run would change about a target: interval and state before and after."""

    brief_id: int
    brief: str
    game: str
    before: str
    after: str
    state_before: str
    state_after: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Effect:
    """What taking a run as evidence would do: to the game's work in words, and to targets; what
    speaks for trimming it first.
    """

    work: str
    changes: tuple[TargetChange, ...]
    cautions: tuple[str, ...] = ()


def result_of(workshop: Workshop, own: MeasuredRun) -> Result:
    """A run as a result of its game, its rates reduced to both parts as shipped on rated memory;
    raises NoEvidenceError.
    """
    run = own.run
    if run.scene == "menu":
        raise NoEvidenceError("A menu says nothing about how the game runs: it is no evidence.")
    if run.generated:
        raise NoEvidenceError(
            "Generated frames are among those that were counted: they are no evidence of true"
            " frames. Measure again without them."
        )
    if own.report is not None and own.report.held:
        raise NoEvidenceError(
            "A cap or the display held the frames back, so that the run does not show what the"
            " machine can do: measure again without it."
        )
    if own.measured is None:
        raise NoEvidenceError("The run says no rate: give the least and the most that you saw.")
    said = own.measured
    average, low = _reduction(workshop, run)
    return Result(
        id=result_id(own.id),
        processor=run.processor,
        graphics=run.graphics,
        width_px=run.width_px,
        height_px=run.height_px,
        preset=run.preset,
        ray_tracing=run.ray_tracing,
        average_fps=said.fps * average,
        low_fps=own.report.summary.low.fps * low if own.report else None,
        own=True,
        ln_sd=max(USUAL_SD, said.ln_sd) if said.ln_sd > USUAL_SD else None,
        source=run.source or "measured here",
        measured_on=run.measured_on,
    )


def _reduction(workshop: Workshop, run: Run) -> tuple[float, float]:
    """By what average and low of a run are multiplied, so that memory, link and what was set on the
    machine are not taken for how the game runs on its parts: estimates of both. One where the
    machine is not known any more.
    """
    catalogue = workshop.catalogue()
    try:
        plan = plan_of(workshop, workshop.catalogue(), run)
    except WattmetronError:
        return 1.0, 1.0
    if machine_keys(catalogue, plan) != (run.processor, run.graphics):
        return 1.0, 1.0
    alone, whole = (estimate_of(catalogue, own, run) for own in (bare(plan), as_run(plan, run)))
    if alone is None or whole is None or not (alone.low_fps and whole.low_fps):
        return 1.0, 1.0
    return alone.average_fps / whole.average_fps, alone.low_fps / whole.low_fps


def effect(workshop: Workshop, own: MeasuredRun) -> Effect:
    """What taking this run would change, in its own brief first; nothing is stored. Raises
    NoEvidenceError.
    """
    catalogue = workshop.catalogue()
    supposed = with_evidence(catalogue, own.run.game, result_of(workshop, own))
    before, after = (fitted_game(each, own.run.game) for each in (catalogue, supposed))
    briefs = sorted(workshop.briefs(), key=lambda row: (row.id != own.run.brief_id, row.id))
    changes = [
        change
        for row in briefs[:MOST_BRIEFS]
        if any(target.game_id == own.run.game for target in row.plan.brief.targets)
        for change in _changes(catalogue, supposed, row, own.run.game)
    ]
    return Effect(
        work=plain_effect(effect_words(before, after)),
        changes=tuple(changes),
        cautions=tuple(_cautions(workshop, own)),
    )


def _cautions(workshop: Workshop, own: MeasuredRun) -> Iterator[str]:
    """What happened in a run and would be taken for how the game runs."""
    for each in own.report.happenings if own.report else ():
        if each.what in PASSING:
            yield f"{each.what.capitalize()} is in it: {PASSING[each.what]}."
    if own.run.setup.casefold() not in SHIPPED and not _noted(workshop, own.run):
        yield (
            f"The machine was set ({own.run.setup}): note that on the tuning bench first, or the"
            " gain is taken for how the game runs."
        )


def _noted(workshop: Workshop, run: Run) -> bool:
    """Whether it was noted what the setup of a run brings."""
    try:
        plan = plan_of(workshop, workshop.catalogue(), run)
    except WattmetronError:
        return False
    return bool(as_run(plan, run).build.tuned)


def plain_effect(words: str) -> str:
    """What happened to a game's work, without the symbols of workings."""
    said = f" {words}".replace(" C ", " the processor's from ").replace(
        " G ", " the graphics' from "
    )
    return said.strip()


def with_evidence(catalogue: Catalogue, game_id: str, result: Result) -> Catalogue:
    """The catalogue as it would be with one more result of a game."""
    present = catalogue.results.get(game_id)
    items = without(present.items, result.id) if present else ()
    more = Results(game=game_id, items=(*items, result))
    supposed = replace(catalogue, results={**catalogue.results, game_id: more})
    return supposed.kept_by(catalogue.keep.branch(frozenset({"lesson", "scale", "parts by kind"})))


def _changes(
    catalogue: Catalogue, supposed: Catalogue, row: ListedBrief, game_id: str
) -> list[TargetChange]:
    found = []
    now, then = (assess(each, row.plan.brief, row.plan.build) for each in (catalogue, supposed))
    for first, second in zip(now.estimates, then.estimates, strict=True):
        if first is None or second is None or first.target.game_id != game_id:
            continue
        found.append(
            TargetChange(
                brief_id=row.id,
                brief=row.plan.brief.name,
                game=first.game.name,
                before=f"{first.judged_low_fps:.0f} to {first.judged_high_fps:.0f}",
                after=f"{second.judged_low_fps:.0f} to {second.judged_high_fps:.0f}",
                state_before=first.state,
                state_after=second.state,
            )
        )
    return found


def take_as_evidence(workshop: Workshop, run_id: int, version: int) -> str:
    """Count a run as evidence of its game; returns what it did to the game's work."""
    own = open_run(workshop, run_id, version)
    result = result_of(workshop, own)
    words = _counted(workshop, own, result)
    change_run(workshop, run_id, version, with_result(own.run, result.id))
    return plain_effect(words)


def leave_as_evidence(workshop: Workshop, run_id: int, version: int) -> str:
    """Let a run no longer count as evidence."""
    own = open_run(workshop, run_id, version)
    words = _no_longer_counted(workshop, own)
    change_run(workshop, run_id, version, with_result(own.run, ""))
    return words


def in_step(workshop: Workshop, run_id: int) -> None:
    """See to it that a run whose last change was taken back counts just when it says so."""
    own = open_run(workshop, run_id)
    if not own.run.result:
        _no_longer_counted(workshop, own)
    elif not _is_counted(workshop, own):
        _counted(workshop, own, result_of(workshop, own))


def _counted(workshop: Workshop, own: MeasuredRun, result: Result) -> str:
    said = f"run {own.id} taken as evidence"
    return _change(workshop, own, said, (result,))


def _no_longer_counted(workshop: Workshop, own: MeasuredRun) -> str:
    if not _is_counted(workshop, own):
        return ""
    return _change(workshop, own, f"run {own.id} no longer counts", ())


def _change(workshop: Workshop, own: MeasuredRun, said: str, more: tuple[Result, ...]) -> str:
    game = own.run.game
    present = workshop.catalogue().results.get(game)
    items = without(present.items, result_id(own.id)) if present else ()
    state = results_state(workshop, game)
    return change_results(workshop, game, state.version, said, (*items, *more)).effect


def _is_counted(workshop: Workshop, own: MeasuredRun) -> bool:
    present = workshop.catalogue().results.get(own.run.game)
    return present is not None and any(item.id == result_id(own.id) for item in present.items)


def result_id(run_id: int) -> str:
    return f"m{run_id}"
