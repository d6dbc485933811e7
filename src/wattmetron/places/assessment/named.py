"""Games and parts by what one types: an id, a name, the beginning of one, a slip of the pen."""

import re

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.finder import Hit, Sort, finder_of
from wattmetron.core.values.part_kinds import KIND_NAMES, Kind
from wattmetron.core.values.words import listed

LONGEST_SHOWN = 60
MOST_CHOICES = 4


def games_named(catalogue: Catalogue, text: str) -> tuple[str, ...]:
    """Ids of the games that a text names, separated by commas, semicolons or lines; each once.

    Raises BriefError for one that is not known, or that several answer to.
    """
    names = [name.strip() for name in re.split(r"[,;\n]", text) if name.strip()]
    if not names:
        raise BriefError("No game is named: type the beginning of a name and choose one.")
    return tuple(dict.fromkeys(_game(catalogue, name) for name in names))


def _game(catalogue: Catalogue, name: str) -> str:
    if name in catalogue.games:
        return name
    named = {game.name.casefold(): game.id for game in catalogue.games.values()}
    part_id = named.get(name.casefold())
    if part_id is not None:
        return part_id
    return _only(name, _hits(catalogue, name, "game"), "game", _names_of_games(catalogue))


def part_named(catalogue: Catalogue, text: str, kind: Kind | None = None) -> str:
    """The id of the part that a text names, of one kind where that is given; raises BriefError for
    one that is not known, or that several answer to.
    """
    name = text.strip()
    parts = catalogue.parts if kind is None else {part.id: part for part in catalogue.by_kind[kind]}
    if name in parts:
        return name
    named = {part.name.casefold(): part.id for part in parts.values()}
    part_id = named.get(name.casefold())
    if part_id is not None:
        return part_id
    hits = [hit for hit in _hits(catalogue, name, "part") if hit.id in parts]
    word = KIND_NAMES[kind] if kind else "part"
    return _only(name, hits, word, {part.id: part.name for part in parts.values()})


def _hits(catalogue: Catalogue, name: str, sort: Sort) -> list[Hit]:
    hits = finder_of(catalogue).find(name[:80], most=10_000)
    return [hit for hit in hits if hit.sort == sort]


def _names_of_games(catalogue: Catalogue) -> dict[str, str]:
    return {game.id: game.name for game in catalogue.games.values()}


def _only(name: str, hits: list[Hit], word: str, names: dict[str, str]) -> str:
    """The one that is meant; a slip may name one alone."""
    shown = name[:LONGEST_SHOWN]
    if not hits:
        raise BriefError(
            f"No {word} of the catalogue is called “{shown}”: type the beginning of its name and"
            " choose one."
        )
    if len(hits) == 1 and not hits[0].misspelt:
        return hits[0].id
    best = listed([names[hit.id] for hit in hits[:MOST_CHOICES]], "or")
    if hits[0].misspelt:
        raise BriefError(f"No {word} is called “{shown}”: was {best} meant?")
    raise BriefError(f"“{shown}” is more than one {word}: choose {best}.")
