"""Frames from files: read with what is remembered of tables like them, and taken in as runs."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from threading import Lock

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.values.runs import Run, Trace
from wattmetron.formats.frames_table import (
    Columns,
    ColumnsUnclearError,
    Holds,
    ReadFrames,
    Unit,
    read_frames,
)
from wattmetron.places.measured.run_library import take_in
from wattmetron.store import documents
from wattmetron.workshop.workshop import Workshop

MOST_REMEMBERED = 200
ONE_AT_A_TIME = Lock()
"""Large files are read one after the other, so that several at once do not fill the memory."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Remembered:
    """What the columns of tables with a head hold, as somebody said once."""

    holds: tuple[Holds, ...]
    unit: Unit | None = None


_KNOWN: TypeAdapter[dict[str, Remembered]] = TypeAdapter(dict[str, Remembered])


def known_tables(workshop: Workshop) -> dict[str, Remembered]:
    with workshop.database.reading() as session:
        text = documents.only(session, "columns")
    try:
        return _KNOWN.validate_json(text or "{}")
    except ValidationError:
        return {}


def key_of_table(heads: Sequence[str]) -> str:
    """By what a table is known again: its heads."""
    return json.dumps([head.casefold().strip() for head in heads], ensure_ascii=False)


def remember(workshop: Workshop, columns: Columns) -> None:
    """Keep what the columns of tables with these heads hold."""
    known = known_tables(workshop)
    known.pop(key_of_table(columns.heads), None)
    known[key_of_table(columns.heads)] = Remembered(holds=columns.holds, unit=columns.unit)
    remembered = dict(list(known.items())[-MOST_REMEMBERED:])
    with workshop.database.writing() as session:
        documents.put_only(session, "columns", _KNOWN.dump_json(remembered).decode())


def frames_in(
    workshop: Workshop,
    data: bytes,
    holds: Sequence[Holds] = (),
    unit: Unit | None = None,
    game: str = "",
) -> ReadFrames:
    """The frames of a file; what was said of tables with the same heads counts where nothing is
    said now. Raises FramesError, ColumnsUnclearError.
    """
    with ONE_AT_A_TIME:
        if holds:
            return read_frames(data, holds, unit, game)
        try:
            return read_frames(data, (), unit, game)
        except ColumnsUnclearError as unclear:
            known = known_tables(workshop).get(key_of_table(unclear.columns.heads))
            if known is None:
                raise
            return read_frames(data, known.holds, unit or known.unit, game)


def bring_in(workshop: Workshop, run: Run, traces: Sequence[Trace]) -> list[int]:
    """Runs of one machine at one setting, a file each; their ids."""
    return [take_in(workshop, run, trace) for trace in traces]
