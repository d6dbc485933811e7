"""The catalogue: parts, games, offers and regions of one day."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import cast

from wattmetron.core.errors import BriefError, BuildError, UnknownGameError, UnknownPartError
from wattmetron.core.finder import Finder, Sort
from wattmetron.core.power.tuning import run_at
from wattmetron.core.requirements.agreement import Doubt, doubts
from wattmetron.core.requirements.reading.reader import Reader
from wattmetron.core.requirements.tiers import TierTable, tier_table
from wattmetron.core.requirements.verdicts import Asked, asked_of
from wattmetron.core.speeds.reconcile import Reconciled
from wattmetron.core.speeds.scale import Scale
from wattmetron.core.values.brief import Clocks
from wattmetron.core.values.build import Build
from wattmetron.core.values.charts import Chart, Measure
from wattmetron.core.values.games import Game
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.kits import joined
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.offers import Offer, PriceBook, Region
from wattmetron.core.values.parts import (
    ALL_KINDS,
    FURTHER_KINDS,
    KIND_NAMES,
    KINDS,
    Graphics,
    Kind,
    Memory,
    Part,
)
from wattmetron.core.values.published import Assumptions, NamedPart, Published
from wattmetron.core.values.results import Results
from wattmetron.core.workloads.evidence import informed_items
from wattmetron.core.workloads.fit import Informed, informed

SYSTEM_NAME = re.compile(r"[\d(,]")


@dataclass(frozen=True)
class Catalogue:
    """Parts by id, games by id as they were described, all offers, regions by id, published
    requirements by game.

    ``game`` gives a game as the evidence of its requirements leaves it: that is what estimates use.
    Where charts moved the speeds, ``raw`` is the catalogue as described and ``fits`` says how.
    """

    parts: Mapping[str, Part]
    games: Mapping[str, Game]
    offers: tuple[Offer, ...]
    regions: Mapping[str, Region]
    published: Mapping[str, Published] = field(default_factory=dict)
    named: Mapping[str, NamedPart] = field(default_factory=dict)
    assumptions: Assumptions = field(default_factory=Assumptions)
    charts: Mapping[str, Chart] = field(default_factory=dict)
    results: Mapping[str, Results] = field(default_factory=dict)
    raw: "Catalogue | None" = None
    fits: Mapping[Measure, Reconciled] = field(default_factory=dict)

    @cached_property
    def by_kind(self) -> dict[Kind, tuple[Part, ...]]:
        """Parts of each kind in the order of their ids."""
        ordered: dict[Kind, list[Part]] = {kind: [] for kind in ALL_KINDS}
        for part_id in sorted(self.parts):
            ordered[kind_of(self.parts[part_id])].append(self.parts[part_id])
        return {kind: tuple(parts) for kind, parts in ordered.items()}

    @cached_property
    def _books(self) -> dict[tuple[str, bool], PriceBook]:
        return {}

    def prices(self, region_id: str, allow_used: bool) -> PriceBook:
        """Delivered prices in a region; raises BriefError for a region that the catalogue lacks."""
        key = (region_id, allow_used)
        if key not in self._books:
            self._books[key] = PriceBook(self.region(region_id), self.offers, allow_used)
        return self._books[key]

    def region(self, region_id: str) -> Region:
        if region_id not in self.regions:
            known = ", ".join(self.regions) or "none"
            raise BriefError(f"The catalogue has no region “{region_id}”: choose one of {known}.")
        return self.regions[region_id]

    def part(self, part_id: str) -> Part:
        if part_id not in self.parts:
            raise UnknownPartError(part_id)
        return self.parts[part_id]

    @property
    def described(self) -> "Catalogue":
        """The catalogue as it was described, before its charts moved any speed."""
        return self.raw or self

    @cached_property
    def scale(self) -> Scale:
        """The scale of speeds, with the named parts placed on it."""
        return Scale(self.parts.values(), self.named)

    @cached_property
    def tiers(self) -> TierTable:
        """All published tiers with their bars."""
        return tier_table(self.games, self.published, self.scale, self.assumptions)

    @cached_property
    def asked(self) -> Asked:
        """What all tiers ask for, as arrays."""
        return asked_of(self.tiers)

    @cached_property
    def games_by_name(self) -> tuple[Game, ...]:
        """All games in the order of their names."""
        return tuple(sorted(self.games.values(), key=lambda game: game.name.casefold()))

    @cached_property
    def finder(self) -> Finder:
        """Parts by name and kind, games by name and genre."""
        parts: list[tuple[Sort, str, str]] = [
            ("part", part.id, f"{part.name} {KIND_NAMES[kind]}")
            for kind, own in self.by_kind.items()
            for part in own
        ]
        return Finder(
            [
                *parts,
                *(("game", game.id, f"{game.name} {game.genre}") for game in self.games.values()),
            ]
        )

    @cached_property
    def genres(self) -> tuple[str, ...]:
        return tuple(sorted({game.genre for game in self.games.values()}))

    @cached_property
    def _doubts(self) -> dict[str, tuple[Doubt, ...]]:
        return {}

    def doubts(self, game_id: str) -> tuple[Doubt, ...]:
        """Where a game's list contradicts itself."""
        if game_id not in self._doubts:
            self._doubts[game_id] = doubts(self.tiers, game_id, self.assumptions)
        return self._doubts[game_id]

    @cached_property
    def reader(self) -> Reader:
        """A reader that knows the catalogue's parts, and the systems, APIs and upscalers that occur
        in it.
        """
        systems = {
            SYSTEM_NAME.split(tier.system)[0].strip()
            for one in self.published.values()
            for tier in one.tiers
        }
        cards = self.by_kind["graphics"]
        apis = {api for card in cards if isinstance(card, Graphics) for api in card.apis}
        upscalers = {name for game in self.games.values() for name in game.upscalers}
        return Reader(self.scale, systems, apis, upscalers)

    @cached_property
    def _informed(self) -> dict[str, Informed]:
        return {}

    def informed(self, game_id: str) -> Informed:
        """A game with the evidence of its requirements and results; raises UnknownGameError."""
        if game_id not in self.games:
            raise UnknownGameError(game_id)
        if game_id not in self._informed:
            game, own = self.games[game_id], self.published.get(game_id)
            day = (own.published_on if own else None) or game.released
            items = informed_items(game, self.tiers, self.scale, day)
            self._informed[game_id] = informed(game, items, self.results.get(game_id), self.scale)
        return self._informed[game_id]

    def game(self, game_id: str) -> Game:
        return self.informed(game_id).game

    def knowing(self, told: Iterable[Informed]) -> "Catalogue":
        """A copy that takes these games as told, whatever its own evidence says of them."""
        other = replace(self)
        other._informed.update((one.game.id, one) for one in told)
        return other

    def machine(self, build: Build, clocks: Clocks = "as shipped") -> Machine:
        """The build with its parts looked up, as it runs at such clocks; raises for an unknown id
        or a part in the wrong place.
        """
        found: dict[Kind, list[Part]] = {kind: [] for kind in ALL_KINDS}
        for kind, part_id in build.ids():
            part = self.part(part_id)
            if kind_of(part) != kind:
                raise BuildError(
                    f"“{part_id}” stands in the place of the {kind}, but it is a {kind_of(part)}:"
                    " move it."
                )
            found[kind].append(part)
        kits = cast(list[Memory], found["memory"])
        single = {
            kind: found[kind][0] if found[kind] else None for kind in KINDS if kind != "storage"
        }
        added = tuple(part for kind in FURTHER_KINDS for part in found[kind])
        single["memory"] = joined(kits)
        own = tuple(kits) if len(kits) > 1 else ()
        machine = Machine(storage=tuple(found["storage"]), added=added, kits=own, **single)  # type: ignore[arg-type]
        if len(found["graphics"]) > 1:
            machine = replace(machine, second_card=cast(Graphics, found["graphics"][1]))
        return run_at(machine, clocks)
