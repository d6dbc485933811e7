"""What the pages of Measured show, in words and pictures."""

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.runs.limiting_side import Limits
from wattmetron.core.runs.prediction import Honesty
from wattmetron.core.runs.statistics import MeasuredRate
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.brief import Target
from wattmetron.core.values.runs import Run
from wattmetron.core.values.words import counted, listed
from wattmetron.drawing.run_trace import (
    honesty_chart,
)
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.measured.promises import TargetOutcome, honesty_of, in_words, outcomes_of
from wattmetron.places.measured.run_library import MeasuredRun, all_runs
from wattmetron.words.figures import THIN


@dataclass(frozen=True, slots=True, kw_only=True)
class RunListRow:
    """A run in a list."""

    id: int
    version: int
    game: str
    machine: str
    settings: str
    scene: str
    setup: str
    day: str
    measured: str
    low: str
    promised: str
    verdict: str
    side: str
    noted: str
    counts: bool
    result: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class HonestyView:
    """How honest promises were: in a sentence, drawn, and by groups."""

    words: str
    chart: Markup
    steps: tuple[tuple[str, str], ...]
    groups: tuple[tuple[str, tuple[tuple[str, int, str, str, str], ...]], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class TargetRow:
    """A target of a brief: promised, measured, and what that comes to."""

    target_id: str
    game: str
    settings: str
    wanted: str
    promised: str
    measured: str
    state: str
    words: str
    runs: tuple[int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredView:
    """The view Measured of a brief."""

    headline: str
    rows: tuple[TargetRow, ...]
    runs: tuple[RunListRow, ...]
    brief_id: int
    can_measure: bool


def likely(chance: float) -> str:
    """A chance in words; never sure, never impossible."""
    if chance < 0.01:
        return f"under 1{THIN}% likely"
    return f"over 99{THIN}% likely" if chance > 0.99 else f"{chance:.0%} likely"


def rate(estimate: MeasuredRate) -> str:
    return f"{estimate.fps:.1f}{THIN}fps, {estimate.least_fps:.1f} to {estimate.most_fps:.1f}"


def settings_words(run: Run | Target) -> str:
    sentences = [f"{run.width_px}x{run.height_px}", run.preset]
    sentences += ["ray tracing"] if run.ray_tracing else []
    sentences += ["upscaling"] if run.upscaling else []
    sentences += ["frame generation"] if run.generated else []
    sentences += [f"lower {listed(run.lowered)}"] if run.lowered else []
    return ", ".join(sentences)


def run_row(catalogue: Catalogue, measured_run: MeasuredRun) -> RunListRow:
    run, report = measured_run.run, measured_run.report
    game = catalogue.games.get(run.game)
    names = [
        s.name if (s := scale_of(catalogue).standing(k)) else k
        for k in (run.processor, run.graphics)
    ]
    return RunListRow(
        id=measured_run.id,
        version=measured_run.version,
        game=game.name if game else run.game,
        machine=f"{run.machine}: {' with '.join(names)}" if run.machine else " with ".join(names),
        settings=settings_words(run),
        scene=f"{run.scene}, {run.label}" if run.label else run.scene,
        setup=run.setup,
        day=f"{run.measured_on:%-d %b %Y}",
        measured=f"{measured_run.measured.fps:.0f}{THIN}fps" if measured_run.measured else "–",
        low=f"{report.summary.low.fps:.0f}" if report else "–",
        promised=(
            f"{measured_run.promised.least_fps:.0f} to {measured_run.promised.most_fps:.0f}"
            if measured_run.promised
            else "–"
        ),
        verdict=verdict(measured_run),
        side=side_words(report.limits) if report else "",
        noted=", ".join(event.what for event in report.happenings) if report else "by hand",
        counts=run.is_evidence,
        result=bool(run.result),
    )


def verdict(measured_run: MeasuredRun) -> str:
    """What became of the promise, in a few words."""
    if measured_run.promised is None or measured_run.measured is None:
        return "nothing was promised"
    if measured_run.run.scene == "menu":
        return "a menu: no evidence"
    if measured_run.run.generated and not measured_run.promised.generated:
        return "generated frames: no evidence"
    if measured_run.report is not None and measured_run.report.held:
        return "held back: no verdict"
    if (
        measured_run.promised.least_fps
        <= measured_run.measured.fps
        <= measured_run.promised.most_fps
    ):
        return "as promised"
    away = measured_run.measured.fps / measured_run.promised.average_fps - 1
    return f"{abs(away):.0%} {'above' if away > 0 else 'below'} what was promised"


def side_words(limits: Limits) -> str:
    shares = {"processor": limits.processor, "graphics": limits.graphics, "neither": limits.neither}
    side = limits.side
    if side == "neither":
        return f"neither side in {limits.neither:.0%} of frames"
    return f"{side} in {shares[side]:.0%} of frames"


def honesty_view(catalogue: Catalogue, runs: Sequence[MeasuredRun]) -> HonestyView | None:
    honesty = honesty_of(catalogue, runs)
    if honesty is None:
        return None
    return HonestyView(
        words=_honest_words(honesty),
        chart=honesty_chart(honesty.steps, honesty.whole.runs),
        steps=tuple((f"{expected:.0%}", f"{actual:.0%}") for expected, actual in honesty.steps),
        groups=tuple(
            (
                name,
                tuple(
                    (
                        group.name,
                        group.runs,
                        f"{group.covered:.0%}",
                        f"{group.bias:+.0%}".replace("-", "−"),
                        f"{group.error:.0%}",
                    )
                    for group in rows
                ),
            )
            for name, rows in honesty.groups
            if rows
        ),
    )


def _honest_words(honesty: Honesty) -> str:
    group = honesty.whole
    above = "above" if group.bias > 0 else "below"
    lean = f"{abs(group.bias):.0%} {above} the promised ones"
    if abs(group.bias) < 0.02:
        lean = "neither high nor low on the whole"
    return (
        f"Over {counted(group.runs, 'run')}: intervals that say 80{THIN}% held in"
        f" {group.covered:.0%}; half of the rates are within {group.error:.0%}; measured rates are"
        f" {lean}."
    )


# --- one brief ------------------------------------------------------------------------------------


def measured_view(
    catalogue: Catalogue,
    brief_id: int,
    outcomes: Sequence[TargetOutcome],
    runs: Sequence[MeasuredRun],
    can_measure: bool,
) -> MeasuredView:
    return MeasuredView(
        headline=in_words(outcomes),
        rows=tuple(_target_row(catalogue, outcome) for outcome in outcomes),
        runs=tuple(run_row(catalogue, run) for run in runs),
        brief_id=brief_id,
        can_measure=can_measure,
    )


def _target_row(catalogue: Catalogue, outcome: TargetOutcome) -> TargetRow:
    target, estimate = outcome.target, outcome.promised
    game = catalogue.games.get(target.game_id)
    measure = " shown" if target.generated else ""
    measure += "" if target.measure == "average" else " (1 % low)"
    return TargetRow(
        target_id=target.id,
        game=game.name if game else target.game_id,
        settings=settings_words(target),
        wanted=f"{target.fps:g}{THIN}fps{measure}",
        promised=(
            f"{estimate.judged_low_fps:.0f} to {estimate.judged_high_fps:.0f},"
            f" {likely(estimate.chance)}"
            if estimate
            else "–"
        ),
        measured=(
            f"{outcome.measured.fps:.1f}{THIN}fps, {outcome.measured.least_fps:.0f} to"
            f" {outcome.measured.most_fps:.0f}"
            if outcome.measured
            else "–"
        ),
        state=outcome.measured.state if outcome.measured else "",
        words=_target_words(outcome),
        runs=tuple(run.id for run in outcome.runs),
    )


def _target_words(outcome: TargetOutcome) -> str:
    sentences = []
    if outcome.measured is not None:
        count = "1 run" if outcome.measured.runs == 1 else f"{outcome.measured.runs} runs"
        sentences.append(f"{likely(outcome.measured.chance)} after {count}")
        if outcome.promised is not None:
            inside = (
                outcome.promised.judged_low_fps
                <= outcome.measured.fps
                <= outcome.promised.judged_high_fps
            )
            sentences.append("within what is promised" if inside else "outside what is promised")
    else:
        sentences.append("not measured")
    if outcome.held_back:
        sentences.append(f"{outcome.held_back} held back by a cap or the display")
    if outcome.elsewhere:
        sentences.append(f"{outcome.elsewhere} at other settings")
    if outcome.changed:
        sentences.append(f"{outcome.changed} on other parts than the build has now")
    if outcome.otherwise_set:
        sentences.append(f"{outcome.otherwise_set} set otherwise than the build is now")
    return "; ".join(sentences)


def _content(context: ViewContext) -> MeasuredView:
    catalogue, opened = context.catalogue, context.opened
    runs = all_runs(context.workshop, opened.id)
    return measured_view(
        catalogue,
        opened.id,
        outcomes_of(catalogue, opened.plan, runs),
        runs,
        bool(opened.plan.build.processor) and context.present.machine.can_draw,
    )


MEASURED = ViewSpec(
    name="measured",
    title="Measured",
    key="8",
    template="places/measured/pages/measured_panel.html",
    make=_content,
    folded=True,
)
