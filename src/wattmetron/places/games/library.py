"""Games against a machine: the list with filters, one game in full, a brief's games together."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.caps import most_shown
from wattmetron.core.game_fit.informed import Informed, informed_game, learnt_of
from wattmetron.core.requirements.agreement import Doubt, doubts_of
from wattmetron.core.requirements.tiers import pixel_factor, tiers_of
from wattmetron.core.requirements.verdicts import (
    UNKNOWN,
    UNSURE,
    AspectVerdict,
    Contender,
    Standings,
    TierVerdict,
    asked_amounts,
    highest_met,
    standings,
    storage_needed_gb,
    tier_verdicts,
)
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.published import Published, Settled, Tier
from wattmetron.words.tier_words import tier_label

Demand = Literal["light", "medium", "heavy"]
DEMANDS: dict[Demand, tuple[float, float]] = {
    "light": (0, 45),
    "medium": (45, 85),
    "heavy": (85, np.inf),
}
"""By the graphics speed, in points, that the recommended tier asks for."""
Sort = Literal["name", "released", "processor", "graphics", "storage"]
SORTS: tuple[Sort, ...] = ("name", "released", "processor", "graphics", "storage")
MET_CHOICES = ("any tier", "the recommended tier", "no tier")
PAGE_SIZE = 40
LACKING = ("short", "unsure", "not known")
NOT_COUNTED = (("not known", "operating system"), ("not known", "graphics API"))
"""What is not known of a machine and does not count against a tier."""


@dataclass(frozen=True, slots=True, kw_only=True)
class GameRow:
    """A game in the list: the speeds that its recommended tier asks for, and how far the machine
    reaches.
    """

    game: Game
    processor_points: float | None
    graphics_points: float | None
    demand: Demand
    tiers: int
    reached: str
    short: str
    doubts: int


@dataclass(frozen=True, slots=True, kw_only=True)
class GameList:
    """A page of the list."""

    rows: tuple[GameRow, ...]
    count: int
    page: int
    pages: int
    genres: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Question:
    """What is asked of the list."""

    words: str = ""
    genre: str = ""
    demand: str = ""
    met: str = ""
    sort: str = "name"
    page: int = 1


def judged(catalogue: Catalogue, contender: Contender | None, sureness: float) -> Standings | None:
    """A machine's verdicts over all tiers of the catalogue."""
    return (
        None
        if contender is None
        else standings(tiers_of(catalogue), asked_amounts(catalogue), contender, sureness)
    )


def list_games(catalogue: Catalogue, question: Question, standings: Standings | None) -> GameList:
    """The games that answer a question, one page of them."""
    words = question.words.casefold().split()
    games = [
        game
        for game in catalogue.games_by_name
        if (not words or all(word in f"{game.name} {game.genre}".casefold() for word in words))
        and (not question.genre or game.genre == question.genre)
        and (not question.demand or demand_of(catalogue, game) == question.demand)
        and (
            not question.met
            or standings is None
            or _met(catalogue, standings, game.id, question.met)
        )
    ]
    if question.sort != "name":
        games.sort(key=lambda game: _order(catalogue, game, question.sort))
    pages = max(1, -(-len(games) // PAGE_SIZE))
    page = min(max(1, question.page), pages)
    shown = games[(page - 1) * PAGE_SIZE : page * PAGE_SIZE]
    rows = tuple(_row(catalogue, game, standings) for game in shown)
    return GameList(rows=rows, count=len(games), page=page, pages=pages, genres=catalogue.genres)


def _order(catalogue: Catalogue, game: Game, sort: str) -> float:
    """The newest or the most first; games come in the order of their names."""
    if sort == "released":
        return -(game.released.toordinal() if game.released else 0)
    if sort == "storage":
        return -game.storage_gb
    return -(asked_points(catalogue, game)[0 if sort == "processor" else 1] or 0)


def recommended_row(catalogue: Catalogue, game_id: str) -> int | None:
    """The row of the recommended tier, else of the last one."""
    rows = tiers_of(catalogue).of_game(game_id)
    for row in rows:
        if tiers_of(catalogue).rows[row].settled.role == "recommended":
            return row
    return rows[-1] if len(rows) else None


def asked_points(catalogue: Catalogue, game: Game) -> tuple[float | None, float | None]:
    """The bars of the recommended tier in points; None where nothing is placed."""
    row = recommended_row(catalogue, game.id)
    if row is None:
        return None, None
    bars = [float(tiers_of(catalogue).sides[side].bar[row]) for side in ("processor", "graphics")]
    first, second = (None if np.isnan(bar) else float(np.exp(bar)) for bar in bars)
    return first, second


def demand_of(catalogue: Catalogue, game: Game) -> Demand:
    """How much graphics the recommended tier asks for; without tiers, what 60 fps at 1920x1080,
    high takes.
    """
    points = asked_points(catalogue, game)[1]
    if points is None:
        points = 100 * game.graphics_ms / (1000 / 60 * float(np.exp(-learnt_of(catalogue).margin)))
    return next(word for word, (low, high) in DEMANDS.items() if low <= points < high)


def _met(catalogue: Catalogue, standings: Standings, game_id: str, met: str) -> bool:
    best = highest_met(tiers_of(catalogue), standings, game_id)
    if met == "no tier":
        return best is None and len(tiers_of(catalogue).of_game(game_id)) > 0
    if met == "the recommended tier":
        wanted = recommended_row(catalogue, game_id)
        return best is not None and wanted is not None and best >= wanted
    return best is not None


def _row(catalogue: Catalogue, game: Game, standings: Standings | None) -> GameRow:
    processor, graphics = asked_points(catalogue, game)
    reached, short = reach_words(catalogue, standings, game.id)
    count = len(tiers_of(catalogue).of_game(game.id))
    return GameRow(
        game=game,
        processor_points=processor,
        graphics_points=graphics,
        demand=demand_of(catalogue, game),
        tiers=count,
        reached=reached,
        short=short,
        doubts=len(doubts_of(catalogue, game.id)),
    )


def reach_words(catalogue: Catalogue, standings: Standings | None, game_id: str) -> tuple[str, str]:
    """The highest tier met, and what the next one is short of: ``("Minimum", "Recommended: graphics
    0.82")``.
    """
    table = tiers_of(catalogue)
    rows = table.of_game(game_id)
    if standings is None or not len(rows):
        return "", ""
    best = highest_met(table, standings, game_id)
    reached = (
        "no tier"
        if best is None
        else tier_label(table.rows[best].tier.label, table.rows[best].position)
    )
    if best is None and standings.overall[rows.start] in (UNSURE, UNKNOWN):
        word = "unsure of" if standings.overall[rows.start] == UNSURE else "not known:"
        reached = f"{word} {tier_label(table.rows[rows.start].tier.label, 0)}"
    beyond = rows.start if best is None else best + 1
    if beyond >= rows.stop:
        return reached, "all tiers met"
    verdict = tier_verdicts(table, standings, Contender(), game_id)[beyond - rows.start]
    lacks = [
        _lack(aspect, verdict.tier)
        for aspect in verdict.aspects
        if aspect.word in LACKING and (aspect.word, aspect.aspect) not in NOT_COUNTED
    ]
    return reached, f"{tier_label(verdict.tier.label, beyond - rows.start)}: {', '.join(lacks[:2])}"


def _lack(aspect: AspectVerdict, tier: Tier) -> str:
    """What a tier lacks: by how much, or which kind, or that it is not known."""
    if aspect.word == "not known":
        return f"{aspect.aspect} not known"
    if aspect.aspect == "storage" and aspect.ratio is None:
        return f"asks for an {tier.storage_kind}"
    figure = "" if aspect.ratio is None else f" {aspect.ratio:.2f}"
    return f"{aspect.aspect}{figure}{' unsure' if aspect.word == 'unsure' else ''}"


@dataclass(frozen=True, kw_only=True)
class GameFacts:
    """One game in full."""

    game: Game
    informed: Informed
    published: Published | None
    settled: tuple[Settled, ...]
    rows: range
    verdicts: tuple[TierVerdict, ...]
    doubts: tuple[Doubt, ...]
    contender: Contender | None


def game_facts(
    catalogue: Catalogue, game_id: str, contender: Contender | None, sureness: float
) -> GameFacts:
    """Everything about a game, measured against a machine where there is one; raises
    UnknownGameError.
    """
    informed = informed_game(catalogue, game_id)
    table = tiers_of(catalogue)
    rows = table.of_game(game_id)
    standings = judged(catalogue, contender, sureness)
    verdicts = (
        ()
        if standings is None or contender is None
        else tier_verdicts(table, standings, contender, game_id)
    )
    return GameFacts(
        game=informed.game,
        informed=informed,
        published=catalogue.published.get(game_id),
        settled=tuple(table.rows[row].settled for row in rows),
        rows=rows,
        verdicts=verdicts,
        doubts=doubts_of(catalogue, game_id),
        contender=contender,
    )


@dataclass(frozen=True, slots=True)
class StorageSum:
    """Storage of a brief's games together, with a fifth kept free, in GB; ``had_gb`` is the
    machine's.
    """

    games: tuple[tuple[str, float], ...]
    needed_gb: float
    had_gb: float | None


def storage_together(catalogue: Catalogue, brief: Brief, had_gb: float | None) -> StorageSum:
    """What all games of a brief take: the most that a tier says, else what the game's file says."""
    ids = dict.fromkeys(
        target.game_id for target in brief.targets if target.game_id in catalogue.games
    )
    sizes = tuple(
        (catalogue.games[part_id].name, storage_of(catalogue, part_id)) for part_id in ids
    )
    return StorageSum(sizes, storage_needed_gb([size for _, size in sizes]), had_gb)


def storage_of(catalogue: Catalogue, game_id: str) -> float:
    requirements = catalogue.published.get(game_id)
    stated = (
        [tier.storage_gb for tier in requirements.tiers if tier.storage_gb is not None]
        if requirements
        else []
    )
    return max(stated, default=catalogue.games[game_id].storage_gb)


# --- targets and tiers
# --------------------------------------------------------------------------------


LEVEL = float(np.log(1.08))
"""Loads closer than 8 % are called alike."""


def tier_of_target(catalogue: Catalogue, target: Target) -> str:
    """Where a target stands among its game's tiers by the load that it puts on graphics and
    processor; says so where a tier's conditions are assumed.
    """
    if target.game_id not in catalogue.games:
        return ""
    game = catalogue.games[target.game_id]
    rows = [tiers_of(catalogue).rows[row] for row in tiers_of(catalogue).of_game(target.game_id)]
    if not rows:
        return ""
    scale = target.scale if target.upscaling else 1.0
    drawn_fps = target.fps / most_shown(game, target)
    target_load = _load(game, target.preset, target.shown_mpx * scale**2, drawn_fps)
    loads = []
    for row in rows:
        shrink = catalogue.assumptions.upscaling_scale**2 if row.settled.upscaling else 1.0
        load = _load(game, row.settled.preset, row.settled.shown_mpx * shrink, row.settled.fps)
        loads.append(
            (
                load,
                tier_label(row.tier.label, row.position),
                bool(row.settled.assumed),
                row.settled.ray_tracing,
            )
        )
    loads = [each_load for each_load in loads if each_load[3] == target.ray_tracing] or loads
    same = [each_load for each_load in loads if abs(each_load[0] - target_load) <= LEVEL]
    below, above = (
        [each_load for each_load in loads if each_load[0] < target_load],
        [each_load for each_load in loads if each_load[0] > target_load],
    )
    if same:
        words, used = f"as {same[0][1]}", same[:1]
    elif below and above:
        words, used = f"between {below[-1][1]} and {above[0][1]}", [below[-1], above[0]]
    else:
        words, used = (
            (f"below {above[0][1]}", above[:1]) if above else (f"above {below[-1][1]}", below[-1:])
        )
    return words + (" (assumed)" if any(bar[2] for bar in used) else "")


def _load(game: Game, preset: str, mpx: float, fps: float) -> float:
    """ln of graphics work per second, and half of the processor's."""
    load = game.preset(preset)  # type: ignore[arg-type]
    graphics = np.log(load.graphics_factor * pixel_factor(game, mpx) * fps)
    return float(graphics + 0.5 * np.log(load.processor_factor * fps))


def known_games(catalogue: Catalogue, game_ids: Iterable[str]) -> list[str]:
    """The ids in order, each once; raises UnknownGameError for one that the catalogue lacks."""
    return [
        catalogue.games[fromkey].id if fromkey in catalogue.games else catalogue.game(fromkey).id
        for fromkey in dict.fromkeys(game_ids)
    ]


def tier_targets(catalogue: Catalogue, game_id: str) -> list[tuple[int, str]]:
    """A game's tiers as ready-made targets: place, and conditions in words with those assumed
    marked.
    """
    targets = []
    for row in tiers_of(catalogue).of_game(game_id):
        each_row = tiers_of(catalogue).rows[row]
        settled = each_row.settled
        words = f"{settled.width_px}x{settled.height_px}, {settled.preset}, {settled.fps:g} fps"
        words += ", ray tracing" if settled.ray_tracing else ""
        assumed = f" ({', '.join(sorted(settled.assumed))} assumed)" if settled.assumed else ""
        targets.append(
            (
                each_row.position,
                f"{tier_label(each_row.tier.label, each_row.position)}: {words}{assumed}",
            )
        )
    return targets
