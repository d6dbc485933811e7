"""Prices as a table of any layout: CSV, or pasted from a sheet or a page, read by its heads."""

import csv
import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from wattmetron.core.errors import InvalidError
from wattmetron.core.texts.messages.money_amounts import CURRENCIES, NUMBER, minor_of
from wattmetron.core.texts.table_text import MARKS, MOST_LINES_ABOVE, cells_of, head_line
from wattmetron.core.values.offers import PLAIN, Condition, Stock, Terms

Field = Literal[
    "part", "shop", "region", "price", "shipping", "currency", "stock", "condition", "seen", "tax"
]
HEADS: dict[Field, tuple[str, ...]] = {
    "part": ("part_id", "part", "product", "article", "item", "name", "model", "id"),
    "shop": ("shop", "store", "seller", "dealer", "merchant", "from"),
    "region": ("region", "country", "where"),
    "price": ("price", "amount", "cost", "gross", "unit price", "price with tax"),
    "shipping": ("shipping", "postage", "delivery", "freight"),
    "currency": ("currency", "cur"),
    "stock": ("in_stock", "stock", "available", "availability"),
    "condition": ("condition", "state"),
    "seen": ("seen_on", "seen", "date", "day", "as of"),
    "tax": ("tax", "vat", "tax included"),
}
NOT_TAXED = frozenset({"no", "false", "0", "net", "excluded", "not included", "without"})
NOT_THERE = frozenset({"false", "no", "0", "out", "sold out", "out of stock", "none", "n"})
FEW = re.compile(r"\bfew\b|\blast\b|\blow\b|^[12]$")
ORDERED = re.compile(r"order|on its way|back ?order|pre-?order|expected|awaiting")
CONDITIONS: tuple[tuple[re.Pattern[str], Condition], ...] = (
    (re.compile(r"\brefurb|\bb-?stock|\breconditioned"), "refurbished"),
    (re.compile(r"\bremanufactur"), "remanufactured"),
    (re.compile(r"\bused\b|\bsecond\b|\bpre-?owned"), "used"),
)
MOST_ROWS, MOST_CHARACTERS, LONGEST_CELL = 20_000, 4_000_000, 200
WHOLE = re.compile(rf"^\D*({NUMBER})(?:,-)?\D*$")


class PricesError(InvalidError):
    """A table that is none, or has no prices."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PriceRow:
    """One line as it stands in the table: what is not said there is empty or None, ``wrong`` says
    what of it cannot be read.
    """

    line: int
    part: str
    shop: str = ""
    region: str = ""
    price_minor: int | None = None
    shipping_minor: int | None = None
    currency: str = ""
    stock: Stock = "in"
    condition: Condition = "new"
    seen_on: date | None = None
    terms: Terms = PLAIN
    taxed: bool = True
    wrong: str = ""


def read_prices(text: str) -> tuple[PriceRow, ...]:
    """The rows of a table with heads; raises PricesError for what is none."""
    if not text.strip():
        raise PricesError("The table is empty: paste one, or choose a CSV file.")
    if "\0" in text[:2000]:
        raise PricesError("This is no text: save the table as CSV and choose that.")
    if len(text) > MOST_CHARACTERS:
        raise PricesError("The table is larger than 4 MB: bring it in in pieces.")
    lines = text.replace("\r\n", "\n").replace("\r", "\n").lstrip("\ufeff").split("\n")
    try:
        first, mark = _head(lines)
        # Read as one: a quoted cell may hold several lines.
        reader = csv.reader((f"{line}\n" for line in lines[first:]), delimiter=mark)
        rows = [(first + reader.line_num, cells) for cells in reader]
    except csv.Error as error:
        raise PricesError(f"The table cannot be read ({error}): save it as CSV again.") from error
    heads = _heads(rows[0][1])
    if len(rows) > MOST_ROWS:
        raise PricesError(f"The table has more than {MOST_ROWS:,} lines: bring it in in pieces.")
    return tuple(
        _row(line, heads, cells) for line, cells in rows[1:] if any(cell.strip() for cell in cells)
    )


def _head(lines: list[str]) -> tuple[int, str]:
    """The position of the heads and the sign between cells: the one that cuts out a part and a
    price, else the one that cuts the first line into the most pieces.
    """
    for mark in MARKS:
        rows = [cells_of(line, mark) for line in lines[:MOST_LINES_ABOVE]]
        first = head_line(rows, _names_part_and_price)
        if _names_part_and_price(rows[first]):
            return first, mark
    first = next(n for n, line in enumerate(lines) if line.strip())
    return first, max(MARKS, key=lines[first].count)


def _names_part_and_price(cells: Sequence[str]) -> bool:
    names = {_plain(cell) for cell in cells}
    return not (names.isdisjoint(HEADS["part"]) or names.isdisjoint(HEADS["price"]))


def _plain(head: str) -> str:
    return re.sub(r"[^a-z_ ]", "", head.lower()).strip()


def _heads(cells: list[str]) -> dict[Field, int]:
    """Which column holds what; raises PricesError where parts or prices have none."""
    names = [_plain(cell) for cell in cells]
    columns_by_field: dict[Field, int] = {}
    for field, words in HEADS.items():
        for word in words:
            if word in names and names.index(word) not in columns_by_field.values():
                columns_by_field[field] = names.index(word)
                break
    missing = [field for field in ("part", "price") if field not in columns_by_field]
    if missing:
        raise PricesError(
            f"The first line names no column for the {missing[0]}: put heads such as part, shop,"
            " price, shipping, stock, date above the columns."
        )
    return columns_by_field


def _row(line: int, heads: dict[Field, int], cells: list[str]) -> PriceRow:
    def cell(field: Field) -> str:
        index = heads.get(field, len(cells))
        return " ".join(cells[index].split())[:LONGEST_CELL] if index < len(cells) else ""

    price, currency = _money(cell("price"))
    shipping, _ = _money(cell("shipping"))
    seen, wrong = None, ""
    if price is None:
        wrong = f"its price is “{cell('price')[:40]}”"
    if cell("seen"):
        try:
            seen = date.fromisoformat(cell("seen"))
        except ValueError:
            wrong = f"its date is “{cell('seen')[:40]}”, write 2027-03-01"
    return PriceRow(
        line=line,
        part=cell("part"),
        shop=cell("shop"),
        region=cell("region"),
        price_minor=price,
        shipping_minor=shipping,
        currency=cell("currency").upper() or currency,
        stock=_stock(cell("stock").lower()),
        condition=_condition(cell("condition").lower()),
        seen_on=seen,
        taxed=cell("tax").lower() not in NOT_TAXED,
        wrong=wrong,
    )


def _stock(text: str) -> Stock:
    if text in NOT_THERE:
        return "out"
    if FEW.search(text):
        return "few"
    return "ordered" if ORDERED.search(text) and "in stock" not in text else "in"


def _condition(text: str) -> Condition:
    return next((condition for words, condition in CONDITIONS if words.search(text)), "new")


def _money(text: str) -> tuple[int | None, str]:
    """An amount in minor units with the currency that stands beside it."""
    match = WHOLE.match(text)
    if match is None or "-" in text[: match.start(1)]:
        return None, ""
    words = re.findall(r"[a-z€$£]+", text.lower())
    named = [CURRENCIES[word] for word in words if word in CURRENCIES]
    return minor_of(match[1]), named[0] if named else ""
