"""What so much money runs: a plain table by money, before any brief."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.places.balance.coverage import (
    USUAL_FPS,
    MoneyRow,
    neutral,
    rate_of,
    what_money_runs,
)
from wattmetron.places.games.pages.queries import MoneyQuery
from wattmetron.words.figures import money


@dataclass(frozen=True, slots=True, kw_only=True)
class MoneyLine:
    """A budget, what its build costs, processor and graphics, and the games that it runs at each
    resolution.
    """

    budget: str
    costs: str
    processor: str
    graphics: str
    cells: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoneyView:
    """The page; what cannot be computed is said in one sentence."""

    region: str
    regions: tuple[tuple[str, str], ...]
    fps: str
    sizes: tuple[str, ...]
    rows: tuple[MoneyLine, ...]
    names: tuple[str, ...]
    error: str


def money_view(catalogue: Catalogue, query: MoneyQuery) -> MoneyView:
    regions = tuple(
        (region.id, f"{region.name} ({region.currency})") for region in catalogue.regions.values()
    )
    region = query.region or (regions[0][0] if regions else "")
    rows: tuple[MoneyRow, ...] = ()
    names: tuple[str, ...] = ()
    error = ""
    try:
        rows = what_money_runs(catalogue, region, rate_of(query.fps))
        names = tuple(
            catalogue.game(target.game_id).name for target in neutral(catalogue, region).targets
        )
    except WattmetronError as problem:
        error = str(problem)
    return MoneyView(
        region=region,
        regions=regions,
        fps=query.fps or f"{USUAL_FPS:g}",
        sizes=tuple(cell.size for cell in rows[0].cells) if rows else (),
        rows=tuple(_line(row) for row in rows),
        names=names,
        error=error,
    )


def _line(row: MoneyRow) -> MoneyLine:
    now = row.assessment
    machine = now.machine
    return MoneyLine(
        budget=money(row.budget * 100, now.currency),
        costs=money(now.spent_minor, now.currency),
        processor=machine.processor.name if machine.processor else "",
        graphics=machine.graphics.name if machine.graphics else "integrated graphics",
        cells=tuple(f"{len(cell.reached)} of {cell.games}" for cell in row.cells),
    )
