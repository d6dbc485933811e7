"""A letter in another language in the words that the reader knows, every place kept."""

import re
from collections.abc import Callable, Iterable

from wattmetron.core.texts.messages.message_languages import BETWEEN_NUMBERS, OF, SAID
from wattmetron.core.texts.messages.statements import MessageReading
from wattmetron.core.texts.requirements.rewriting import replaced, spoken_in
from wattmetron.core.texts.requirements.shortening import Shortened


def _whole(pattern: str) -> re.Pattern[str]:
    return re.compile(rf"(?<![^\W_])(?:{pattern})(?![^\W_])")


_SAID = tuple((_whole(pattern), words) for pattern, words in SAID)
_JOINED = re.compile(rf"(?<=\d)([ ]+)(?:{BETWEEN_NUMBERS})([ ]+)(?=\d)")
_OF = re.compile(rf"(?<=[gt][bo])[ ]+(?:{'|'.join(OF)})(?=[ ])")
_UNITS = re.compile(r"(?<=\d)([ ]?)(go|to)(?![^\W_])")
_UNIT = {"go": "gb", "to": "tb"}


def translated(small: str, named: Iterable[MessageReading]) -> Shortened:
    """A folded letter; what it names (games) stays as it is. An English one is not touched."""
    letter = Shortened(small, list(range(len(small))))
    if not spoken_in(small):
        return letter
    names = [range(mention.start, mention.end) for mention in named]

    def other(words: Callable[[re.Match[str]], str]) -> Callable[[re.Match[str]], str]:
        def replacing(match: re.Match[str]) -> str:
            position = letter.places[match.start()]
            return match[0] if any(position in span for span in names) else words(match)

        return replacing

    letter = replaced(letter, _UNITS, lambda match: f"{match[1]}{_UNIT[match[2]]}")
    letter = replaced(letter, _JOINED, other(lambda match: f"{match[1]}to{match[2]}"))
    letter = replaced(letter, _OF, other(lambda _: " of"))
    for pattern, words in _SAID:
        letter = replaced(letter, pattern, other(_always(words)))
    return letter


def _always(words: str) -> Callable[[re.Match[str]], str]:
    return lambda _: words
