"""What is wrong with a log itself: missing stretches, frames told twice, a clock that runs back."""

from dataclasses import dataclass

import numpy as np

from wattmetron.core.values.runs import Trace

LEAST_GAP_S = 0.5
LEAST_REPEATED = 8


@dataclass(frozen=True, slots=True)
class Fault:
    """One fault of a log in a sentence, with when in the log it is, in s."""

    kind: str
    words: str
    at_s: float


@dataclass(frozen=True, eq=False)
class Mended:
    """A trace without what the log got wrong, and what that was."""

    trace: Trace
    faults: tuple[Fault, ...]


def mended(trace: Trace) -> Mended:
    """The same frames, those told twice once, times that ran back set right, with every fault
    named. What was not logged stays missing.
    """
    faults: list[Fault] = []
    trace = _once(trace, faults)
    trace = _forward(trace, faults)
    step = np.diff(trace.start_s) - trace.frame_ms[:-1] / 1000
    for index in np.flatnonzero(step > LEAST_GAP_S):
        gap, when = float(step[index]), float(trace.start_s[index])
        faults.append(
            Fault(
                "drop-out",
                f"The log has no frames for {gap:.1f} s at {when:.0f} s: that stretch does not"
                " count.",
                when,
            )
        )
    return Mended(trace, tuple(faults))


def _once(trace: Trace, faults: list[Fault]) -> Trace:
    if (np.diff(trace.start_s) > 0).all():
        return trace
    pairs = np.stack([trace.start_s, trace.frame_ms], axis=1)
    _, first = np.unique(pairs, axis=0, return_index=True)
    repeated = trace.count - first.size
    if repeated < LEAST_REPEATED:
        return trace
    keep = np.zeros(trace.count, dtype=bool)
    keep[first] = True
    when = float(trace.start_s[np.flatnonzero(~keep)[0]])
    faults.append(
        Fault(
            "repeated",
            f"{repeated:,} frames are in the log twice, from {when:.0f} s on: they count once.",
            when,
        )
    )
    return trace.where(keep)


def _forward(trace: Trace, faults: list[Fault]) -> Trace:
    """Where the clock jumps back, what follows is moved to where it belongs."""
    back = np.flatnonzero(np.diff(trace.start_s) < -1e-6)
    if not back.size:
        return trace
    start = trace.start_s.copy()
    for index in back:
        by = float(start[index] + trace.frame_ms[index] / 1000 - start[index + 1])
        when = float(start[index])
        start[index + 1 :] += by
        faults.append(
            Fault(
                "clock",
                f"The log's clock jumps back by {by:.1f} s at {when:.0f} s: the frames after it"
                " follow in their order.",
                when,
            )
        )
    return Trace(start, trace.frame_ms, trace.channels)
