"""All that a run says, from its trace alone and what is known of the machine and the game."""

from dataclasses import dataclass

import numpy as np

from wattmetron.core.errors import InvalidError
from wattmetron.core.runs.events import Happening, happenings
from wattmetron.core.runs.limiting_side import Limits, limits
from wattmetron.core.runs.log_errors import Fault, mended
from wattmetron.core.runs.phases import Phase, phases
from wattmetron.core.runs.statistics import Summary, summary
from wattmetron.core.values.runs import Channel, Trace

LEAST_FRAMES, LEAST_SECONDS = 100, 3.0
IDLE_USE, FULL_USE = 0.2, 0.85


class TooShortError(InvalidError):
    """A stretch of too few frames to say anything."""


@dataclass(frozen=True, slots=True)
class Level:
    """A logged channel over the run: its median, its 5th and 95th percentile, in its own unit."""

    median: float
    low: float
    high: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Report:
    """What a run says. ``energy_j`` is the energy a frame at the wall, where watts were logged;
    ``watts`` by state: idle, playing, full load.
    """

    summary: Summary
    limits: Limits
    happenings: tuple[Happening, ...]
    phases: tuple[Phase, ...]
    faults: tuple[Fault, ...]
    levels: dict[Channel, Level]
    energy_j: float | None
    watts: dict[str, float]

    @property
    def held(self) -> bool:
        """Whether a cap or the display held frames back: the rate then says what was let through,
        not what the machine can do.
        """
        return any(event.what in ("cap", "synchronised") for event in self.happenings)


def report(
    trace: Trace,
    usual: tuple[float, float] = (0.18, 0.08),
    refresh_hz: float | None = None,
    memory_gb: float | None = None,
    from_s: float = 0.0,
    to_s: float | None = None,
) -> Report:
    """Of the stretch from ``from_s`` to ``to_s`` of a trace; ``usual`` are the variations that are
    known of the game. Raises TooShortError.
    """
    whole = mended(trace)
    cut = trimmed(whole.trace, from_s, to_s)
    if cut.count < LEAST_FRAMES or cut.seconds < LEAST_SECONDS:
        raise TooShortError(
            f"{cut.count:,} frames in {cut.seconds:.1f} s are too few to say anything: keep at"
            f" least {LEAST_SECONDS:g} s and {LEAST_FRAMES} frames."
        )
    return Report(
        summary=summary(cut.frame_ms),
        limits=limits(cut, usual),
        happenings=happenings(cut, refresh_hz, memory_gb),
        phases=phases(cut),
        faults=whole.faults,
        levels={name: _level(cut, name) for name in cut.channels if cut.channel(name) is not None},
        energy_j=_energy(cut),
        watts=_watts(cut),
    )


def trimmed(trace: Trace, from_s: float, to_s: float | None) -> Trace:
    """What is kept of a trace, times counted from its first frame."""
    if not trace.count:
        return trace
    first = float(trace.start_s[0])
    end = np.inf if to_s is None else first + to_s
    return trace.within(first + from_s, float(end))


def _level(trace: Trace, name: Channel) -> Level:
    low, median, high = np.nanquantile(trace.channels[name], (0.05, 0.5, 0.95))
    return Level(float(median), float(low), float(high))


def _energy(trace: Trace) -> float | None:
    watts = trace.channel("watts")
    if watts is None:
        return None
    known = np.isfinite(watts)
    return float((watts[known] * trace.frame_ms[known]).sum() / 1000 / known.sum())


def _watts(trace: Trace) -> dict[str, float]:
    """Median watts while both sides rest, while playing, and while one is busy all the time."""
    watts, busy = trace.channel("watts"), trace.channel("graphics_use")
    if watts is None:
        return {}
    medians = {"while playing": float(np.nanmedian(watts))}
    other = trace.channel("processor_use")
    if busy is None or other is None:
        return medians
    most = np.fmax(busy, other)
    for name, state in (("at rest", most < IDLE_USE), ("under full load", most > FULL_USE)):
        if (state & np.isfinite(watts)).sum() >= 20:
            medians[name] = float(np.nanmedian(watts[state]))
    return medians
