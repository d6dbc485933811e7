"""Sale days of a region, and what usually happens before and on them, in words."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from datetime import date

from wattmetron.core.buying.sale_days import SaleMove, sale_move
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import KIND_PLURALS, Kind
from wattmetron.core.values.price_history import PriceStep
from wattmetron.core.values.shops import Sale, rules_in
from wattmetron.places.shops.wait_or_buy import lines_of_kind
from wattmetron.words.figures import THIN
from wattmetron.workshop.workshop import Workshop

LEAST_PARTS = 5
LEVEL = 0.005


def sales_of(catalogue: Catalogue, region: str) -> tuple[Sale, ...]:
    """The sale days of all shops of a region, each once, the earliest first."""
    rules = rules_in(catalogue.shops.values(), region).values()
    return tuple(sorted({sale for rule in rules for sale in rule.sales}, key=_order))


def _order(sale: Sale) -> tuple[date, date, str]:
    return sale.start, sale.end, sale.name


def sale_words(
    workshop: Workshop, catalogue: Catalogue, kinds: Iterable[Kind], region: str, today: date
) -> tuple[str, ...]:
    """One sentence for each sale that is over and of which enough is known, and one for that which
    comes or is under way.
    """
    sales = sales_of(catalogue, region)
    lines = {kind: lines_of_kind(workshop, catalogue, kind, region).values() for kind in kinds}
    sentences = []
    for sale in sales:
        middles = (
            [_words(each_sale_move, kind) for kind, each_sale_move in _moves(lines, sale)]
            if sale.end < today
            else []
        )
        if middles:
            sentences.append(f"{sale.words}, the middle part of each kind: {'; '.join(middles)}.")
    ahead = [sale for sale in sales if sale.end >= today]
    return (*sentences, *(_ahead(sale, today) for sale in ahead[:1]))


def _moves(
    lines: Mapping[Kind, Iterable[Sequence[PriceStep]]], sale: Sale
) -> Iterator[tuple[Kind, SaleMove]]:
    for kind, line in lines.items():
        move = sale_move(line, sale)
        if move is not None and move.parts >= LEAST_PARTS:
            yield kind, move


def _words(sale_move: SaleMove, kind: Kind) -> str:
    return (
        f"{KIND_PLURALS[kind]} {_moved(sale_move.before)} in the four weeks before and"
        f" {_moved(sale_move.during)} in the sale ({sale_move.parts} parts)"
    )


def _moved(share: float) -> str:
    if abs(share) < LEVEL:
        return "stayed level"
    return f"{'rose' if share > 0 else 'fell'} {abs(share) * 100:.1f}{THIN}%"


def _ahead(sale: Sale, today: date) -> str:
    if sale.start <= today:
        return f"{sale.words} is on."
    days = (sale.start - today).days
    return f"Next sale: {sale.words}, in {days} day{'' if days == 1 else 's'}."
