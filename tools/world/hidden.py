"""The hidden truth behind the demo's catalogue: true speeds, true games, and the results measured
in it.

The catalogue gets what such a world publishes: speeds that are 3 % off, charts, requirement lists
and results. The truths stay here; nothing but the generator reads them.
"""

from collections.abc import Mapping
from dataclasses import fields, replace
from datetime import date, timedelta

import numpy as np

from tools.world.game_tables import WORK_FIELDS
from tools.world.tables import rows
from tools.world.truth import PRESETS, HiddenMarket, TrueGame, World
from wattmetron.core.speeds.speed_scale import Scale, Standing
from wattmetron.core.values.games import Game
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.core.values.results import Result, Results
from wattmetron.demo.true_work import SIZES, HiddenTruth, TruePart, TrueWork

SEED = 20261124
SPEED_OFF = 0.03
SOURCES = ("Harbour Lab", "Dry Dock Weekly", "Three Gulls' counter table")


def published_parts(true: Mapping[str, Part]) -> dict[str, Part]:
    """Parts as they are published: the speeds of each standing are off together."""
    draw = np.random.default_rng(SEED)
    off = {
        key: float(np.exp(draw.normal(0, SPEED_OFF))) for key in Scale(true.values(), {}).standings
    }
    of_part = Scale(true.values(), {}).of_part
    return {
        key: _moved(part, off[of_part[key]]) if key in of_part else part
        for key, part in true.items()
    }


def _moved(part: Part, factor: float) -> Part:
    names = {
        Processor: ("single_speed", "all_core_speed", "igpu_speed"),
        Graphics: ("speed_1080p", "speed_1440p", "speed_2160p", "ray_speed"),
    }[type(part)]
    speeds = {
        name: round(value * factor, 1)
        for name in names
        if (value := getattr(part, name)) is not None
    }
    return replace(part, **speeds)


def world_of(true: Mapping[str, Part], published: Mapping[str, Part]) -> World:
    """The world whose parts are the catalogue's."""
    real, shown = Scale(true.values(), {}), Scale(published.values(), {})
    chips, cards = list(shown.of("processor")), list(shown.of("graphics"))
    return World.of(
        SEED,
        HiddenMarket(
            processors=chips,
            cards=cards,
            true_c=np.array([real.standings[chip.key].speeds for chip in chips]),
            true_g=np.array([real.standings[card.key].speeds for card in cards]),
            design_c=_numbers([chip.design for chip in chips]),
            design_g=_numbers([card.design for card in cards]),
        ),
    )


def _numbers(designs: list[str]) -> np.ndarray:
    order = sorted(set(designs))
    return np.array([order.index(design) for design in designs])


def true_games(world: World, truths: Mapping[str, Game]) -> dict[str, TrueGame]:
    """Hidden games around the hand-written ones."""
    return {key: world.true_game(truths[key], c_sd=0.0) for key in sorted(truths)}


def results(world: World, games: Mapping[str, TrueGame]) -> dict[str, Results]:
    """What magazines and shops measured: pairs on sale at the time, with enough video memory."""
    counts = {row.game: row.results for row in rows("result_counts")}
    return {
        key: Results(game=key, items=tuple(_results(world, games[key], count)))
        for key, count in counts.items()
    }


def _results(world: World, true: TrueGame, count: int) -> list[Result]:
    draw = world.rng
    released = true.game.released or date(2024, 1, 1)
    results: list[Result] = []
    while len(results) < count:
        day = released + timedelta(days=int(draw.integers(5, 400)))
        p, g = int(draw.integers(len(world.processors))), int(draw.integers(len(world.cards)))
        size, preset = (
            SIZES[int(draw.choice(3, p=[0.5, 0.4, 0.1]))],
            PRESETS[int(draw.choice(4, p=[0.1, 0.2, 0.5, 0.2]))],
        )
        if not _likely(world.processors[p], world.cards[g], true.game, size, preset, day):
            continue
        result = world.result(true, p, g, size, preset, len(results) + 1)
        if true.game.engine_cap_fps and result.average_fps > 0.8 * true.game.engine_cap_fps:
            continue
        results.append(
            _rounded(result, SOURCES[int(draw.integers(len(SOURCES)))], min(day, date(2026, 11, 1)))
        )
    return results


def _likely(
    chip: Standing, card: Standing, game: Game, size: tuple[int, int], preset: str, day: date
) -> bool:
    """Whether somebody would have measured this: both still sold not long ago, neither far beyond
    the other, and the video memory enough.
    """
    lately = [
        standing.withdrawn is None or standing.withdrawn > day - timedelta(days=700)
        for standing in (chip, card)
    ]
    there = [standing.released is None or standing.released <= day for standing in (chip, card)]
    need = game.preset(preset).video_memory.at(size[0] * size[1] / 1e6)
    near = abs(np.log(chip.speeds[0] / card.speeds[0])) < 0.9
    return all(lately) and all(there) and near and (card.memory_gb or 0) >= need


def _rounded(result: Result, source: str, day: date) -> Result:
    low = None if result.low_fps is None else float(round(result.low_fps))
    return replace(
        result,
        average_fps=float(round(result.average_fps)),
        low_fps=low,
        source=source,
        measured_on=day,
    )


def hidden_truth(world: World, games: Mapping[str, TrueGame]) -> HiddenTruth:
    """What the simulated meters need of the world."""
    work = [field.name for field in fields(TrueWork)]
    sides = (
        (world.processors, world.true_c, world.design_c),
        (world.cards, world.true_g, world.design_g),
    )
    return HiddenTruth(
        games={
            key: TrueWork(**{name: getattr(game, name) for name in work})
            for key, game in games.items()
        },
        known_work={
            key: {name: getattr(game.game, name) for name in WORK_FIELDS}
            for key, game in games.items()
        },
        parts={
            standing.key: TruePart(speeds=tuple(speeds.tolist()), design=int(design))
            for standings, true_speeds, designs in sides
            for standing, speeds, design in zip(standings, true_speeds, designs, strict=True)
        },
    )
