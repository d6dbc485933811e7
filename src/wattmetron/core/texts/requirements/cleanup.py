"""Markup, odd blanks and signs made plain without moving a single character."""

import re

from wattmetron.core.texts.requirements.draft import ReadingError

MAX_CHARACTERS = 20_000
MAX_LINES = 400
_TAG = re.compile(r"</?[a-zA-Z][^<>]*>")
_HIDDEN = (
    (re.compile("<!--"), re.compile("-->")),
    (re.compile(r"<script\b", re.IGNORECASE), re.compile("</script[ ]?>", re.IGNORECASE)),
    (re.compile(r"<style\b", re.IGNORECASE), re.compile("</style[ ]?>", re.IGNORECASE)),
)
"""What opens and what ends a stretch that a browser does not show."""
_BREAK = re.compile(r"</?(br|p|div|li|ul|ol|tr|h[1-6]|table|section)\b", re.IGNORECASE)
_CELL = re.compile(r"</(td|th)\b", re.IGNORECASE)
_ENTITY = re.compile(r"&(nbsp|amp|lt|gt|quot|#\d+|#x[0-9a-fA-F]+);")
_ENTITIES = {"amp": "&", "lt": "<", "gt": ">", "quot": '"'}
_PLAIN = {
    **dict.fromkeys(
        "\u00a0\u202f\u2009\u200b\u200c\u200d\u2060\u00ad\u200e\u200f\ufeff\u2122\u00ae\u00a9", " "
    ),
    **dict.fromkeys("\r\f", "\n"),
    **dict.fromkeys("\u2010\u2011\u2012\u2013\u2014\u2212", "-"),
    **dict.fromkeys("\u2022\u25cf\u25aa\u2023\u00b7", "*"),
    "\u00d7": "x",
    "\uff0f": "/",
    "\uff1a": ":",
}
_TABLE = str.maketrans(_PLAIN)


def checked(text: str) -> str:
    """The text, unless it is empty, binary or far longer than any list of requirements; raises
    ReadingError.
    """
    if not text.strip():
        raise ReadingError("There is no text: paste the requirements as the publisher wrote them.")
    odd = sum(
        1 for sign in text[:4000] if (sign < " " and sign not in "\n\r\t\f") or sign == "\ufffd"
    )
    if "\0" in text or odd > 8:
        raise ReadingError("This is no text but binary data: paste the requirements as text.")
    if len(text) > MAX_CHARACTERS or text.count("\n") > MAX_LINES:
        raise ReadingError(
            f"The text has {len(text):,} characters in {text.count(chr(10)) + 1:,} lines: paste the"
            f" requirements alone, at most {MAX_CHARACTERS:,} characters in {MAX_LINES} lines."
        )
    return text


def plain(text: str) -> str:
    """The text of the same length with tags turned into blanks and breaks, and signs into plain
    ones.
    """
    for opening, ending in _HIDDEN:
        text = _without_hidden(text, opening, ending)
    text = _TAG.sub(_without_tag, text)
    text = _ENTITY.sub(lambda match: _ENTITIES.get(match[1], " ").ljust(len(match[0])), text)
    return text.translate(_TABLE)


def _without_hidden(text: str, opening: re.Pattern[str], ending: re.Pattern[str]) -> str:
    """Blanks in place of what stands between; one look for every opening that has an end."""
    pieces, position = [], 0
    while (first := opening.search(text, position)) and (last := ending.search(text, first.end())):
        pieces += [text[position : first.start()], " " * (last.end() - first.start())]
        position = last.end()
    return "".join([*pieces, text[position:]])


def _without_tag(tag: re.Match[str]) -> str:
    first = " "
    if _CELL.match(tag[0]):
        first = "\t"
    elif _BREAK.match(tag[0]):
        first = "\n"
    return first.ljust(len(tag[0]))
