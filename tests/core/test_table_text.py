"""Tables as people have them: encodings, separators, lines above the heads, decimal commas."""

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wattmetron.core.errors import InvalidError
from wattmetron.core.texts.table_text import (
    cells_of,
    decoded,
    even_rows,
    has_decimal_commas,
    number_of,
    separator_of,
    text_of,
)
from wattmetron.formats.prices_table import read_prices

WORDS = st.text(st.characters(categories=("L",)), min_size=1, max_size=8)


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_what_spreadsheets_write_is_read(encoding):
    assert decoded("Gehäuse; 59,90 €".encode(encoding)) == "Gehäuse; 59,90 €"


def test_a_picture_is_no_text():
    assert decoded(b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR") is None
    with pytest.raises(InvalidError, match="no text"):
        text_of(b"\xff\xd8\xff\xe0\0\x10JFIF\0")


@given(
    st.lists(st.lists(WORDS, min_size=4, max_size=4), min_size=3, max_size=9),
    st.sampled_from(";\t|,"),
)
def test_a_written_table_is_cut_as_it_was_written(rows, mark):
    """The csv module writes, the reader finds the separator by itself."""
    out = io.StringIO()
    csv.writer(out, delimiter=mark, lineterminator="\n").writerows(rows)
    lines = out.getvalue().splitlines()
    assert separator_of(lines) == mark
    assert [cells_of(line, mark) for line in lines] == rows


def test_numbers_with_commas():
    assert has_decimal_commas([["16,7", "8,3"], ["1.016,7", "x"]])
    assert number_of("1.016,7", comma=True) == 1016.7
    assert number_of("16.7", comma=False) == 16.7
    assert number_of("about 16", comma=False) is None


def test_one_column_of_decimal_commas_is_not_two_columns():
    assert separator_of(["16,7", "8,3", "17,0", "16,9"]) == ";"


def test_rows_of_blanks_and_of_unequal_length():
    assert even_rows(["a  b  c", "d  e  f"], 3, 9) == [["a", "b", "c"], ["d", "e", "f"]]
    assert even_rows(["a;b;c", "d;e"], 3, 9) is None


def test_a_price_list_with_a_title_above_and_decimal_commas():
    rows = read_prices(
        "Preise der Woche, gültig bis Freitag\n"
        "\n"
        "Shop: Quayside Parts; Stand 20.11.\n"
        "Item;Price;Shipping\n"
        "Cutter Flood 6;189,90;4,90\n"
        "Net Loft, large;59,00 €;0\n"
    )
    assert [(row.line, row.part, row.price_minor) for row in rows] == [
        (5, "Cutter Flood 6", 18990),
        (6, "Net Loft, large", 5900),
    ]


def test_a_cell_of_several_lines_stays_one():
    rows = read_prices('part,price\n"Cutter\nFlood 6",189.90\nGalley,52\n')
    assert [(row.line, row.part, row.price_minor) for row in rows] == [
        (3, "Cutter Flood 6", 18990),
        (4, "Galley", 5200),
    ]
