"""Small random questions with every build of them, kept for all tests that ask them."""

from dataclasses import replace
from functools import cache

from tests.core.brute import Tried, every_build
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Resale
from wattmetron.core.values.build import Build

DRAWS = 8


def dearest(found: list[Tried]) -> Tried:
    """The build that wastes most: what could keep its frames for less?"""
    return max(found, key=lambda item: (item.cost, item.order))


def ids_of(build: Build) -> tuple:
    others = (*build.of("system"), *build.of("display"), *build.of("input"))
    return (
        build.processor,
        build.graphics or "",
        build.mainboard,
        build.memory,
        build.storage,
        build.cooler or "",
        build.supply,
        build.case,
        build.of("fan") + build.of("splitter"),
        (build.of("wireless") + build.of("capture"), build.of("optical"), others),
    )


def build_of(ids: tuple) -> Build:
    return Build(
        processor=ids[0],
        graphics=ids[1] or None,
        mainboard=ids[2],
        memory=ids[3],
        storage=ids[4],
        cooler=ids[5] or None,
        supply=ids[6],
        case=ids[7],
        added=tuple(
            (part_id.split("-")[0], part_id) for own in (ids[8], *ids[9]) for part_id in own
        ),
    )


def question(seed: int):
    """A question of ``drawn``; but for every sixth it is drawn anew until something fits."""
    for again in range(DRAWS if seed % 6 else 1):
        catalogue, brief, kept = drawn(seed, again)
        if cheapest_fit(catalogue, brief, kept).build is not None:
            break
    return catalogue, brief, kept


def drawn(seed: int, again: int):
    """A small catalogue, mostly of one platform, with or without results of its games, a brief with
    or without owned parts, and perhaps a kept part.
    """
    world = World(seed + 100_000 * again)
    if seed % 4:
        world.sockets, world.types = ("Capstan",), ("DDR5",)
    catalogue = world.catalogue(per_kind=3 if seed % 3 else 4, games=2)
    if seed % 8:
        catalogue = world.eased(catalogue)
    if seed % 2:
        more = world.results(catalogue, 1 + seed % 3)
        catalogue = replace(catalogue, results=more).kept_by(Keeper())
    if seed % 3:
        lists = world.lists(list(catalogue.games.values()))
        catalogue = replace(catalogue, published=lists).kept_by(Keeper())
    brief = world.brief(catalogue, targets=int(world.rng.integers(0, 4)))
    if seed % 3 == 1:
        catalogue, brief = world.odd(catalogue, brief)
    if seed % 2 == 0:
        catalogue, brief = world.further(catalogue, brief)
    if seed % 5 == 4 or seed % 11 == 5:
        catalogue = world.newer(catalogue)
    if seed % 3 == 0:
        brief = world.roles(brief)
    if seed % 4 == 1:
        brief = world.later(catalogue, brief)
    if seed % 5 in (2, 3):
        catalogue, brief = world.besides(catalogue, brief)
    if seed % 7 == 3:
        brief = replace(brief, noise_limit_dba=(36.0, 38.0, 40.0)[seed % 3])
    ids = sorted(catalogue.parts)
    kept = Build()
    if seed % 5 < 2:
        owned = tuple(ids[int(at)] for at in world.rng.integers(len(ids), size=1 + 3 * (seed % 5)))
        brief = replace(brief, owned=owned, stays=owned[: seed % 3])
        said = tuple(Resale(part=part_id, minor=4000) for part_id in owned[1:3])
        brief = replace(brief, resale=said, counts_resale=seed % 2 == 0)
    if seed % 7 == 0:
        part = catalogue.by_kind[world.pick("processor", "graphics", "case", "storage", "cooler")][
            0
        ]
        kind = part.id.split("-")[0]
        kept = Build().with_part(kind, part.id).keeping(part.id, True)
    if seed % 12 == 2:
        catalogue, added = world.adapters(catalogue)
        kept = replace(kept, added=added)
    return catalogue, brief, kept


@cache
def known(seed: int):
    """A question with every build of it."""
    catalogue, brief, kept = question(seed)
    return catalogue, brief, kept, every_build(catalogue, brief, kept)
