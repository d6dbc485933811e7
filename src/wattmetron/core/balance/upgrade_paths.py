"""The way through the years at the least total cost: which machine to have in which year."""

from collections import Counter
from collections.abc import Callable, Sequence
from typing import NamedTuple

Amount = Callable[[int, str], int]
"""What a part costs, or sells for, in a year: minor units."""
Parts = Counter[str]


class Path(NamedTuple):
    """The machine of each year, as places among the builds, and the total cost in minor units: all
    that is bought less all that is sold, the last machine at the end among it.
    """

    builds: tuple[int, ...]
    cost: int


def cost_of_change(year: int, now: Parts, then: Parts, price: Amount, used: Amount) -> int:
    """What is bought in a year less what is sold then, in minor units."""
    bought = sum(price(year, part) * n for part, n in (then - now).items())
    sold = sum(used(year, part) * n for part, n in (now - then).items())
    return bought - sold


def best_path(
    builds: Sequence[Parts],
    holds: Sequence[Sequence[bool]],
    price: Amount,
    used: Amount,
    there: Parts | None = None,
) -> Path | None:
    """The least total cost over the years; None where in some year no build holds.

    ``holds[y][n]`` says whether build n does in year y. ``there`` are parts that are there at the
    start and cost nothing. Exact by dynamic programming over builds, for what a part costs or
    sells for hangs on the year alone; of equal ways the one with fewer changes, then with the
    earlier builds.
    """
    start = there or Counter()
    best: dict[int, tuple[int, int, tuple[int, ...]]] = {}
    for year, able in enumerate(holds):
        reached = {}
        for n in (n for n, does in enumerate(able) if does):
            ways = (
                [(cost_of_change(0, start, builds[n], price, used), 0, (n,))]
                if year == 0
                else [
                    (
                        cost + cost_of_change(year, builds[way[-1]], builds[n], price, used),
                        changes + (way[-1] != n),
                        (*way, n),
                    )
                    for cost, changes, way in best.values()
                ]
            )
            if ways:
                reached[n] = min(ways)
        best = reached
    ends = [
        (cost + cost_of_change(len(holds), builds[way[-1]], Counter(), price, used), changes, way)
        for cost, changes, way in best.values()
    ]
    if not ends:
        return None
    cost, _, way = min(ends)
    return Path(way, cost)
