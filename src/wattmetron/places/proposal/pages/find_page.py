"""What the finder shows: games to aim at and parts to try, with a word where a slip was
forgiven.
"""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.finder import finder_of
from wattmetron.core.values.games import Game
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.places.proposal.part_traits import traits
from wattmetron.shell.address import trial_of
from wattmetron.words.figures import KIND_WORDS, money
from wattmetron.workshop.listed_briefs import Opened

MOST_GAMES, MOST_PARTS = 6, 10


@dataclass(frozen=True, slots=True, kw_only=True)
class FoundPart:
    """A part with what is worth knowing at a glance, and the code that tries it."""

    part: Part
    kind: str
    speed: str
    price: str
    code: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FinderResults:
    """``misspelt``: nothing is called so, and these come near it."""

    words: str
    games: tuple[Game, ...]
    parts: tuple[FoundPart, ...]
    more: int
    misspelt: bool


def found_view(catalogue: Catalogue, opened: Opened, words: str) -> FinderResults:
    hits = finder_of(catalogue).find(words[:80], most=10_000)
    games = [catalogue.games[hit.id] for hit in hits if hit.sort == "game"]
    parts = [catalogue.parts[hit.id] for hit in hits if hit.sort == "part"]
    shown = tuple(_part(catalogue, opened, part) for part in parts[:MOST_PARTS])
    return FinderResults(
        words=words,
        games=tuple(games[:MOST_GAMES]),
        parts=shown,
        more=max(0, len(parts) - MOST_PARTS),
        misspelt=any(hit.misspelt for hit in hits),
    )


def _part(catalogue: Catalogue, opened: Opened, part: Part) -> FoundPart:
    book = catalogue.prices(opened.plan.brief.region, opened.plan.brief.may_buy)
    kind, price = kind_of(part), book.cost(part.id)
    code = trial_of(opened.plan.build, kind, part.id)
    shown = "no offer" if price is None else money(price, book.currency)
    return FoundPart(
        part=part, kind=KIND_WORDS[kind], speed=traits(part)[0], price=shown, code=code
    )
