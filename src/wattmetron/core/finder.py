"""Finding parts and games by name, tolerant of typing: whole words, their beginnings, and slips of
both.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from rapidfuzz import fuzz, process

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.requirements.name_matching import tokens
from wattmetron.core.values.part_kinds import KIND_NAMES

LIKENESS = 72.0
LEAST_LENGTH = 3
EXACT, BEGINNING, INSIDE = 100.0, 95.0, 85.0
"""What a match counts for: the whole name, its beginning, a word within it."""
Sort = Literal["part", "game"]


@dataclass(frozen=True, slots=True)
class Hit:
    """Something found: its sort and id, how well the words fit (100 at best), and whether a slip
    was forgiven.
    """

    sort: Sort
    id: str
    score: float
    misspelt: bool


class Finder:
    """An index of (sort, id, name with what else it is known by)."""

    def __init__(self, named: Iterable[tuple[Sort, str, str]]) -> None:
        self._entries = [(sort, key, text) for sort, key, text in named]
        self._by_token: dict[str, list[int]] = {}
        for index, (_, _, text) in enumerate(self._entries):
            for token in dict.fromkeys(tokens(text)):
                self._by_token.setdefault(token, []).append(index)
        self._tokens = list(self._by_token)

    def find(self, text: str, most: int = 12) -> list[Hit]:
        """What answers to all words, best first and then by name; slips are forgiven only where
        nothing else fits.
        """
        words = list(dict.fromkeys(tokens(text)))[:6]
        if not words:
            return []
        for forgiving in (False, True):
            scored = self._scored(words, forgiving)
            if scored:
                break
        ordered = sorted(
            scored.items(),
            key=lambda row: (-row[1], len(self._entries[row[0]][2]), self._entries[row[0]][2]),
        )
        return [Hit(*self._entries[index][:2], score, forgiving) for index, score in ordered[:most]]

    def _scored(self, words: Sequence[str], forgiving: bool) -> dict[int, float]:
        """Mean score over the words for every entry that answers to all of them."""
        total: dict[int, float] | None = None
        for word in words:
            found_positions: dict[int, float] = {}
            for token, score in self._like(word, forgiving).items():
                for index in self._by_token[token]:
                    found_positions[index] = max(found_positions.get(index, 0.0), score)
            total = (
                found_positions
                if total is None
                else {
                    index: total[index] + found_positions[index]
                    for index in total.keys() & found_positions.keys()
                }
            )
            if not total:
                return {}
        return {index: score / len(words) for index, score in (total or {}).items()}

    def _like(self, word: str, forgiving: bool) -> dict[str, float]:
        """Tokens that a word can mean, with scores."""
        scores = {}
        for token in self._tokens:
            if word in token:
                if token == word:
                    scores[token] = EXACT
                elif token.startswith(word):
                    scores[token] = BEGINNING
                else:
                    scores[token] = INSIDE
        if not forgiving or len(word) < LEAST_LENGTH or not word.isalpha():
            return scores
        beginnings = [token[: len(word) + 1] for token in self._tokens]
        for choices in (self._tokens, beginnings):
            for _, score, index in process.extract(
                word, choices, scorer=fuzz.ratio, score_cutoff=LIKENESS, limit=12
            ):
                token = self._tokens[index]
                scores[token] = max(scores.get(token, 0.0), score * 0.8)
        return scores


def finder_of(catalogue: Catalogue) -> Finder:
    """A catalogue's parts by name and kind, its games by name and genre."""
    return catalogue.keep.once(("finder",), lambda: _finder(catalogue))


def _finder(catalogue: Catalogue) -> Finder:
    parts: list[tuple[Sort, str, str]] = [
        ("part", part.id, f"{part.name} {KIND_NAMES[kind]}")
        for kind, parts in catalogue.by_kind.items()
        for part in parts
    ]
    games: list[tuple[Sort, str, str]] = [
        ("game", game.id, f"{game.name} {game.genre}") for game in catalogue.games.values()
    ]
    return Finder([*parts, *games])
