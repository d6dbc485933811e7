"""Library coverage: how many of the catalogue's games a machine runs at a rate, and what so much
money runs.
"""

from dataclasses import dataclass

from wattmetron.core.balance.game_coverage import SIZES, Coverage, coverage, game_arrays
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.games import PRESETS, Game, PresetName
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance import tables

USUAL_FPS = 60.0
LEAST_FPS, MOST_FPS = 1.0, 1000.0
MOST_MINOR = 10_000_000
TOLD: PresetName = "high"
"""The preset of the sentence."""
SHARES = (1.05, 1.25, 1.5, 1.75, 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.5, 8.0)
"""Budgets of the table by money, in shares of the least that a machine costs."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CoverCell:
    """A resolution and preset: the games that reach the rate and those that do not, each with its
    mean frame rate.
    """

    size: str
    preset: PresetName
    reached: tuple[tuple[str, float], ...]
    missed: tuple[tuple[str, float], ...]

    @property
    def games(self) -> int:
        return len(self.reached) + len(self.missed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Cover:
    """A row of cells for each preset, a cell for each resolution, and one sentence."""

    fps: float
    genre: str
    rows: tuple[tuple[CoverCell, ...], ...]
    words: str

    def cell(self, name: str) -> CoverCell | None:
        """The cell of such a name as ``2560x1440 high``."""
        cells = (cell for row in self.rows for cell in row)
        return next((cell for cell in cells if f"{cell.size} {cell.preset}" == name), None)


def rate_of(typed: str) -> float:
    """A frame rate as typed, the usual one for nothing; raises BriefError for what is none."""
    try:
        return float(typed.replace(",", ".")) if typed else USUAL_FPS
    except ValueError as problem:
        raise BriefError(
            f"“{typed}” is no frame rate: enter a number of frames per second."
        ) from problem


def genres_of(catalogue: Catalogue) -> tuple[str, ...]:
    return tuple(sorted({game.genre for game in catalogue.games.values()}))


def cover(
    catalogue: Catalogue, brief: Brief, machine: Machine, fps: float = USUAL_FPS, genre: str = ""
) -> Cover | None:
    """What a machine runs with the brief's sureness; None where it does not run.

    Raises BriefError for a rate out of bounds and for a shelf without games.
    """
    if not LEAST_FPS <= fps <= MOST_FPS:
        raise BriefError(
            f"The frame rate of the coverage must lie within {LEAST_FPS:g}–{MOST_FPS:g} fps: enter"
            " such a number."
        )
    games = shelf(catalogue, genre)
    if not games:
        kind = f" of the genre “{genre}”" if genre else ""
        raise BriefError(f"The catalogue has no games{kind}: choose another shelf.")
    arrays = catalogue.keep.once(("game arrays", genre), lambda: game_arrays(games))
    covered = coverage(machine, games, arrays)
    return None if covered is None else _cover(covered, games, brief, fps, genre)


def shelf(catalogue: Catalogue, genre: str) -> tuple[Game, ...]:
    """The games of a genre, or all, as their evidence leaves them, by name."""
    games = [game for game in catalogue.games.values() if not genre or game.genre == genre]
    return tuple(
        fitted_game(catalogue, each_game.id)
        for each_game in sorted(games, key=lambda game: game.name)
    )


def _cover(
    covered: Coverage, games: tuple[Game, ...], brief: Brief, fps: float, genre: str
) -> Cover:
    reached = covered.reached(fps, brief.chance)

    def cell(size: int, preset: int) -> CoverCell:
        rates = [(game.name, float(covered.fps[n, size, preset])) for n, game in enumerate(games)]
        does = reached[:, size, preset].tolist()
        return CoverCell(
            size=f"{SIZES[size][0]}x{SIZES[size][1]}",
            preset=PRESETS[preset],
            reached=tuple(rate for rate, ok in zip(rates, does, strict=True) if ok),
            missed=tuple(rate for rate, ok in zip(rates, does, strict=True) if not ok),
        )

    rows = tuple(
        tuple(cell(size, preset) for size in range(len(SIZES))) for preset in range(len(PRESETS))
    )
    return Cover(fps=fps, genre=genre, rows=rows, words=_words(rows, brief, fps))


def _words(rows: tuple[tuple[CoverCell, ...], ...], brief: Brief, fps: float) -> str:
    """``Of 26 games on high, 60 fps are reached by all at 1920x1080 and 4 at 3840x2160.``"""
    cover_cells = rows[PRESETS.index(TOLD)]
    parts = [f"{_how_many(cell)} at {cell.size}" for cell in cover_cells]
    return (
        f"Of {cover_cells[0].games} games on {TOLD}, {fps:g} fps are reached by {listed(parts)}:"
        f" {brief.sureness} ({brief.chance:.0%})."
    ).replace("%", "\u202f%")


def _how_many(cell: CoverCell) -> str:
    count = len(cell.reached)
    if count in (0, cell.games):
        return "all" if count else "none"
    return f"most ({count})" if 2 * count > cell.games else str(count)


@dataclass(frozen=True, slots=True)
class MoneyRow:
    """A budget in whole units, the build that it buys, and how many games it runs on high at each
    resolution.
    """

    budget: int
    assessment: Assessment
    cells: tuple[CoverCell, ...]


def what_money_runs(
    catalogue: Catalogue, region: str, fps: float = USUAL_FPS
) -> tuple[MoneyRow, ...]:
    """For round budgets the best build of a neutral brief; budgets that buy no machine are left
    out, and those that buy the same as a smaller one.
    """
    brief = neutral(catalogue, region)
    all_tables = tables(catalogue, brief, Build())
    rows: list[MoneyRow] = []
    steps = all_tables.frontier.steps
    for share in SHARES if steps else ():
        budget = _round(steps[0].cost * share / 100)
        step = all_tables.answer(budget * 100)
        if step is None:
            continue
        now = assess(catalogue, brief, all_tables.build_at(step))
        covered = cover(catalogue, brief, now.machine, fps)
        if covered is not None and not (rows and rows[-1].assessment.build == now.build):
            rows.append(MoneyRow(budget, now, covered.rows[PRESETS.index(TOLD)]))
    return tuple(rows)


def _round(amount: float) -> int:
    """Up to two figures."""
    size = 10 ** max(0, len(str(int(amount))) - 2)
    return int(-(-amount // size) * size)


def neutral(catalogue: Catalogue, region: str) -> Brief:
    """A brief without wishes: a light, a middling and a heavy game of the catalogue at 60 fps on
    high.
    """
    catalogue.region(region)
    by_work = sorted(catalogue.games.values(), key=lambda game: (game.graphics_ms, game.id))
    picked = dict.fromkeys(by_work[len(by_work) * n // 4] for n in (1, 2, 3)) if by_work else {}
    return Brief(
        name="What money runs",
        region=region,
        budget_high_minor=MOST_MINOR,
        display=Display(width_px=2560, height_px=1440, refresh_hz=144.0),
        targets=tuple(
            Target(id=f"t{n}", game_id=game.id, width_px=2560, height_px=1440)
            for n, game in enumerate(picked)
        ),
    )
