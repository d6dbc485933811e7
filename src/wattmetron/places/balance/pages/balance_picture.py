"""The picture of all pairings: bins of processors and cards by price, in words and as a chart."""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.balance.pairs import PairCell
from wattmetron.core.balance.picture import Picture, all_pairings
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.problem import scenes_for
from wattmetron.core.search.proposal import BAND
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.drawing import pairings as chart
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import Tables
from wattmetron.places.balance.pages.balance_map import EDGE_WORDS, edges_of
from wattmetron.shell.address import Link
from wattmetron.words.figures import money, round_money


@dataclass(frozen=True, slots=True, kw_only=True)
class PictureView:
    """The chart, the prices at which its rows begin, its best bins as a list, how much it covers,
    and whether the build is on it.
    """

    chart: Markup
    rows: tuple[str, ...]
    best: tuple[tuple[str, str], ...]
    words: str
    marked: bool


BEST = 12


def picture_of(tables: Tables) -> Picture:
    return tables.catalogue.ask(_picture, tables.brief, tables.fixed_build, tables.budget)


def _picture(catalogue: Catalogue, brief: Brief, fixed: Build, budget: int) -> Picture:
    return all_pairings(scenes_for(catalogue, brief, fixed), budget, BAND)


def picture_view(
    tables: Tables, subject: Assessment, tried: Assessment | None, link: Link
) -> PictureView:
    picture, currency = picture_of(tables), subject.currency
    sides = tables.sides
    chips, cards = sides.chips, sides.cards

    def words(c: int, g: int | None, cell: PairCell) -> str:
        pair = f"{chips[c].name} with {cards[g].name if g is not None else 'integrated graphics'}"
        over = "" if cell.inside else ", over the budget"
        return (
            f"{pair}: {sum(cell.meets)} of {len(cell.meets)} met for"
            f" {money(cell.winner.cost + tables.besides, currency)},"
            f" {EDGE_WORDS[edges_of(cell)]}{over}"
        )

    def view(c: int, g: int | None, cell: PairCell) -> chart.Bin:
        count, shares = len(cell.meets), cell.processor_shares
        url = link(pair=f"{chips[c].id}:{'' if g is None else cards[g].id}", tried=None)
        return chart.Bin(
            share=sum(cell.meets) / count if count else 0.0,
            inside=cell.inside,
            meets_all=all(cell.meets),
            by_processor=sum(shares) > 0.5 * len(shares),
            url=url,
            words=words(c, g, cell),
        )

    bins = {index: view(*cell) for index, cell in picture.cells.items()}
    prices = tuple(
        _price(0 if column[0] is None else sides.card_costs[column[0]], currency)
        for column in picture.columns
    )
    rows = tuple(_price(sides.chip_costs[row[0]], currency) for row in picture.rows)
    label = (
        "All pairings, processors down and graphics parts across by price; arrow keys move, Enter"
        " tries"
    )
    inside = sorted(
        (cell for cell in picture.cells.values() if cell[2].inside),
        key=lambda current: (-current[2].winner.rank, current[2].winner.cost),
    )[:BEST]
    none = (
        ""
        if any(each_bin.meets_all for each_bin in bins.values()) or not tables.brief.counted_targets
        else " No pairing meets every target."
    )
    count = sum(len(row) for row in picture.rows), sum(len(column) for column in picture.columns)
    current = _place(picture, tables, subject)
    return PictureView(
        chart=chart.picture(
            bins, prices, len(rows), current, _place(picture, tables, tried), label
        ),
        rows=rows,
        best=tuple((words(*current), view(*current).url) for current in inside),
        words=f"{count[0]} processors down and {count[1]} graphics parts across, neighbours in"
        " price"
        f" together; each bin shows its best pairing within the budget, else its cheapest.{none}",
        marked=current is not None,
    )


def _price(minor: int, currency: str) -> str:
    return round_money(minor, currency).split("\u00a0")[-1]


def _place(
    picture: Picture, tables: Tables, assessment: Assessment | None
) -> tuple[int, int] | None:
    """The bin that a build's processor and card lie in."""
    if assessment is None or assessment.missing:
        return None
    sides = tables.sides
    chip = next(
        (i for i, part in enumerate(sides.chips) if part.id == assessment.build.processor),
        None,
    )
    card = next(
        (i for i, part in enumerate(sides.cards) if part.id == assessment.build.graphics), None
    )
    row = next((i for i, row in enumerate(picture.rows) if chip in row), None)
    column = next((i for i, column in enumerate(picture.columns) if card in column), None)
    return (
        None
        if row is None or column is None or (assessment.build.graphics and card is None)
        else (row, column)
    )
