"""Recording a run: a frame logger and a wall meter are listened to beside what else is done; what
they told so far can be looked at, stopped, kept or thrown away.
"""

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from threading import Event, Lock, Thread
from typing import Any
from urllib.parse import urlencode

import httpx2
import numpy as np
from numpy.typing import NDArray

from wattmetron.core.errors import InvalidError, NotPossibleError
from wattmetron.core.values.runs import CHANNELS, Channel, Run, Trace
from wattmetron.workshop.exchange import (
    ExchangeTooLargeError,
    OutOfReachError,
    lines_of,
    must_reach,
)

PROTOCOL = "wattmetron-meter/1"
TIMEOUTS = httpx2.Timeout(10.0, connect=5.0)
LONGEST_LINE, MOST_RECORDED, MOST_SAMPLES = 1_000_000, 1_000_000, 100_000
LONGEST_REFUSAL, MOST_COLUMNS = 10_000, 200
LIVE_S = 30.0
LINGER_S = 3.0
"""So long the wall meter may go on when the frame logger has ended."""
NOT_ANSWERED = "it does not answer: is it started, and is its address right?"
BROKEN_OFF = "the connection broke off before the run was over; what came before can be kept"
Line = dict[str, Any]
Lines = Callable[[str, Event], Iterator[Line]]


class MeterError(InvalidError):
    """A meter that does not tell what it should; the message says which and what to do."""


@dataclass(frozen=True, slots=True)
class Live:
    """How far a recording is: frames and seconds so far, whether it goes on, what went wrong."""

    running: bool = False
    frames: int = 0
    seconds: float = 0.0
    wrong: str = ""
    noted: str = ""
    run: Run | None = None


@dataclass
class _Told:
    """Columns of what was told so far, in pieces."""

    names: tuple[str, ...] = ()
    pieces: list[NDArray[np.float64]] = field(default_factory=list)
    count: int = 0


class Recorder:
    """Records one run at a time in threads; thread-safe and bounded."""

    def __init__(self, lines: Lines | None = None) -> None:
        self._lines = lines or told_lines
        self._lock, self._stop = Lock(), Event()
        self._live = Live()
        self._frames, self._watts = _Told(), _Told()

    @property
    def live(self) -> Live:
        with self._lock:
            return self._live

    def start(self, run: Run, frames_at: str, watts_at: str = "") -> Thread:
        """Begin to listen; raises NotPossibleError while a run is recorded or waits to be kept."""
        with self._lock:
            if self._live.run is not None:
                raise NotPossibleError(
                    "A run is recorded already: keep or discard it before another one."
                )
            self._live = Live(running=True, run=run)
            self._frames, self._watts = _Told(), _Told()
            self._stop = stop = Event()
        thread = Thread(target=self._listen, args=(frames_at, watts_at, stop), daemon=True)
        thread.start()
        return thread

    def stop(self) -> None:
        self._stop.set()

    def discard(self) -> None:
        """Throw away what was recorded."""
        self.stop()
        with self._lock:
            self._live = Live()
            self._frames, self._watts = _Told(), _Told()

    def recorded(self) -> tuple[Run, Trace]:
        """What was recorded so far; raises NotPossibleError where there is nothing."""
        with self._lock:
            run, table = self._live.run, _whole(self._frames)
            watts = _whole(self._watts)
        if run is None:
            raise NotPossibleError("Nothing was recorded: start a recording first.")
        if "frame_ms" not in table or table["frame_ms"].size < 2:
            raise NotPossibleError(
                "No frames have come yet: wait for the first ones, or discard the recording."
            )
        return run, _trace(table, watts)

    def since(self, count: int) -> tuple[int, NDArray[np.float64]]:
        """How many frames there are, and (start in s, time in ms) of those after the first
        ``count``, at most those of the last half minute, shape (n, 2).
        """
        with self._lock:
            total = self._frames.count
            pieces, seen = [], total
            for piece in reversed(self._frames.pieces):
                if seen <= count:
                    break
                pieces.append(piece[max(0, count - (seen - len(piece))) :])
                seen -= len(piece)
                if pieces[0].size and piece[0, 0] < pieces[0][-1, 0] - LIVE_S:
                    break
            names = self._frames.names
        if not pieces:
            return total, np.empty((0, 2))
        index = [names.index("start_s"), names.index("frame_ms")]
        return total, np.concatenate(pieces[::-1])[:, index]

    def now(self) -> dict[str, float]:
        """What the channels stood at last."""
        with self._lock:
            last = self._frames.pieces[-1][-1] if self._frames.pieces else None
            names = self._frames.names
            watts = self._watts.pieces[-1][-1, 1] if self._watts.pieces else None
        values = {} if last is None else dict(zip(names, map(float, last), strict=True))
        if watts is not None:
            values["watts"] = float(watts)
        return values

    # --- listening ----------------------------------------------------------------------------

    def _listen(self, frames_at: str, watts_at: str, stop: Event) -> None:
        beside = Thread(target=self._watch, args=(watts_at, stop), daemon=True)
        if watts_at:
            beside.start()
        wrong = ""
        try:
            wrong = self._take(frames_at, self._frames, stop, MOST_RECORDED)
            if watts_at and not stop.is_set():
                beside.join(LINGER_S)
        except MeterError as error:
            wrong = f"The frame logger: {error}"
        except Exception:
            wrong = "The recording broke off; what came before can be kept."
            raise
        finally:
            stop.set()
            with self._lock:
                if self._live.run is not None and self._stop is stop:
                    self._live = replace(self._live, running=False, wrong=wrong)

    def _watch(self, watts_at: str, stop: Event) -> None:
        sentence = ""
        try:
            self._take(watts_at, self._watts, stop, MOST_SAMPLES)
        except MeterError as error:
            sentence = f"The wall meter: {error}"
        with self._lock:
            if sentence and self._live.run is not None and self._stop is stop:
                self._live = replace(self._live, noted=sentence)

    def _take(self, address: str, into: _Told, stop: Event, most: int) -> str:
        """Everything that a meter tells; a sentence where it ended otherwise than it should."""
        ended = False
        for line in self._lines(address, stop):
            if stop.is_set():
                return ""
            if "error" in line:
                raise MeterError(str(line["error"])[:300])
            if "columns" in line:
                if into.names:
                    raise MeterError("it says anew what it tells; what came before can be kept")
                into.names = _columns(line, frames=into is self._frames)
            elif "rows" in line:
                with self._lock:
                    self._add(into, _rows(line, into.names))
                    if into.count >= most:
                        return f"{most:,} frames are as many as one run holds: it ended there."
            elif "end" in line:
                ended = True
        if not ended:
            raise MeterError(BROKEN_OFF)
        return ""

    def _add(self, into: _Told, rows: NDArray[np.float64]) -> None:
        if not rows.size:
            return
        into.pieces.append(rows)
        into.count += len(rows)
        if into is self._frames:
            first, last = into.pieces[0][0], rows[-1]
            index, ms = into.names.index("start_s"), into.names.index("frame_ms")
            self._live = replace(
                self._live,
                frames=into.count,
                seconds=float(last[index] - first[index] + last[ms] / 1000),
            )


def _columns(line: Line, frames: bool) -> tuple[str, ...]:
    if line.get("protocol") != PROTOCOL:
        raise MeterError("it does not speak the protocol of meters (docs/formats.md)")
    names = (
        tuple(str(name) for name in line["columns"]) if isinstance(line["columns"], list) else ()
    )
    wanted = {"start_s", "frame_ms"} if frames else {"at_s", "watts"}
    if not wanted <= {*names}:
        raise MeterError(f"it does not tell {' and '.join(sorted(wanted))}")
    if len({*names}) < len(names):
        raise MeterError("it tells the same thing twice")
    if len(names) > MOST_COLUMNS:
        raise MeterError(f"it tells more than {MOST_COLUMNS} things of each frame")
    return names


def _rows(line: Line, names: tuple[str, ...]) -> NDArray[np.float64]:
    try:
        rows = np.array(line["rows"], dtype=float)
    except (ValueError, TypeError) as error:
        raise MeterError("it tells something that is no number") from error
    if not names or rows.ndim != 2 or rows.shape[1] != len(names):
        raise MeterError("it tells more or less than it said it would")
    if "frame_ms" not in names:
        return np.asarray(rows[np.isfinite(rows[:, names.index("at_s")])])
    ms, start = rows[:, names.index("frame_ms")], rows[:, names.index("start_s")]
    return np.asarray(rows[np.isfinite(ms) & (ms > 0) & (ms < 60_000) & np.isfinite(start)])


def _whole(record: _Told) -> dict[str, NDArray[np.float64]]:
    if not record.pieces:
        return {}
    table = np.concatenate(record.pieces)
    return {name: table[:, n] for n, name in enumerate(record.names)}


def _trace(table: dict[str, NDArray[np.float64]], watts: dict[str, NDArray[np.float64]]) -> Trace:
    channels: dict[Channel, NDArray[np.float64]] = {
        name: table[name] for name in CHANNELS if name in table
    }
    order = np.argsort(table["start_s"], kind="stable")
    table = {name: values[order] for name, values in table.items()}
    channels = {name: values[order] for name, values in channels.items()}
    start = table["start_s"]
    if watts and watts["at_s"].size > 1:
        by_time = np.argsort(watts["at_s"], kind="stable")
        at_s, drawn_w = watts["at_s"][by_time], watts["watts"][by_time]
        channels["watts"] = np.interp(start, at_s, drawn_w, left=np.nan, right=np.nan)
    return Trace(start - start[0], table["frame_ms"], channels)


def told_lines(address: str, stop: Event) -> Iterator[Line]:
    """The lines of a meter as they come, until somebody stops it; raises MeterError."""
    plain = {"accept-encoding": "identity"}
    answered = False
    try:
        must_reach(address)
        with (
            httpx2.Client(timeout=TIMEOUTS, follow_redirects=False, trust_env=False) as client,
            client.stream("GET", address, headers=plain) as answer,
        ):
            if answer.headers.get("content-encoding", "identity").lower() != "identity":
                raise MeterError("it packs what it sends, which is not taken")
            if answer.status_code != 200:
                raise MeterError(_refusal(answer, stop))
            answered = True
            for text in lines_of(answer.iter_raw(), LONGEST_LINE, stop):
                if text.strip():
                    yield _read(text)
    except OutOfReachError as error:
        raise MeterError(
            "it may not be asked from here: allow its address with --allow-address"
        ) from error
    except ExchangeTooLargeError as error:
        raise MeterError("it sends lines that are far too long") from error
    except httpx2.TimeoutException as error:
        raise MeterError("it does not answer in time") from error
    except httpx2.TransportError as error:
        raise MeterError(BROKEN_OFF if answered else NOT_ANSWERED) from error
    except (httpx2.HTTPError, httpx2.InvalidURL) as error:
        raise MeterError("its address cannot be asked") from error


def _read(text: str) -> Line:
    try:
        line = json.loads(text)
    except ValueError as error:
        raise MeterError("it sends something that is no JSON") from error
    if not isinstance(line, dict):
        raise MeterError("it sends something that is no line of the protocol")
    return line


def _refusal(answer: httpx2.Response, stop: Event) -> str:
    """What the meter says of it in the first line that it sends, else its status."""
    try:
        first = next(lines_of(answer.iter_raw(), LONGEST_REFUSAL, stop), "")
        sentence = json.loads(first).get("error", "")
    except (ValueError, AttributeError, ExchangeTooLargeError):
        sentence = ""
    return str(sentence)[:300] or f"it refuses ({answer.status_code})"


def asked_at(meter: str, what: str, run: Run, seconds: float, more: dict[str, str]) -> str:
    """The address at which a meter tells of a run: what is measured goes with it."""
    answer = {
        "game": run.game,
        "processor": run.processor,
        "graphics": run.graphics,
        "width": str(run.width_px),
        "height": str(run.height_px),
        "preset": run.preset,
        "seconds": f"{seconds:g}",
        **({"rays": "1"} if run.ray_tracing else {}),
        **({"scale": f"{run.scale:g}"} if run.upscaling else {}),
        **({"lower": ";".join(run.lowered)} if run.lowered else {}),
        **({"generated": "1"} if run.generated else {}),
        **({"refresh": f"{run.refresh_hz:g}"} if run.refresh_hz else {}),
        **more,
    }
    return f"{meter.rstrip('/')}/{what}?{urlencode(answer)}"
