"""The games of a letter, with what is said of each: rate, preset, ray tracing."""

import re
from collections.abc import Iterator, Mapping
from functools import partial
from typing import Any

from rapidfuzz import fuzz

from wattmetron.core.texts.messages.statements import Clause, MessageReading
from wattmetron.core.texts.requirements.name_matching import tokens

LIKENESS = 88
LEAST_LETTERS = 6
LEAST_TELLING = 4
"""Of several words one must stand in the text as it is before slips in others are looked for."""
FPS = re.compile(r"\b(\d{2,3})\s*\+?\s*(?:fps|frames?(?: per second| a second)?)\b")
BARE_FPS = re.compile(r"\((\d{2,3})\)|\b(?:solid|steady|stable|constant) (\d{2,3})\b")
PRESET = re.compile(
    r"\b(low|medium|high|ultra)(?: settings| preset| quality)|\b(?:on|at|in) (low|medium|high|"
    r"ultra)\b|"
    r"\(\s*(?:\d{2,3}\s*fps\s*,?\s*)?(low|medium|high|ultra)\s*\)|[,(]\s*(low|medium|high|"
    r"ultra)\s*[,)]"
)
MAXED = re.compile(r"\bmax(?:ed)?(?: out| settings)\b|\beverything on max\b")
RAYS = re.compile(r"\bray-? ?trac\w*|\brt\b")
NO_RAYS = re.compile(r"\bno\b|\bnot\b|\bwithout\b|\boff\b|n't\b|\bneither\b")
WORD = re.compile(r"[^\W\d_]+|\d+")


def games(text: str, named: Mapping[str, str]) -> list[MessageReading]:
    """Every mention of a game by its name (id by name), in the order of the text; a slip of the pen
    is not sure.
    """
    there = {word[0] for word in WORD.finditer(text)}
    words = {name: tokens(name) for name in named}
    mentions = list(
        _exact(text, {n: key for n, key in named.items() if there.issuperset(words[n])})
    )
    taken = [range(mention.start, mention.end) for mention in mentions]
    known = {mention.value for mention in mentions}
    near = {
        name: key
        for name, key in named.items()
        if key not in known
        and (len(words[name]) == 1 or not there.isdisjoint(_telling(words[name])))
    }
    for slip in _slips(text, near):
        if not any(slip.start in span or slip.end - 1 in span for span in taken):
            mentions.append(slip)
    return sorted(mentions, key=lambda mention: mention.start)


def _telling(words: tuple[str, ...]) -> set[str]:
    return {word for word in words if len(word) >= LEAST_TELLING}


def _exact(text: str, named: Mapping[str, str]) -> Iterator[MessageReading]:
    for name, game_id in named.items():
        words = [re.escape(word) for word in tokens(name)]
        for match in re.finditer(r"\b" + r"\W{1,3}".join(words) + r"\b", text):
            yield MessageReading(field="game", value=game_id, start=match.start(), end=match.end())


def _slips(text: str, named: Mapping[str, str]) -> Iterator[MessageReading]:
    """Runs of words that are nearly the name of a game."""
    words = list(WORD.finditer(text))
    for name, game_id in named.items():
        wanted = " ".join(tokens(name))
        if len(wanted) < LEAST_LETTERS:
            continue
        count = len(tokens(name))
        for position in range(len(words) - count + 1):
            run = words[position : position + count]
            if abs(run[-1].end() - run[0].start() - len(wanted)) > 3:
                continue
            if fuzz.ratio(wanted, " ".join(match[0] for match in run)) >= LIKENESS:
                yield MessageReading(
                    field="game",
                    value=game_id,
                    start=run[0].start(),
                    end=run[-1].end(),
                    sure=False,
                )


def of_games(sentences: list[Clause], readings: list[MessageReading]) -> Iterator[MessageReading]:
    """What is said of games: of the one before it, of all of a pair that ``and`` joins before it,
    of the one named after ``in``; of the last one where a sentence names none.
    """
    last: list[MessageReading] = []
    for sentence in sentences:
        within = [game for game in readings if sentence.start <= game.start < sentence.end]
        for match, make in _properties(sentence):
            start = sentence.start + match.start()
            for game in _meant(sentence, within, start, sentence.start + match.end()) or last[-1:]:
                yield make(game=game.value)
        last = within or last


def _properties(sentence: Clause) -> Iterator[tuple[re.Match[str], Any]]:
    text = sentence.text
    for match in FPS.finditer(text):
        yield match, _maker(sentence, match, "fps", float(match[1]))
    for match in BARE_FPS.finditer(text):
        yield match, _maker(sentence, match, "fps", float(match[1] or match[2]))
    for match in PRESET.finditer(text):
        yield match, _maker(sentence, match, "preset", next(filter(None, match.groups())))
    for match in MAXED.finditer(text):
        yield match, _maker(sentence, match, "preset", "ultra")
    for match in RAYS.finditer(text):
        near = text[max(0, match.start() - 25) : match.end() + 25]
        if not NO_RAYS.search(near):
            yield match, _maker(sentence, match, "ray_tracing", True)


def _maker(sentence: Clause, match: re.Match[str], field: str, value: object) -> Any:
    start, end = sentence.start + match.start(), sentence.start + match.end()
    return partial(MessageReading, field=field, value=value, start=start, end=end)  # type: ignore[arg-type]


def _meant(
    sentence: Clause, readings: list[MessageReading], start: int, end: int
) -> list[MessageReading]:
    """The games of a sentence that something at a place is about."""
    before = [game for game in readings if game.end <= start]
    after = [game for game in readings if game.start >= end]
    if after:
        between = sentence.text[end - sentence.start : after[0].start - sentence.start]
        if re.fullmatch(r"[\w ]{0,20}\b(?:in|for) (?:the )?", between):
            return after[:1]
    if not before:
        return after[:1]
    closing = sentence.text[before[-1].end - sentence.start : start - sentence.start]
    if "(" in closing and ")" not in closing:
        return before[-1:]
    if len(before) > 1:
        joint = sentence.text[before[-2].end - sentence.start : before[-1].start - sentence.start]
        if joint.strip() in ("and", "+", "&"):
            return before[-2:]
    return before[-1:]
