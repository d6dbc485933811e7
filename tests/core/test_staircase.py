"""The staircase and the knee against plain definitions."""

from types import SimpleNamespace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.extent import exhaustive, extent
from wattmetron.core.search.branch_and_bound import NO_RANK, Winner
from wattmetron.core.search.frontier import Staircase, _outermost
from wattmetron.places.balance.balance import Tables

BUILDS = st.lists(st.tuples(st.integers(1, 30), st.integers(-20, 20)), max_size=25)


def staircase(*batches: list[tuple[int, int]]) -> Staircase:
    found = Staircase(np.empty(0, dtype=np.int64), np.empty(0, dtype=np.int64))
    for batch in batches:
        cost, rank = np.array(batch, dtype=np.int64).reshape(-1, 2).T
        found = found.with_more(cost, rank)
    return found


@exhaustive
@settings(max_examples=extent(66, 800))
@given(BUILDS, BUILDS)
def test_the_staircase_knows_the_best_within_every_cost(first, second):
    found = staircase(first, second)
    for cost in range(32):
        best = max((rank for own, rank in first + second if own <= cost), default=NO_RANK)
        assert int(found.within(np.array([cost]))[0]) == best
    assert list(found.cost) == sorted(set(found.cost.tolist())) and list(found.rank) == sorted(
        set(found.rank.tolist())
    )
    both = staircase(second, first)
    assert found.cost.tolist() == both.cost.tolist() and found.rank.tolist() == both.rank.tolist()


@exhaustive
@settings(max_examples=extent(66, 800))
@given(BUILDS.filter(bool), st.integers(1, 30))
def test_the_outermost_rows_come_layer_by_layer(rows, size):
    """Of rows in the order of their costs those are taken first that no row before them equals in
    bound.
    """
    bound = np.array([own for _, own in sorted(rows)], dtype=np.int64)
    taken = _outermost(bound, size).tolist()
    assert len(set(taken)) == len(taken) >= min(size, len(rows))
    for i in range(len(rows)):
        if not any(bound[j] >= bound[i] for j in range(i)):
            assert i in taken
    for i in set(range(len(rows))) - set(taken):
        assert any(bound[j] >= bound[i] for j in taken if j < i)


def knee(*steps: tuple[int, int], budget: int = 100_000) -> int | None:
    winners = tuple(Winner(cost, 0, gain, ()) for cost, gain in steps)
    return Tables.knee.fget(SimpleNamespace(frontier=SimpleNamespace(steps=winners), budget=budget))


def test_the_knee_by_hand():
    """2 % of 1,000 is 20: a stretch of 20 must bring 1 %, 10,000 millionths. The third step brings
    0.9 % for 20.
    """
    assert knee((50_000, 0), (52_000, 10_000), (54_000, 19_000)) == 1
    assert knee((50_000, 0), (52_000, 10_000), (54_000, 20_000)) == 2
    assert (
        knee((50_000, 0), (60_000, 10_000)) is None and knee() is None and knee((50_000, 0)) is None
    )
    odd = knee((50_000, 0), (51_000, -5_000), (52_000, 12_000), (90_000, 13_000), (90_010, 14_000))
    assert odd == 2
