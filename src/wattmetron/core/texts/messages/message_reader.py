"""Reads a letter into what it asks for: money, games, display, and whatever else is said."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.messages.clauses import LONGEST, clauses, folded, sentences
from wattmetron.core.texts.messages.display_wishes import display
from wattmetron.core.texts.messages.game_mentions import games, of_games
from wattmetron.core.texts.messages.money_amounts import budget
from wattmetron.core.texts.messages.owned import buys, named_parts, own_kinds, owns, refused
from wattmetron.core.texts.messages.stated_wishes import sizes, wishes
from wattmetron.core.texts.messages.statements import Clause, Letter, MessageReading
from wattmetron.core.texts.messages.translated import translated
from wattmetron.core.texts.requirements.shortening import Shortened

MOST_BYTES = 100_000
SEVERAL = (
    "currency",
    "game",
    "fps",
    "preset",
    "ray_tracing",
    "work",
    "own_kind",
    "owned",
    "no_maker",
    "buys",
)
"""Of these a letter may say several."""


def read_letter(catalogue: Catalogue, text: str) -> Letter:
    """What a letter says, each piece with its place; raises BriefError for one that is empty or too
    long. What is said twice and differently is not sure.
    """
    if not text.strip():
        raise BriefError("The letter is empty: paste the message that asks for a machine.")
    if len(text.encode(errors="replace")) > MOST_BYTES:
        raise BriefError(
            f"The letter is longer than {MOST_BYTES // 1000} kB: paste the part that says what is"
            " wanted."
        )
    cut, text = len(text.strip()) > LONGEST, text[:LONGEST]
    known = {game.name: game.id for game in catalogue.games.values()}
    small = folded(text)
    readings = games(small, known)
    letter = translated(small, readings)
    if letter.text != small:
        readings = games(letter.text, known)
    readings_so_far, unread = _read(catalogue, letter.text, readings)
    placed = tuple(_placed(reading, letter) for reading in readings_so_far)
    return Letter(text, placed, tuple(letter.span(*span) for span in unread), cut)


def _placed(reading: MessageReading, letter: Shortened) -> MessageReading:
    start, end = letter.span(reading.start, reading.end)
    return replace(reading, start=start, end=end)


def _read(
    catalogue: Catalogue, small: str, readings: list[MessageReading]
) -> tuple[tuple[MessageReading, ...], tuple[tuple[int, int], ...]]:
    """What a folded letter says, and the sentences of which nothing was read."""
    whole = sentences(small)
    bare = _without(small, readings)
    pieces = [piece for sentence in whole for piece in clauses(sentence)]
    readings_so_far = [
        *readings,
        *of_games(whole, readings),
        *budget(small, whole),
        *display(small),
    ]
    readings_so_far += named_parts(
        small, {part.name: part.id for part in catalogue.parts.values()}, whole
    )
    makers = sorted({part.maker for part in catalogue.parts.values()})
    for sentence in whole:
        readings_so_far += [*buys(sentence), *refused(sentence, makers)]
        readings_so_far += own_kinds(sentence) if owns(sentence) else ()
    for piece in pieces:
        sentence = whole[piece.sentence]
        clause = replace(piece, text=bare[piece.start : piece.end])
        readings_so_far += wishes(clause, bare[sentence.start : piece.start])
        readings_so_far += sizes(piece, owns(sentence) and "want" not in piece.text)
    return _settled(readings_so_far), _unread(whole, readings_so_far)


def _without(text: str, readings: list[MessageReading]) -> str:
    """The text with the names of games blanked: what they are called is no wish."""
    signs = list(text)
    for reading in readings:
        signs[reading.start : reading.end] = " " * (reading.end - reading.start)
    return "".join(signs)


def _settled(readings_so_far: Iterable[MessageReading]) -> tuple[MessageReading, ...]:
    """Each once, in the order of the text; of fields that hold one value the first, which is not
    sure where another contradicts it.
    """
    several, single = list[MessageReading](), dict[str, list[MessageReading]]()
    for reading in readings_so_far:
        if reading.field in SEVERAL:
            several.append(reading)
        else:
            single.setdefault(reading.field, []).append(reading)
    by_meaning = {
        (reading.field, reading.value, reading.game): reading for reading in reversed(several)
    }
    alone = [_first(reading) for reading in single.values()]
    rest = [reading for reading in by_meaning.values() if not _shown_as_part(reading, by_meaning)]
    return tuple(
        sorted([*alone, *rest], key=lambda reading: (reading.start, reading.end, reading.field))
    )


def _shown_as_part(reading: MessageReading, by_meaning: Mapping[Any, MessageReading]) -> bool:
    """Whether a kind is only the end of a part's name that was read."""
    return reading.field == "own_kind" and any(
        other.field == "owned" and other.start <= reading.start < other.end
        for other in by_meaning.values()
    )


def _first(readings_so_far: list[MessageReading]) -> MessageReading:
    first = min(readings_so_far, key=lambda reading: reading.start)
    agreed = len({str(reading.value) for reading in readings_so_far}) == 1
    return MessageReading(
        field=first.field,
        value=first.value,
        start=first.start,
        end=first.end,
        sure=first.sure and agreed,
    )


def _unread(
    whole: list[Clause], readings_so_far: list[MessageReading]
) -> tuple[tuple[int, int], ...]:
    """The sentences of which nothing was read."""
    return tuple(
        (sentence.start, sentence.end)
        for sentence in whole
        if not any(sentence.start <= reading.start < sentence.end for reading in readings_so_far)
    )
