"""The words of the pages: none that builders would not say, no symbols outside workings."""

import html
import re
from pathlib import Path

import pytest

import wattmetron
from tests.extent import exhaustive, extent
from wattmetron.words.glossary import GLOSSARY

BANNED = (
    "purse",
    "held against",
    "let in again",
    "nobody sells",
    "answers to this",
    "cables come off",
    "sieve",
    "parts below plain",
    "against it",
    "welcome again",
    "the bar ",
    "bars ",
    "below plain",
    "yardstick",
    "limiter",
    "leverage",
)
"""Phrases that stop people; what to say instead stands in the code that says it."""
SYMBOLS = re.compile(r"\b[STRQ] \d|\b[STRQ] and [STRQ]\b|\bof C's\b")
"""Symbols of the model with a figure: they stand in workings only."""
PAGES = (
    "/briefs",
    "/briefs/letter",
    "/briefs/1/brief?trust=1",
    "/briefs/1/frames?propose=most",
    "/briefs/1/frames?swap=processor",
    "/briefs/1/frames?swap=graphics",
    "/briefs/1/frames?swap=graphics&cards=1&unfit=1",
    "/briefs/1/frames?propose=same",
    "/briefs/7/fit",
    "/briefs/7/review",
    "/briefs/8/balance?limits=1&wishes=1&every=1",
    "/briefs/8/steps",
    "/briefs/1/assembly",
    "/games?brief=1",
    "/games/money",
    "/games/gullwing-circuit?brief=1",
    "/games/read",
    "/parts?kind=graphics&brief=1",
    "/parts?kind=processor&q=zzz",
    "/parts/lowhum-bargain-700?brief=1",
    "/parts/scale",
    "/parts/import",
)


def visible(text: str) -> str:
    """What can be read of a page: its text, and what is said of controls."""
    text = re.sub(r"<(script|style|svg)\b.*?</\1>", " ", text, flags=re.DOTALL)
    said = " ".join(re.findall(r'(?:title|aria-label|placeholder)="([^"]*)"', text))
    return html.unescape(re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", text) + " " + said))


@exhaustive
@pytest.mark.parametrize("address", PAGES[:: extent(3, 1)])
def test_no_page_says_what_builders_would_not(client, address):
    said = visible(client.get(address).text)
    assert len(said) > 300
    assert not [word for word in BANNED if word in said.lower()]
    assert not SYMBOLS.findall(said), SYMBOLS.findall(said)[:3]


def test_no_template_says_it_either():
    for path in Path(wattmetron.__file__).parent.rglob("*.html"):
        said = visible(path.read_text()).lower()
        assert not [word for word in BANNED if word in said], path.name


def test_the_glossary_is_short_and_every_word_has_one_meaning():
    terms = [term for term, _ in GLOSSARY.values()]
    assert len(terms) == len(set(terms)) <= 60
    assert all(meaning.endswith(".") and len(meaning) < 260 for _, meaning in GLOSSARY.values())
