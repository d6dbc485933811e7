"""Settings that meet: small multiples of resolution by preset, for upscaling and ray tracing off
and on.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.settings_grid import Cell, Grid, settings_grid
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import PRESETS
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.proposal.settings_money import settings_in_money
from wattmetron.words.figures import THIN, money, percent, settings


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingsCellView:
    """A cell: its rate and state, what limits, and what it would be as a target."""

    target: Target
    rate: str
    state: str
    limits: str
    short: str
    title: str
    is_current: bool
    best: bool


@dataclass(frozen=True, slots=True)
class Multiple:
    """One grid: presets down, resolutions across."""

    title: str
    rows: tuple[tuple[str, tuple[SettingsCellView, ...]], ...]


@dataclass(frozen=True, slots=True)
class OptionView:
    """A single option, what the target's settings come to with it the other way, and by how much
    that changes.
    """

    name: str
    lowered: bool
    change: str
    cell: SettingsCellView


@dataclass(frozen=True, slots=True)
class CostView:
    """A change of the settings in money: the cheapest build that meets every target then, and what
    it saves.
    """

    words: str
    cost: str
    saves: str
    target: Target | None


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingsView:
    """The panel of one target."""

    target: Target
    game: str
    wanted: str
    sizes: tuple[str, ...]
    multiples: tuple[Multiple, ...]
    best: SettingsCellView | None
    best_words: str
    options: tuple[OptionView, ...]
    costs: tuple[CostView, ...] | None
    costs_url: str


def settings_view(
    catalogue: Catalogue, now: Assessment, target_id: str, in_money: bool, costs_url: str
) -> SettingsView | None:
    """The grid of a target of the brief; None for another id or a machine that cannot run it."""
    for target, estimate in zip(now.brief.targets, now.estimates, strict=True):
        if target.id == target_id and estimate is not None:
            grid = settings_grid(now.machine, estimate.game, target, now.brief)
            costs = tuple(_costs(catalogue, now, target)) if in_money else None
            return None if grid is None else _view(grid, target, estimate, costs, costs_url)
    return None


def _costs(catalogue: Catalogue, now: Assessment, target: Target) -> Iterator[CostView]:
    moneys = settings_in_money(catalogue, now.brief, now.build, target)
    base = moneys[0].cost_minor
    for in_money in moneys:
        if in_money.cost_minor is None:
            yield CostView(in_money.words, "no build does", "", in_money.target)
            continue
        saved = "" if base is None else saving(base - in_money.cost_minor, now.currency)
        yield CostView(
            in_money.words,
            money(in_money.cost_minor, now.currency),
            "" if in_money.target is None else saved,
            in_money.target,
        )


def saving(minor: int, currency: str) -> str:
    if not minor:
        return "saves nothing"
    return (
        f"{'saves' if minor > 0 else 'costs'}"
        f" {money(abs(minor), currency)}{'' if minor > 0 else ' more'}"
    )


def _view(
    grid: Grid,
    target: Target,
    estimate: Estimate,
    costs: tuple[CostView, ...] | None,
    costs_url: str,
) -> SettingsView:
    game = estimate.game.name
    kinds = dict.fromkeys((cell.target.ray_tracing, cell.target.upscaling) for cell in grid.cells)
    multiples = tuple(_multiple(grid, target, rays, upscaling) for rays, upscaling in kinds)
    low = " low" if target.measure == "low" else ""
    best = None if grid.best is None else _cell(grid.best, target, grid.best)
    words = "No settings of this grid meet it: the target asks for more than this machine can do."
    if grid.best is not None:
        words = (
            f"Best that meets it: {settings(grid.best.target)}, {grid.best.fps:.0f}{THIN}fps,"
            f" chance {percent(grid.best.chance)}."
        )
    return SettingsView(
        target=target,
        game=game,
        wanted=f"{target.fps:g}{THIN}fps{low}{' shown' if target.generated else ''}",
        sizes=tuple(f"{w}x{h}" for w, h in grid.sizes),
        multiples=multiples,
        best=best,
        best_words=words,
        options=tuple(_option(name, cell, target, estimate) for name, cell in grid.options.items()),
        costs=costs,
        costs_url=costs_url,
    )


def _option(name: str, cell: Cell, target: Target, now: Estimate) -> OptionView:
    change = round(cell.fps) - round(now.judged_fps)
    sign = "+" if change > 0 else "−"
    words = f"{sign}{abs(change)}{THIN}fps" if change else "no change"
    return OptionView(name, name in target.lowered, words, _cell(cell, target, None))


def _multiple(grid: Grid, target: Target, rays: bool, upscaling: bool) -> Multiple:
    title = ", ".join(
        filter(
            None,
            [
                "ray tracing" if rays else "",
                f"upscaling from {target.scale:.0%}".replace("%", f"{THIN}%") if upscaling else "",
            ],
        )
    )
    options = [
        cell
        for cell in grid.cells
        if (cell.target.ray_tracing, cell.target.upscaling) == (rays, upscaling)
    ]
    rows = tuple(
        (
            preset,
            tuple(
                _cell(cell, target, grid.best) for cell in options if cell.target.preset == preset
            ),
        )
        for preset in reversed(PRESETS)
    )
    return Multiple(title or "drawn in full, no ray tracing", rows)


def _cell(cell: Cell, target: Target, best: Cell | None) -> SettingsCellView:
    if cell.processor_share > 0.6:
        limits = "processor"
    elif cell.processor_share < 0.4:
        limits = "graphics"
    else:
        limits = "both"
    short = f"{cell.short_gb:.1f}{THIN}GB short" if cell.short_gb > 0 else ""
    title = (
        f"{settings(cell.target)}: {cell.fps:.0f} fps, chance {percent(cell.chance)}, limited by"
        f" {limits}"
    )
    return SettingsCellView(
        target=cell.target,
        rate=f"{cell.fps:.0f}",
        state=cell.state,
        limits=limits,
        short=short,
        title=title + (f", {cell.short_gb:.1f} GB of video memory missing" if short else ""),
        is_current=cell.target == target,
        best=cell is best,
    )
