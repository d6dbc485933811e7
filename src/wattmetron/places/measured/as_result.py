"""A run as a result of its game: what it says of both parts as shipped, with its honest width."""

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.results import RatioIs, Result
from wattmetron.core.values.runs import Run
from wattmetron.places.measured.machines import machine_keys, plan_of
from wattmetron.places.measured.run_library import MeasuredRun, as_run, bare, estimate_of
from wattmetron.workshop.workshop import Workshop

USUAL_SD = 0.04
REDUCTION_SD = 0.25
"""How uncertain a reduction is, as a share of its ln."""
TIMES_SD, SIDE_SD = 0.05, 0.1
"""How well a run knows the ratio of both sides' times, in ln: from the times themselves, and from
what only says which side is ahead.
"""
SURE_OF_SIDE = 0.8
READ_OUT: dict[str, RatioIs] = {
    "processor": "at least",
    "graphics": "at most",
    "alternating": "about",
}


class NoEvidenceError(InvalidError):
    """A run that cannot count as evidence; the message says why and what to do."""


class SideRatio(NamedTuple):
    """The processor's time for a frame over the graphics', what that figure is, and its standard
    deviation in ln.
    """

    value: float
    reads: RatioIs
    sd: float


class Reduction(NamedTuple):
    """What average, low and the ratio of both sides' times of a run are multiplied by."""

    average: float = 1.0
    low: float = 1.0
    ratio: float = 1.0


def result_of(workshop: Workshop, measured_run: MeasuredRun) -> Result:
    """A run as a result of its game, reduced to both parts as shipped on rated memory and drawn in
    full; raises NoEvidenceError.
    """
    run = measured_run.run
    _refuse(measured_run)
    average_fps, sd, at_least = _rate(measured_run)
    reduced = _reduction(workshop, run)
    sd = float(np.hypot(sd, REDUCTION_SD * np.log(reduced.average)))
    ratio = side_ratio(measured_run)
    return Result(
        id=result_id(measured_run.id),
        processor=run.processor,
        graphics=run.graphics,
        width_px=run.width_px,
        height_px=run.height_px,
        preset=run.preset,
        ray_tracing=run.ray_tracing,
        average_fps=average_fps * reduced.average,
        low_fps=measured_run.report.summary.low.fps * reduced.low if measured_run.report else None,
        own=True,
        ln_sd=sd if sd > USUAL_SD else None,
        at_least=at_least,
        side_ratio=None
        if ratio is None
        else float(np.clip(ratio.value * reduced.ratio, 0.01, 100)),
        side_ratio_is="about" if ratio is None else ratio.reads,
        side_ratio_sd=None if ratio is None else ratio.sd,
        source=run.source or "measured here",
        measured_on=run.measured_on,
    )


def result_id(run_id: int) -> str:
    return f"m{run_id}"


def _refuse(measured_run: MeasuredRun) -> None:
    run = measured_run.run
    if run.scene == "menu":
        raise NoEvidenceError("A menu says nothing about how the game runs: it is no evidence.")
    if run.generated:
        raise NoEvidenceError(
            "Generated frames are among those that were counted: they are no evidence of true"
            " frames. Measure again without them."
        )
    if measured_run.report is not None and measured_run.report.held:
        raise NoEvidenceError(
            "A cap or the display held the frames back, so that the run does not show what the"
            " machine can do: measure again without it."
        )


def _rate(measured_run: MeasuredRun) -> tuple[float, float, bool]:
    """The average of a run in fps with its standard deviation in ln, and whether it is only known
    to be at least that: of a locked rate no more is known.
    """
    if measured_run.measured is not None:
        return measured_run.measured.fps, max(USUAL_SD, measured_run.measured.ln_sd), False
    locked = measured_run.run.by_hand.locked_fps if measured_run.run.by_hand else None
    if locked is None:
        raise NoEvidenceError("The run says no rate: give the least and the most that you saw.")
    return locked, USUAL_SD, True


def side_ratio(measured_run: MeasuredRun) -> SideRatio | None:
    """What a run says of both sides' times against each other: by the times themselves, else which
    side is ahead, by their use or the game's own read-out.
    """
    if measured_run.report is None:
        by_hand = measured_run.run.by_hand.limits if measured_run.run.by_hand else ""
        return SideRatio(1.0, READ_OUT[by_hand], SIDE_SD) if by_hand else None
    limits, levels = measured_run.report.limits, measured_run.report.levels
    if {"processor_ms", "graphics_ms"} <= set(levels) and levels["graphics_ms"].median > 0:
        value = levels["processor_ms"].median / levels["graphics_ms"].median
        return SideRatio(value, "about", TIMES_SD)
    if limits.evidence == "use of both sides" and limits.sure >= SURE_OF_SIDE:
        return SideRatio(1.0, "at least" if limits.side == "processor" else "at most", SIDE_SD)
    return None


def _reduction(workshop: Workshop, run: Run) -> Reduction:
    """So that memory, link, upscaling and what was set on the machine are not taken for how the
    game runs on its parts: the estimate of both parts alone, drawn in full, over that of the
    machine in the run. One where the machine is not known any more.
    """
    catalogue = workshop.catalogue()
    try:
        plan = plan_of(workshop, catalogue, run)
    except WattmetronError:
        return Reduction()
    if machine_keys(catalogue, plan) != (run.processor, run.graphics):
        return Reduction()
    alone = estimate_of(catalogue, bare(plan), replace(run, upscaling=False, lowered=()))
    whole = estimate_of(catalogue, as_run(plan, run), run)
    if alone is None or whole is None or not (alone.low_fps and whole.low_fps):
        return Reduction()
    return Reduction(
        alone.average_fps / whole.average_fps,
        alone.low_fps / whole.low_fps,
        _times(alone) / _times(whole),
    )


def _times(estimate: Estimate) -> float:
    return estimate.processor_ms / estimate.graphics_ms


def told(result: Result) -> str:
    """What a run says as evidence, in words."""
    rate = f"{'at least ' if result.at_least else ''}{result.average_fps:.0f} fps"
    ratio, reads = result.side_ratio, result.side_ratio_is
    if ratio is None:
        return f"{rate} on its parts as shipped"
    if reads == "about":
        side = f"the processor takes {ratio:.2f} times as long for a frame as the graphics"
    else:
        side = f"the {'processor' if reads == 'at least' else 'graphics'} takes longer for a frame"
        side = side.replace("graphics takes", "graphics take")
    return f"{rate} on its parts as shipped; {side}"
