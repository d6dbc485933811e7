"""Settings that meet: small multiples of resolution by preset, for upscaling and ray tracing off and on."""

from dataclasses import dataclass

from wattmetron.core.briefs import Target
from wattmetron.core.frames.settings_grid import Cell, Grid, settings_grid
from wattmetron.core.games import PRESETS
from wattmetron.services.assess import Assessment
from wattmetron.services.words import THIN, percent, settings


@dataclass(frozen=True, slots=True)
class CellView:
    """A cell: its rate and state, what limits, and what it would be as a target."""

    target: Target
    rate: str
    state: str
    limits: str
    short: str
    title: str
    own: bool
    best: bool


@dataclass(frozen=True, slots=True)
class Multiple:
    """One grid: presets down, resolutions across."""

    title: str
    rows: tuple[tuple[str, tuple[CellView, ...]], ...]


@dataclass(frozen=True, slots=True)
class SettingsView:
    """The panel of one target."""

    target: Target
    game: str
    wanted: str
    sizes: tuple[str, ...]
    multiples: tuple[Multiple, ...]
    best: CellView | None
    best_words: str


def settings_view(now: Assessment, target_id: str) -> SettingsView | None:
    """The grid of a target of the brief; None for another id or a machine that cannot run it."""
    for target, one in zip(now.brief.targets, now.estimates, strict=True):
        if target.id == target_id and one is not None:
            grid = settings_grid(now.machine, one.game, target, now.brief)
            return None if grid is None else _view(grid, target, one.game.name)
    return None


def _view(grid: Grid, target: Target, game: str) -> SettingsView:
    kinds = dict.fromkeys((cell.target.ray_tracing, cell.target.upscaling) for cell in grid.cells)
    multiples = tuple(_multiple(grid, target, rays, upscaling) for rays, upscaling in kinds)
    low = " low" if target.measure == "low" else ""
    best = None if grid.best is None else _cell(grid.best, target, grid.best)
    words = "No settings of this grid meet it: the target asks for more than this machine can do."
    if grid.best is not None:
        words = f"Best that meets it: {settings(grid.best.target)}, {grid.best.fps:.0f}{THIN}fps, chance {percent(grid.best.chance)}."
    return SettingsView(
        target, game, f"{target.fps:g}{THIN}fps{low}", tuple(f"{w}x{h}" for w, h in grid.sizes), multiples, best, words
    )


def _multiple(grid: Grid, target: Target, rays: bool, upscaling: bool) -> Multiple:
    title = ", ".join(
        filter(None, ["ray tracing" if rays else "", f"upscaling from {target.scale:.0%}".replace("%", f"{THIN}%") if upscaling else ""])
    )
    own = [cell for cell in grid.cells if (cell.target.ray_tracing, cell.target.upscaling) == (rays, upscaling)]
    rows = tuple(
        (preset, tuple(_cell(cell, target, grid.best) for cell in own if cell.target.preset == preset))
        for preset in reversed(PRESETS)
    )
    return Multiple(title or "drawn in full, no ray tracing", rows)


def _cell(cell: Cell, target: Target, best: Cell | None) -> CellView:
    limits = "processor" if cell.processor_share > 0.6 else "graphics" if cell.processor_share < 0.4 else "both"
    short = f"{cell.short_gb:.1f}{THIN}GB short" if cell.short_gb > 0 else ""
    title = f"{settings(cell.target)}: {cell.fps:.0f} fps, chance {percent(cell.chance)}, limited by {limits}"
    return CellView(
        cell.target,
        f"{cell.fps:.0f}",
        cell.state,
        limits,
        short,
        title + (f", {cell.short_gb:.1f} GB of video memory missing" if short else ""),
        cell.target == target,
        cell is best,
    )
