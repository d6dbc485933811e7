"""How good the estimates are in worlds of other forms: ``make abroad``.

In each world half of the games have three published results each, from which a catalogue may
learn; the other half is asked about, level after level: its requirements with the conditions
assumed, then stated, then three results of its own, then an own run.
"""

import argparse
import time
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace

import numpy as np
from tools.world.truth import PRESETS, SIZES, known_game

from tests.accuracy.forms import FORMS, Form, FormWorld
from tests.accuracy.report import write_abroad
from tests.accuracy.run import LEVELS, PLAIN, Tally, _pair, _plain, _score, tally
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.game_evidence import informed_items
from wattmetron.core.game_fit.learned_priors import as_learnt
from wattmetron.core.game_fit.learning import GameEvidence, learn
from wattmetron.core.requirements.tiers import tier_table
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.published import Assumptions


def score_form(form: Form, seed: int, games: int, questions: int) -> dict[str, Tally]:
    world = FormWorld(form, seed, games)
    scale = Scale.of_standings((*world.processors, *world.cards))
    found: dict[str, Tally] = defaultdict(tally)
    learnt = learn(
        _known(world, true, scale, n % 2 == 0) for n, true in enumerate(world.games[: games // 2])
    )
    for true in world.games[games // 2 :]:
        game = as_learnt(known_game(true), learnt)
        own = world.published(true, True)
        bare = replace(
            own,
            tiers=tuple(
                type(t)(label=t.label, processors=t.processors, graphics=t.graphics)
                for t in own.tiers
            ),
        )
        items = [
            informed_items(
                game,
                tier_table({game.id: game}, {game.id: each}, scale, Assumptions()),
                scale,
                None,
                learnt,
            )
            for each in (bare, own)
        ]
        results = [_pair(world, world.result(true, *world.question(), n)) for n in range(3)]
        run_p, run_g, run_size, run_preset = world.question()
        run = _pair(world, world.result(true, run_p, run_g, run_size, run_preset, 9, own=True))
        fits = (
            fit_game(game, items[0], (), learnt),
            fit_game(game, items[1], (), learnt),
            fit_game(game, items[1], results, learnt),
            fit_game(game, items[1], [*results, run], learnt),
        )
        _ask(world, true, fits, found, questions, (run_p, run_g, run_size, run_preset), own)
    return found


def _known(world: FormWorld, true, scale: Scale, stated: bool) -> GameEvidence:
    """A game of the half that has results: its tiers with their conditions, or without."""
    game, own = known_game(true), world.published(true, stated)
    table = tier_table({game.id: game}, {game.id: own}, scale, Assumptions())
    results = tuple(_pair(world, world.result(true, *world.question(), n)) for n in range(3))
    return GameEvidence(game, informed_items(game, table, scale, None), results)


def _ask(world, true, fits, found, questions, run, own) -> None:
    for _ in range(questions):
        question = world.question()
        truth = world.rates(true, *question)
        for level, fit in zip(LEVELS[:3], fits[:3], strict=True):
            _score(found[level], world, fit, question, truth)
        if SIZES[0][0] <= own.tiers[-1].width_px:
            _plain(found, world, own, question, truth)
    run_p, run_g, run_size, run_preset = run
    for n in range(12):
        size, preset = SIZES[n % 3], PRESETS[n // 3]
        if (size, preset) == (run_size, run_preset):
            continue
        truth = world.rates(true, run_p, run_g, size, preset)
        level = LEVELS[4] if preset == run_preset else LEVELS[3]
        _score(found[level], world, fits[3], (run_p, run_g, size, preset), truth)


def row(name: str, worlds: list[dict[str, Tally]]) -> list[str]:
    """The figures of one form, a line per level."""
    lines = []
    for level in LEVELS:
        kept = [world[level] for world in worlds]
        errors, lows = (
            [x for own in kept for x in own.errors],
            [x for own in kept for x in own.lows],
        )
        inside = np.mean([x for own in kept for x in own.inside])
        low_inside = np.mean([x for own in kept for x in own.low_inside])
        sides = np.mean([x for own in kept for x in own.sides])
        bias = np.expm1(np.median([x for own in kept for x in own.bias]))
        lines.append(
            f"| {name} | {level} | {np.median(errors):.1%} | {inside:.0%} | {bias:+.1%} |"
            f" {sides:.0%} | {np.median(lows):.1%} | {low_inside:.0%} |"
        )
    return lines


def means(by_form: dict[str, list[dict[str, Tally]]]) -> list[str]:
    """The mean over the forms, and the worst form."""
    lines = []
    for level in LEVELS:
        per = []
        for worlds in by_form.values():
            kept = [world[level] for world in worlds]
            per.append(
                (
                    np.median([x for own in kept for x in own.errors]),
                    np.mean([x for own in kept for x in own.inside]),
                    np.expm1(np.median([x for own in kept for x in own.bias])),
                    np.mean([x for own in kept for x in own.sides]),
                    np.median([x for own in kept for x in own.lows]),
                    np.mean([x for own in kept for x in own.low_inside]),
                )
            )
        table = np.array(per)
        mean = table.mean(axis=0)
        lines.append(
            f"| *mean of the forms* | {level} | {mean[0]:.1%} (worst {table[:, 0].max():.1%}) |"
            f" {mean[1]:.0%} ({table[:, 1].min():.0%}–{table[:, 1].max():.0%}) | {mean[2]:+.1%} |"
            f" {mean[3]:.0%} | {mean[4]:.1%} | {mean[5]:.0%}"
            f" ({table[:, 5].min():.0%}–{table[:, 5].max():.0%}) |"
        )
    return lines


def plain(by_form: dict[str, list[dict[str, Tally]]]) -> list[str]:
    """The plain rules from the recommended tier, each with the margin that suits the form best."""
    lines = []
    for name in PLAIN:
        errors = []
        for worlds in by_form.values():
            away = np.array([x for world in worlds for x in world[name].bias])
            errors.append(np.median(np.abs(np.expm1(away - np.median(away)))))
        lines.append(
            f"| *{name}, best margin per form* | its conditions stated | {np.mean(errors):.1%}"
            f" (worst {max(errors):.1%}) | | | | | |"
        )
    return lines


HEAD = [
    "| form | evidence | median error | 80 % covers | bias | side | low | low covers |",
    "| --- | --- | --- | --- | --- | --- | --- | --- |",
]


def main() -> None:
    parser = argparse.ArgumentParser(description="Score estimates in worlds of other forms.")
    parser.add_argument("--worlds", type=int, default=10)
    parser.add_argument("--games", type=int, default=24)
    parser.add_argument("--questions", type=int, default=60)
    parser.add_argument("--seed", type=int, default=5000)
    parser.add_argument("--processes", type=int, default=2)
    parser.add_argument("--means", action="store_true", help="the means alone")
    parser.add_argument("--write", action="store_true", help="write the document")
    options = parser.parse_args()
    start = time.perf_counter()
    with ProcessPoolExecutor(options.processes) as pool:
        asked = {
            form.name: [
                pool.submit(score_form, form, options.seed + n, options.games, options.questions)
                for n in range(options.worlds)
            ]
            for form in FORMS
        }
        by_form = {name: [own.result() for own in several] for name, several in asked.items()}
    lines = (
        [] if options.means else [line for name, own in by_form.items() for line in row(name, own)]
    )
    found = [*HEAD, *lines, *means(by_form), *plain(by_form)]
    print("\n".join(found))
    if options.write:
        setup = f"{options.worlds} worlds x {options.games} games, seeds from {options.seed}"
        write_abroad(found, setup)
    print(f"{time.perf_counter() - start:.0f} s")


if __name__ == "__main__":
    main()
