"""Questions that benchmarks ask, and how long an answer takes."""

import time
from dataclasses import replace

from tests.worlds import FLOORS, World
from wattmetron.cache.cache import Keeper
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.brief import Brief


def timed(work, *arguments):
    start = time.perf_counter()
    result = work(*arguments)
    return time.perf_counter() - start, result


def question(seed, per_kind, with_integrated=True):
    """A catalogue of eight times ``per_kind`` parts and a brief with six counted targets."""
    world = World(seed)
    catalogue = world.catalogue(per_kind=per_kind, games=6)
    brief = replace(
        world.brief(catalogue, targets=6, budget=160_000),
        part_cap_minor=None,
        accept_spill=False,
        reserve_percent=10,
        **dict.fromkeys(FLOORS, True),
    )
    brief = replace(
        brief,
        targets=tuple(
            replace(t, weight=max(1, t.weight), ray_tracing=t.ray_tracing and t.id == "t0")
            for t in brief.targets
        ),
    )
    if not with_integrated:
        bare = {
            key: replace(part, igpu_speed=None) if hasattr(part, "igpu_speed") else part
            for key, part in catalogue.parts.items()
        }
        catalogue = replace(catalogue, parts=bare)
        games = {key: replace(game, engine_cap_fps=None) for key, game in catalogue.games.items()}
        catalogue = replace(catalogue, games=games).kept_by(Keeper())
    return catalogue, brief


def fresh(catalogue: Catalogue, brief: Brief) -> Catalogue:
    """The catalogue with nothing kept but what a server knows before any question: prices, parts
    by kind, games as fitted.
    """
    new = catalogue.kept_by(Keeper())
    new.prices(brief.region, brief.may_buy)
    assert new.by_kind
    for target in brief.targets:
        fitted_game(new, target.game_id)
    return new
