"""Measured runs as documents and packed frames, and frames as an open table."""

import io
import zlib
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pydantic import TypeAdapter

from wattmetron.core.runs.drawn import RunPicture
from wattmetron.core.runs.prediction import Promised
from wattmetron.core.runs.report import Report
from wattmetron.core.values.runs import CHANNELS, Channel, Run, Trace

IN_STEP_S = 0.002
MOST_UNPACKED = 400_000_000


@dataclass(frozen=True, slots=True, kw_only=True)
class RunDocument:
    """A run with what was promised of it."""

    run: Run
    promised: Promised | None = None


_RUN: TypeAdapter[RunDocument] = TypeAdapter(RunDocument)
_REPORT: TypeAdapter[Report | None] = TypeAdapter(Report | None)
_DRAWN: TypeAdapter[RunPicture] = TypeAdapter(RunPicture)


def run_document(document: RunDocument) -> str:
    return _RUN.dump_json(document).decode()


def run_from(text: str) -> RunDocument:
    """Raises ValueError for what is none."""
    return _RUN.validate_json(text)


def report_document(report: Report | None) -> str:
    return _REPORT.dump_json(report).decode()


def report_from(text: str) -> Report | None:
    """Raises ValueError for what is none."""
    return _REPORT.validate_json(text)


def drawn_document(drawn: RunPicture) -> str:
    return _DRAWN.dump_json(drawn).decode()


def drawn_from(text: str) -> RunPicture:
    """Raises ValueError for what is none."""
    return _DRAWN.validate_json(text)


def packed(trace: Trace) -> bytes:
    """A trace in little room: single precision, times of frames that follow on left out."""
    arrays: dict[str, NDArray[np.generic]] = {"frame_ms": trace.frame_ms.astype(np.float32)}
    follows = np.concatenate([[0.0], np.cumsum(trace.frame_ms)[:-1] / 1000])
    if trace.count and np.abs(trace.start_s - trace.start_s[0] - follows).max() > IN_STEP_S:
        arrays["start_s"] = trace.start_s
    arrays |= {name: values.astype(np.float32) for name, values in trace.channels.items()}
    out = io.BytesIO()
    np.savez(out, **arrays)  # type: ignore[arg-type]
    return zlib.compress(out.getvalue(), 1)


def unpacked(data: bytes) -> Trace:
    """The trace that was packed; raises ValueError for what is none."""
    engine = zlib.decompressobj()
    whole = engine.decompress(data, MOST_UNPACKED)
    with np.load(io.BytesIO(whole), allow_pickle=False) as arrays:
        frame = arrays["frame_ms"].astype(float)
        start = (
            arrays["start_s"].astype(float)
            if "start_s" in arrays
            else np.concatenate([[0.0], np.cumsum(frame)[:-1] / 1000])
        )
        channels: dict[Channel, NDArray[np.float64]] = {
            name: arrays[name].astype(float) for name in CHANNELS if name in arrays
        }
    return Trace(start, frame, channels)


def frames_table(trace: Trace) -> Iterator[str]:
    """A trace as CSV that any table reader takes, piece by piece."""
    names = [name for name in CHANNELS if name in trace.channels]
    heads = [f"{name} ({CHANNELS[name][1]})" for name in names]
    yield ",".join(["start (s)", "frame time (ms)", *heads]) + "\n"
    columns = [trace.start_s, trace.frame_ms, *(trace.channels[name] for name in names)]
    step = 20_000
    for index in range(0, trace.count, step):
        rows = zip(*(column[index : index + step].tolist() for column in columns), strict=True)
        yield "".join(
            ",".join("" if value != value else f"{value:.6g}" for value in row) + "\n"
            for row in rows
        )
