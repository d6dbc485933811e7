"""CSV tables: UTF-8, a header, one value of a core type per line.

A cell that a spreadsheet would take for a formula (it begins with = + - @, tab or carriage return
and is no number) is written with an apostrophe before it; an apostrophe that stands there already
is doubled. Reading takes exactly one away again, so a round trip restores every cell.
"""

import csv
import io
import re
from collections import Counter
from collections.abc import Iterable, Iterator
from typing import Any, TypeVar

from wattmetron.core.values.text import clean
from wattmetron.formats.columns import ColumnSpec, Reader, cell_of, columns_of, reader_of
from wattmetron.formats.problems import Problem, add_problem

T = TypeVar("T")
MAX_BYTES = 50_000_000
MAX_PROBLEMS = 1000
KNOWN_CELLS = 20_000
_NUMBER = re.compile(r"[+-]?\d+(\.\d+)?([eE][+-]?\d+)?\Z")
_RISKY = ("=", "+", "-", "@", "\t", "\r", "'")


def guarded(cell: str) -> str:
    """The cell so that no spreadsheet runs it."""
    if cell.startswith(_RISKY) and not _NUMBER.match(cell):
        return "'" + cell
    return cell


def unguarded(cell: str) -> str:
    """The cell as it was before ``guarded``."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(_RISKY) else cell


def write_table(kind: type, values: Iterable[Any]) -> str:
    """The CSV text of values of one dataclass."""
    specs = columns_of(kind)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    quoting = csv.writer(out, lineterminator="\n", quoting=csv.QUOTE_ALL)
    writer.writerow([spec.name for spec in specs])
    names = [spec.name for spec in specs]
    for value in values:
        cells = [guarded(clean(cell_of(getattr(value, name)))) for name in names]
        by = quoting if any("\r" in cell for cell in cells) else writer
        by.writerow(cells)
    return out.getvalue()


def decoded(file: str, data: bytes, problems: list[Problem]) -> str | None:
    """Text of a file, or None with a problem noted when it is too large or not UTF-8 text."""
    if len(data) > MAX_BYTES:
        size = f"{len(data) / 1e6:,.0f} MB"
        add_problem(
            problems,
            file,
            actual=size,
            expected=f"at most {MAX_BYTES // 1_000_000} MB: split the file",
        )
        return None
    if b"\0" in data:
        add_problem(problems, file, actual="binary data", expected="text in UTF-8: save it as CSV")
        return None
    try:
        return clean(data.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        shown = f"the byte 0x{data[error.start]:02x}"
        add_problem(
            problems,
            file,
            actual=shown,
            expected="text in UTF-8: save it with that encoding",
            line=line,
        )
        return None


MOST_TOLD = 20
"""Of columns that do not fit so many are named."""


def read_table(
    kind: type[T], file: str, text: str, problems: list[Problem], broken: set[str] | None = None
) -> list[tuple[int, T]]:
    """Line numbers and values; every problem is added to the list and its line left out.

    ``broken`` takes the ids of lines left out, so that what refers to them is not called wrong as
    well.
    """
    reader = csv.reader(io.StringIO(text, newline=""), strict=True)
    try:
        header = next(reader, None)
        if not header or not _header_fits(kind, file, header, problems):
            if not header:
                add_problem(
                    problems,
                    file,
                    actual="nothing",
                    expected="a header line with the column names",
                    line=1,
                )
            return []
        return list(
            _rows(kind, file, header, reader, problems, set() if broken is None else broken)
        )
    except csv.Error as error:
        add_problem(
            problems,
            file,
            actual=f"broken CSV ({error})",
            expected="comma-separated values",
            line=reader.line_num,
        )
        return []


def _header_fits(kind: type, file: str, header: list[str], problems: list[Problem]) -> bool:
    specs = {spec.name: spec for spec in columns_of(kind)}
    before = len(problems)
    unknown = [name for name in header if name not in specs]
    for name in unknown[:MOST_TOLD]:
        add_problem(
            problems,
            file,
            actual="an unknown column",
            expected=f"one of {', '.join(specs)}",
            line=1,
            column=name,
        )
    for name in [name for name, times in Counter(header).items() if times > 1][:MOST_TOLD]:
        add_problem(
            problems,
            file,
            actual="the column twice",
            expected="each column once",
            line=1,
            column=name,
        )
    for name, spec in specs.items():
        if spec.required and name not in header:
            add_problem(
                problems,
                file,
                actual="no such column",
                expected=f"a column with {spec.expected}",
                line=1,
                column=name,
            )
    return len(problems) == before


def _rows(
    kind: type[T],
    file: str,
    header: list[str],
    lines: Any,
    problems: list[Problem],
    broken: set[str],
) -> Iterator[tuple[int, T]]:
    specs = {spec.name: spec for spec in columns_of(kind)}
    ordered = [specs[name] for name in header]
    plan: list[tuple[ColumnSpec, str, Reader, Any, dict[str, Any]]] = [
        (spec, spec.name, reader_of(spec), _empty_value(spec), {}) for spec in ordered
    ]
    width = len(header)
    for cells in lines:
        if not cells:
            continue
        if len(cells) != width:
            add_problem(
                problems,
                file,
                actual=f"{len(cells)} cells",
                expected=f"{width} cells",
                line=lines.line_num,
            )
            continue
        values: dict[str, Any] = {}
        fine = True
        for cell, (spec, name, read, empty, known) in zip(cells, plan, strict=True):
            if cell in known:
                values[name] = known[cell]
                continue
            original = cell
            if cell[:1] == "'":
                cell = unguarded(cell)
            try:
                if cell:
                    values[name] = read(cell)
                    if len(known) < KNOWN_CELLS:
                        known[original] = values[name]
                elif empty is _REFUSED:
                    raise ValueError
                else:
                    values[name] = empty
            except (ValueError, OverflowError):
                fine = False
                if len(problems) < MAX_PROBLEMS:
                    shown = f"“{cell}”" if cell else "an empty cell"
                    add_problem(
                        problems,
                        file,
                        actual=shown,
                        expected=spec.expected,
                        line=lines.line_num,
                        column=name,
                    )
        if fine:
            yield lines.line_num, kind(**values)
        else:
            broken.add(str(values.get("id", "")))


_REFUSED = object()


def _empty_value(spec: ColumnSpec) -> Any:
    """What an empty cell means: nothing, no entries, empty text, the default, or a problem."""
    if spec.optional:
        return None
    if spec.many:
        return ()
    if spec.required:
        return _REFUSED
    return spec.default
