"""Other languages and manners put into the words and signs that the reader knows; every place of
the new text knows its place in the old one.
"""

import re
from collections.abc import Callable, Iterable, Mapping

from wattmetron.core.texts.requirements import requirement_languages as said
from wattmetron.core.texts.requirements.shortening import Shortened
from wattmetron.core.texts.requirements.vocabulary import EVERY

Replacing = Callable[[re.Match[str]], str]
LEAST_SIGNS, SIGNS_ALONE = 2, 4


def _any(words: Iterable[str]) -> str:
    """Any of these words or phrases, the longest first."""
    ordered = sorted(set(words), key=lambda word: (-len(word), word))
    return "|".join(re.escape(word).replace(r"\ ", r"[ ]+") for word in ordered)


def _whole(pattern: str) -> re.Pattern[str]:
    """Where no letter stands before or after."""
    return re.compile(rf"(?<![^\W_])(?:{pattern})(?![^\W_])", re.IGNORECASE)


_REQ = _any(said.REQUIREMENTS)
_MIN = rf"(?:{_any(said.MINIMUM_PHRASES)}|(?:{'|'.join(said.MINIMUM_STEMS)})\w*)"
_REC = rf"(?:{_any(said.RECOMMENDED_PHRASES)}|(?:{'|'.join(said.RECOMMENDED_STEMS)})\w*)"
_NUMBER = _any(said.NUMBERS)
_LABELS = {field: _whole(rf"(?:{_any(words)})") for field, words in said.LABEL_WORDS.items()}
_TIERS: tuple[tuple[re.Pattern[str], str], ...] = (
    (_whole(rf"(?:{_REQ})[ ]+(?:{_MIN})|(?:{_MIN})[ ]+(?:{_REQ})"), "Minimum requirements"),
    (_whole(rf"(?:{_REQ})[ ]+(?:{_REC})|(?:{_REC})[ ]+(?:{_REQ})"), "Recommended requirements"),
    (
        _whole(r"mindest(?:anforderung(?:en)?|voraussetzungen|konfiguration)"),
        "Minimum requirements",
    ),
    (_whole(_MIN), "Minimum"),
    (_whole(_REC), "Recommended"),
)
_SAID: tuple[tuple[re.Pattern[str], str], ...] = (
    (_whole(_any(said.LOWEST_SAID)), "Minimum"),
    (_whole(_any(said.BETTER_SAID)), "Recommended"),
)
_SETTINGS = _any(said.SETTINGS)
_LEVELS = {
    name: re.compile(
        rf"(?<![^\W_])(?:(?:{_SETTINGS})[ ]+(?:{pattern})"
        rf"|(?:{pattern})[ ]+(?:{_SETTINGS}))(?![^\W_])",
        re.IGNORECASE,
    )
    for name, words in said.PRESETS.items()
    if (pattern := "|".join(words))
}
_LIKE = _whole(_any(said.LIKE_WORDS))
_AFTER_TIER = re.compile(r"(?<![^\W_])(Minimum|Recommended)[ ]*,[ ]*")
_SOLID = _whole(_any(said.SOLID_STATE))
_FREE = _whole(_any(said.FREE_WORDS))
_UNIT = re.compile(
    rf"(?<![\w.,])(\d{{1,6}}(?:[.,]\d{{1,3}})?)[ ]?({_any(said.UNITS)})(?![^\W_])", re.IGNORECASE
)
_BEFORE_AMOUNT = re.compile(
    rf"(?<![^\W_])(?:{_any(said.BEFORE_AMOUNT)})[ ]+(?=\d{{1,3}}[ ]?(?:GB|MB|Go|Mo)\b)",
    re.IGNORECASE,
)
_COUNT = re.compile(
    rf"(?<![^\W_])((?:{_NUMBER})(?:(?:[ ]+and)?[ -]+(?:{_NUMBER}))*)"
    rf"[ ]+({_any(said.COUNTED)})(?![^\W_])",
    re.IGNORECASE,
)
_FRAMES = re.compile(r"(?<![\w.])(\d{2,3})[ ]+frames(?![ ]+per\b)(?![^\W_])", re.IGNORECASE)
_GLUED = re.compile(r"(?<=\d)[pk](?=\d{2,3}(?![\w.]))", re.IGNORECASE)
_BARE_RATE = re.compile(
    r"(?<=\dp)(?:[ ]+(?:at|@)[ ]+|[ /])(\d{2,3})(?![\w.])(?![ ]*(?:fps|hz|frames))", re.IGNORECASE
)
_BRACES = re.compile(r"[{}]|\",?[ ]*(?=\n)|[\[\]\"](?![ ]?[)])")
_DATA = re.compile(r"\{[^{}\n]{0,40}\"[ ]*:")
_KEYED = re.compile(
    r"(?<![^\W_])([a-z]+)_(gb|mb|tb)\"?[ ]*[:=][ ]*(\d{1,6})(?![\w.])", re.IGNORECASE
)
_JOINED = re.compile(r"(?<=[a-z])_(?=[a-z]+[ ]*\"?[ ]*[:=])", re.IGNORECASE)
_MANNERS: tuple[tuple[re.Pattern[str], str], ...] = (
    (re.compile(r"^[ \t]*(?:[-=~]{1,3}>|»|>>|→|▶|►)[ \t]*", re.MULTILINE), ""),
    (re.compile(r"[ \t]+(?:»|→|⇒|=>|->)[ \t]+"), ": "),
    (re.compile(r"[ \t]*(?<!:)//[ \t]*"), "; "),
    (re.compile(r"(?<=[\w)])[ ]+with[ ]+(?:an?[ ]+)?(?=[A-Z])"), ", "),
    (re.compile(r"^[ \t]*={2,}[ \t]*|[ \t]*={2,}[ \t]*$", re.MULTILINE), ""),
    (re.compile(rf"(?<![^\W_])(?:{_any(said.FOR_ALL)})(?![^\W_])[ ]*:?", re.IGNORECASE), EVERY),
)


def _makers(names: frozenset[str]) -> re.Pattern[str]:
    name_pattern = rf"(?:{_any(names)})"
    return re.compile(
        rf"^[ \t*-]*{name_pattern}(?:[ ]*/[ ]*{name_pattern})+[ ]*:", re.IGNORECASE | re.MULTILINE
    )


def _words(words: str) -> Replacing:
    return lambda _: words


def rewritten(short: Shortened, makers: Mapping[str, frozenset[str]]) -> Shortened:
    """The text in the reader's own words; ``makers`` by the label of what they make: their names
    before a colon are a label too.
    """
    for label, names in makers.items():
        if names:
            short = replaced(short, _makers(names), _words(f"{label}:"))
    for pattern, words in _MANNERS:
        short = replaced(short, pattern, _words(words))
    short = _keys(short)
    short = replaced(short, _GLUED, lambda match: f"{match[0].lower()} ")
    short = replaced(short, _BARE_RATE, lambda match: f" {match[1]} fps")
    short = replaced(short, _COUNT, _in_figures)
    short = replaced(short, _FRAMES, lambda match: f"{match[1]} fps")
    short = replaced(short, _SOLID, _words("SSD"))
    short = replaced(short, _LIKE, _words("or better"))
    for pattern, words in _SAID:
        short = replaced(short, pattern, _words(words))
    spoken = spoken_in(short.text)
    return _translated(short, spoken) if spoken else short


def _keys(short: Shortened) -> Shortened:
    """Keys and values of a data file as labels with amounts."""
    short = replaced(short, _KEYED, lambda match: f"{match[1]}: {match[3]} {match[2].upper()}")
    short = replaced(short, _JOINED, _words(" "))
    if not _DATA.search(short.text):
        return short
    return replaced(short, _BRACES, lambda match: "\n" if match[0] in "{}" else "")


def spoken_in(text: str) -> tuple[str, ...]:
    """The languages besides English in which a text shows itself to be written."""
    words = {word.casefold() for word in re.findall(r"[^\W\d_]+", text)}
    return tuple(name for name in said.LANGUAGES if _is_spoken(name, words))


def _is_spoken(name: str, words: set[str]) -> bool:
    signs = len(words.intersection(said.SIGNS[name]) - said.ENGLISH)
    recognised = sum(
        word in said.OWN[name] or word.startswith(said.OWN_STEMS[name]) for word in words
    )
    return recognised > 1 or signs >= (LEAST_SIGNS if recognised else SIGNS_ALONE)


def _translated(short: Shortened, spoken: tuple[str, ...]) -> Shortened:
    short = replaced(short, _UNIT, lambda match: f"{match[1]} {said.UNITS[match[2].lower()]}")
    for pattern, words in _TIERS:
        short = replaced(short, pattern, _words(words))
    short = replaced(short, _BEFORE_AMOUNT, _words(" "))
    for name, pattern in _LEVELS.items():
        short = replaced(short, pattern, _words(f"{name} settings"))
    short = replaced(short, _AFTER_TIER, lambda match: f"{match[1]} ")
    for field, pattern in _LABELS.items():
        short = replaced(short, pattern, _words(said.LABEL_TO[field]))
    short = replaced(short, _FREE, _words("free"))
    joins = _whole(_any(word for name in spoken for word in said.OR_WORDS[name]))
    short = replaced(short, joins, _words("or"))
    ands = _whole(_any(word for name in spoken for word in said.AND_WORDS[name]))
    short = replaced(short, ands, _words(", "))
    fillers = _whole(_any(word for name in spoken for word in said.FILLERS[name]))
    return replaced(short, fillers, _words(" "))


def _in_figures(match: re.Match[str]) -> str:
    total = 0
    for word in re.findall(r"[a-z]+", match[1].lower()):
        value = said.NUMBERS.get(word, 0)
        total = max(1, total) * 100 if value == 100 else total + value
    unit = match[2].lower()
    return f"{total} {'fps' if unit.startswith(('frames', 'images')) else unit}"


def replaced(old: Shortened, pattern: re.Pattern[str], replacing: Replacing) -> Shortened:
    """Every match replaced; what stands in its place begins and ends where it did."""
    signs: list[str] = []
    places: list[int] = []
    position = 0
    for match in pattern.finditer(old.text):
        start, end = match.span()
        if start == end:
            continue
        new = replacing(match)
        signs += [old.text[position:start], new]
        places += old.places[position:start]
        if new:
            places += [old.places[start], *[old.places[end - 1]] * (len(new) - 1)]
        position = end
    if not signs:
        return old
    signs.append(old.text[position:])
    places += old.places[position:]
    return Shortened("".join(signs), places)
