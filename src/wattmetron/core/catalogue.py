"""The catalogue: parts, games, offers and regions of one day, to be looked up."""

from collections.abc import Callable, Hashable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Concatenate, ParamSpec, TypeVar, cast

from wattmetron.core.errors import BriefError, BuildError, UnknownGameError, UnknownPartError
from wattmetron.core.keep import NOTHING_KEPT, Computation, Keep
from wattmetron.core.values.build import Build
from wattmetron.core.values.charts import Chart, Measure, Reconciled
from wattmetron.core.values.games import Game
from wattmetron.core.values.kits import joined
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.offers import Buys, Offer, PriceBook, Region
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.part_kinds import ALL_KINDS, FURTHER_KINDS, KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Part
from wattmetron.core.values.published import Assumptions, NamedPart, Published
from wattmetron.core.values.references import Reference
from wattmetron.core.values.results import Results
from wattmetron.core.values.risk import risk_of
from wattmetron.core.values.shops import ShopRules, doubtful_in

P = ParamSpec("P")
T = TypeVar("T")
OF_GAMES = frozenset(
    {
        "tiers",
        "asked",
        "lesson",
        "learnt",
        "placed_tiers",
        "lessons_of_share",
        "informed",
        "doubts",
        "games by name",
        "genres",
        "curve",
    }
)
"""What one more part leaves as it is."""
BESIDE_PRICES = OF_GAMES | {"scale", "parts by kind", "reader", "finder", "table"}
"""What does not hang on prices."""


@dataclass(frozen=True, kw_only=True)
class Catalogue:
    """Parts by id, games by id as they were described, all offers, regions by id, published
    requirements by game.

    Estimates use a game as its evidence leaves it (``workloads.fit.fitted_game``); games in
    ``told`` are taken as they stand there. ``own`` records by their keys, and digests of
    ``pictures`` by part, are folded into the parts.
    Where charts moved the speeds, ``raw`` is the catalogue as described and ``fits`` says how. What
    is computed from the catalogue is kept by ``keep``.
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
    own: Mapping[str, OwnRecord] = field(default_factory=dict)
    pictures: Mapping[str, str] = field(default_factory=dict)
    references: Mapping[str, Reference] = field(default_factory=dict)
    shops: Mapping[str, ShopRules] = field(default_factory=dict)
    described_games: Mapping[str, Game] = field(default_factory=dict)
    raw: "Catalogue | None" = None
    fits: Mapping[Measure, Reconciled] = field(default_factory=dict)
    keep: Keep = field(default=NOTHING_KEPT, init=False, compare=False, repr=False)

    def kept_by(self, keep: Keep) -> "Catalogue":
        """The same catalogue, what is computed from it kept; a changed copy keeps nothing."""
        catalogue = replace(self)
        object.__setattr__(catalogue, "keep", keep)
        return catalogue

    def ask(
        self, function: Callable[Concatenate["Catalogue", P], T], *arguments: P.args, **_: P.kwargs
    ) -> T:
        """What a function that takes long says of this catalogue; the arguments are values."""
        return cast(T, self.keep.answer(Computation(function, arguments), self))

    def ask_each(
        self, function: Callable[..., T], arguments: Iterable[tuple[Hashable, ...]]
    ) -> tuple[T, ...]:
        """The same of several arguments, for which whoever asks waits together."""
        computations = tuple(Computation(function, values) for values in arguments)
        return cast(tuple[T, ...], self.keep.answers(computations, self))

    @property
    def by_kind(self) -> Mapping[Kind, tuple[Part, ...]]:
        """Parts of each kind in the order of their ids."""
        return self.keep.once(("parts by kind",), self._by_kind)

    def _by_kind(self) -> dict[Kind, tuple[Part, ...]]:
        ordered: dict[Kind, list[Part]] = {kind: [] for kind in ALL_KINDS}
        for part_id in sorted(self.parts):
            ordered[kind_of(self.parts[part_id])].append(self.parts[part_id])
        return {kind: tuple(parts) for kind, parts in ordered.items()}

    def prices(self, region_id: str, buys: Buys) -> PriceBook:
        """Delivered prices in a region; raises BriefError for a region that the catalogue lacks."""
        region = self.region(region_id)
        return self.keep.once(
            ("prices", region_id, buys),
            lambda: PriceBook(
                region, self.offers, buys, self._risk_minor, doubtful_in(self.shops, region_id)
            ),
        )

    def _risk_minor(self, offer: Offer) -> int:
        part = self.parts.get(offer.part_id)
        return 0 if part is None else risk_of(part, offer).minor

    def region(self, region_id: str) -> Region:
        if region_id not in self.regions:
            known = ", ".join(self.regions) or "none"
            raise BriefError(f"The catalogue has no region “{region_id}”: choose one of {known}.")
        return self.regions[region_id]

    def part(self, part_id: str) -> Part:
        if part_id not in self.parts:
            raise UnknownPartError(part_id)
        return self.parts[part_id]

    def game(self, game_id: str) -> Game:
        """A game as it was described; raises UnknownGameError."""
        if game_id not in self.games:
            raise UnknownGameError(game_id)
        return self.games[game_id]

    @property
    def described(self) -> "Catalogue":
        """The catalogue as it was described, before its charts moved any speed."""
        return self.raw or self

    @property
    def games_by_name(self) -> tuple[Game, ...]:
        """All games in the order of their names."""
        return self.keep.once(
            ("games by name",),
            lambda: tuple(sorted(self.games.values(), key=lambda game: game.name.casefold())),
        )

    @property
    def genres(self) -> tuple[str, ...]:
        return self.keep.once(
            ("genres",), lambda: tuple(sorted({game.genre for game in self.games.values()}))
        )

    def machine(self, build: Build) -> Machine:
        """The build with its parts looked up; raises for an unknown id or a part in the wrong
        place.
        """
        placed: dict[Kind, list[Part]] = {kind: [] for kind in ALL_KINDS}
        for kind, part_id in build.ids():
            part = self.part(part_id)
            if kind_of(part) != kind:
                raise BuildError(
                    f"“{part_id}” stands in the place of the {kind}, but it is a {kind_of(part)}:"
                    " move it."
                )
            placed[kind].append(part)
        kits = tuple(cast(list[Memory], placed["memory"]))
        single = {kind: next(iter(placed[kind]), None) for kind in KINDS if kind != "storage"}
        single["memory"] = joined(kits)
        return Machine(
            storage=tuple(placed["storage"]),  # type: ignore[arg-type]
            added=tuple(part for kind in FURTHER_KINDS for part in placed[kind]),
            kits=kits if len(kits) > 1 else (),
            second_card=cast(Graphics, placed["graphics"][1])
            if len(placed["graphics"]) > 1
            else None,
            **single,  # type: ignore[arg-type]
        )
