"""Shares of causes: they add up, and no order matters."""

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wattmetron.core.balance.shares import shares

CAUSES = ("parts", "prices", "evidence", "model")
SETS = st.lists(st.floats(-1e4, 1e4), min_size=16, max_size=16)


def value_of(numbers):
    return lambda taken: numbers[sum(1 << n for n, own in enumerate(CAUSES) if own in taken)]


@given(SETS)
def test_they_add_up_to_the_whole(numbers):
    found = shares(CAUSES, value_of(numbers))
    assert sum(found.values()) == pytest.approx(numbers[15] - numbers[0], abs=1e-6)


@given(SETS)
def test_they_are_the_mean_over_all_orders_and_do_not_hang_on_one(numbers):
    value, found = value_of(numbers), shares(CAUSES, value_of(numbers))
    mean = dict.fromkeys(CAUSES, 0.0)
    for order in permutations(CAUSES):
        taken = frozenset()
        for cause in order:
            mean[cause] += (value(taken | {cause}) - value(taken)) / 24
            taken |= {cause}
        assert shares(order, value) == pytest.approx(found, abs=1e-6)
    assert mean == pytest.approx(found, abs=1e-6)


def test_a_cause_that_changes_nothing_has_no_share():
    found = shares(CAUSES, lambda taken: 40.0 * ("parts" in taken) - 12.0 * ("prices" in taken))
    assert found == pytest.approx({"parts": 40.0, "prices": -12.0, "evidence": 0.0, "model": 0.0})
