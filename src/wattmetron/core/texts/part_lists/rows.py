"""A text as rows of cells: markup taken off, tables recognised by their marks or their heads."""

import json
import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from typing import Any

from wattmetron.core.texts.requirements.cleanup import plain
from wattmetron.core.texts.table_text import cells_of

CELL_MARK = " | "
MOST_ROWS, LONG_LINE, LONG_WORDS = 600, 70, 9
BBCODE = re.compile(
    r"\[/?(?:b|i|u|list|\*|spoiler|quote|code|url|size|color|img)(?:=[^\[\]]{0,500})?\]", re.I
)
LINK = re.compile(r"\[([^\[\]\n]{1,500})\]\([^)\s]{1,2000}\)")
MARKS = re.compile(r"[*_`]{1,3}(?=\S)|(?<=\S)[*_`]{1,3}")
RULER = re.compile(r"^[\s|:+-]{3,}$")
SENTENCE_END = re.compile(r"[.!?:]\s*$")
WIDE = re.compile(r"\t|\s{2,}")
HEADS = {
    "quantity": re.compile(
        r"^(?:qty|quantity|pieces|pcs|count|amount|menge|antall|number)\.?$", re.I
    ),
    "each": re.compile(r"^(?:each|unit(?: price)?|price each|per piece)$", re.I),
    "price": re.compile(r"^(?:price|cost|eur|nok|preis|pris|price in \w+|prices?|€)$", re.I),
    "sum": re.compile(r"^(?:sum|total|together|amount due|line total)$", re.I),
    "name": re.compile(
        r"^(?:name|model|product|item|part|component|description|choice|pick|new one|what|type|"
        r"kind|manufacturer|maker|slot|shop|note|why|bought|old one|currency|pos|#|art\.?no\.?)$",
        re.I,
    ),
}
NAME_KEYS = ("name", "part", "model", "product", "title", "item", "description")
COUNT_KEYS = ("quantity", "qty", "count", "pieces", "amount", "number")
PRICE_KEYS = ("price", "cost", "unit_price", "unitprice", "each")


@dataclass(frozen=True, slots=True)
class ParsedRow:
    """A row: its text, its cells where it is of a table, and what heads say of these by place."""

    text: str
    cells: tuple[str, ...] = ()
    heads: tuple[str, ...] = ()

    def under(self, head: str) -> str:
        """The cell under a head; empty where there is none."""
        places = (
            n for n, each_head in enumerate(self.heads) if each_head == head and n < len(self.cells)
        )
        return next((self.cells[n] for n in places), "")


def rows_of(text: str) -> list[ParsedRow]:
    """The rows of a text, at most 600."""
    known = _json(text)
    if known is not None:
        return list(_of_json(known))[:MOST_ROWS]
    bare = BBCODE.sub(" ", plain(text))
    bare = LINK.sub(r"\1", bare)
    lines = [MARKS.sub("", line).strip("\n") for line in bare.split("\n")]
    lines = [line for line in lines if not line.strip() or not RULER.match(line)]
    whole = [line for line in lines if line.strip()][:MOST_ROWS]
    cut = _cutter(whole)
    if cut is None:
        return [ParsedRow(line.strip()) for line in _unwrapped(lines)][:MOST_ROWS]
    rows, heads = [], tuple[str, ...]()
    for line in whole:
        cells = tuple(cell.strip() for cell in cut(line))
        named = tuple(_head(cell) for cell in cells)
        if sum(map(bool, named)) >= max(2, sum(map(bool, cells)) - 1):
            heads = named
            continue
        if len(cells) > 1:
            rows.append(ParsedRow(CELL_MARK.join(cell for cell in cells if cell), cells, heads))
        else:
            rows.append(ParsedRow(line.strip()))
    return rows


def _unwrapped(lines: list[str]) -> Iterator[str]:
    """Lines of a paragraph put together again; an empty line or the end of a sentence ends it."""
    unfinished = ""
    for line in lines:
        if not line.strip():
            if unfinished:
                yield unfinished
            unfinished = ""
            continue
        whole = f"{unfinished} {line.strip()}" if unfinished else line
        long = len(line) >= LONG_LINE and len(line.split()) >= LONG_WORDS
        if long and not WIDE.search(line.strip()) and not SENTENCE_END.search(line):
            unfinished = whole
        else:
            yield whole
            unfinished = ""
    if unfinished:
        yield unfinished


def _head(cell: str) -> str:
    return next((key for key, pattern in HEADS.items() if pattern.match(cell.strip(" *\"'"))), "")


def _cutter(lines: list[str]) -> Any:
    """How most lines are cut into cells; None where they are no table."""
    some = lines[:60]
    if sum(line.count("|") >= 2 for line in some) * 2 >= len(some):
        return lambda line: line.strip().strip("|").split("|")
    if sum("\t" in line.strip() for line in some) * 2 > len(some):
        return lambda line: line.split("\t")
    for mark in (";", ","):
        counts = [len(cells_of(line, mark)) for line in some]
        usual = max(set(counts), key=counts.count) if counts else 0
        if usual >= 3 and counts.count(usual) * 4 >= len(counts) * 3 and len(counts) > 1:
            if mark == "," and not any(char.isdigit() for char in "".join(some)):
                continue
            return partial(cells_of, separator=mark)
    if any(sum(bool(_head(cell)) for cell in WIDE.split(line)) >= 3 for line in some):
        return lambda line: WIDE.split(line.strip())
    return None


def _json(text: str) -> Any:
    stripped = text.strip()
    if stripped[:1] not in "{[" or BBCODE.match(stripped):
        return None
    try:
        return json.loads(stripped)
    except (ValueError, RecursionError):
        return None


def _of_json(value: Any, depth: int = 0) -> Iterator[ParsedRow]:
    """A row for every object that names something."""
    if depth > 12:
        return
    if isinstance(value, list):
        for item in value:
            yield from _of_json(item, depth + 1)
        return
    if isinstance(value, str):
        yield ParsedRow(value[:300])
        return
    if not isinstance(value, dict):
        return
    small = {str(key).lower(): item for key, item in value.items()}
    name = next((small[key] for key in NAME_KEYS if isinstance(small.get(key), str)), None)
    inner = [item for item in value.values() if isinstance(item, list | dict)]
    if name is None or any(isinstance(item, list) for item in inner):
        for item in inner:
            yield from _of_json(item, depth + 1)
        return
    kind = next(
        (small[key] for key in ("type", "kind", "slot") if isinstance(small.get(key), str)), ""
    )
    count = next((str(small[key]) for key in COUNT_KEYS if key in small), "")
    price = next((_amount(small[key]) for key in PRICE_KEYS if key in small), "")
    cells = (f"{kind} {name}".strip()[:300], count[:20], price[:40])
    yield ParsedRow(cells[0], cells, ("name", "quantity", "each"))


def _amount(value: Any) -> str:
    if isinstance(value, dict):
        small = {str(key).lower(): item for key, item in value.items()}
        return f"{small.get('amount', small.get('value', ''))} {small.get('currency', '')}"
    return str(value)
