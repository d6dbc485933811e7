"""A brief's games against what they publish, all at once, and their storage together."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.verdicts import Contender
from wattmetron.core.values.brief import Brief
from wattmetron.places.games.library import (
    judged,
    reach_words,
    storage_of,
    storage_together,
    tier_of_target,
)
from wattmetron.words.figures import THIN


@dataclass(frozen=True, slots=True, kw_only=True)
class RequiredRow:
    """A game of the brief: the highest tier that the machine meets, what the next one lacks, its
    storage.
    """

    game_id: str
    name: str
    reached: str
    short: str
    storage: str


@dataclass(frozen=True, slots=True)
class Required:
    """All games of a brief, and the storage that they take together."""

    rows: tuple[RequiredRow, ...]
    storage: str
    enough: bool


def required(catalogue: Catalogue, brief: Brief, contender: Contender) -> Required:
    """How a machine stands against all games of a brief."""
    standings = judged(catalogue, contender, brief.chance)
    ids = dict.fromkeys(
        target.game_id for target in brief.targets if target.game_id in catalogue.games
    )
    rows = []
    for game_id in ids:
        reached, short = reach_words(catalogue, standings, game_id)
        size = f"{storage_of(catalogue, game_id):,g}{THIN}GB"
        rows.append(
            RequiredRow(
                game_id=game_id,
                name=catalogue.games[game_id].name,
                reached=reached or "publishes no tier",
                short=short,
                storage=size,
            )
        )
    together = storage_together(catalogue, brief, contender.storage_gb)
    words = f"Together they take {together.needed_gb:,.0f}{THIN}GB with a fifth kept free"
    if together.had_gb is None:
        return Required(tuple(rows), f"{words}; no drive is chosen yet.", True)
    enough = together.had_gb >= together.needed_gb
    return Required(
        tuple(rows), f"{words}; the drives hold {together.had_gb:,.0f}{THIN}GB.", enough
    )


def tier_words(catalogue: Catalogue, brief: Brief) -> dict[str, str]:
    """By target, the tier that it corresponds to."""
    return {target.id: tier_of_target(catalogue, target) for target in brief.targets}
