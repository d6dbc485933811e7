"""How good the estimates are, scored over worlds whose truth is known: ``make accuracy``.

Every world hides its truth from the estimator; levels of evidence are added one by one. The
questions: a processor at random, a card among the two thirds nearest to it in speed, 1920x1080 to
3840x2160 in the shares 50, 35 and 15 %, presets low to ultra in the shares 15, 20, 45 and 20 %; at
the levels with own runs, the run's own machine.
"""

import argparse
import time
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from tools.world.truth import PRESETS, SIZES, World, known_game

from tests.accuracy.report import plots, write
from wattmetron.core.frames import chance, frame_rates, work
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.core.game_fit.game_evidence import informed_items
from wattmetron.core.game_fit.residuals import Pair
from wattmetron.core.requirements.tiers import tier_table
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.brief import Target
from wattmetron.core.values.published import Assumptions
from wattmetron.core.values.results import Result

LEVELS = (
    "requirements, conditions assumed",
    "requirements, conditions stated",
    "and three results",
    "and an own run, same machine, other settings",
    "the same at the run's own preset",
)
PLAIN = (
    "ratio of graphics speeds",
    "lesser of both ratios",
    "lesser ratio with pixels and presets",
)
Z80 = 1.2816


@dataclass
class Tally:
    """What one level scored in one world."""

    errors: list
    lows: list
    inside: list
    low_inside: list
    sides: list
    bias: list
    promised: list


def tally() -> Tally:
    return Tally([], [], [], [], [], [], [])


def score_world(seed: int, games: int, questions: int) -> dict[str, Tally]:
    world = World(seed, games)
    scale = Scale.of_standings((*world.processors, *world.cards))
    found: dict[str, Tally] = defaultdict(tally)
    for true in world.games:
        game = known_game(true)
        published = {True: world.published(true, True), False: None}
        published[False] = published[True].__class__(
            game=game.id,
            tiers=tuple(
                type(t)(label=t.label, processors=t.processors, graphics=t.graphics)
                for t in published[True].tiers
            ),
        )
        items = {}
        for stated, own in published.items():
            table = tier_table({game.id: game}, {game.id: own}, scale, Assumptions())
            items[stated] = informed_items(game, table, scale, None)
        asked = [world.question() for _ in range(questions)]
        results = [_pair(world, world.result(true, *world.question(), n)) for n in range(3)]
        run_p, run_g, run_size, run_preset = world.question()
        run = _pair(world, world.result(true, run_p, run_g, run_size, run_preset, 9, own=True))
        fits = (
            fit_game(game, items[False], ()),
            fit_game(game, items[True], ()),
            fit_game(game, items[True], results),
            fit_game(game, items[True], [*results, run]),
        )
        for p, g, size, preset in asked:
            truth = world.rates(true, p, g, size, preset)
            for level, fit in zip(LEVELS[:3], fits[:3], strict=True):
                _score(found[level], world, fit, (p, g, size, preset), truth)
            _plain(found, world, published[True], (p, g, size, preset), truth)
        for n in range(questions // 4):
            size, preset = SIZES[n % 3], PRESETS[(n // 3) % 4]
            if (size, preset) != (run_size, run_preset):
                truth = world.rates(true, run_p, run_g, size, preset)
                _score(found[LEVELS[3]], world, fits[3], (run_p, run_g, size, preset), truth)
        for size in SIZES:
            if size != run_size:
                truth = world.rates(true, run_p, run_g, size, run_preset)
                _score(found[LEVELS[4]], world, fits[3], (run_p, run_g, size, run_preset), truth)
    return found


def _pair(world: World, result: Result) -> Pair:
    p, g = int(result.processor[1:]), int(result.graphics[1:].partition("@")[0])
    return Pair(result, world.processors[p], world.cards[g])


def _score(kept: Tally, world: World, fit, question, truth) -> None:
    p, g, size, preset = question
    target = Target(
        id="q", game_id=fit.game.id, width_px=size[0], height_px=size[1], preset=preset, fps=60.0
    )
    kept.low_inside.append(
        0.1 <= _at_low(world, fit, replace(target, measure="low"), p, g, truth) <= 0.9
    )
    chip, card = world.processors[p], world.cards[g]
    known = [fit.game.affinity(item.side, item.key, item.design) for item in (chip, card)]
    load = work.workload(fit.game, target, work.PLAIN, *known, chip.threads)
    made = work.graphics_work(load, [card.speeds], np.nan, np.inf, 1.0)
    t_c, t_g = float(work.processor_ms(load, *chip.speeds)), float(made.total_ms[0])
    sd_c, sd_g = (
        float(work.processor_sd(load, chip.sd)),
        float(work.graphics_sd(work.unsure(load), made, card.sd, 0.0)[0]),
    )
    v_c, v_g = load.v_c, load.v_g
    average, low = (
        1000 / float(frame_rates.mean_ms(t_c, t_g, v_c, v_g)),
        1000 / float(frame_rates.low_ms(t_c, t_g, v_c, v_g)),
    )
    line = chance.curve(round(v_c, 3), round(v_g, 3), "average")
    spread = (np.log(t_c), sd_c, np.log(t_g), sd_g)
    at_truth = float(chance.chance_within(line, *spread, np.log(1000 / truth[0]), load.side_cov))
    kept.errors.append(abs(average / truth[0] - 1))
    kept.lows.append(abs(low / truth[1] - 1))
    kept.inside.append(0.1 <= at_truth <= 0.9)
    kept.bias.append(np.log(average / truth[0]))
    kept.promised.append(at_truth)
    share = float(frame_rates.processor_share(t_c, t_g, v_c, v_g))
    if truth[2] > 0.6 or truth[2] < 0.4:
        kept.sides.append((share > 0.5) == (truth[2] > 0.5))


def _at_low(world: World, fit, target: Target, p: int, g: int, truth) -> float:
    """The chance that is said of reaching the low that is true."""
    chip, card = world.processors[p], world.cards[g]
    known = [fit.game.affinity(item.side, item.key, item.design) for item in (chip, card)]
    load = work.workload(fit.game, target, work.PLAIN, *known, chip.threads)
    made = work.graphics_work(load, [card.speeds], np.nan, np.inf, 1.0)
    t_c, t_g = float(work.processor_ms(load, *chip.speeds)), float(made.total_ms[0])
    spread = (
        np.log(t_c),
        float(work.processor_sd(load, chip.sd)),
        np.log(t_g),
        float(work.graphics_sd(work.unsure(load), made, card.sd, 0.0)[0]),
    )
    line = chance.curve(round(load.v_c, 3), round(load.v_g, 3), "low")
    return float(chance.chance_within(line, *spread, np.log(1000 / truth[1]), load.side_cov))


def _plain(found, world: World, published, question, truth) -> None:
    """What a person would reckon from the recommended tier alone."""
    p, g, size, preset = question
    tier = published.tiers[-1]
    base_p, base_g = (
        int(tier.processors[0].part[1:]),
        int(tier.graphics[0].part[1:].partition("@")[0]),
    )
    by_g = world.cards[g].speeds[0] / world.cards[base_g].speeds[0]
    by_c = world.processors[p].speeds[0] / world.processors[base_p].speeds[0]
    pixels = (tier.width_px * tier.height_px) / (size[0] * size[1])
    usual = {"low": 2.0, "medium": 1.4, "high": 1.0, "ultra": 0.76}
    settings = pixels**0.8 * usual[preset] / usual[tier.preset]
    for name, value in zip(PLAIN, (by_g, min(by_g, by_c), min(by_g * settings, by_c)), strict=True):
        found[name].errors.append(abs(tier.fps * value / truth[0] - 1))
        found[name].bias.append(np.log(tier.fps * value / truth[0]))


def main() -> None:
    parser = argparse.ArgumentParser(
        description="Score estimates against worlds whose truth is known."
    )
    parser.add_argument("--worlds", type=int, default=20)
    parser.add_argument("--games", type=int, default=24)
    parser.add_argument("--questions", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1000)
    parser.add_argument("--processes", type=int, default=2)
    parser.add_argument("--write", action="store_true", help="write docs/accuracy.md and its plot")
    options = parser.parse_args()
    from tests.accuracy.own_runs import own_runs_table, score_own_runs

    start = time.perf_counter()
    with ProcessPoolExecutor(options.processes) as pool:
        asked = [
            pool.submit(score_world, options.seed + n, options.games, options.questions)
            for n in range(options.worlds)
        ]
        of_runs = [pool.submit(score_own_runs, options.seed + n) for n in range(options.worlds)]
        worlds = [item.result() for item in asked]
        own = own_runs_table([item.result() for item in of_runs])
    lines, sure = table(worlds), reliability(worlds)
    setup = (
        f"The table below: {options.worlds} worlds x {options.games} games x {options.questions}"
        f" questions, seeds from {options.seed}."
    )
    print(
        "\n".join([*lines, "", *sure, "", *own, "", setup, f"{time.perf_counter() - start:.0f} s"])
    )
    if options.write:
        gathered = [
            (
                level,
                [p for world in worlds for p in world[level].promised],
                [e for world in worlds for e in world[level].errors],
            )
            for level in LEVELS
        ]
        write(lines, sure, plots(gathered), setup, own)


def reliability(worlds: list[dict[str, Tally]]) -> list[str]:
    """Of the targets at a chance that was said, the share met, per level."""
    chances = (0.05, 0.2, 0.35, 0.5, 0.65, 0.8, 0.95)
    lines = [
        "| evidence | " + " | ".join(f"said {chance:.0%}" for chance in chances) + " |",
        "| --- |" + " --- |" * len(chances),
    ]
    for level in LEVELS:
        promised = np.sort([item for world in worlds for item in world[level].promised])
        shares = np.searchsorted(promised, chances, side="right") / promised.size
        lines.append(f"| {level} | " + " | ".join(f"{share:.0%}" for share in shares) + " |")
    return lines


def table(worlds: list[dict[str, Tally]]) -> list[str]:
    lines = [
        (
            "| evidence | median error, average | over worlds | median error, low | side right | 80"
            " % interval covers | bias |"
        ),
        "| --- | --- | --- | --- | --- | --- | --- |",
    ]
    for level in LEVELS:
        errors = [problem for world in worlds for problem in world[level].errors]
        per_world = [np.median(world[level].errors) for world in worlds]
        lows = [low for world in worlds for low in world[level].lows]
        sides = [side for world in worlds for side in world[level].sides]
        inside = [item for world in worlds for item in world[level].inside]
        bias = [bia for world in worlds for bia in world[level].bias]
        lines.append(
            f"| {level} | {np.median(errors):.1%} | {min(per_world):.1%}–{max(per_world):.1%} |"
            f" {np.median(lows):.1%} | {np.mean(sides):.1%} | {np.mean(inside):.1%} |"
            f" {np.expm1(np.median(bias)):+.1%} |"
        )
    for name in PLAIN:
        errors = [problem for world in worlds for problem in world[name].errors]
        lines.append(f"| *{name}* | {np.median(errors):.1%} | | | | | |")
    return lines


if __name__ == "__main__":
    main()
