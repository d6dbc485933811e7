"""What five own runs of one machine over three games are worth: at settings that were not measured,
and with one part changed. Part of ``make accuracy``.
"""

from collections import defaultdict

import numpy as np
from tools.world.truth import PRESETS, SIZES, World, known_game

from tests.accuracy.run import Tally, _pair, _score, tally
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.game_evidence import informed_items
from wattmetron.core.game_fit.learned_priors import as_learnt
from wattmetron.core.game_fit.learning import GameEvidence, learn
from wattmetron.core.requirements.tiers import tier_table
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.published import Assumptions

RUNS = (2, 2, 1)
"""Runs of each of the three games."""
MACHINES = 6
BEFORE, SETTINGS, PART = (
    "before any run",
    "five runs, settings that were not measured",
    "five runs, one part changed",
)
ROWS = (BEFORE, SETTINGS, PART)


def score_own_runs(seed: int) -> dict[str, Tally]:
    """Over some machines of one world, each with games of its own."""
    world = World(seed, 3 * MACHINES)
    scale = Scale.of_standings((*world.processors, *world.cards))
    found: dict[str, Tally] = defaultdict(tally)
    for n in range(MACHINES):
        _one_machine(found, world, scale, world.games[3 * n : 3 * n + 3])
    return found


def _one_machine(found, world: World, scale: Scale, games) -> None:
    p, g, *_ = world.question()
    known, measured = [], []
    for true, count in zip(games, RUNS, strict=True):
        game = known_game(true)
        table = tier_table(
            {game.id: game}, {game.id: world.published(true, True)}, scale, Assumptions()
        )
        asked = [world.question()[2:] for _ in range(count)]
        runs = [
            _pair(world, world.result(true, p, g, size, preset, at, own=True))
            for at, (size, preset) in enumerate(asked)
        ]
        known.append(GameEvidence(game, informed_items(game, table, scale, None), tuple(runs)))
        measured.append(asked)
    learnt = learn(known)
    for own, true, asked in zip(known, games, measured, strict=True):
        bare = fit_game(own.game, own.items, ())
        fit = fit_game(as_learnt(own.game, learnt), own.items, own.pairs, learnt)
        for size in SIZES:
            for preset in PRESETS:
                if (size, preset) in asked:
                    continue
                question = (p, g, size, preset)
                truth = world.rates(true, *question)
                _score(found[BEFORE], world, bare, question, truth)
                _score(found[SETTINGS], world, fit, question, truth)
        for _ in range(12):
            other_p, other_g, size, preset = world.question()
            changed = (other_p, g) if world.rng.random() < 0.5 else (p, other_g)
            question = (*changed, size, preset)
            _score(found[PART], world, fit, question, world.rates(true, *question))


def own_runs_table(worlds: list[dict[str, Tally]]) -> list[str]:
    lines = [
        "| evidence | median error, average | median error, low | side right | 80 % interval covers"
        " | bias |",
        "| --- | --- | --- | --- | --- | --- |",
    ]
    for row in ROWS:
        errors, lows, sides, inside, bias = (
            [one for world in worlds for one in getattr(world[row], name)]
            for name in ("errors", "lows", "sides", "inside", "bias")
        )
        lines.append(
            f"| {row} | {np.median(errors):.1%} | {np.median(lows):.1%} | {np.mean(sides):.1%} |"
            f" {np.mean(inside):.1%} | {np.expm1(np.median(bias)):+.1%} |"
        )
    return lines


if __name__ == "__main__":
    print("\n".join(own_runs_table([score_own_runs(1000 + n) for n in range(20)])))
