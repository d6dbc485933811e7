"""Reading takes time in proportion to a text's length, whatever was pasted."""

import ast
import time
from pathlib import Path

import pytest

import wattmetron
from tests.demo import world
from tests.extent import exhaustive, extent
from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.texts.requirements.shortening import MOST_IN_LINE, shortened
from wattmetron.places.readers import BEHIND, READERS

LENGTHS = extent((2_000, 8_000), (8_000, 32_000))
MOST_GROWTH = 2.5**2
FEW_S = extent(0.03, 0.1)
"""Of less than this nobody waits, and the clock says little."""

NASTY = {
    "brackets": lambda n: "CPU: x" + "(" * n,
    "brackets and blanks": lambda n: "CPU: x" + "( " * (n // 2),
    "blanks": lambda n: "CPU: x" + " " * n + "y",
    "tabs": lambda n: "CPU: x" + "\t" * n + "y",
    "blanks and lines": lambda n: "CPU: x\n" + " \n" * 390 + " " * n + "z",
    "sizes": lambda n: "1280x720 " * (n // 9),
    "sizes of a tier": lambda n: "Minimum: " + "1280x720 " * (n // 9),
    "amounts": lambda n: "RAM: " + "8 GB " * (n // 5),
    "clocks": lambda n: "CPU: x " + "3.2 GHz " * (n // 8),
    "one of many": lambda n: "CPU: x" + " or better" * (n // 10),
    "or": lambda n: "CPU: x" + " or " * (n // 4),
    "comments": lambda n: "CPU: x " + "<!--" * (n // 4),
    "scripts": lambda n: "CPU: x " + "<script>" * (n // 8),
    "tags": lambda n: "CPU: x " + "<a " * (n // 3),
    "entities": lambda n: "CPU: x " + "&#" * (n // 2),
    "signs": lambda n: "*=-_" * (n // 4) + "CPU: x",
    "labels": lambda n: "CPU " * (n // 4) + ": x",
    "letters": lambda n: "a " * (n // 2) + ": version",
    "a word": lambda n: "CPU: " + "q" * n,
    "a number": lambda n: "RAM: " + "9" * n,
    "names": lambda n: "GPU: " + ", ".join(f"quillon {i}" for i in range(n // 12)),
    "slashes": lambda n: "CPU: " + "ab/" * (n // 3),
    "tiers": lambda n: "RAM (minimum " * (n // 13),
    "prose": lambda n: "It needs a quillon wherry and " * (n // 30),
}
PASTED = {
    "numbered": lambda n: "1) " * (n // 3),
    "cells": lambda n: "a;1;2;3\n" * (n // 8),
    "cells in a line": lambda n: "a;1;2;3 " * (n // 8),
    "opened": lambda n: "[" * n,
    "opened links": lambda n: "[a](" * (n // 4),
    "braces": lambda n: "{" * n,
    "quotes": lambda n: '"' * n,
    "quoted cells": lambda n: '"a,' * (n // 3),
    "amounts of money": lambda n: "900 EUR or " * (n // 11),
    "ranges": lambda n: "650 to " * (n // 7),
    "questions": lambda n: "games? " * (n // 7),
    "stars": lambda n: "*" * n,
    "dashes": lambda n: "- " * (n // 2),
    "pipes": lambda n: "|" * n,
    "a digit each line": lambda n: "1\n" * (n // 2),
    "times": lambda n: "16.6\n" * (n // 5),
    "tabs": lambda n: "\t" * n + "1",
    "blanks": lambda n: "x" + " " * n + "y",
    "lines of blanks": lambda n: ("x" + " " * 390 + "y\n") * (n // 400),
    "lines of tabs": lambda n: ("x" + "\t" * 390 + "y\n") * (n // 400),
    "commas": lambda n: ("x" + " ," * 190 + "y\n") * (n // 400),
    "numbers": lambda n: ("x " + "1 " * 190 + "\n") * (n // 400),
}


def seconds(read, catalogue, text, tries) -> float:
    best = float("inf")
    for _ in range(tries):
        start = time.thread_time()
        try:
            read(catalogue, text)
        except WattmetronError as error:
            assert len(str(error)) < 2000
        best = min(best, time.thread_time() - start)
    return best


@exhaustive
@pytest.mark.parametrize("name", READERS)
def test_twice_the_text_takes_no_more_than_two_and_a_half_times_as_long(name):
    """All nasty texts for every reader; in ``make test`` every third of them."""
    read = READERS[name]
    seconds(read, world(), "Minimum:\nCPU: Quillon Wherry 4", 1)
    texts = {**NASTY, **PASTED}
    slow = []
    for n, (text, made) in enumerate(texts.items()):
        if n % extent(3, 1) == len(name) % extent(3, 1) and not in_proportion(read, made):
            slow.append(text)
    assert slow == []


def in_proportion(read, made) -> bool:
    for tries in (1, 3, 5):
        short, long = (seconds(read, world(), made(length), tries) for length in LENGTHS)
        if long < FEW_S or long < MOST_GROWTH * short:
            return True
    return False


def test_no_reader_of_texts_is_missing():
    """Whatever reads pasted text is called read_..., pasted_... or lines_of and takes ``text``."""
    known = {(function.__module__, function.__name__) for function in BEHIND}
    missing = [
        f"{module}.{function.name}"
        for module, function in functions()
        if function.name.startswith(("read_", "pasted_", "lines_of"))
        and {"text", "data"} & {argument.arg for argument in function.args.args}
        and module.endswith(("reader", "_table", "charting", "rates"))
        and (module, function.name) not in known
    ]
    assert missing == []


def functions():
    package = Path(wattmetron.__file__).parent
    for path in package.rglob("*.py"):
        module = ".".join(("wattmetron", *path.relative_to(package).with_suffix("").parts))
        for item in ast.parse(path.read_text()).body:
            if isinstance(item, ast.FunctionDef):
                yield module, item


def test_what_is_cut_keeps_its_places():
    text = "Minimum:\nCPU: Quillon" + " " * 600 + "Wherry 4\n" + "word " * 300 + "\n\n" + "=" * 700
    text += "\tRAM: 8 GB"
    short = shortened(text)
    assert max(map(len, short.text.split("\n"))) <= MOST_IN_LINE
    for at, sign in enumerate(short.text):
        assert text[short.places[at]] == sign or sign == "\n"
    for word in ("Wherry", "RAM"):
        at = short.text.index(word)
        start, end = short.span(at, at + len(word))
        assert text[start:end] == word
    assert "\t" in short.text


def test_marks_stand_where_the_words_stand():
    gap = " " * 500
    text = f"Minimum:\nCPU:{gap}Quillon Wherry Flood 4{gap}or better\nRAM: 8 GB"
    draft = reader_of(world()).read(text)
    said = {text[mark.start : mark.end] for mark in draft.marks}
    assert {"Minimum", "Quillon Wherry Flood 4", "8 GB"} <= {word.strip(": ") for word in said}
