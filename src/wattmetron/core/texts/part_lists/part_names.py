"""Finding the names of parts in a text: whole, shortened, in another order, or misspelt."""

import math
import re
from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any, NamedTuple

from rapidfuzz import fuzz, process

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.lazy import GrowingRows
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Part

PIECE = re.compile(r"ddr\d\b|[^\W\d_]+|\d+", re.I)
LEAST_LENGTH, LIKENESS, MOST_SLIPS = 4, 72.0, 4096
COMMON = frozenset(
    [
        "the",
        "and",
        "with",
        "for",
        "from",
        "that",
        "this",
        "have",
        "what",
        "would",
        "could",
        "need",
        "needs",
        "want",
        "there",
        "their",
        "they",
        "which",
        "best",
        "good",
        "some",
        "more",
        "than",
        "then",
        "them",
        "were",
        "been",
        "will",
        "just",
        "like",
        "about",
        "also",
        "still",
        "over",
        "into",
        "only",
        "very",
        "much",
        "most",
        "each",
        "same",
        "other",
        "your",
        "mine",
        "here",
        "when",
        "where",
        "because",
        "enough",
        "idea",
        "think",
    ]
)
LOOSE = frozenset(["gb", "tb", "ddr3", "ddr4", "ddr5", "ddr", "mm", "w"])
MAKER_MISSING, LOOSE_MISSING, BRAND_MISSING = 0.06, 0.04, 0.05
REACH, FARTHEST_GAP = 8, 4
GAP_COST, BREAK_COST = 0.25, 0.7
MOST_CANDIDATES = 400
BREAKS = re.compile(r"[,;/+()]|\s-\s|\.\s|\band\b")


class Token(NamedTuple):
    """A word or number of a text with its place, and whether something divides it from the one
    before.
    """

    word: str
    start: int
    end: int
    divided: bool


@dataclass(frozen=True, slots=True)
class NameMatch:
    """A part found in a text: its place, how much of its name stands there (0 to 1), what that
    weighs, how many words of its name are there and how many of these without a slip (the maker's
    apart), and how many words stand in its piece of the text.
    """

    part_id: str
    start: int
    end: int
    share: float
    score: float
    words: int
    places: frozenset[int]
    exact: int
    crowd: int


def tokens_of(text: str) -> list[Token]:
    """The words and numbers of a text; a size in TB is also said in GB."""
    tokens: list[Token] = []
    last = 0
    for match in PIECE.finditer(text):
        divided = bool(tokens) and bool(BREAKS.search(text[last : match.start()]))
        tokens.append(Token(match[0].casefold(), match.start(), match.end(), divided))
        last = match.end()
    return [
        token._replace(word=f"{int(token.word) * 1000}")
        if token.word.isdecimal()
        and len(token.word) <= 2
        and n + 1 < len(tokens)
        and tokens[n + 1].word == "tb"
        else token
        for n, token in enumerate(tokens)
    ]


class PartNames:
    """An index over the names of a catalogue's parts."""

    def __init__(self, parts: Iterable[Part]) -> None:
        self._words: dict[str, tuple[str, ...]] = {}
        self._kinds: dict[str, Kind] = {}
        self._makers: dict[str, frozenset[str]] = {}
        self._brands: dict[str, frozenset[str]] = {}
        self._by_word: dict[str, list[str]] = defaultdict(list)
        for part in parts:
            words = tuple(dict.fromkeys(_words(part.name)))
            self._words[part.id], self._kinds[part.id] = words, kind_of(part)
            self._makers[part.id] = frozenset(_words(part.maker))
            brand = _words(part.chip)[:1] if isinstance(part, Graphics) else ()
            self._brands[part.id] = frozenset(brand)
            for word in words:
                self._by_word[word].append(part.id)
        count = Counter({word: len(ids) for word, ids in self._by_word.items()})
        size = max(1, len(self._words))
        self._weight = {word: math.log(1 + size / uses) for word, uses in count.items()}
        self._spelt = [word for word in count if len(word) >= LEAST_LENGTH and word.isalpha()]
        self._slips: GrowingRows[str, tuple[tuple[str, float], ...]] = GrowingRows(MOST_SLIPS)

    def meanings(self, word: str) -> tuple[tuple[str, float], ...]:
        """The words of names that a word is, or is a slip of, with how alike they are."""
        if word in self._by_word:
            return ((word, 1.0),)
        if len(word) < LEAST_LENGTH or not word.isalpha() or word in COMMON:
            return ()
        return self._slips.having([word], lambda _: True, self._likest)[0]

    def _likest(self, words: list[tuple[str, Any]]) -> list[tuple[tuple[str, float], ...]]:
        return [
            tuple(
                (hit, score / 100)
                for hit, score, _ in process.extract(
                    word, self._spelt, scorer=fuzz.ratio, score_cutoff=LIKENESS, limit=3
                )
                if abs(len(hit) - len(word)) <= 2
            )
            for word, _ in words
        ]

    def find(self, text: str, kind: Kind | None = None) -> list[NameMatch]:
        """Everything in a text that may be a part, overlapping; ``kind`` is what it is called."""
        tokens = tokens_of(text)
        weights: dict[str, list[tuple[int, float]]] = defaultdict(list)
        for n, token in enumerate(tokens):
            if _refused(tokens, n):
                continue
            for word, alike in self.meanings(token.word):
                weights[word].append((n, alike))
            joined = token.word + (tokens[n + 1].word if n + 1 < len(tokens) else "")
            if joined != token.word and joined in self._by_word and joined.isalpha():
                weights[joined].append((n, 0.95))
        matches = []
        for part_id in self._candidates(weights):
            score = self._best(part_id, weights, tokens)
            if score is not None:
                bonus = 0.5 if kind is not None and self._kinds[part_id] == kind else 0.0
                matches.append(replace(score, score=score.score + bonus))
        return matches

    def _candidates(self, weights: Mapping[str, Sequence[tuple[int, float]]]) -> list[str]:
        telling = sorted(
            (word for word in weights if word.isalpha() and word not in LOOSE),
            key=lambda word: (-self._weight[word], word),
        )
        candidates: dict[str, None] = {}
        for word in telling:
            ids = self._by_word[word]
            if len(ids) > MOST_CANDIDATES:
                numbers = {word for word in weights if word.isdecimal()}
                ids = [part_id for part_id in ids if numbers & set(self._words[part_id])][
                    :MOST_CANDIDATES
                ]
            candidates |= dict.fromkeys(ids)
        return list(candidates)

    def _missing(self, part_id: str, word: str) -> float:
        if word in self._makers[part_id]:
            return MAKER_MISSING
        if word in LOOSE:
            return LOOSE_MISSING
        return BRAND_MISSING if word in self._brands[part_id] else 1.0

    def _best(
        self,
        part_id: str,
        weights: Mapping[str, Sequence[tuple[int, float]]],
        tokens: Sequence[Token],
    ) -> NameMatch | None:
        """The place of a text where most of a part's name stands together."""
        words = self._words[part_id]
        telling = [
            word
            for word in words
            if word in weights
            and word.isalpha()
            and word not in LOOSE
            and word not in self._makers[part_id]
        ] or [
            word
            for word in words
            if word in weights and word in self._makers[part_id] and len(words) <= 3
        ]
        best: NameMatch | None = None
        anchors = {position for word in telling for position, _ in weights[word]}
        for anchor in sorted(anchors)[:12]:
            neighbours = self._around(part_id, anchor, weights, tokens)
            if neighbours is not None and (best is None or neighbours.score > best.score):
                best = neighbours
        return best

    def _around(
        self,
        part_id: str,
        anchor: int,
        weights: Mapping[str, Sequence[tuple[int, float]]],
        tokens: Sequence[Token],
    ) -> NameMatch | None:
        taken: dict[int, tuple[str, float]] = {}
        for word in self._words[part_id]:
            near = [
                position
                for position in weights.get(word, ())
                if abs(position[0] - anchor) <= REACH and position[0] not in taken
            ]
            if near:
                position, alike = min(
                    near, key=lambda near_match: (abs(near_match[0] - anchor), near_match[0])
                )
                taken[position] = (word, alike)
        places = _together(sorted(taken), anchor, tokens)
        by_position = {
            taken[position][0]: taken[position][1] for position in places if position in taken
        }
        if not any(word.isalpha() and word not in LOOSE for word in by_position):
            return None
        has = sum(self._weight[word] * alike**2 for word, alike in by_position.items())
        lost = sum(
            self._weight[word] * self._missing(part_id, word)
            for word in self._words[part_id]
            if word not in by_position
        )
        costs = sum(
            GAP_COST * (later - first - 1)
            + BREAK_COST * any(tokens[n].divided for n in range(first + 1, later + 1))
            for first, later in pairwise(places)
        )
        own_words = [word for word in by_position if word not in self._makers[part_id]]
        if not own_words:
            return None
        return NameMatch(
            part_id=part_id,
            start=tokens[places[0]].start,
            end=tokens[places[-1]].end,
            share=has / (has + lost + 0.5 * costs) * min(by_position.values()) ** 0.5,
            score=has - lost - costs,
            words=sum(word not in LOOSE for word in by_position),
            places=frozenset(places),
            exact=sum(
                by_position[word] == 1 and word.isalpha() and word not in LOOSE
                for word in own_words
            ),
            crowd=_crowd(places[0], tokens),
        )


def _refused(tokens: Sequence[Token], n: int) -> bool:
    """Whether a word is named as what is not meant: ``not the``, ``instead of``."""
    before = [token.word for token in tokens[max(0, n - 3) : n]]
    if before[-1:] and before[-1] in ("the", "a", "my", "any"):
        before.pop()
    return before[-1:] in (["not"], ["no"], ["without"]) or before[-2:] == ["instead", "of"]


def _crowd(position: int, tokens: Sequence[Token]) -> int:
    """The words of the piece of a text in which a place is."""
    first = last = position
    while first > 0 and not tokens[first].divided:
        first -= 1
    while last + 1 < len(tokens) and not tokens[last + 1].divided:
        last += 1
    return last - first + 1


def _together(places: list[int], anchor: int, tokens: Sequence[Token]) -> list[int]:
    """The places around an anchor that have no wide gap between them."""
    position = places.index(anchor) if anchor in places else 0
    first = last = position
    while first > 0 and places[first] - places[first - 1] <= FARTHEST_GAP:
        first -= 1
    while last + 1 < len(places) and places[last + 1] - places[last] <= FARTHEST_GAP:
        last += 1
    return places[first : last + 1]


def _words(text: str) -> tuple[str, ...]:
    return tuple(PIECE.findall(text.casefold()))


def names_of(catalogue: Catalogue) -> PartNames:
    """The index of a catalogue's parts."""
    return catalogue.keep.once(("part names",), lambda: PartNames(catalogue.parts.values()))
