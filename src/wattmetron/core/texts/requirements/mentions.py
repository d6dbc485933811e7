"""What a running text mentions, whatever its layout: parts by their names, amounts, conditions,
tiers; each with its place.
"""

import re
from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from wattmetron.core.texts.requirements.name_matching import TOKEN, Name, tokens
from wattmetron.core.texts.requirements.vocabulary import (
    BY_LENGTH,
    EVERY,
    GLUE,
    LABELS,
    NAME_GLUE,
    OR_BETTER,
    SURE_TIERS,
    Field,
)
from wattmetron.core.values import amounts
from wattmetron.core.values.published import Side

Kind = Field | Literal["tier", "every", "kind of storage"]
CORE: tuple[Side, ...] = ("processor", "graphics")
CARD_REACH, MOST_NAME_WORDS = 18, 8
_GAP = re.compile(r"[ _\-]{0,2}")
_TIER = re.compile(rf"(?<![\w-])(?:{SURE_TIERS}|least|ideally)(?![^\W_])", re.IGNORECASE)
_LABEL = re.compile(rf"(?<![^\W_])({BY_LENGTH})(?![^\W_])[*:= \"'(]*\Z", re.IGNORECASE)
_MEMORY_AFTER = re.compile(
    r"[ )\"]*(?:of[ ]+|de[ ]+)?(?:(?:system|main|dual[- ]channel|your)[ ]+)?(?:ram|memory|ddr\d?)"
    r"(?![^\W_])(?![ :=]*\d)",
    re.IGNORECASE,
)
_VIDEO_AFTER = re.compile(
    r"[ )\"]*(?:of[ ]+)?(?:vram|video[ ]+(?:memory|ram)|graphics[ ]+memory|gddr\d?)", re.IGNORECASE
)
_STORAGE_NEAR = re.compile(
    r"(?<![^\W_])(?:storage|disk|disc|drive|space|hdd|ssd|nvme|install(?:ation|ed)?|free|download"
    r"|available|spazio|espacio|espace|espaço|miejsc\w*|\w*ruimte|\w*platz|disco|disque|dysk\w*|schijf\w*"
    r"|festplatte\w*)(?![^\W_])",
    re.IGNORECASE,
)
_CARD_BEFORE = re.compile(
    r"(?<![^\W_])(?:card|graphics|gpu)[ ]+(?:with|of|,)?[ ]*\Z", re.IGNORECASE
)
_STOP = re.compile(r"[.;!?](?=\s|\Z)|[,\n|•]")
_SENTENCE = re.compile(r"[.;!?](?=\s|\Z)|[\n|]")
_INSTEAD = re.compile(
    r"(?<![^\W_])(?:was|were|formerly|previously|instead of|rather than|not|no longer|earlier|war"
    r"|vorher|statt|était|era)(?:[ ]+(?:the|an?|der|die|den|le|la))?[ ]*\Z",
    re.IGNORECASE,
)
_MORE = re.compile(r"[ ]([A-Z][\w\-]*|\d+)(?![\w.,]*[ ]?(?:GB|MB|GHz|fps|TB)\b)")
_UNKNOWN = re.compile(
    r"[ ]*(?:,?[ ]+or[ ]+(?:an?[ ]+)?|[ ]*/[ ]*)([A-Z][\w\-]+(?:[ ]+(?:[A-Z][\w\-]*|\d+))*)"
)


@dataclass(frozen=True, slots=True)
class Mention:
    """A stretch of a text, from ``start`` to before ``end``, and what it is about; whether the
    catalogue knows the part that it names.
    """

    kind: Kind
    start: int
    end: int
    known: bool = True


class PartFinder:
    """Finds the parts of a catalogue in running text by their names, with or without makers."""

    def __init__(self, names: Iterable[Name]) -> None:
        self._by_first: dict[str, list[tuple[tuple[str, ...], Side]]] = defaultdict(list)
        for name in names:
            words = tokens(name.text)
            bare = tuple(word for word in words if word not in name.maker)
            for form in {words, bare}:
                if any(word.isalpha() and len(word) > 2 and word not in GLUE for word in form):
                    self._by_first[form[0]].append((form, name.side))
        for forms in self._by_first.values():
            forms.sort(key=lambda form: (-len(form[0]), form))

    def parts(self, text: str) -> Iterator[Mention]:
        """Every name in a text, the longest at each place; what follows it like more of a name
        belongs to it.
        """
        words = list(TOKEN.finditer(text))
        position = 0
        while position < len(words):
            mention = self._at(text, words, position)
            if mention is None:
                position += 1
                continue
            count, side = mention
            start, end = words[position].start(), words[position + count - 1].end()
            end = _grown(text, end)
            if not _INSTEAD.search(text[max(0, start - 30) : start]):
                yield Mention(side, start, end)
            position += count

    def _at(self, text: str, words: list[re.Match[str]], position: int) -> tuple[int, Side] | None:
        for form, side in self._by_first.get(words[position][0].casefold(), ()):
            run = words[position : position + len(form)]
            if len(run) < len(form) or any(
                word[0].casefold() != wanted for word, wanted in zip(run, form, strict=True)
            ):
                continue
            gaps = pairwise(run)
            if all(_GAP.fullmatch(text, a.end(), b.start()) for a, b in gaps) and not (
                run[0].start() and text[run[0].start() - 1].isalnum()
            ):
                return len(form), side
        return None


def _grown(text: str, end: int) -> int:
    """Where a name ends with the words that follow it like more of it."""
    for _ in range(MOST_NAME_WORDS):
        more = _MORE.match(text, end)
        if more is None:
            return end
        word = more[1].casefold()
        if word in LABELS or word in NAME_GLUE or _TIER.match(more[1]):
            return end
        end = more.end()
    return end


def mentions(
    text: str, finder: PartFinder, patterns: Iterable[tuple[Kind, re.Pattern[str] | None]]
) -> list[Mention]:
    """All that a text mentions, in its order; ``patterns`` are what else is known by name."""
    taken = bytearray(len(text))
    or_betters: list[Mention] = []

    def take(mention: Mention) -> None:
        if mention.start < mention.end and not any(taken[mention.start : mention.end]):
            or_betters.append(mention)
            taken[mention.start : mention.end] = b"\1" * (mention.end - mention.start)

    parts = list(finder.parts(text))
    for part in parts:
        take(_with_memory(text, part) if part.kind == "graphics" else part)
    for kind, pattern in patterns:
        for match in pattern.finditer(text) if pattern else ():
            take(Mention(kind, *match.span()))
    for match in amounts.AMOUNT.finditer(text):
        take(_amount(text, match, parts))
    for kind, pattern in _CONDITIONS:
        for match in pattern.finditer(text):
            take(Mention(kind, *match.span()))
    stated = [mention for mention in or_betters if mention.kind in ("resolution", "frame rate")]
    for match in amounts.BARE_PRESET.finditer(text):
        if any(_near(text, mention, match) for mention in stated):
            take(Mention("preset", *match.span()))
    for match in amounts.KIND.finditer(text):
        take(Mention("kind of storage", *match.span()))
    for match in _TIER.finditer(text):
        take(Mention("tier", *match.span()))
    for match in re.finditer(EVERY, text):
        take(Mention("every", *match.span()))
    for part in parts:
        for other in _unknown(text, part, taken):
            take(other)
    or_betters = [_or_better(text, mention) for mention in or_betters]
    return sorted(or_betters, key=lambda mention: (mention.start, mention.end))


_CONDITIONS: tuple[tuple[Kind, re.Pattern[str]], ...] = (
    ("resolution", amounts.SIZE),
    ("resolution", amounts.LINES),
    ("resolution", amounts.NAMED_SIZE),
    ("frame rate", amounts.FPS),
    ("preset", amounts.PRESET),
    ("conditions", amounts.RAYS),
    ("conditions", amounts.GENERATED),
    ("conditions", amounts.UPSCALING),
)


def _near(text: str, mention: Mention, match: re.Match[str]) -> bool:
    """Whether a word stands right beside a condition."""
    first, last = min(mention.end, match.end()), max(mention.start, match.start())
    return last - first <= 12 and not re.search(r"[.;\n|](?=\s|\Z)", text[first:last])


def _with_memory(text: str, mention: Mention) -> Mention:
    """A card with the amount that follows it, unless that is main memory or storage."""
    match = amounts.AMOUNT.search(text, mention.end, mention.end + CARD_REACH + 12)
    if match is None or match.start() - mention.end > CARD_REACH:
        return mention
    between = text[mention.end : match.start()]
    if re.search(r"[.;\n|+/·*&]|(?<![^\W_])(?:and|or)(?![^\W_])", between):
        return mention
    if _MEMORY_AFTER.match(text, match.end()) or (
        "," in between
        and not _VIDEO_AFTER.match(text, match.end())
        and "(" not in between
        and _STORAGE_NEAR.match(text, match.end() + 1)
    ):
        return mention
    closing = re.compile(r"[ ]*\)").match(text, match.end()) if "(" in between else None
    return replace(mention, end=closing.end() if closing else match.end())


def _unknown(text: str, mention: Mention, taken: bytearray) -> Iterator[Mention]:
    """What is named as an alternative of a part and that the catalogue lacks."""
    end = mention.end
    while end < len(text) and taken[end]:
        end += 1
    match = _UNKNOWN.match(text, end)
    if match and not any(taken[match.start(1) : match.end(1)]):
        first = match[1].split()[0].casefold()
        if first not in {*LABELS, *NAME_GLUE, *GLUE}:
            yield Mention(mention.kind, *match.span(1), known=False)


def _or_better(text: str, mention: Mention) -> Mention:
    """A part with what says "or better" after it."""
    better = OR_BETTER.match(text, mention.end) if mention.kind in CORE else None
    return replace(mention, end=better.end()) if better else mention


def _amount(text: str, match: re.Match[str], parts: list[Mention]) -> Mention:
    """What an amount that belongs to no card is of: by the words right after it, by its label, by
    the words around it; main memory before anything else.
    """
    start, end = match.span()
    if _VIDEO_AFTER.match(text, end):
        return Mention("video memory", start, end)
    if _MEMORY_AFTER.match(text, end):
        return Mention("memory", start, end)
    field = _label_before(text, start)
    if field is not None:
        if field in ("memory", "video memory", "storage"):
            return Mention(field, start, end)
        if field == "graphics":
            return Mention("video memory", start, end)
    if _CARD_BEFORE.search(text, max(0, start - 20), start):
        return Mention("video memory", start, end)
    clause = _around(text, start, end, _STOP)
    if not re.search(r"[^\W\d_]", clause.replace(match[0], "", 1)):
        clause = _around(text, start, end, _SENTENCE)
    return Mention("storage" if _STORAGE_NEAR.search(clause) else "memory", start, end)


def _label_before(text: str, start: int) -> Field | None:
    """The label right before an amount, or the one of its line where other amounts alone stand
    between.
    """
    label = _LABEL.search(text, max(0, start - 40), start)
    if label:
        return LABELS[" ".join(label[1].casefold().split())]
    line = text[max(text.rfind("\n", 0, start) + 1, start - 120) : start]
    words = amounts.AMOUNT.sub(" ", line).strip(" \t|/,;*:=-")
    return LABELS.get(words.casefold())


def _around(text: str, start: int, end: int, stop: re.Pattern[str]) -> str:
    """The text around a stretch up to the nearest stops."""
    first = max(
        [start - 60, 0, *(match.end() for match in stop.finditer(text, max(0, start - 60), start))]
    )
    after = stop.search(text, end)
    return text[first : min(end + 60, after.start() if after else len(text))]
