"""Speed of the fit of a game, of whole grids, and of the settings grid."""

import resource
import statistics
import time

import numpy as np
from tools.world.truth import World, known_game

from tests.accuracy.run import _pair
from tests.demo import loft, loft_build, settled
from wattmetron.cache.cache import Keeper
from wattmetron.core.frames.rate_table import frame_ms, reliable_table
from wattmetron.core.frames.settings_grid import settings_grid
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.game_evidence import informed_items
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.game_fit.learning import GameEvidence, learn
from wattmetron.core.keep import NOTHING_KEPT
from wattmetron.core.requirements.tiers import tier_table
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.published import Assumptions


def fits():
    world = World(5, 4)
    for count in (3, 50):
        took = []
        for true in world.games:
            pairs = [_pair(world, world.result(true, *world.question(), n)) for n in range(count)]
            start = time.perf_counter()
            fit_game(known_game(true), (), pairs)
            took.append(time.perf_counter() - start)
        print(
            f"\nfit of one game to {count} results: median {1000 * statistics.median(took):.0f} ms"
        )
    took = []
    world, brief = settled(), loft()
    machine = world.machine(loft_build())
    for target in brief.targets:
        game = fitted_game(world, target.game_id)
        settings_grid(machine, game, target, brief)
        start = time.perf_counter()
        cells = len(settings_grid(machine, game, target, brief).cells)
        took.append((time.perf_counter() - start, cells))
    print(
        f"settings grid: median {1000 * statistics.median(item for item, _ in took):.0f} ms,"
        " largest"
        f" {1000 * max(took)[0]:.0f} ms ({max(took)[1]} cells)"
    )
    whole_grids()
    learning()


def learning(games=667):
    """What 667 games with 2,000 results teach, and one more result."""
    world = World(7, games)
    scale = Scale.of_standings((*world.processors, *world.cards))
    known = []
    for true in world.games:
        game = known_game(true)
        own = {game.id: world.published(true, True)}
        items = informed_items(
            game, tier_table({game.id: game}, own, scale, Assumptions()), scale, None
        )
        pairs = tuple(_pair(world, world.result(true, *world.question(), n)) for n in range(3))
        known.append(GameEvidence(game, items, pairs))
    keeper = Keeper()
    start = time.perf_counter()
    learn(known, keeper)
    first = time.perf_counter() - start
    more = _pair(world, world.result(world.games[0], *world.question(), 9))
    known[0] = known[0]._replace(pairs=(*known[0].pairs, more))
    start = time.perf_counter()
    learn(known, keeper)
    again = time.perf_counter() - start
    print(
        f"what {games} games with {3 * games:,} results teach: {first:.1f} s; one more result:"
        f" {1000 * again:.0f} ms"
    )


def whole_grids(processors=250, cards=800, targets=10):
    """Averages, lows and chances of every pairing for ten targets."""
    rng = np.random.default_rng(1)
    took = {"averages": 0.0, "lows": 0.0, "reliable rates": 0.0}
    for _ in range(targets):
        v_c, v_g = rng.uniform(0.1, 0.25), rng.uniform(0.05, 0.12)
        t_c = np.repeat(np.exp(rng.uniform(np.log(4), np.log(20), processors)), cards)
        t_g = np.tile(np.exp(rng.uniform(np.log(4), np.log(30), cards)), processors)
        sd_c, sd_g = np.full(t_c.size, 0.08), np.full(t_c.size, 0.09)
        table = reliable_table(NOTHING_KEPT, v_c, v_g, "average", 0.8, False)
        for name, work, figures in (
            ("averages", frame_ms, (t_c, t_g, v_c, v_g, "average")),
            ("lows", frame_ms, (t_c, t_g, v_c, v_g, "low")),
            (
                "reliable rates",
                table.ln_quantile,
                (np.log(t_c), sd_c, np.log(t_g), sd_g, np.full(t_c.size, -0.002)),
            ),
        ):
            start = time.perf_counter()
            work(*figures)
            took[name] += time.perf_counter() - start
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000
    words = ", ".join(f"{name} {seconds:.2f} s" for name, seconds in took.items())
    print(
        f"{processors} x {cards} pairings x {targets} targets: {words}; peak of the process"
        f" {peak:.0f} MB"
    )


if __name__ == "__main__":
    fits()
