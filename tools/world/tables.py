"""Tables written by hand, read from the CSV files beside this module."""

import csv
from collections.abc import Callable
from datetime import date
from functools import cache
from pathlib import Path
from types import SimpleNamespace
from typing import Any

FOLDER = Path(__file__).parent / "tables"
TEXTS = Path(__file__).parent / "requirement_texts"
NUMBERS_AND_DAYS: tuple[Callable[[str], object], ...] = (int, float, date.fromisoformat)


def cell(text: str) -> Any:
    """The value of a cell: nothing, a whole number, a number, a day or a text."""
    if not text:
        return None
    for read in NUMBERS_AND_DAYS:
        try:
            return read(text)
        except ValueError:
            continue
    return text


@cache
def rows(table: str) -> tuple[SimpleNamespace, ...]:
    """The rows of a table, each cell under the name of its column."""
    with (FOLDER / f"{table}.csv").open(newline="") as file:
        return tuple(
            SimpleNamespace(**{name: cell(text) for name, text in row.items()})
            for row in csv.DictReader(file)
        )


def items(text: str | None) -> tuple[str, ...]:
    """The items of a cell that holds several."""
    return tuple(filter(None, (text or "").split(";")))


@cache
def requirement_text(game: str) -> str:
    """A game's requirements as its publisher wrote them."""
    return (TEXTS / f"{game}.txt").read_text()
