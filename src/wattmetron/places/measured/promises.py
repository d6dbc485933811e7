"""Was the promise kept: each target of a brief against its runs, and all runs together."""

from collections.abc import Iterable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.runs.prediction import Honesty, Outcome, PredictionOutcome, honesty, kept
from wattmetron.core.runs.statistics import MeasuredRate as Measured
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.brief import Target
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.runs import Run
from wattmetron.places.assessment.assess import assess
from wattmetron.places.measured.machines import machine_keys
from wattmetron.places.measured.run_library import MeasuredRun, as_run, counting


@dataclass(frozen=True, slots=True, kw_only=True)
class TargetOutcome:
    """A target with what is promised now and what was measured, None where no run is of it.
    ``held_back`` are runs that a cap or the display held; ``elsewhere`` runs of the game at other
    settings, ``changed`` runs of other parts, ``otherwise_set`` runs without what is noted of them.
    """

    target: Target
    promised: Estimate | None
    measured: PredictionOutcome | None
    runs: tuple[MeasuredRun, ...]
    held_back: int
    elsewhere: int
    changed: int
    otherwise_set: int


def outcomes_of(
    catalogue: Catalogue, plan: Plan, runs: Iterable[MeasuredRun]
) -> tuple[TargetOutcome, ...]:
    """Each target of a plan against the runs of its machine."""
    now = assess(catalogue, plan.brief, plan.build)
    measured_runs = [run for run in runs if run.run.tells and run.measured is not None]
    outcomes = []
    for target, estimate in zip(plan.brief.targets, now.estimates, strict=True):
        of_game = [run for run in measured_runs if run.run.game == target.game_id]
        at_settings = [run for run in of_game if is_at(run.run, target)]
        same_parts = [run for run in at_settings if is_same_machine(catalogue, plan, run.run)]
        same = [run for run in same_parts if as_run(plan, run.run) == plan]
        free = [run for run in same if run.report is None or not run.report.held]
        measured = [rate for run in free if (rate := rate_for(run, target)) is not None]
        outcomes.append(
            TargetOutcome(
                target=target,
                promised=estimate,
                measured=kept(measured, target.fps, plan.brief.chance) if measured else None,
                runs=tuple(free),
                held_back=len(same) - len(free),
                elsewhere=len(of_game) - len(at_settings),
                changed=len(at_settings) - len(same_parts),
                otherwise_set=len(same_parts) - len(same),
            )
        )
    return tuple(outcomes)


def rate_for(run: MeasuredRun, target: Target) -> Measured | None:
    """The measured rate that a target is on: the average or the low."""
    if target.measure == "low":
        return run.report.summary.low if run.report else None
    return run.measured


def is_at(run: Run, target: Target) -> bool:
    """Whether a run was at a target's settings."""
    return (
        run.width_px,
        run.height_px,
        run.preset,
        run.ray_tracing,
        run.upscaling and run.scale,
        set(run.lowered),
        run.generated,
    ) == (
        target.width_px,
        target.height_px,
        target.preset,
        target.ray_tracing,
        target.upscaling and target.scale,
        set(target.lowered),
        target.generated,
    )


def is_same_machine(catalogue: Catalogue, plan: Plan, run: Run) -> bool:
    """Whether a plan's build has the processor and the graphics that a run was on."""
    return machine_keys(catalogue, plan) == (run.processor, run.graphics)


def in_words(outcomes: Iterable[TargetOutcome]) -> str:
    """One sentence about the targets of a brief."""
    all_outcomes = list(outcomes)
    measured = [outcome for outcome in all_outcomes if outcome.measured is not None]
    if not measured and any(outcome.otherwise_set for outcome in all_outcomes):
        return "Nothing was measured on this machine as it is set now."
    if not measured:
        return "Nothing was measured on this machine yet."
    counts = {
        state: sum(
            outcome.measured is not None and outcome.measured.state == state
            for outcome in all_outcomes
        )
        for state in ("meets", "unsure", "short")
    }
    sentences = [f"{counts['meets']} of {len(measured)} measured targets are met"]
    if counts["unsure"]:
        sentences.append(f"{counts['unsure']} {'is' if counts['unsure'] == 1 else 'are'} unsure")
    if counts["short"]:
        sentences.append(f"{counts['short']} {'falls' if counts['short'] == 1 else 'fall'} short")
    words = ", ".join(sentences)
    unmeasured = len(all_outcomes) - len(measured)
    return f"{words}; {unmeasured} not measured." if unmeasured else f"{words}."


def honesty_of(catalogue: Catalogue, runs: Iterable[MeasuredRun]) -> Honesty | None:
    """Over all runs with a promise that nothing held back: how often intervals held, and bias by
    game, designs, limiting side and evidence.
    """
    all_outcomes = [
        run
        for run in counting(runs)
        if run.promised is not None and not (run.report is not None and run.report.held)
    ]
    outcomes = [
        Outcome(run.promised, run.measured)
        for run in all_outcomes
        if run.promised is not None and run.measured is not None
    ]
    scale = scale_of(catalogue)

    def design(key: str) -> str:
        standing = scale.standing(key)
        return (standing.design or standing.name) if standing else key

    def game(n: int) -> str:
        known = catalogue.games.get(all_outcomes[n].run.game)
        return known.name if known else all_outcomes[n].run.game

    return honesty(
        outcomes,
        (
            ("game", game),
            ("processor design", lambda n: design(all_outcomes[n].run.processor)),
            ("graphics design", lambda n: design(all_outcomes[n].run.graphics)),
            ("limited by", lambda n: _side(all_outcomes[n])),
            ("evidence", lambda n: outcomes[n].promised.evidence or "not noted"),
        ),
    )


def _side(run: MeasuredRun) -> str:
    if run.report is not None:
        return run.report.limits.side
    assert run.promised is not None
    return "processor" if run.promised.processor_share > 0.5 else "graphics"
