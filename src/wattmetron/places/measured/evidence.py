"""A run as evidence of its game: what it would change, in which briefs, and taking it."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.results import Result, Results
from wattmetron.core.values.runs import Run
from wattmetron.places.assessment.assess import assess
from wattmetron.places.games.measuring import (
    change_results,
    effect_words,
    results_state,
    without,
)
from wattmetron.places.measured.as_result import result_id, result_of, told
from wattmetron.places.measured.machines import plan_of
from wattmetron.places.measured.run_library import (
    SHIPPED,
    MeasuredRun,
    as_run,
    open_run,
    prepared_change,
    with_result,
)
from wattmetron.store.database import Transaction
from wattmetron.workshop.listed_briefs import ListedBrief
from wattmetron.workshop.workshop import Workshop

MOST_BRIEFS = 40
Change = Callable[[Transaction], None]
PASSING = {
    "menu": "trim it, or the game looks lighter than it is",
    "warm-up": "trim the beginning, or the low looks worse than it is",
    "throttling": "trim it, or the machine looks slower than it is",
    "background task": "trim it, or the processor looks slower than it is",
    "memory overflow": "a card with more video memory would do better than this teaches",
}
"""What passes in a run, and what to do about it before it counts."""


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
class EvidenceEffect:
    """What a run says as evidence, and what taking it would do: to the game's work in words, and
    to targets; what speaks for trimming it first.
    """

    tells: str
    work: str
    changes: tuple[TargetChange, ...]
    cautions: tuple[str, ...] = ()


def effect(workshop: Workshop, measured_run: MeasuredRun) -> EvidenceEffect:
    """What taking this run would change, in its own brief first; nothing is stored. Raises
    NoEvidenceError.
    """
    catalogue = workshop.catalogue()
    result = result_of(workshop, measured_run)
    supposed = with_evidence(catalogue, measured_run.run.game, result)
    before, after = (fitted_game(each, measured_run.run.game) for each in (catalogue, supposed))
    briefs = sorted(
        workshop.briefs(), key=lambda row: (row.id != measured_run.run.brief_id, row.id)
    )
    changes = [
        change
        for row in briefs[:MOST_BRIEFS]
        if any(target.game_id == measured_run.run.game for target in row.plan.brief.targets)
        for change in _changes(catalogue, supposed, row, measured_run.run.game)
    ]
    return EvidenceEffect(
        tells=told(result),
        work=plain_effect(effect_words(before, after)),
        changes=tuple(changes),
        cautions=tuple(_cautions(workshop, measured_run)),
    )


def _cautions(workshop: Workshop, measured_run: MeasuredRun) -> Iterator[str]:
    """What happened in a run and would be taken for how the game runs."""
    for each in measured_run.report.happenings if measured_run.report else ():
        if each.what in PASSING:
            yield f"{each.what.capitalize()} is in it: {PASSING[each.what]}."
    if measured_run.run.setup.casefold() not in SHIPPED and not _noted(workshop, measured_run.run):
        yield (
            f"The machine was set ({measured_run.run.setup}): note that on the tuning bench"
            " first, or the"
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
    sentence = f" {words}".replace(" C ", " the processor's from ").replace(
        " G ", " the graphics' from "
    )
    return sentence.strip()


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
    target_changes = []
    now, then = (assess(each, row.plan.brief, row.plan.build) for each in (catalogue, supposed))
    for first, second in zip(now.estimates, then.estimates, strict=True):
        if first is None or second is None or first.target.game_id != game_id:
            continue
        target_changes.append(
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
    return target_changes


def take_as_evidence(workshop: Workshop, run_id: int, version: int) -> str:
    """Count a run as evidence of its game; returns what it did to the game's work."""
    measured_run = open_run(workshop, run_id, version)
    result = result_of(workshop, measured_run)
    change = prepared_change(workshop, run_id, version, with_result(measured_run.run, result.id))
    return plain_effect(_counted(workshop, measured_run, result, change))


def leave_as_evidence(workshop: Workshop, run_id: int, version: int) -> str:
    """Let a run no longer count as evidence."""
    measured_run = open_run(workshop, run_id, version)
    change = prepared_change(workshop, run_id, version, with_result(measured_run.run, ""))
    if _is_counted(workshop, measured_run):
        return _no_longer_counted(workshop, measured_run, change)
    with workshop.database.writing() as session:
        change(session)
    return ""


def in_step(workshop: Workshop, run_id: int) -> None:
    """See to it that a run whose last change was taken back counts just when it says so."""
    measured_run = open_run(workshop, run_id)
    counted = _is_counted(workshop, measured_run)
    if measured_run.run.result and not counted:
        _counted(workshop, measured_run, result_of(workshop, measured_run))
    elif counted and not measured_run.run.result:
        _no_longer_counted(workshop, measured_run)


def _counted(
    workshop: Workshop, run: MeasuredRun, result: Result, also: Change | None = None
) -> str:
    return _change(workshop, run, f"run {run.id} taken as evidence", (result,), also)


def _no_longer_counted(workshop: Workshop, run: MeasuredRun, also: Change | None = None) -> str:
    return _change(workshop, run, f"run {run.id} no longer counts", (), also)


def _change(
    workshop: Workshop,
    measured_run: MeasuredRun,
    sentence: str,
    more: tuple[Result, ...],
    also: Change | None,
) -> str:
    """Results and run in one change."""
    game = measured_run.run.game
    present = workshop.catalogue().results.get(game)
    items = without(present.items, result_id(measured_run.id)) if present else ()
    version = results_state(workshop, game).version
    return change_results(workshop, game, version, sentence, (*items, *more), also=also).effect


def _is_counted(workshop: Workshop, measured_run: MeasuredRun) -> bool:
    present = workshop.catalogue().results.get(measured_run.run.game)
    return present is not None and any(
        item.id == result_id(measured_run.id) for item in present.items
    )
