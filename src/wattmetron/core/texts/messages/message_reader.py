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
    found = games(small, known)
    letter = translated(small, found)
    if letter.text != small:
        found = games(letter.text, known)
    said, unread = _read(catalogue, letter.text, found)
    placed = tuple(_placed(own, letter) for own in said)
    return Letter(text, placed, tuple(letter.span(*span) for span in unread), cut)


def _placed(own: MessageReading, letter: Shortened) -> MessageReading:
    start, end = letter.span(own.start, own.end)
    return replace(own, start=start, end=end)


def _read(
    catalogue: Catalogue, small: str, found: list[MessageReading]
) -> tuple[tuple[MessageReading, ...], tuple[tuple[int, int], ...]]:
    """What a folded letter says, and the sentences of which nothing was read."""
    whole = sentences(small)
    bare = _without(small, found)
    pieces = [piece for sentence in whole for piece in clauses(sentence)]
    said = [*found, *of_games(whole, found), *budget(small, whole), *display(small)]
    said += named_parts(small, {part.name: part.id for part in catalogue.parts.values()}, whole)
    makers = sorted({part.maker for part in catalogue.parts.values()})
    for sentence in whole:
        said += [*buys(sentence), *refused(sentence, makers)]
        said += own_kinds(sentence) if owns(sentence) else ()
    for piece in pieces:
        sentence = whole[piece.sentence]
        clause = replace(piece, text=bare[piece.start : piece.end])
        said += wishes(clause, bare[sentence.start : piece.start])
        said += sizes(piece, owns(sentence) and "want" not in piece.text)
    return _settled(said), _unread(whole, said)


def _without(text: str, found: list[MessageReading]) -> str:
    """The text with the names of games blanked: what they are called is no wish."""
    signs = list(text)
    for own in found:
        signs[own.start : own.end] = " " * (own.end - own.start)
    return "".join(signs)


def _settled(said: Iterable[MessageReading]) -> tuple[MessageReading, ...]:
    """Each once, in the order of the text; of fields that hold one value the first, which is not
    sure where another contradicts it.
    """
    several, single = list[MessageReading](), dict[str, list[MessageReading]]()
    for own in said:
        if own.field in SEVERAL:
            several.append(own)
        else:
            single.setdefault(own.field, []).append(own)
    kept = {(own.field, own.value, own.game): own for own in reversed(several)}
    alone = [_first(own) for own in single.values()]
    rest = [own for own in kept.values() if not _shown_as_part(own, kept)]
    return tuple(sorted([*alone, *rest], key=lambda own: (own.start, own.end, own.field)))


def _shown_as_part(own: MessageReading, kept: Mapping[Any, MessageReading]) -> bool:
    """Whether a kind is only the end of a part's name that was read."""
    return own.field == "own_kind" and any(
        other.field == "owned" and other.start <= own.start < other.end for other in kept.values()
    )


def _first(said: list[MessageReading]) -> MessageReading:
    first = min(said, key=lambda own: own.start)
    agreed = len({str(own.value) for own in said}) == 1
    return MessageReading(
        field=first.field,
        value=first.value,
        start=first.start,
        end=first.end,
        sure=first.sure and agreed,
    )


def _unread(whole: list[Clause], said: list[MessageReading]) -> tuple[tuple[int, int], ...]:
    """The sentences of which nothing was read."""
    return tuple(
        (sentence.start, sentence.end)
        for sentence in whole
        if not any(sentence.start <= own.start < sentence.end for own in said)
    )
