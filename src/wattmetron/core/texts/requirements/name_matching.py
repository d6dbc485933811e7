"""Matching a part as it was named to a part on the scale.

Each word of a name weighs by how rare it is over all names. A match is sure only where every word
of the text and every word of the model are accounted for by one name alone; a word too many or too
few is a different part until somebody says otherwise.
"""

import math
import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from rapidfuzz import fuzz, process

from wattmetron.core.lazy import GrowingRows
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.texts.requirements.draft import Match
from wattmetron.core.values.amounts import AMOUNT
from wattmetron.core.values.published import Side

TOKEN = re.compile(r"[^\W\d_]+|\d+")
TYPO_LENGTH, TYPO_LIKENESS = 5, 80
PLACED_FROM = 0.55
MOST_SLIPS = 4096
MAKER_WEIGHT = 0.3
MISSPELT = 0.88
SHOWN = 5
NUMBER_COUNT = 4
MOST_CANDIDATES = 200


def tokens(text: str) -> tuple[str, ...]:
    """Words and numbers of a name in small letters."""
    return tuple(TOKEN.findall(text.casefold()))


@dataclass(frozen=True, slots=True, kw_only=True)
class Name:
    """A name on the scale: its key, side, words, and which of them are the maker's."""

    key: str
    side: Side
    text: str
    words: frozenset[str]
    maker: frozenset[str]
    amounts_gb: frozenset[int]


class NameIndex:
    """All names of a scale: processors, graphics chips, named parts."""

    def __init__(self, scale: Scale) -> None:
        self.names = tuple(_names(scale))
        self.makers = frozenset(word for name in self.names for word in name.maker)
        self.count = Counter(word for name in self.names for word in name.words)
        self.by_word: dict[str, list[Name]] = {}
        for name in self.names:
            for word in name.words:
                self.by_word.setdefault(word, []).append(name)
        self.spelt = tuple(
            word for word in self.count if len(word) >= TYPO_LENGTH and word.isalpha()
        )
        self.weights = {word: self._weight(word) for word in self.count}
        self._slips: GrowingRows[str, tuple[str, float] | None] = GrowingRows(MOST_SLIPS)

    def known(self, word: str) -> tuple[str, float] | None:
        """A word of some name that this word is, or is a slip of, with how alike they are within
        0–1.
        """
        if word in self.count:
            return word, 1.0
        if len(word) < TYPO_LENGTH or not word.isalpha():
            return None
        return self._slips.having([word], lambda _: True, self._likest)[0]

    def _likest(self, words: list[tuple[str, Any]]) -> list[tuple[str, float] | None]:
        hits = (
            process.extractOne(word, self.spelt, scorer=fuzz.ratio, score_cutoff=TYPO_LIKENESS)
            for word, _ in words
        )
        return [None if hit is None else (hit[0], hit[1] / 100) for hit in hits]

    def weight(self, word: str) -> float:
        return self.weights[word] if word in self.weights else self._weight(word)

    def _weight(self, word: str) -> float:
        """ln(1 + names / names with the word); a word that no name has weighs like one that one
        name has, and all numbers weigh alike.
        """
        count = NUMBER_COUNT if word.isdecimal() else self.count.get(word, 1)
        return math.log(1 + len(self.names) / count) * (
            MAKER_WEIGHT if word in self.makers else 1.0
        )

    def match(self, text: str, side: Side | None) -> tuple[Match, ...]:
        """The names that a text can mean, the likeliest first."""
        known_words = [(word, self.known(word)) for word in dict.fromkeys(tokens(text))]
        weights = {meant[0]: meant[1] for _, meant in known_words if meant is not None}
        strange = [word for word, meant in known_words if meant is None]
        scored = [
            self._score(name, weights, strange)
            for name in self._candidates(weights)
            if side is None or name.side == side
        ]
        best = sorted(
            (each_match for each_match in scored if each_match.confidence > 0.05),
            key=lambda each_match: (-each_match.confidence, each_match.name),
        )
        return tuple(self._shared(best))[:SHOWN]

    def _candidates(self, weights: dict[str, float]) -> Iterable[Name]:
        """Names with a telling word of the text, those with the rarest words first, so many as can
        decide.
        """
        telling = [
            word for word in weights if not word.isdecimal() and word not in self.makers
        ] or [word for word in weights if not word.isdecimal()]
        candidates: dict[str, Name] = {}
        for word in sorted(telling, key=lambda word: self.count[word]):
            if candidates and len(candidates) + self.count[word] > MOST_CANDIDATES:
                numbers = {each_word for each_word in weights if each_word.isdecimal()}
                candidates |= {
                    name.key: name for name in self.by_word[word] if numbers & name.words
                }
            else:
                candidates |= {name.key: name for name in self.by_word[word]}
        return candidates.values()

    def _score(self, name: Name, weights: dict[str, float], strange: list[str]) -> Match:
        likeness = min((weights[word] for word in name.words if word in weights), default=0.0)
        matched = sum(self.weight(word) * weights[word] for word in name.words if word in weights)
        missing = [word for word in name.words if word not in weights]
        extra = [
            word for word in weights if word not in name.words and not self._is_amount(name, word)
        ]
        foreign = [
            word for word in strange if not (word.isdecimal() and self._is_amount(name, word))
        ]
        lost = sum(self.weight(word) for word in missing) + sum(
            self.weight(word) for word in (*extra, *foreign)
        )
        share = matched / (matched + lost) if matched else 0.0
        model_missing = [word for word in missing if word not in name.maker]
        if not matched or not any(word in weights for word in name.words - name.maker):
            return Match(name.key, name.text, min(0.3, share * 0.5))
        if extra or foreign:
            return Match(name.key, name.text, min(0.5, share * 0.75))
        if model_missing:
            return Match(name.key, name.text, min(0.75, share))
        whole = 0.98 if not missing else 0.95
        return Match(
            name.key, name.text, whole if likeness == 1 else min(MISSPELT, whole * likeness)
        )

    @staticmethod
    def _is_amount(name: Name, word: str) -> bool:
        return word.isdecimal() and int(word) in name.amounts_gb

    @staticmethod
    def _shared(ranked: list[Match]) -> Iterable[Match]:
        """Names that a text means equally well share the confidence."""
        if not ranked:
            return
        equals = sum(
            1 for each_match in ranked if ranked[0].confidence - each_match.confidence < 0.02
        )
        for match in ranked:
            level = ranked[0].confidence - match.confidence < 0.02
            yield (
                Match(match.part, match.name, match.confidence / equals)
                if level and equals > 1
                else match
            )


def _names(scale: Scale) -> Iterable[Name]:
    for standing in scale.of("processor"):
        words = tokens(standing.name)
        maker = frozenset() if standing.placed else frozenset(words[:1])
        yield Name(
            key=standing.key,
            side="processor",
            text=standing.name,
            words=frozenset(words),
            maker=maker,
            amounts_gb=frozenset(),
        )
    for chip, variants in scale.variants.items():
        first = variants[0]
        label = (
            AMOUNT.sub(" ", first.name).strip() if first.placed else first.name.rsplit(" ", 1)[0]
        )
        words = tokens(label)
        maker = frozenset(words[:1]) if len(words) > 1 and not first.placed else frozenset()
        amounts = frozenset(int(variant.memory_gb) for variant in variants if variant.memory_gb)
        yield Name(
            key=chip,
            side="graphics",
            text=label,
            words=frozenset(words),
            maker=maker,
            amounts_gb=amounts,
        )
