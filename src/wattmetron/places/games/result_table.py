"""Pasted results as a table: what each of its columns holds, guessed from its head, told by hand,
or known of the source.
"""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from wattmetron.core.errors import InvalidError
from wattmetron.core.texts.table_text import even_rows
from wattmetron.core.values.results import Role

MOST_COLUMNS, MOST_LINES, MOST_IN_LINE = 24, 1000, 500
_CELLS = re.compile(r"(?<!\s)\s*\t\s*|(?:(?<!\s)\s+)?[;|]\s*|\s{2,}|,\s+")
_FIGURE = re.compile(r"\d{1,5}(?:[.,]\d+)?\s*(?:fps)?", re.IGNORECASE)
_HEADS: tuple[tuple[Role, re.Pattern[str]], ...] = (
    ("low", re.compile(r"\b(?:1\s*%|p1|p99|low|one per ?cent)", re.IGNORECASE)),
    ("average", re.compile(r"\b(?:avg|average|mean|fps|frame ?rate)\b", re.IGNORECASE)),
    ("processor", re.compile(r"\b(?:cpu|processor)\b", re.IGNORECASE)),
    ("graphics", re.compile(r"\b(?:gpu|graphics|card|chip)\b", re.IGNORECASE)),
    ("resolution", re.compile(r"\b(?:resolution|size|pixels)\b", re.IGNORECASE)),
    ("preset", re.compile(r"\b(?:preset|settings|quality|detail)\b", re.IGNORECASE)),
)
_OTHER_FIGURES = re.compile(
    r"0[.,]1\s*%|\b(?:max|min|maximum|minimum|median|watts?|draw|price|vram|memory|date|no|nr|rank)\b|^#$",
    re.IGNORECASE,
)


class ColumnsNeeded(InvalidError):
    """A table whose columns cannot be told apart: the user says once what each holds."""

    def __init__(self, rows: Sequence[Sequence[str]], guess: Sequence[Role]) -> None:
        super().__init__(
            "Say what each column holds; the source's next table is then read the same way."
        )
        self.rows, self.guess = rows, tuple(guess)


class TableSizeError(InvalidError):
    """A table that is larger than any list of results."""


@dataclass(frozen=True, slots=True)
class ResultLine:
    """One line: its number in what was pasted, its text, its cells, and what each holds (None: to
    be seen by itself).
    """

    number: int
    text: str
    cells: tuple[str, ...]
    roles: tuple[Role, ...] | None


def lines_of(
    text: str, stated: tuple[Role, ...], known: Mapping[int, tuple[Role, ...]]
) -> list[ResultLine]:
    """The lines of a pasted table.

    ``stated`` is what the user has said that its columns hold; ``known`` is what they held before
    in tables of this source, by their number. Raises ColumnsNeeded where a table has columns whose
    meaning is open.
    """
    _check_bounds(text)
    plain = [
        (n, line.strip())
        for n, line in enumerate(text.replace("\r", "").split("\n"), start=1)
        if line.strip()
    ]
    table = even_rows([line for _, line in plain], 3, MOST_COLUMNS)
    if table is None:
        return [
            ResultLine(n, line, tuple(filter(None, _CELLS.split(line))), None) for n, line in plain
        ]
    head = table[0] if not any(_FIGURE.fullmatch(cell) for cell in table[0]) else None
    if head is not None and not any(_role_of(cell) for cell in head):
        head = None
    width = len(table[0])
    roles = stated if len(stated) == width else known.get(width)
    if roles is None:
        roles = _from_head(head, table) if head is not None else _by_number(table)
    first = 1 if head is not None else 0
    return [
        ResultLine(n, line, tuple(cells), roles)
        for (n, line), cells in zip(plain[first:], table[first:], strict=True)
    ]


def _check_bounds(text: str) -> None:
    lines = text.split("\n")
    longest = max(map(len, lines))
    if len(lines) > MOST_LINES or longest > MOST_IN_LINE:
        raise TableSizeError(
            f"The table has {len(lines):,} lines of up to {longest:,} characters: paste at most"
            f" {MOST_LINES:,} lines of {MOST_IN_LINE} characters."
        )


def _role_of(head: str) -> Role | None:
    if _OTHER_FIGURES.search(head):
        return "leave out"
    return next((role for role, pattern in _HEADS if pattern.search(head)), None)


def _from_head(head: list[str], table: list[list[str]]) -> tuple[Role, ...]:
    kinds = [_role_of(cell) for cell in head]
    named = [role for role in kinds if role not in (None, "leave out")]
    guess: list[Role] = [role or "leave out" for role in kinds]
    if (
        len(set(named)) < len(named)
        or "average" not in named
        or any(role is None for role in kinds)
    ):
        raise ColumnsNeeded(table[:4], guess)
    return tuple(guess)


def _by_number(table: list[list[str]]) -> tuple[Role, ...] | None:
    """Cell by cell where at most an average and a low are figures; more figures than these have to
    be explained.
    """
    figures = [n for n in range(len(table[0])) if all(_FIGURE.fullmatch(row[n]) for row in table)]
    if len(figures) <= 2:
        return None
    guess: list[Role] = ["leave out"] * len(table[0])
    for n in range(len(table[0])):
        if n not in figures:
            guess[n] = next(
                (
                    role
                    for role in ("processor", "graphics", "resolution", "preset")
                    if role not in guess
                ),
                "leave out",
            )
    guess[figures[0]], guess[figures[1]] = "average", "low"
    raise ColumnsNeeded(table[:4], guess)
