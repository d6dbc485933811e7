"""The tuning bench: what was set on a machine, what it gained, drew and how warm it became; and
what was found written back as the machine's own figures.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.runs.difference import Difference, difference
from wattmetron.core.values.build import OwnTuning
from wattmetron.core.values.parts import Graphics, Processor
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Side
from wattmetron.core.values.runs import Channel
from wattmetron.places.assessment.assess import assess
from wattmetron.places.measured.run_library import SHIPPED, MeasuredRun, counting

LEAST_SHARE = 0.6
"""So many frames at least one side must limit for a change to be its own."""
EFFICIENCY = 0.9
"""Of the wall's watts what the parts draw, about."""
Settings = tuple[str, int, int, str, bool, bool, tuple[str, ...]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Attempt:
    """What was set on a machine in one game at one setting: runs and seconds that it held, average
    rate, change against as shipped, watts at the wall now and as shipped, frames for a watt, the
    warmest of both sides, the clock of the limiting one.
    """

    setup: str
    game: str
    settings: Settings
    runs: tuple[MeasuredRun, ...]
    seconds: float
    fps: float
    change: Difference | None
    watts: float | None
    shipped_watts: float | None
    per_watt: float | None
    warmest_c: float | None
    clock_mhz: float | None
    fan_rpm: float | None
    side: Side | None
    trouble: tuple[str, ...]


def attempts(runs: Iterable[MeasuredRun]) -> tuple[Attempt, ...]:
    """All that was set on a machine, game by game, as shipped first, then by what it gained."""
    groups: dict[Settings, dict[str, list[MeasuredRun]]] = {}
    for measured_run in counting(runs):
        if measured_run.report is None or measured_run.report.held:
            continue
        setup = (
            "as shipped" if measured_run.run.setup.casefold() in SHIPPED else measured_run.run.setup
        )
        groups.setdefault(_settings(measured_run), {}).setdefault(setup, []).append(measured_run)
    tried: list[Attempt] = []
    for settings, setups in groups.items():
        shipped = setups.get("as shipped", [])
        rows = [_attempt(settings, setup, some, shipped) for setup, some in setups.items()]
        tried += sorted(rows, key=lambda row: (row.setup != "as shipped", -row.fps))
    return tuple(tried)


def _settings(measured_run: MeasuredRun) -> Settings:
    run = measured_run.run
    return (
        run.game,
        run.width_px,
        run.height_px,
        run.preset,
        run.ray_tracing,
        run.upscaling,
        run.lowered,
    )


def _attempt(
    settings: Settings, setup: str, runs: Sequence[MeasuredRun], shipped: Sequence[MeasuredRun]
) -> Attempt:
    averages = [run.measured for run in runs if run.measured]
    base = [run.measured for run in shipped if run.measured]
    reports = [run.report for run in runs if run.report]
    fps = float(np.exp(np.mean([np.log(estimate.fps) for estimate in averages])))
    watts = _mean(report.watts.get("while playing") for report in reports)
    shares = np.mean(
        [[report.limits.processor, report.limits.graphics] for report in reports], axis=0
    )
    side: Side | None = None
    if max(shares) >= LEAST_SHARE:
        side = "processor" if shares[0] > shares[1] else "graphics"
    clock: Channel = "processor_mhz" if side == "processor" else "graphics_mhz"
    heats: tuple[Channel, ...] = ("processor_c", "graphics_c")
    return Attempt(
        setup=setup,
        game=settings[0],
        settings=settings,
        runs=tuple(runs),
        seconds=sum(report.summary.seconds for report in reports),
        fps=fps,
        change=difference(base, averages) if base and setup != "as shipped" else None,
        watts=watts,
        shipped_watts=_mean(run.report.watts.get("while playing") for run in shipped if run.report),
        per_watt=fps / watts if watts else None,
        warmest_c=max(
            (
                report.levels[name].high
                for report in reports
                for name in heats
                if name in report.levels
            ),
            default=None,
        ),
        clock_mhz=_mean(
            report.levels[clock].median for report in reports if clock in report.levels
        ),
        fan_rpm=_mean(
            report.levels["fan_rpm"].median for report in reports if "fan_rpm" in report.levels
        ),
        side=side,
        trouble=tuple(
            dict.fromkeys(
                each.what
                for report in reports
                for each in report.happenings
                if each.what in ("throttling", "hitches", "background task", "memory overflow")
            )
        ),
    )


def _mean(values: Iterable[float | None]) -> float | None:
    known = [value for value in values if value is not None]
    return float(np.mean(known)) if known else None


def tuning_of(catalogue: Catalogue, plan: Plan, attempt: Attempt, today: date) -> OwnTuning:
    """An attempt as the machine's own figures of the side that limits; raises InvalidError where it
    says nothing of a side.
    """
    if attempt.change is None:
        raise InvalidError(
            "Measure the machine as shipped too, in this game at these settings: without that it is"
            " not known what was gained."
        )
    if attempt.side is None:
        raise InvalidError(
            "Neither side limits clearly in these runs, so that the gain is of no part alone:"
            " measure where one side limits."
        )
    part = _part(catalogue, plan, attempt.side)
    sd = (attempt.change.most - attempt.change.least) / 2.563
    return OwnTuning(
        part=part.id,
        gain=round(attempt.change.change, 4),
        gain_sd=round(max(0.002, sd), 4),
        power=_power(catalogue, attempt, part),
        noted_on=today,
        setup=attempt.setup[:80],
        clock_mhz=attempt.clock_mhz,
        fan_rpm=attempt.fan_rpm,
        celsius=attempt.warmest_c,
    )


def _part(catalogue: Catalogue, plan: Plan, side: Side) -> Processor | Graphics:
    machine = assess(catalogue, plan.brief, plan.build).machine
    part = machine.processor if side == "processor" else machine.graphics
    if part is None:
        raise InvalidError("The build has no such part any more: put it back first.")
    return part


def _power(catalogue: Catalogue, attempt: Attempt, part: Processor | Graphics) -> float:
    """The factor on a part's power that the wall shows, were all of the difference its own."""
    shipped = catalogue.part(part.id)
    usual = shipped.gaming_w if isinstance(shipped, Processor) else _board_w(shipped)
    if attempt.watts is None or attempt.shipped_watts is None or not usual:
        return 1.0
    more = EFFICIENCY * (attempt.watts - attempt.shipped_watts)
    return round(float(np.clip(1 + more / usual, 0.4, 2.0)), 3)


def _board_w(part: object) -> float:
    return float(part.board_power_w) if isinstance(part, Graphics) else 0.0
