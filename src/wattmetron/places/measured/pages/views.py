"""What the pages of Measured show, in words and pictures."""

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.runs.drawn import SHARES, RunPicture
from wattmetron.core.runs.limiting_side import Limits
from wattmetron.core.runs.prediction import Honesty
from wattmetron.core.runs.statistics import MeasuredRate
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.brief import Target
from wattmetron.core.values.runs import CHANNELS, Run
from wattmetron.core.values.words import counted, listed
from wattmetron.drawing.run_trace import (
    channel_strips,
    honesty_chart,
    percentile_chart,
    spread_chart,
    trace_chart,
)
from wattmetron.places.measured.promises import TargetOutcome, honesty_of, in_words
from wattmetron.places.measured.run_library import MeasuredRun
from wattmetron.words.figures import THIN

FIRST_STRIPS = 2
"""Of what was logged, the use of both sides and the power stand open."""


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


@dataclass(frozen=True, slots=True, kw_only=True)
class RunPage:
    """A run in full."""

    row: RunListRow
    run: Run
    headline: str
    verdict: str
    limits: str
    happenings: tuple[tuple[str, str, str], ...]
    faults: tuple[str, ...]
    phases: tuple[tuple[str, str, str], ...]
    figures: tuple[tuple[str, str, str], ...]
    levels: tuple[tuple[str, str, str, str], ...]
    percentiles: tuple[tuple[str, str, str], ...]
    trace: Markup | None
    strips: tuple[tuple[str, Markup], ...]
    more_strips: tuple[tuple[str, Markup], ...]
    wanted: str
    spread: Markup | None
    curve: Markup | None
    by_hand: tuple[tuple[str, str], ...]
    seconds: float
    version: int
    can_undo: bool
    has_frames: bool


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
        side=_side_words(report.limits) if report else "",
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


def _side_words(limits: Limits) -> str:
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


# --- one run --------------------------------------------------------------------------------------


def run_page(
    catalogue: Catalogue,
    measured_run: MeasuredRun,
    drawn: RunPicture | None,
    target_fps: float | None,
) -> RunPage:
    row, report = run_row(catalogue, measured_run), measured_run.report
    seconds = report.summary.seconds if report else 0.0
    strips = tuple(channel_strips(drawn, seconds)) if drawn else ()
    target_ms = 1000 / target_fps if target_fps else None
    return RunPage(
        row=row,
        run=measured_run.run,
        headline=_headline(measured_run),
        verdict=_verdict_sentence(measured_run),
        limits=_limits_sentence(measured_run),
        happenings=tuple(
            (each.what, _when(each.stretches), each.words)
            for each in (report.happenings if report else ())
        ),
        faults=tuple(each.words for each in (report.faults if report else ())),
        phases=tuple(
            (
                f"{each.from_s:.0f} to {each.to_s:.0f}{THIN}s",
                f"{each.average_fps:.1f}{THIN}fps",
                f"{each.share:.0%}",
            )
            for each in (report.phases if report and len(report.phases) > 1 else ())
        ),
        figures=_figures(measured_run),
        levels=tuple(
            (
                CHANNELS[name][0],
                _amount(level.median, name),
                _amount(level.low, name),
                _amount(level.high, name),
            )
            for name, level in (report.levels.items() if report else ())
        ),
        percentiles=tuple(
            (
                f"{share:.1%}" if share not in (0.5,) else "half",
                f"{ms:.2f}{THIN}ms",
                f"{1000 / ms:.1f}{THIN}fps",
            )
            for share, ms in zip(SHARES, drawn.percentiles_ms if drawn else (), strict=False)
        ),
        trace=(
            trace_chart(drawn, seconds, report.happenings, report.phases, target_ms)
            if drawn and report
            else None
        ),
        strips=strips[:FIRST_STRIPS],
        more_strips=strips[FIRST_STRIPS:],
        wanted=f"{target_fps:g}{THIN}fps wanted" if target_fps else "",
        spread=spread_chart(drawn) if drawn else None,
        curve=percentile_chart(drawn) if drawn else None,
        by_hand=_by_hand(measured_run.run),
        seconds=seconds,
        version=measured_run.version,
        can_undo=measured_run.can_undo,
        has_frames=measured_run.has_frames,
    )


def _headline(measured_run: MeasuredRun) -> str:
    if measured_run.report is None:
        return (
            f"Read by hand: {rate(measured_run.measured)}."
            if measured_run.measured
            else "Read by hand."
        )
    s = measured_run.report.summary
    shown = (
        f" Shown frames: {s.average.fps / 2:.1f}{THIN}fps of them were drawn, one of two generated."
        if measured_run.run.generated
        else ""
    )
    return (
        f"{s.average.fps:.1f}{THIN}fps on average ({s.average.least_fps:.1f} to"
        f" {s.average.most_fps:.1f}),"
        f" 1{THIN}% low {s.low.fps:.1f} ({s.low.least_fps:.1f} to {s.low.most_fps:.1f}),"
        f" over {s.seconds:.0f}{THIN}s and {s.frames:,} frames.{shown}"
    )


def _verdict_sentence(run: MeasuredRun) -> str:
    if run.promised is None:
        return "Nothing had been promised of this machine at these settings."
    p = run.promised
    return (
        f"Promised were {p.average_fps:.0f}{THIN}fps, 80{THIN}% likely within {p.least_fps:.0f} to"
        f" {p.most_fps:.0f}, resting on {p.evidence or 'what was known'}: {verdict(run)}."
    )


CLEARLY_SURE = 0.6
"""Below it neither side is called the one that limits."""


def _limits_sentence(measured_run: MeasuredRun) -> str:
    if measured_run.report is None:
        limits_text = measured_run.run.by_hand.limits if measured_run.run.by_hand else ""
        return f"Limited by {limits_text}, by the game's own read-out." if limits_text else ""
    limits = measured_run.report.limits
    if limits.sure < CLEARLY_SURE:
        words = f"Which side limits is not clear from the {limits.evidence}: about as often each."
    else:
        words = f"Limited by {_side_words(limits)} ({limits.evidence}; {limits.sure:.0%} likely)."
    if measured_run.promised is not None and limits.side != "neither":
        words += f" Promised was the processor in {measured_run.promised.processor_share:.0%}."
    return words


def _when(stretches: Sequence[tuple[float, float]]) -> str:
    if len(stretches) > 3:
        return f"{len(stretches)} times"
    return ", ".join(
        f"{start:.0f}{THIN}s" if end - start < 1 else f"{start:.0f} to {end:.0f}{THIN}s"
        for start, end in stretches
    )


def _figures(run: MeasuredRun) -> tuple[tuple[str, str, str], ...]:
    if run.report is None:
        return ()
    s = run.report.summary
    rows = [
        ("average", rate(s.average), "frames over time; 80 % interval from blocks of frames"),
        ("1 % low", rate(s.low), "99th percentile of frame time"),
        ("0.1 % low", f"{s.lowest_fps:.1f}{THIN}fps", "99.9th percentile of frame time"),
        ("usual frame", f"{s.median_ms:.2f}{THIN}ms", "median"),
        ("spread", f"{s.spread:.0%}", "standard deviation over mean"),
        (
            "from frame to frame",
            f"{s.correlation:.2f}",
            f"correlation; blocks of {s.block_frames} frames",
        ),
    ]
    if run.report.energy_j is not None:
        rows.append(("energy a frame", f"{run.report.energy_j:.2f}{THIN}J", "at the wall"))
        rows.append(
            ("frames for a watt", f"{1 / run.report.energy_j:.3f}{THIN}fps/W", "at the wall")
        )
    rows += [
        (f"power {state}", f"{watts:.0f}{THIN}W", "median at the wall")
        for state, watts in run.report.watts.items()
    ]
    return tuple(rows)


def _amount(value: float, name: str) -> str:
    unit = CHANNELS[name][1]  # type: ignore[index]
    if unit == "share":
        return f"{value:.0%}"
    return f"{value:,.1f}{THIN}{unit}" if abs(value) < 100 else f"{value:,.0f}{THIN}{unit}"


def _by_hand(run: Run) -> tuple[tuple[str, str], ...]:
    by_hand = run.by_hand
    if by_hand is None:
        return ()
    rows = (
        (
            "rate seen",
            f"{by_hand.low_fps:g} to {by_hand.high_fps:g}{THIN}fps"
            if by_hand.low_fps and by_hand.high_fps
            else "",
        ),
        ("locked at", f"{by_hand.locked_fps:g}{THIN}fps" if by_hand.locked_fps else ""),
        ("limited by, says the game", by_hand.limits),
        ("loading", f"{by_hand.loading_s:g}{THIN}s" if by_hand.loading_s is not None else ""),
        ("rendering", f"{by_hand.render_min:g}{THIN}min" if by_hand.render_min is not None else ""),
        ("noise", f"{by_hand.noise_dba:g}{THIN}dB(A)" if by_hand.noise_dba is not None else ""),
        ("heard and seen", by_hand.heard),
    )
    return tuple((name, value) for name, value in rows if value)
