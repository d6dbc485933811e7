"""Lists of parts against what their lines mean, and what is no list."""

import json
from contextlib import suppress

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests import demo
from tests.core.part_lists.score import scored
from tests.core.part_lists.tuned import TUNED
from tests.core.part_lists.untouched import UNTOUCHED
from tests.extent import exhaustive, extent
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.messages.message_reader import read_letter
from wattmetron.core.texts.messages.money_amounts import minor_of
from wattmetron.core.texts.part_lists.list_lines import ListError
from wattmetron.core.texts.part_lists.part_list_reader import MOST_CHARACTERS, MOST_PARTS, read_list
from wattmetron.core.texts.part_lists.rows import rows_of

LEAST_RIGHT = 0.95


@pytest.fixture(scope="module")
def world():
    return demo.world()


@pytest.mark.parametrize("half", [TUNED, UNTOUCHED], ids=["tuned", "untouched"])
def test_lines_are_matched_and_what_is_sure_is_right(world, half):
    score = scored(world, half)
    assert len(half) > 30 and len({sent.style for sent in half}) > 15
    assert score.right >= LEAST_RIGHT * score.lines, score.slips
    assert score.figures_right >= LEAST_RIGHT * score.figures, score.slips
    assert not score.wrong_though_sure
    assert score.invented <= 0.02 * score.lines, score.slips


def ids(world, text):
    return [own.best.part_id if own.best else own.text for own in read_list(world, text).parts]


def test_names_alone_of_all_parts_are_found_without_a_slip(world):
    """Every part by its whole name; one that stands under two colours may be either."""
    for part in world.parts.values():
        (own,) = read_list(world, part.name).parts
        assert world.parts[own.best.part_id].name == part.name, part.name


def test_whatever_order_and_case_the_words_have(world):
    for text in (
        "750 ballast AMPHERST",
        "Ampherst   Ballast\u00a0750",
        "the Ballast 750 by Ampherst",
        "<b>Ampherst</b> Ballast&nbsp;750",
    ):
        assert ids(world, text) == ["ampherst-ballast-750"], text


def test_a_number_that_no_part_has_is_not_sure(world):
    (own,) = read_list(world, "PSU: Ampherst Ballast 950").parts
    assert own.best is None and "ampherst-ballast-850" in own.alike


@pytest.mark.parametrize("text", ["", "  \n ", "PK\x03\x04\0\0binary"])
def test_what_is_no_text_is_refused_in_words(world, text):
    with pytest.raises(ListError, match="paste"):
        read_list(world, text)


def test_an_essay_holds_no_parts(world):
    essay = (
        "What should a builder look at first? Not the clock: a small, quiet machine that holds its"
        " frame rate is worth more than a plain number. Still, even a steady hand may level what a"
        " gale undid; the crate in the cabin was full.\n\n"
    ) * 200
    assert read_list(world, essay[:MOST_CHARACTERS]).parts == ()


def test_five_hundred_lines_are_read_and_cut_with_a_word(world):
    lines = "\n".join(f"{n}. Ledgerock Cairn 1000 - 66.00" for n in range(1, 501))
    read = read_list(world, lines)
    assert len(read.parts) == MOST_PARTS and read.cut
    assert {own.best.part_id for own in read.parts} == {"ledgerock-cairn-1000"}


def test_quantities_of_none_and_of_a_thousand(world):
    read = read_list(
        world, "0x Coldreach Reed 92\n1000x Fennwick Vane 120\n9999x Fennwick Vane 140"
    )
    assert [own.quantity for own in read.parts] == [0, 1000, 1000]


def test_currencies_are_kept_apart(world):
    read = read_list(
        world,
        "Quillon Ketch Flood 8 - EUR 239\nLedgerock Cairn 1000 - NOK 890\n"
        "Ampherst Ballast 750 - $99",
    )
    assert read.currencies == ("EUR", "NOK", "USD")
    assert [own.price_minor for own in read.parts] == [239_00, 890_00, 99_00]


def test_broken_and_nested_json_is_read_as_far_as_it_goes(world):
    whole = json.dumps({"a": [{"parts": [{"name": "Ampherst Ballast 750", "qty": 2}]}]})
    (own,) = read_list(world, whole).parts
    assert (own.best.part_id, own.quantity) == ("ampherst-ballast-750", 2)
    assert ids(world, whole[:-4]) == ["ampherst-ballast-750"]
    deep = "[" * 5000 + "]" * 5000
    assert read_list(world, deep).parts == ()


def test_two_builds_in_one_paste_are_both_read(world):
    text = "Build A\nQuillon Ketch Flood 8\n\nBuild B\nMarrowgate Heron Slate 6"
    assert ids(world, text) == ["quillon-ketch-flood-8", "marrowgate-heron-slate-6"]


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.lists(st.sampled_from(["9", "1", ".", ",", " ", "x", "k", "EUR", "gb", "\n", "٣", "-"])))
def test_numbers_of_any_length_are_read_or_left(world, pieces):
    """Digits without end are no money, and no reason to fail."""
    for text in ("".join(pieces), "".join(own * 400 for own in pieces), "9" * 5000):
        for read in (read_list, read_letter):
            with suppress(BriefError, ListError):
                read(world, text)


@pytest.mark.parametrize(
    ("number", "thousands", "minor"),
    [
        ("1,350.00", False, 135_000),
        ("1.400", False, 140_000),
        ("12 000", False, 1_200_000),
        ("49,90", False, 4_990),
        ("49.9", False, 4_990),
        ("7", False, 700),
        ("1.4", True, 140_000),
        ("1,25", True, 125_000),
        ("2", True, 200_000),
        ("1.350", True, 135_000),
    ],
)
def test_amounts_in_every_way_of_writing(number, thousands, minor):
    assert minor_of(number, thousands) == minor


def test_a_paragraph_that_was_wrapped_is_put_together_again():
    text = (
        "I took the Quillon Ketch Flood 8 with a board that somebody had left over in the loft,"
        " and\n"
        "the Pellworth Bank 12 Plain, which was on sale.\n\nBoxwood Yard Crate"
    )
    first, last = (row.text for row in rows_of(text))
    assert (
        first.startswith("I took") and first.endswith("on sale.") and "and the Pellworth" in first
    )
    assert last == "Boxwood Yard Crate"
