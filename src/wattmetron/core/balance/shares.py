"""Shares of a difference by cause, whatever the order in which the causes are told: Shapley's.

Source: L. S. Shapley, A value for n-person games, 1953.
"""

from collections.abc import Callable, Sequence
from itertools import combinations
from math import factorial


def shares(causes: Sequence[str], value: Callable[[frozenset[str]], float]) -> dict[str, float]:
    """What each cause adds to ``value`` on the way from none of them to all, the mean over all
    orders; the shares add up to the whole difference.
    """
    known: dict[frozenset[str], float] = {}

    def worth(taken: frozenset[str]) -> float:
        if taken not in known:
            known[taken] = value(taken)
        return known[taken]

    count = len(causes)
    share_by_kind = {}
    for cause in causes:
        others = [each_cause for each_cause in causes if each_cause != cause]
        total = 0.0
        for size in range(count):
            weight = factorial(size) * factorial(count - size - 1) / factorial(count)
            for some in combinations(others, size):
                before = frozenset(some)
                total += weight * (worth(before | {cause}) - worth(before))
        share_by_kind[cause] = total
    return share_by_kind
