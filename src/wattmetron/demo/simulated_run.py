"""Simulated runs: what a frame logger and a wall meter would see of a machine whose truth is known,
under a scenario that is known too.

Each side's time for a frame is a correlated lognormal around its true mean; what happens (a crowded
scene, a cap, throttling, an overflowing video memory) changes those times or the frame itself, and
the logged clocks, temperatures, uses and watts follow.
"""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.signal import lfilter

from wattmetron.core.values.runs import Channel, Trace

Floats = NDArray[np.float64]
SCENARIOS = (
    "clean",
    "two scenes",
    "menu in between",
    "warm-up",
    "throttling",
    "cap",
    "synchronised",
    "memory overflow",
    "hitches",
    "background task",
)
FAULTS = ("", "drop out", "repeat", "jump")
REMEMBERS_MS = 70.0
"""So long a scene keeps frames alike: the correlation from frame to frame follows from it."""
WINDOW_S = 0.25
IDLE_W, REST_W = 45.0, 25.0


@dataclass(frozen=True, slots=True, kw_only=True)
class TrueMachine:
    """A machine in a game at certain settings, as it really is: mean times of both sides in ms,
    their coefficients of variation, what both draw at full work in W, video memory there and wanted
    in GB, and clocks in MHz.
    """

    processor_ms: float
    graphics_ms: float
    processor_variation: float = 0.18
    graphics_variation: float = 0.08
    processor_w: float = 90.0
    graphics_w: float = 200.0
    memory_gb: float = 8.0
    wanted_gb: float = 6.0
    processor_mhz: float = 4_600.0
    graphics_mhz: float = 2_300.0


FRAME_TIMES = ("processor_ms", "graphics_ms")


@dataclass(frozen=True, slots=True, kw_only=True)
class SimulatedEvent:
    """Something that was simulated, and between which times of the run in s."""

    what: str
    from_s: float
    to_s: float


@dataclass(frozen=True, eq=False)
class Simulated:
    """A simulated run: the trace as logged, the share of frames that the processor really limited
    and that were really held by something else, what really happened.
    """

    trace: Trace
    processor_share: float
    held_share: float
    happened: tuple[SimulatedEvent, ...]


@dataclass(frozen=True, slots=True)
class _Course:
    """What a scenario does over time: factors on both sides' times and clocks, shape (n,)."""

    processor: Floats
    graphics: Floats
    processor_clock: Floats
    graphics_clock: Floats
    other: Floats
    memory_gb: Floats


def simulated(
    machine: TrueMachine,
    scenario: str = "clean",
    seconds: float = 60.0,
    seed: int = 1,
    fault: str = "",
    refresh_hz: float = 60.0,
    generated: bool = False,
) -> Simulated:
    """A run of so many seconds; the same arguments always give the same. Where frames are
    ``generated`` one more is logged half-way between any two drawn ones.
    """
    source = np.random.default_rng(seed)
    mean_ms = max(machine.processor_ms, machine.graphics_ms)
    count = int(1.6 * seconds * 1000 / mean_ms) + 200
    memory = np.exp(-mean_ms / REMEMBERS_MS)
    processor = _series(source, count, machine.processor_variation, memory) * machine.processor_ms
    graphics = _series(source, count, machine.graphics_variation, memory) * machine.graphics_ms
    if scenario == "cap" or scenario == "synchronised":
        processor, graphics = processor * 0.6, graphics * 0.6
    begins = _begins(np.maximum(processor, graphics))
    course, happened = _course(scenario, begins, seconds, machine, source)
    processor, graphics = processor * course.processor, graphics * course.graphics
    frame, extra = _paced(scenario, processor, graphics, refresh_hz, source, seconds)
    planned, begins = begins, _begins(frame)
    moved = (_moved(event, planned, begins) for event in happened)
    happened = tuple(
        replace(event, to_s=min(event.to_s, seconds))
        for event in (*moved, *extra)
        if event.from_s < seconds
    )
    keep = begins < seconds
    trace = _logged(machine, begins, frame, processor, graphics, course, source)
    capped = np.maximum(processor, graphics) < 0.97 * frame
    by_processor = ~capped & (processor > graphics)
    shares = float(by_processor[keep].mean()), float(capped[keep].mean())
    kept_trace = with_generated(trace.where(keep)) if generated else trace.where(keep)
    return Simulated(_faulty(kept_trace, fault, source), *shares, happened)


def with_generated(trace: Trace) -> Trace:
    """Every drawn frame as two shown ones of half its time each."""
    halves = np.repeat(trace.frame_ms / 2, 2)
    start = np.repeat(trace.start_s, 2)
    start[1::2] += halves[1::2] / 1000
    channels = {
        name: np.repeat(values / 2 if name in FRAME_TIMES else values, 2)
        for name, values in trace.channels.items()
    }
    return Trace(start, halves, channels)


def _moved(event: SimulatedEvent, planned: Floats, begins: Floats) -> SimulatedEvent:
    """When a happening really was, frames having taken longer or shorter than planned."""
    start, end = np.interp([event.from_s, event.to_s], planned, begins)
    return replace(event, from_s=float(start), to_s=float(end))


def _begins(frame_ms: Floats) -> Floats:
    return np.concatenate([[0.0], np.cumsum(frame_ms)[:-1] / 1000])


def _series(source: np.random.Generator, count: int, variation: float, memory: float) -> Floats:
    """Correlated lognormals around a mean of one, settled in before they begin."""
    lead = 400
    shocks = source.normal(size=count + lead) * np.sqrt(1 - memory**2)
    noise = lfilter([1.0], [1.0, -memory], shocks)[lead:]
    s = np.sqrt(np.log1p(variation**2))
    return np.asarray(np.exp(s * noise - s**2 / 2))


def _course(
    scenario: str,
    times_s: Floats,
    seconds: float,
    machine: TrueMachine,
    source: np.random.Generator,
) -> tuple[_Course, tuple[SimulatedEvent, ...]]:
    """What happens when, and what it does to times, clocks and memory."""
    ones = np.ones(times_s.size)
    flat = _Course(ones, ones, ones, ones, 0.03 * ones, machine.wanted_gb * ones)
    begin = float(source.uniform(0.25, 0.4)) * seconds
    end = float(source.uniform(0.6, 0.8)) * seconds
    inside = (times_s >= begin) & (times_s < end)
    match scenario:
        case "two scenes":
            busier = float(source.uniform(1.25, 1.5))
            return (
                replace(
                    flat,
                    processor=np.where(inside, busier, 1.0),
                    graphics=np.where(inside, np.sqrt(busier), 1.0),
                ),
                (SimulatedEvent(what="scene", from_s=begin, to_s=end),),
            )
        case "menu in between":
            return (
                replace(
                    flat,
                    processor=np.where(inside, 0.2, 1.0),
                    graphics=np.where(inside, 0.3, 1.0),
                ),
                (SimulatedEvent(what="menu", from_s=begin, to_s=end),),
            )
        case "throttling":
            slow = float(source.uniform(0.8, 0.9))
            eased = np.clip((times_s - begin) / 5, 0, 1)
            clock = 1 - (1 - slow) * eased
            hot = "processor" if machine.processor_ms > machine.graphics_ms else "graphics"
            changes: dict[str, Floats] = {hot: 1 / clock, f"{hot}_clock": clock}
            return (
                replace(flat, **changes),
                (SimulatedEvent(what="throttling", from_s=begin, to_s=seconds),),
            )
        case "background task":
            share = float(source.uniform(0.2, 0.4))
            longer = 1 + 0.6 * share
            return (
                replace(
                    flat,
                    processor=np.where(inside, longer, 1.0),
                    other=np.where(inside, share, flat.other),
                ),
                (SimulatedEvent(what="background task", from_s=begin, to_s=end),),
            )
        case "memory overflow":
            over = np.where(inside, machine.memory_gb * 0.998, 0.88 * machine.memory_gb)
            spill = np.where(inside & (source.random(times_s.size) < 0.12), 2.5, 1.0)
            slower = np.where(inside, 1.25, 1.0) * spill
            return (
                replace(flat, graphics=slower, memory_gb=over),
                (SimulatedEvent(what="memory overflow", from_s=begin, to_s=end),),
            )
    return flat, ()


def _paced(
    scenario: str,
    processor: Floats,
    graphics: Floats,
    refresh_hz: float,
    source: np.random.Generator,
    seconds: float,
) -> tuple[Floats, tuple[SimulatedEvent, ...]]:
    """Frame times in ms: the slower side, held to a cap or to the display, with what interrupts."""
    frame = np.maximum(processor, graphics)
    whole = {"from_s": 0.0, "to_s": seconds}
    match scenario:
        case "cap":
            cap_ms = float(np.median(frame)) * source.uniform(1.15, 1.4)
            frame = np.maximum(frame, cap_ms * np.exp(source.normal(0, 0.002, frame.size)))
            return frame, (SimulatedEvent(what="cap", **whole),)
        case "synchronised":
            refresh_ms = 1000 / refresh_hz
            need = np.ceil(frame / refresh_ms - 1e-9)
            frame = need * refresh_ms * np.exp(source.normal(0, 0.002, frame.size))
            return frame, (SimulatedEvent(what="synchronised", **whole),)
        case "hitches":
            every = source.uniform(4, 9)
            beats = np.cumsum(source.exponential(every, int(3 * seconds / every) + 8))
            hit = np.searchsorted(_begins(frame), beats[beats < seconds])
            frame = frame.copy()
            frame[hit[hit < frame.size]] *= source.uniform(3.5, 7)
            return frame, (SimulatedEvent(what="hitches", **whole),)
        case "warm-up":
            lasts = float(source.uniform(8, 15))
            beats = np.cumsum(source.exponential(0.8, int(3 * lasts / 0.8) + 8))
            hit = np.searchsorted(_begins(frame), beats[beats < lasts])
            frame = frame.copy()
            frame[hit[hit < frame.size]] *= source.uniform(3.5, 7)
            return frame, (SimulatedEvent(what="warm-up", from_s=0.0, to_s=lasts),)
    return frame, ()


def _logged(
    machine: TrueMachine,
    times_s: Floats,
    frame: Floats,
    processor: Floats,
    graphics: Floats,
    course: _Course,
    source: np.random.Generator,
) -> Trace:
    """What instruments make of it: uses over quarters of a second, watts, temperatures, clocks."""
    window = (times_s / WINDOW_S).astype(int)
    spent = np.bincount(window, frame)
    use_c = np.clip(np.bincount(window, np.minimum(processor, frame)) / spent, 0, 1)
    use_g = np.clip(np.bincount(window, np.minimum(graphics, frame)) / spent, 0, 1)
    use_c = np.clip(use_c + source.normal(0, 0.01, use_c.size), 0, 1)
    use_g = np.clip(use_g + source.normal(0, 0.01, use_g.size), 0, 1)
    watts = IDLE_W + REST_W + machine.processor_w * use_c + machine.graphics_w * use_g
    watts = watts * np.exp(source.normal(0, 0.01, watts.size)) / 0.9
    warmed = 1 - np.exp(-np.arange(use_c.size) * WINDOW_S / 45)
    heat_c, heat_g = 35 + 45 * use_c * warmed, 35 + 42 * use_g * warmed
    clock_c = np.bincount(window, course.processor_clock) / np.bincount(window)
    clock_g = np.bincount(window, course.graphics_clock) / np.bincount(window)
    heat_c = np.where(clock_c < 0.98, 95.0, heat_c)
    heat_g = np.where(clock_g < 0.98, 88.0, heat_g)

    def steady(values: Floats) -> Floats:
        return np.asarray(values[window])

    channels: dict[Channel, Floats] = {
        "processor_ms": processor * np.exp(source.normal(0, 0.01, processor.size)),
        "graphics_ms": graphics * np.exp(source.normal(0, 0.01, graphics.size)),
        "processor_use": steady(use_c),
        "graphics_use": steady(use_g),
        "other_use": np.clip(course.other + source.normal(0, 0.01, times_s.size), 0, 1),
        "watts": steady(watts),
        "processor_c": steady(heat_c),
        "graphics_c": steady(heat_g),
        "processor_mhz": steady(machine.processor_mhz * clock_c),
        "graphics_mhz": steady(machine.graphics_mhz * clock_g),
        "fan_rpm": steady(600 + 900 * np.maximum(heat_c, heat_g) / 90),
        "video_memory_gb": course.memory_gb * np.exp(source.normal(0, 0.001, times_s.size)),
    }
    return Trace(times_s, frame, channels)


def _faulty(trace: Trace, fault: str, source: np.random.Generator) -> Trace:
    """A logger that misses a stretch, tells frames twice, or whose clock jumps back."""
    times_s = int(trace.count * source.uniform(0.3, 0.6))
    match fault:
        case "drop out":
            gone = (trace.start_s >= trace.start_s[times_s]) & (
                trace.start_s < trace.start_s[times_s] + 3
            )
            return trace.where(~gone)
        case "repeat":
            order = np.concatenate(
                [
                    np.arange(times_s + 40),
                    np.arange(times_s, times_s + 40),
                    np.arange(times_s + 40, trace.count),
                ]
            )
            channels = {name: values[order] for name, values in trace.channels.items()}
            return Trace(trace.start_s[order], trace.frame_ms[order], channels)
        case "jump":
            start = trace.start_s.copy()
            start[times_s:] -= 1.5
            return Trace(start, trace.frame_ms, trace.channels)
    return trace
