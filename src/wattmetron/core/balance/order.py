"""The order of changes that gives most soonest for the money."""

from collections.abc import Callable, Sequence
from typing import NamedTuple


class Worth(NamedTuple):
    """What a machine brings: weight of targets met, then U in millionths."""

    met: int
    gain: int


class _Way(NamedTuple):
    """How well a set of changes was reached: areas under weight met and U over money, steps taken,
    the set before; larger is better.
    """

    met_area: int
    gain_area: int
    steps: int
    before: int


def best_order(
    costs: Sequence[int], stands: Callable[[int], bool], worth: Callable[[int], Worth]
) -> tuple[int, ...] | None:
    """The steps from no change to all of them, as sets of changes (a bit each).

    ``costs`` are those of the changes, in minor units. ``stands`` says whether a machine with these
    changes is whole, fits and starts: after every step it must. Among all ways to order and group
    the changes the one counts with the largest area under ``worth`` over the money spent, weight
    met first; of equal ones the one with more steps, then by the sets of changes, so that the
    answer is always the same. None where the last machine does not stand. Takes time of the order
    of 3^n.
    """
    everything = (1 << len(costs)) - 1
    total = [0] * (everything + 1)
    for changes in range(1, everything + 1):
        lowest = changes & -changes
        total[changes] = total[changes ^ lowest] + costs[lowest.bit_length() - 1]
    best: dict[int, _Way] = {0: _Way(0, 0, 0, 0)}
    for changes in range(1, everything + 1):
        if stands(changes):
            best[changes] = max(
                _reached(way, before, worth(before), total[changes] - total[before])
                for before, way in _within(changes, best)
            )
    return _steps(best, everything)


def _within(changes: int, best: dict[int, _Way]) -> list[tuple[int, _Way]]:
    """The sets that were reached and lie inside another."""
    reached, before = [], (changes - 1) & changes
    while True:
        if before in best:
            reached.append((before, best[before]))
        if not before:
            return reached
        before = (before - 1) & changes


def _reached(way: _Way, before: int, worth: Worth, cost: int) -> _Way:
    return _Way(
        way.met_area + worth.met * cost, way.gain_area + worth.gain * cost, way.steps + 1, -before
    )


def _steps(best: dict[int, _Way], everything: int) -> tuple[int, ...] | None:
    if everything not in best:
        return None
    steps, subset = [], everything
    while subset:
        before = -best[subset].before
        steps.append(subset ^ before)
        subset = before
    return tuple(reversed(steps))
