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
from wattmetron.services.desk.assess import assess
from wattmetron.services.measured.runs import SHIPPED, MeasuredRun, counting

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
    for own in counting(runs):
        if own.report is None or own.report.held:
            continue
        setup = "as shipped" if own.run.setup.casefold() in SHIPPED else own.run.setup
        groups.setdefault(_settings(own), {}).setdefault(setup, []).append(own)
    found: list[Attempt] = []
    for settings, setups in groups.items():
        shipped = setups.get("as shipped", [])
        rows = [_attempt(settings, setup, some, shipped) for setup, some in setups.items()]
        found += sorted(rows, key=lambda row: (row.setup != "as shipped", -row.fps))
    return tuple(found)


def _settings(own: MeasuredRun) -> Settings:
    run = own.run
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
    averages = [own.measured for own in runs if own.measured]
    base = [own.measured for own in shipped if own.measured]
    reports = [own.report for own in runs if own.report]
    fps = float(np.exp(np.mean([np.log(own.fps) for own in averages])))
    watts = _mean(own.watts.get("while playing") for own in reports)
    shares = np.mean([[own.limits.processor, own.limits.graphics] for own in reports], axis=0)
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
        seconds=sum(own.summary.seconds for own in reports),
        fps=fps,
        change=difference(base, averages) if base and setup != "as shipped" else None,
        watts=watts,
        shipped_watts=_mean(own.report.watts.get("while playing") for own in shipped if own.report),
        per_watt=fps / watts if watts else None,
        warmest_c=max(
            (own.levels[name].high for own in reports for name in heats if name in own.levels),
            default=None,
        ),
        clock_mhz=_mean(own.levels[clock].median for own in reports if clock in own.levels),
        fan_rpm=_mean(own.levels["fan_rpm"].median for own in reports if "fan_rpm" in own.levels),
        side=side,
        trouble=tuple(
            dict.fromkeys(
                each.what
                for own in reports
                for each in own.happenings
                if each.what in ("throttling", "hitches", "background task", "memory overflow")
            )
        ),
    )


def _mean(values: Iterable[float | None]) -> float | None:
    known = [own for own in values if own is not None]
    return float(np.mean(known)) if known else None


def tuning_of(catalogue: Catalogue, plan: Plan, own: Attempt, today: date) -> OwnTuning:
    """An attempt as the machine's own figures of the side that limits; raises InvalidError where it
    says nothing of a side.
    """
    if own.change is None:
        raise InvalidError(
            "Measure the machine as shipped too, in this game at these settings: without that it is"
            " not known what was gained."
        )
    if own.side is None:
        raise InvalidError(
            "Neither side limits clearly in these runs, so that the gain is of no part alone:"
            " measure where one side limits."
        )
    part = _part(catalogue, plan, own.side)
    sd = (own.change.most - own.change.least) / 2.563
    return OwnTuning(
        part=part.id,
        gain=round(own.change.change, 4),
        gain_sd=round(max(0.002, sd), 4),
        power=_power(catalogue, own, part),
        noted_on=today,
        setup=own.setup[:80],
        clock_mhz=own.clock_mhz,
        fan_rpm=own.fan_rpm,
        celsius=own.warmest_c,
    )


def _part(catalogue: Catalogue, plan: Plan, side: Side) -> Processor | Graphics:
    machine = assess(catalogue, plan.brief, plan.build).machine
    part = machine.processor if side == "processor" else machine.graphics
    if part is None:
        raise InvalidError("The build has no such part any more: put it back first.")
    return part


def _power(catalogue: Catalogue, own: Attempt, part: Processor | Graphics) -> float:
    """The factor on a part's power that the wall shows, were all of the difference its own."""
    shipped = catalogue.part(part.id)
    usual = shipped.gaming_w if isinstance(shipped, Processor) else _board_w(shipped)
    if own.watts is None or own.shipped_watts is None or not usual:
        return 1.0
    more = EFFICIENCY * (own.watts - own.shipped_watts)
    return round(float(np.clip(1 + more / usual, 0.4, 2.0)), 3)


def _board_w(part: object) -> float:
    return float(part.board_power_w) if isinstance(part, Graphics) else 0.0
