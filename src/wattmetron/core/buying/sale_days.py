"""Sale days: what prices of a kind did in the weeks before them and on them."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import timedelta
from statistics import median

from wattmetron.core.values.price_history import PriceStep, price_on
from wattmetron.core.values.shops import Sale

BEFORE = timedelta(days=28)
ONE_DAY = timedelta(days=1)


@dataclass(frozen=True, slots=True)
class SaleMove:
    """What the middle part of a kind did: ``before`` from four weeks before a sale to the day
    before it, ``during`` from that day to the lowest price of the sale, as shares (0.02: 2 %
    dearer), over so many parts.
    """

    sale: Sale
    before: float
    during: float
    parts: int

    @property
    def whole(self) -> float:
        """What the sale is worth against the price of four weeks before."""
        return (1 + self.before) * (1 + self.during) - 1


def sale_move(lines: Iterable[Sequence[PriceStep]], sale: Sale) -> SaleMove | None:
    """None where no part has a price four weeks before, the day before and in the sale."""
    moves = [moved for steps in lines if (moved := _moved(steps, sale)) is not None]
    if not moves:
        return None
    return SaleMove(
        sale, median(move[0] for move in moves), median(move[1] for move in moves), len(moves)
    )


def _moved(steps: Sequence[PriceStep], sale: Sale) -> tuple[float, float] | None:
    first, last = (price_on(steps, sale.start - back) for back in (BEFORE, ONE_DAY))
    there = [price_on(steps, sale.start)]
    there += [step.least_minor for step in steps if sale.start < step.day <= sale.end]
    prices = [price for price in there if price is not None]
    if not first or not last or not prices:
        return None
    return last / first - 1, min(prices) / last - 1
