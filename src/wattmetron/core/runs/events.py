"""What happened in a run: caps, synchronising, throttling, hitches, an overflowing video memory, a
task beside the game, a menu, a warm-up; each with its stretches and what shows it.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter
from scipy.special import bdtrc

from wattmetron.core.values.runs import Trace

Floats = NDArray[np.float64]
What = Literal[
    "cap",
    "synchronised",
    "throttling",
    "hitches",
    "warm-up",
    "memory overflow",
    "background task",
    "menu",
]
NEAR, CAPPED_SHARE, STEPPED_SHARE = 0.012, 0.5, 0.85
HITCH_TIMES, HITCH_MS, LEAST_HITCHES, LEAST_A_MINUTE = 2.2, 10.0, 3, 1.0
WARM_UP_S, WARM_UP_TIMES, BY_CHANCE = 40.0, 4.0, 0.005
CLOCK_DROP, LASTS_S, SLOWER = 0.05, 8.0, 1.02
FULL_SHARE, LEAST_S, OVERFLOW_SLOWER = 0.98, 3.0, 1.05
OTHER_USE = 0.1
MENU_FASTER, MENU_MOST = 2.0, 0.7
USUAL_REFRESH_HZ = (60.0, 75.0, 120.0, 144.0, 165.0, 240.0)
LOCAL = 31
"""Frames around one that tell what is usual there."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Happening:
    """What happened, in which stretches of the run (from, to) in s, and what shows it in one
    sentence; ``fps`` is the rate of a cap.
    """

    what: What
    stretches: tuple[tuple[float, float], ...]
    words: str
    fps: float | None = None


def happenings(
    trace: Trace, refresh_hz: float | None = None, memory_gb: float | None = None
) -> tuple[Happening, ...]:
    """What happened in a trace of at least a few seconds; ``refresh_hz`` is the display's,
    ``memory_gb`` the video memory of the card, where they are known.
    """
    if trace.count < 2 * LOCAL:
        return ()
    events = _held(trace, refresh_hz)
    full = _overflowing(trace, memory_gb)
    noticed = [*events, *_throttling(trace), *_other_task(trace)]
    noticed += _overflow(trace, memory_gb, full) if full is not None else _hitches(trace)
    if not events:
        noticed += _menu(trace)
    return tuple(noticed)


# --- held back ------------------------------------------------------------------------------------


def _held(trace: Trace, refresh_hz: float | None) -> list[Happening]:
    frame = trace.frame_ms
    mode = _mode(frame)
    near = float((np.abs(frame / mode - 1) < NEAR).mean())
    whole = ((0.0, trace.seconds),)
    for hz in (refresh_hz,) if refresh_hz else USUAL_REFRESH_HZ:
        refreshes = frame * hz / 1000
        steps = np.rint(refreshes)
        on_step = (np.abs(refreshes - steps) < NEAR * np.maximum(steps, 1)) & (steps >= 1)
        several = float((on_step & (steps != np.rint(mode * hz / 1000))).mean())
        if on_step.mean() >= STEPPED_SHARE and (several > 0.005 or _is_step(mode, refresh_hz)):
            return [
                Happening(
                    what="synchronised",
                    stretches=whole,
                    words=f"{on_step.mean():.0%} of frames take whole refreshes of {hz:g} Hz:"
                    " frames wait for the display.",
                    fps=hz,
                )
            ]
    if near >= CAPPED_SHARE and _sides_wait(trace):
        return [
            Happening(
                what="cap",
                stretches=whole,
                words=f"{near:.0%} of frames take {mode:.2f} ms: something holds the rate at"
                f" {1000 / mode:.0f} fps.",
                fps=1000 / mode,
            )
        ]
    return []


def _is_step(mode: float, refresh_hz: float | None) -> bool:
    """Whether the usual frame takes whole refreshes of a display that is known."""
    if refresh_hz is None:
        return False
    steps = mode * refresh_hz / 1000
    return abs(steps - round(steps)) < NEAR * max(1, round(steps)) and round(steps) >= 1


def _mode(frame: Floats) -> float:
    """The most usual frame time in ms."""
    ln = np.log(frame)
    counts, edges = np.histogram(
        ln, bins=max(10, int(np.ptp(ln) / (NEAR / 2)) + 1), range=(float(ln.min()), float(ln.max()))
    )
    index = int(np.argmax(np.convolve(counts, (1, 2, 1), "same")))
    inside = (ln >= edges[max(0, index - 1)]) & (ln <= edges[min(counts.size, index + 2)])
    return float(np.exp(np.median(ln[inside])))


def _sides_wait(trace: Trace) -> bool:
    """Whether neither side is busy all the time, as far as that was logged."""
    uses = [trace.channel("processor_use"), trace.channel("graphics_use")]
    known = [float(np.nanmedian(use)) for use in uses if use is not None]
    return not known or max(known) < 0.97


# --- hitches --------------------------------------------------------------------------------------


def hitch_frames(frame_ms: Floats) -> NDArray[np.bool_]:
    """Which frames took far longer than those around them, shape (n,)."""
    usual = median_filter(frame_ms, LOCAL, mode="nearest")
    return np.asarray((frame_ms > HITCH_TIMES * usual) & (frame_ms > usual + HITCH_MS))


def _hitches(trace: Trace) -> Iterator[Happening]:
    hit = hitch_frames(trace.frame_ms)
    when = trace.start_s[hit] - trace.start_s[0]
    minutes = trace.seconds / 60
    if when.size < LEAST_HITCHES or when.size / minutes < LEAST_A_MINUTE:
        return
    window = min(WARM_UP_S, trace.seconds / 2)
    early = when[when < window]
    last = float(early.max()) if early.size else 0.0
    later = when.size - early.size
    by_chance = float(bdtrc(early.size - 1, when.size, window / trace.seconds))
    if by_chance < BY_CHANCE and early.size >= WARM_UP_TIMES * later:
        yield Happening(
            what="warm-up",
            stretches=((0.0, last),),
            words=f"{early.size} long frames in the first {last:.0f} s and {later} in the rest: the"
            " game was still being prepared.",
        )
        return
    longest = float(trace.frame_ms[hit].max())
    yield Happening(
        what="hitches",
        stretches=tuple((float(moment_s), float(moment_s)) for moment_s in when[:200]),
        words=f"{when.size} frames ({when.size / minutes:.1f} a minute) take more than"
        f" {HITCH_TIMES:g} times as long as those around them, the longest {longest:.0f} ms.",
    )


# --- what the channels show -----------------------------------------------------------------------


def _throttling(trace: Trace) -> Iterator[Happening]:
    for side, clock_name, heat_name in (
        ("processor", "processor_mhz", "processor_c"),
        ("graphics", "graphics_mhz", "graphics_c"),
    ):
        clock = trace.channel(clock_name)  # type: ignore[arg-type]
        if clock is None:
            continue
        usual = float(np.nanquantile(clock, 0.95))
        low = clock < (1 - CLOCK_DROP) * usual
        heat = trace.channel(heat_name)  # type: ignore[arg-type]
        if heat is not None and low.any():
            hot = float(np.nanquantile(heat, 0.95))
            low &= heat > hot - 6
        stretches = _stretches(trace, low, LASTS_S)
        slower = _slower(trace, low)
        if not stretches or slower < SLOWER:
            continue
        runs = "runs" if side == "processor" else "run"
        drop = 1 - float(np.nanmedian(clock[low])) / usual
        heat_words = f" at {np.nanmedian(heat[low]):.0f} °C" if heat is not None else ""
        yield Happening(
            what="throttling",
            stretches=stretches,
            words=f"The {side} {runs} {drop:.0%} below the clock of {usual:,.0f} MHz{heat_words};"
            f" frames take {slower - 1:.0%} longer.",
        )


def _slower(trace: Trace, inside: NDArray[np.bool_]) -> float:
    """How many times as long frames take inside as outside."""
    if not inside.any() or inside.all():
        return 1.0
    return float(trace.frame_ms[inside].mean() / trace.frame_ms[~inside].mean())


def _overflowing(trace: Trace, memory_gb: float | None) -> NDArray[np.bool_] | None:
    used = trace.channel("video_memory_gb")
    if used is None:
        return None
    most = memory_gb if memory_gb is not None else float(np.nanmax(used))
    full = np.nan_to_num(used) >= FULL_SHARE * most
    if memory_gb is None and not 0.02 < full.mean() < 0.9:
        return None
    return np.asarray(full) if full.any() and _slower(trace, full) >= OVERFLOW_SLOWER else None


def _overflow(
    trace: Trace, memory_gb: float | None, full: NDArray[np.bool_]
) -> Iterator[Happening]:
    stretches = _stretches(trace, full, LEAST_S)
    if not stretches:
        return
    used = trace.channels["video_memory_gb"]
    most = memory_gb if memory_gb is not None else float(np.nanmax(used))
    yield Happening(
        what="memory overflow",
        stretches=stretches,
        words=f"The {most:g} GB of video memory are full, and frames take"
        f" {_slower(trace, full) - 1:.0%} longer there: what does not fit comes over the link.",
    )


def _other_task(trace: Trace) -> Iterator[Happening]:
    other = trace.channel("other_use")
    if other is None:
        return
    busy = np.nan_to_num(other) > max(OTHER_USE, 2 * float(np.nanquantile(other, 0.1)))
    stretches = _stretches(trace, busy, LEAST_S)
    if stretches:
        yield Happening(
            what="background task",
            stretches=stretches,
            words=f"Other programs take {np.nanmedian(other[busy]):.0%} of the processor there.",
        )


def _menu(trace: Trace) -> Iterator[Happening]:
    """Stretches that are far faster than most of the run."""
    usual = median_filter(trace.frame_ms, LOCAL, mode="nearest")
    slow = float(np.quantile(usual, 0.75))
    fast = usual < slow / MENU_FASTER
    stretches = _stretches(trace, fast, LEAST_S)
    share = sum(to - start for start, to in stretches) / max(trace.seconds, 1e-9)
    if stretches and share < MENU_MOST:
        yield Happening(
            what="menu",
            stretches=stretches,
            words=f"Frames are there more than {MENU_FASTER:g} times as fast as in the rest, as in"
            " a menu or a loading screen: leave it out.",
        )


def _stretches(
    trace: Trace, inside: NDArray[np.bool_], least_s: float
) -> tuple[tuple[float, float], ...]:
    """Times from and to of runs of frames, short breaks bridged, short runs dropped."""
    if not inside.any():
        return ()
    edge = np.flatnonzero(np.diff(np.concatenate([[False], inside, [False]]).astype(int)))
    spans = list(zip(edge[::2], edge[1::2], strict=True))
    begin = trace.start_s - trace.start_s[0]
    merged: list[tuple[float, float]] = []
    for first, after in spans:
        start = float(begin[first])
        end = float(begin[after - 1] + trace.frame_ms[after - 1] / 1000)
        if merged and start - merged[-1][1] < 1.0:
            merged[-1] = (merged[-1][0], end)
        else:
            merged.append((start, end))
    return tuple(span for span in merged if span[1] - span[0] >= least_s)
