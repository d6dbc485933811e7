"""Frame times in any table: which column holds what, in which unit, and the frames themselves.

Heads are read by their words; what they leave open is found by the size of the numbers. A table
that tells of several games is not mixed: one of them has to be named.
"""

import io
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.errors import InvalidError
from wattmetron.core.texts.table_text import (
    NUMBER,
    cells_of,
    decoded,
    has_decimal_commas,
    number_of,
    separator_of,
)
from wattmetron.core.values.runs import CHANNELS, MOST_FRAMES, Channel, Trace

Floats = NDArray[np.float64]
Holds = Literal["frame time", "start", "rate", "game", "leave out"] | Channel
HOLDS: tuple[Holds, ...] = ("frame time", "start", "rate", "game", *CHANNELS, "leave out")
Unit = Literal["s", "ms", "µs", "ns"]
UNITS: dict[Unit, float] = {"s": 1000.0, "ms": 1.0, "µs": 1e-3, "ns": 1e-6}
MOST_BYTES, MOST_COLUMNS, LOOKED_AT = 150_000_000, 60, 400
LEAST_FRAME_MS, MOST_FRAME_MS = 0.05, 20_000.0
_UNIT = re.compile(r"(?:[\[(]|\bin\b|[ _])\s*(s|sec|seconds?|ms|milliseconds?|us|µs|ns)\b", re.I)
_WORDS: tuple[tuple[Holds, str], ...] = (
    ("processor_ms", r"(?:cpu|processor)[ _]*(?:busy|time|frame ?time|ms)"),
    ("graphics_ms", r"(?:gpu|graphics)[ _]*(?:busy|time|frame ?time|ms)"),
    ("processor_use", r"(?:cpu|processor)[ _]*(?:use|usage|load|util\w*|%)|thread[ _]*load"),
    ("graphics_use", r"(?:gpu|graphics)[ _]*(?:use|usage|load|util\w*|%)"),
    ("other_use", r"other[ _]*(?:use|usage|load|programs?)"),
    ("processor_c", r"(?:cpu|processor)[ _]*(?:temp\w*|°?c\b)"),
    ("graphics_c", r"(?:gpu|graphics)[ _]*(?:temp\w*|°?c\b)"),
    ("processor_mhz", r"(?:cpu|processor|core)[ _]*(?:clock|mhz|freq\w*)"),
    ("graphics_mhz", r"(?:gpu|graphics)[ _]*(?:clock|mhz|freq\w*)"),
    ("fan_rpm", r"fan"),
    ("video_memory_gb", r"v-?ram|video[ _]*memory|(?:gpu|graphics)[ _]*mem\w*"),
    ("watts", r"watts?|power|\bw\b"),
    ("frame time", r"frame[ _-]*(?:time|ms|duration)|\bdt\b|delta|time[ _]*between|\bms\b"),
    ("rate", r"\bfps\b|frame[ _]*rate|frames[ _]*per"),
    ("start", r"time|start|elapsed|stamp|\bt\b|seconds?"),
    ("game", r"game|program|process|application|title|\bapp\b"),
)
_PATTERNS = tuple((holds, re.compile(words, re.IGNORECASE)) for holds, words in _WORDS)


class FramesError(InvalidError):
    """A file that cannot be read as frames; the message says where and what to do."""


class ColumnsUnclearError(FramesError):
    """A file whose columns somebody has to name first."""

    def __init__(self, message: str, columns: "Columns") -> None:
        super().__init__(message)
        self.columns = columns


@dataclass(frozen=True, slots=True, kw_only=True)
class Columns:
    """A table's head, a few of its rows, what each column is taken for, and the unit of times."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    holds: tuple[Holds, ...]
    unit: Unit | None = None
    games: tuple[str, ...] = ()


@dataclass(frozen=True, eq=False)
class ReadFrames:
    """Frames as read, how the columns were taken, and what was left out, in sentences."""

    trace: Trace
    columns: Columns
    sentences: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Layout:
    delimiter: str | None
    comma: bool
    first: int


def read_frames(
    data: bytes, holds: Sequence[Holds] = (), unit: Unit | None = None, game: str = ""
) -> ReadFrames:
    """The frames of a file; ``holds`` and ``unit`` where somebody said them, ``game`` where it
    tells of several. Raises FramesError, ColumnsUnclearError where something has to be said first.
    """
    text = _text(data)
    columns, layout = _columns(text, tuple(holds), unit)
    if not {"frame time", "start", "rate"} & {*columns.holds}:
        raise ColumnsUnclearError(
            "No column reads as frame times: say which one holds the time of each frame, when it"
            " began, or the frame rate.",
            columns,
        )
    table = _numbers(text, layout, columns, game)
    return _frames(table, columns)


def _text(data: bytes) -> str:
    if len(data) > MOST_BYTES:
        raise FramesError(
            f"The file has {len(data) / 1e6:,.0f} MB, more than the {MOST_BYTES / 1e6:.0f} MB that"
            " are taken in: cut it to the run that you want."
        )
    text = decoded(data)
    if text is None:
        raise FramesError("This is no text but binary data: export the frame times as CSV.")
    if not text.strip():
        raise FramesError("The file is empty: export the frame times again.")
    return text


# --- columns --------------------------------------------------------------------------------------


def _columns(text: str, holds: tuple[Holds, ...], unit: Unit | None) -> tuple[Columns, _Layout]:
    lines = [line for line in text[:200_000].splitlines()[:LOOKED_AT] if line.strip()]
    if not lines:
        raise FramesError("The file begins with nothing but blanks: export the frame times again.")
    delimiter = separator_of(lines)
    rows = [cells_of(line, delimiter) for line in lines]
    width = Counter(len(row) for row in rows).most_common(1)[0][0]
    if width > MOST_COLUMNS:
        raise FramesError(f"The table has {width} columns, more than {MOST_COLUMNS}.")
    first = next((n for n, row in enumerate(rows) if len(row) == width and _is_data(row)), None)
    if first is None:
        raise FramesError("The file has no line of numbers: export the frame times as CSV.")
    head = rows[first - 1] if first and len(rows[first - 1]) == width else ()
    heads = (
        tuple(head)
        if head and not _is_data(head)
        else tuple(f"column {n + 1}" for n in range(width))
    )
    body = [row for row in rows[first:] if len(row) == width]
    comma = delimiter != "," and has_decimal_commas(body)
    meanings = holds if len(holds) == width else _taken_for(heads, body, comma)
    columns = Columns(
        heads=heads,
        rows=tuple(tuple(row) for row in body[:5]),
        holds=meanings,
        unit=unit or _unit(heads, meanings, body, comma),
        games=_games(body, meanings),
    )
    if columns.unit is None and "frame time" in meanings:
        raise ColumnsUnclearError(
            "The unit of the frame times does not show: say whether they are seconds, milliseconds,"
            " microseconds or nanoseconds.",
            columns,
        )
    starts = text[:200_000].splitlines()
    skip = next(n for n, line in enumerate(starts) if cells_of(line, delimiter) == rows[first])
    return columns, _Layout(delimiter, comma, skip)


def _is_data(row: Sequence[str]) -> bool:
    return any(NUMBER.fullmatch(cell.strip()) for cell in row)


def _taken_for(
    heads: Sequence[str], rows: Sequence[Sequence[str]], comma: bool
) -> tuple[Holds, ...]:
    """What each column holds, by its head; by its numbers where there is only one."""
    holdings: list[Holds] = []
    for n, head in enumerate(heads):
        numeric = sum(bool(NUMBER.fullmatch(row[n])) for row in rows) > 0.5 * len(rows)
        holds: Holds = next((what for what, words in _PATTERNS if words.search(head)), "leave out")
        if holds == "game":
            holds = "leave out" if numeric else "game"
        elif not numeric or holds in holdings:
            holds = "leave out"
        holdings.append(holds)
    if len(heads) == 1 and holdings == ["leave out"]:
        return ("frame time",)
    return tuple(holdings)


def _unit(
    heads: Sequence[str], holds: Sequence[Holds], rows: Sequence[Sequence[str]], comma: bool
) -> Unit | None:
    """The unit of frame times by the head, else by their size; None where that does not tell."""
    if "frame time" not in holds:
        return "ms"
    index = holds.index("frame time")
    match = _UNIT.search(heads[index])
    if match:
        word = match[1].casefold()
        if word[0] == "s":
            return "s"
        if word in ("us", "µs".casefold()):
            return "µs"
        if word == "ns":
            return "ns"
        return "ms"
    if re.search(r"\bms\b", heads[index], re.IGNORECASE):
        return "ms"
    values = [number_of(row[index], comma) for row in rows]
    known = [value for value in values if value is not None and value > 0]
    if not known:
        return None
    usual = float(np.median(known))
    for unit, least, most in (
        ("s", 5e-4, 0.25),
        ("ms", 1.0, 250.0),
        ("µs", 1e3, 2.5e5),
        ("ns", 1e6, 2.5e8),
    ):
        if least <= usual <= most:
            return unit  # type: ignore[return-value]
    return None


def _games(rows: Sequence[Sequence[str]], holds: Sequence[Holds]) -> tuple[str, ...]:
    if "game" not in holds:
        return ()
    index = holds.index("game")
    return tuple(dict.fromkeys(row[index] for row in rows if row[index]))


# --- numbers --------------------------------------------------------------------------------------


def _numbers(text: str, layout: _Layout, columns: Columns, game: str) -> dict[Holds, Floats]:
    used = [n for n, holds in enumerate(columns.holds) if holds not in ("leave out", "game")]
    table = None
    if "game" not in columns.holds:
        table = _quickly(text, layout, used)
    if table is None:
        table = _carefully(text, layout, columns, used, game)
    if table.shape[0] > MOST_FRAMES:
        raise FramesError(
            f"The file has {table.shape[0]:,} frames, more than the {MOST_FRAMES:,} that are taken"
            " in: cut it to the run that you want."
        )
    return {columns.holds[n]: table[:, index] for index, n in enumerate(used)}


def _quickly(text: str, layout: _Layout, used: Sequence[int]) -> Floats | None:
    """All lines at once; None where one of them is not as the others."""
    try:
        body = text.replace(",", ".") if layout.comma else text
        return np.loadtxt(
            io.StringIO(body),
            delimiter=layout.delimiter,
            skiprows=layout.first,
            usecols=list(used),
            ndmin=2,
            comments=None,
            quotechar='"',
        )
    except (ValueError, IndexError):
        return None


def _carefully(
    text: str, layout: _Layout, columns: Columns, used: Sequence[int], game: str
) -> Floats:
    """Line by line: cells that are no numbers are not known; other games' lines are left out."""
    at_game = columns.holds.index("game") if "game" in columns.holds else None
    games: Counter[str] = Counter()
    rows: list[list[float]] = []
    for line in text.splitlines()[layout.first :]:
        cells = cells_of(line, layout.delimiter)
        if len(cells) < len(columns.heads):
            continue
        if at_game is not None:
            games[cells[at_game]] += 1
            if game and cells[at_game] != game:
                continue
        values = [number_of(cells[n], layout.comma) for n in used]
        rows.append([np.nan if value is None else value for value in values])
        if len(rows) > MOST_FRAMES:
            break
    if len(games) > 1 and not game:
        raise ColumnsUnclearError(
            f"The file tells of {len(games)} games ({', '.join(list(games)[:4])}): say which one.",
            Columns(
                heads=columns.heads,
                rows=columns.rows,
                holds=columns.holds,
                unit=columns.unit,
                games=tuple(games),
            ),
        )
    if not rows:
        raise FramesError("No line of the file has the numbers that its head promises.")
    return np.array(rows, dtype=float)


def _frames(table: dict[Holds, Floats], columns: Columns) -> ReadFrames:
    sentences: list[str] = []
    frame = _frame_ms(table, columns.unit or "ms")
    good = np.isfinite(frame) & (frame > 0)
    if (~good).any():
        sentences.append(
            f"{int((~good).sum()):,} lines have no frame time above 0: they are left out."
        )
    far = good & ((frame < LEAST_FRAME_MS) | (frame > MOST_FRAME_MS))
    if far.any():
        sentences.append(
            f"{int(far.sum()):,} frames take less than {LEAST_FRAME_MS} ms or more than"
            f" {MOST_FRAME_MS / 1000:.0f} s: they are left out."
        )
        good &= ~far
    if good.sum() < 2:
        raise FramesError("The file has no two frames with a time above 0.")
    frame = frame[good]
    start = _starts(table, frame, good)
    channels: dict[Channel, Floats] = {}
    for name in CHANNELS:
        if name in table:
            channels[name] = _in_unit(name, table[name][good])
    return ReadFrames(Trace(start, frame, channels), columns, tuple(sentences))


def _frame_ms(table: dict[Holds, Floats], unit: Unit) -> Floats:
    if "frame time" in table:
        return table["frame time"] * UNITS[unit]
    if "rate" in table:
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.asarray(1000 / table["rate"])
    start = table["start"] * _start_unit(table["start"])
    return np.append(np.diff(start), np.median(np.diff(start)) if start.size > 2 else np.nan) * 1000


def _start_unit(start: Floats) -> float:
    """Seconds in a unit of the times at which frames begin, by the size of their steps."""
    steps = np.diff(start[np.isfinite(start)])
    usual = float(np.median(steps[steps > 0])) if (steps > 0).any() else 0.01
    for most, factor in ((0.5, 1.0), (500.0, 1e-3), (5e5, 1e-6)):
        if usual < most:
            return factor
    return 1e-9


def _starts(table: dict[Holds, Floats], frame: Floats, good: NDArray[np.bool_]) -> Floats:
    """When each frame began in s from the first; one after the other where that was not logged."""
    if "start" in table:
        start = table["start"] * _start_unit(table["start"])
        start = start[good]
        if np.isfinite(start).all():
            return np.asarray(start - start[0])
    return np.concatenate([[0.0], np.cumsum(frame)[:-1] / 1000])


def _in_unit(name: Channel, values: Floats) -> Floats:
    """Uses as shares, video memory in GB, whatever they were written in."""
    top = float(np.nanmax(values)) if np.isfinite(values).any() else 0.0
    if name.endswith("_use") and top > 1.5:
        return values / 100
    if name == "video_memory_gb" and top > 256:
        return values / 1024 if top < 1_000_000 else values / 2**30
    return values
