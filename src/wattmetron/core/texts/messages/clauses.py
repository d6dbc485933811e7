"""A letter in small letters, cut into clauses; places stay those of the letter."""

import re
from collections.abc import Iterator

from wattmetron.core.texts.messages.statements import Clause

LONGEST = 20_000
LONGEST_SENTENCE = 600
"""What is longer is cut at a blank: every clause is searched from end to end, often."""
_ENDS = re.compile(
    r"(?<=[.!;])(?<!incl\.)(?<!e\.g\.)(?<!\bmr\.)(?<!\bno\.)\s+|\n\s*[-*•]\s+|\n{2,}| / | stop\b"
)
_LINES = re.compile(r"\n(?=\s*[\w ]{2,30}[:?])|\n(?=q:)")
_COMMAS = re.compile(
    r",\s+(?!\d{3}\b)|\s+but\s+|\s+\+\s+|\s+and (?=(?:i|we|he|she|it|please|nothing|no|"
    r"without|neither)\b)|\(|\)"
)
_ANSWER = re.compile(r"\?\s*\S")


def folded(text: str) -> str:
    """Small letters of the same length, quotation marks and blanks made alike."""
    small = "".join(
        letter.lower() if len(letter.lower()) == 1 else letter for letter in text[:LONGEST]
    )
    return small.translate(str.maketrans("’‘`´\u00a0\u202f\t\r×–—", "''''    x--"))


def sentences(text: str) -> list[Clause]:
    """The sentences of a folded letter; a question stands with its answer."""
    pieces = [
        short
        for first in _cut(text, _ENDS, 0)
        for line in _cut(first.text, _LINES, first.start)
        for short in _shortened(line)
    ]
    return [Clause(piece.text, piece.start, n) for n, piece in enumerate(pieces)]


def _shortened(piece: Clause) -> Iterator[Clause]:
    """The piece, or what it comes to in pieces of bounded length, cut at blanks."""
    start, text = piece.start, piece.text
    while len(text) > LONGEST_SENTENCE:
        end = text.rfind(" ", 0, LONGEST_SENTENCE) + 1 or LONGEST_SENTENCE
        yield Clause(text[:end], start, piece.sentence)
        start, text = start + end, text[end:]
    yield Clause(text, start, piece.sentence)


def clauses(sentence: Clause) -> list[Clause]:
    """A sentence at its commas and brackets; one that asks and answers stays whole."""
    if _ANSWER.search(sentence.text) and "," not in sentence.text:
        return [sentence]
    return [
        Clause(piece.text, piece.start, sentence.sentence)
        for piece in _cut(sentence.text, _COMMAS, sentence.start)
    ]


def _cut(text: str, border: re.Pattern[str], offset: int) -> list[Clause]:
    pieces, start = [], 0
    for match in border.finditer(text):
        pieces.append(Clause(text[start : match.start()], offset + start, 0))
        start = match.end()
    pieces.append(Clause(text[start:], offset + start, 0))
    return [clause for clause in pieces if clause.text.strip()]
