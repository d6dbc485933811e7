"""One run in full."""

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.runs.drawn import SHARES, RunPicture
from wattmetron.core.values.runs import CHANNELS, Run
from wattmetron.drawing.run_trace import (
    channel_strips,
    percentile_chart,
    spread_chart,
    trace_chart,
)
from wattmetron.places.measured.pages.views import RunListRow, rate, run_row, side_words, verdict
from wattmetron.places.measured.run_library import MeasuredRun
from wattmetron.words.figures import THIN

FIRST_STRIPS = 2
"""Of what was logged, the use of both sides and the power stand open."""


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
        words = f"Limited by {side_words(limits)} ({limits.evidence}; {limits.sure:.0%} likely)."
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
