"""Tables as people have them: in which encoding, cut by which sign, under which line of heads, with
a point or a comma in numbers. Every reader of tables begins here.
"""

import csv
import re
from collections import Counter
from collections.abc import Callable, Sequence

from wattmetron.core.errors import InvalidError

MARKS = (";", "\t", "|", ",")
MOST_LINES_ABOVE = 40
"""So far down the line of heads is looked for: exports put titles, dates and notes above it."""
NUMBER = re.compile(r"[-+]?\d[\d.,]*(?:e[-+]?\d+)?", re.IGNORECASE)
_SEPARATORS = (
    re.compile(r"(?<!\s)\s*\t\s*"),
    re.compile(r"(?:(?<!\s)\s+)?[;|]\s*"),
    re.compile(r"\s{2,}"),
    re.compile(r"(?:(?<!\s)\s+)?,\s+"),
)
_ONE_NUMBER = re.compile(r"\s*\d+,\d+\s*")


def decoded(data: bytes) -> str | None:
    """The text of a file, in the encodings that spreadsheets write; None for what is no text."""
    wide = data[:2] in (b"\xff\xfe", b"\xfe\xff")
    for encoding in ("utf-16",) if wide else ("utf-8-sig", "cp1252"):
        try:
            text = data.decode(encoding)
        except UnicodeDecodeError:
            continue
        return None if "\0" in text[:4000] else text
    return data.decode("utf-8", errors="replace") if not wide else None


def text_of(data: bytes) -> str:
    """The text of a file that somebody chose; raises InvalidError for what is none."""
    text = decoded(data)
    if text is None:
        raise InvalidError("This file is no text: save it as CSV or plain text, and choose that.")
    return text


def separator_of(lines: Sequence[str]) -> str | None:
    """What stands between the cells of most lines; None for blanks. What is above a table has few
    of them, so the first quarter does not count.
    """
    tail = lines[len(lines) // 4 :] or lines
    for mark in MARKS:
        counts = Counter(line.count(mark) for line in tail)
        most, often = counts.most_common(1)[0]
        if most and often >= 0.8 * len(tail):
            # One number with a decimal comma on each line is a column, not two.
            if mark == "," and all(_ONE_NUMBER.fullmatch(line) for line in tail):
                return ";"
            return mark
    return None if any(re.search(r"\S\s+\S", line) for line in tail) else ","


def cells_of(line: str, separator: str | None) -> list[str]:
    """The cells of a line, without blanks around them; quotes are minded."""
    if separator is None:
        return line.split()
    row = next(csv.reader([line.rstrip("\r\n")], delimiter=separator), [])
    return [cell.strip() for cell in row]


def head_line(rows: Sequence[Sequence[str]], is_head: Callable[[Sequence[str]], bool]) -> int:
    """The first row that reads as heads, among the first forty; 0 where none does."""
    near = rows[:MOST_LINES_ABOVE]
    return next((position for position, row in enumerate(near) if is_head(row)), 0)


def even_rows(lines: Sequence[str], least: int, most: int) -> list[list[str]] | None:
    """The cells of lines that one separator cuts into equally many; None where none does."""
    for separator in _SEPARATORS:
        rows = [separator.split(line.strip("|\t; ")) for line in lines]
        widths = {len(row) for row in rows}
        if len(widths) == 1 and least <= widths.pop() <= most:
            return rows
    return None


def has_decimal_commas(rows: Sequence[Sequence[str]]) -> bool:
    """Whether more numbers are written with a comma than with a point."""
    numbers = [cell for row in rows for cell in row if NUMBER.fullmatch(cell)]
    return sum("," in cell for cell in numbers) > sum("." in cell for cell in numbers)


def number_of(cell: str, comma: bool) -> float | None:
    """The number in a cell; None where it holds none."""
    try:
        return float(cell.replace(".", "").replace(",", ".") if comma else cell)
    except ValueError:
        return None
