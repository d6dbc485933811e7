"""What the entries of the brief's form offer to choose from."""

from collections.abc import Mapping
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.words.figures import KIND_WORDS


@dataclass(frozen=True, slots=True, kw_only=True)
class Choices:
    """What can be chosen anywhere in the form, the same for every brief of a catalogue."""

    games: tuple[str, ...]
    parts: tuple[str, ...]
    names: Mapping[str, str]
    makers: tuple[str, ...]
    makers_by_kind: tuple[str, ...]
    colours: tuple[str, ...]
    systems: tuple[str, ...]


def choices_of(catalogue: Catalogue) -> Choices:
    """The choices of a catalogue."""
    return catalogue.keep.once(("form choices",), lambda: _choices_of(catalogue))


def _choices_of(catalogue: Catalogue) -> Choices:
    parts = catalogue.parts.values()
    lists = catalogue.published.values()
    by_kind = {(KIND_WORDS[kind], part.maker) for kind in KINDS for part in catalogue.by_kind[kind]}
    return Choices(
        games=tuple(sorted(game.name for game in catalogue.games.values())),
        parts=tuple(part.name for parts in catalogue.by_kind.values() for part in parts),
        names={part.id: part.name for part in parts},
        makers=tuple(sorted({part.maker for part in parts})),
        makers_by_kind=tuple(f"{kind}: {maker}" for kind, maker in sorted(by_kind)),
        colours=tuple(sorted({part.colour for part in parts if part.colour})),
        systems=tuple(
            sorted(
                {
                    tier.system
                    for requirements in lists
                    for tier in requirements.tiers
                    if tier.system
                }
            )
        ),
    )
