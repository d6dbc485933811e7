"""Upgrade path: what to buy now and what later, so that the targets hold every year at the least
total cost, against buying everything now.

The machines that come into question: for each year the cheapest that holds every target then,
from scratch, around the first year's parts, and on the way to the last year from each before.
"""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace

from wattmetron.core.balance.upgrade_paths import Parts, best_path, cost_of_change
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.floor_violations import broken
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.proposal import propose
from wattmetron.core.search.resale import RESALE_PERCENT
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.places.assessment.assess import known_brief
from wattmetron.places.balance.years import grown, growth
from wattmetron.places.proposal.proposals import kept_parts

FALL: dict[Kind, float] = {"processor": 0.10, "graphics": 0.12}
USUAL_FALL = 0.05
"""By how much the price of a part falls in a year, or what the same money buys is faster;
assumed."""
GROWING = frozenset({"storage_gb", "memory_gb"})
"""Floors that grow with the games: a machine must reach them in later years too."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PathYear:
    """One year: what is bought and what is sold then, by name, and their amounts, minor units."""

    year: int
    build: Build
    bought: tuple[str, ...]
    sold: tuple[str, ...]
    bought_minor: int
    sold_minor: int


@dataclass(frozen=True, slots=True, kw_only=True)
class UpgradePath:
    """The way through the years; ``ends`` is the first year that nothing on sale holds, if any.

    Totals in minor units: all that is bought less all that is sold, the last machine at the end
    among it; ``at_once_minor`` is that of buying the last year's machine now.
    """

    years: tuple[PathYear, ...]
    total_minor: int
    at_once_minor: int
    ends: int | None


def upgrade_path(catalogue: Catalogue, brief: Brief, build: Build) -> UpgradePath | None:
    """The path for the brief's years around the kept parts of a build; None without years or
    targets, or where nothing holds them today.
    """
    brief = known_brief(catalogue, brief)
    if not brief.years or not brief.counted_targets:
        return None
    fixed = kept_parts(catalogue, brief, build)
    return catalogue.ask(_path, brief, fixed)


def _path(catalogue: Catalogue, brief: Brief, fixed: Build) -> UpgradePath | None:
    later = [grown(catalogue, brief, growth(brief, year)) for year in range(brief.years + 1)]
    firsts: list[Build] = []
    for world in later:
        least = _least(world, brief, fixed, ())
        if least is None:
            break
        firsts.append(least)
    if not firsts:
        return None
    builds = list(dict.fromkeys([*firsts, *_on_the_way(later, brief, fixed, firsts)]))
    holds = [_holding(world, brief, builds) for world in later[: len(firsts)]]
    prices = _Prices(catalogue, brief)
    parts = [Counter(part_id for _, part_id in build.ids()) for build in builds]
    there = Counter(brief.owned)
    path = best_path(parts, holds, prices.price, prices.used, there)
    last = builds.index(firsts[-1])
    at_once = best_path([parts[last]], [[True]] * len(firsts), prices.price, prices.used, there)
    if path is None or at_once is None:
        return None
    return UpgradePath(
        years=tuple(_years(catalogue, builds, parts, path.builds, there, prices)),
        total_minor=path.cost,
        at_once_minor=at_once.cost,
        ends=len(firsts) if len(firsts) <= brief.years else None,
    )


def _on_the_way(
    later: list[Catalogue], brief: Brief, fixed: Build, firsts: list[Build]
) -> Iterator[Build]:
    """Machines around the first year's parts for each later year, and around each year's parts for
    the last.
    """
    last = len(firsts) - 1
    pairs = {(0, year) for year in range(1, last + 1)} | {(year, last) for year in range(last)}
    for before, year in sorted(pairs):
        part_ids = tuple(part_id for _, part_id in firsts[before].ids())
        build = _least(later[year], brief, fixed, part_ids)
        if build is not None:
            yield build


def _least(world: Catalogue, brief: Brief, fixed: Build, there: tuple[str, ...]) -> Build | None:
    """The cheapest machine that holds every target where these parts are there."""
    later_brief = replace(brief, owned=(*brief.owned, *there), extras=(), preferences=())
    return propose(world, later_brief, "least money", fixed).build


def _holding(world: Catalogue, brief: Brief, builds: list[Build]) -> list[bool]:
    """Which machines meet every counted target in a year and lack no memory or room."""
    machines = [machine_of(world, build, brief.clocks) for build in builds]
    floors = floors_of(world, brief).with_owned(brief.owned)
    does = [not broken(machine, floors) & GROWING for machine in machines]
    lineup, curves = Lineup(machines), curves_of(world.keep)
    for target in brief.counted_targets:
        game = fitted_game(world, target.game_id)
        states = glance(lineup, game, target, brief, curves, with_ratio=True).states
        does = [meets and state == "meets" for meets, state in zip(does, states, strict=True)]
    return does


class _Prices:
    """What parts cost new in a year, and what they sell for used."""

    def __init__(self, catalogue: Catalogue, brief: Brief) -> None:
        self._catalogue, self._outside = catalogue, brief.outside
        self._book = catalogue.prices(brief.region, brief.may_buy)

    def price(self, year: int, part_id: str) -> int:
        kind = kind_of(self._catalogue.part(part_id))
        if kind in self._outside:
            return 0
        today = self._book.cost(part_id) or 0
        return round(today * (1 - FALL.get(kind, USUAL_FALL)) ** year)

    def used(self, year: int, part_id: str) -> int:
        return self.price(year, part_id) * RESALE_PERCENT // 100


def _years(
    catalogue: Catalogue,
    builds: list[Build],
    parts: list[Parts],
    way: tuple[int, ...],
    there: Parts,
    prices: _Prices,
) -> Iterator[PathYear]:
    had = there
    for year, n in enumerate(way):
        come, gone = parts[n] - had, had - parts[n]
        nothing: Parts = Counter()
        yield PathYear(
            year=year,
            build=builds[n],
            bought=_names(catalogue, come),
            sold=_names(catalogue, gone),
            bought_minor=cost_of_change(year, nothing, come, prices.price, prices.used),
            sold_minor=-cost_of_change(year, gone, nothing, prices.price, prices.used),
        )
        had = parts[n]


def _names(catalogue: Catalogue, parts: Parts) -> tuple[str, ...]:
    return tuple(catalogue.part(part_id).name for part_id in parts.elements())
