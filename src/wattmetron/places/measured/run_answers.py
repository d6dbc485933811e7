"""Measured runs as plain data for the API."""

import json
from typing import Any

import numpy as np

from wattmetron.core.errors import InvalidError
from wattmetron.core.values.runs import MOST_FRAMES, Trace
from wattmetron.formats.run_file import RunDocument, report_document, run_document
from wattmetron.places.measured.run_library import MeasuredRun

LONGEST_MS = 100_000.0


def run_json(measured_run: MeasuredRun, whole: bool = False) -> dict[str, Any]:
    """A run with what was promised and measured of it; ``whole`` with all that it says."""
    answers = json.loads(
        run_document(RunDocument(run=measured_run.run, promised=measured_run.promised))
    )
    measured = measured_run.measured
    answer: dict[str, Any] = {
        "id": measured_run.id,
        "version": measured_run.version,
        **answers,
        "measured": measured
        and {
            "fps": round(measured.fps, 2),
            "interval_80_fps": [round(measured.least_fps, 2), round(measured.most_fps, 2)],
        },
        "held_back": bool(measured_run.report and measured_run.report.held),
    }
    if whole:
        answer["report"] = json.loads(report_document(measured_run.report))
    return answer


def trace_of_times(frame_ms: list[float]) -> Trace:
    """Frames one after the other; raises InvalidError for times that no frame takes."""
    times = np.array(frame_ms, dtype=float)
    if times.size > MOST_FRAMES:
        raise InvalidError(f"{times.size:,} frames are too many: send {MOST_FRAMES:,} at most.")
    wrong = np.flatnonzero(~((times > 0) & (times < LONGEST_MS)))
    if wrong.size:
        raise InvalidError(
            f"Frame {int(wrong[0]) + 1} takes {times[wrong[0]]:g} ms: send times above 0 and under"
            f" {LONGEST_MS:,.0f} ms."
        )
    starts = np.concatenate([[0.0], np.cumsum(times)[:-1] / 1000]) if times.size else times
    return Trace(starts, times)
