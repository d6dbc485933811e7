"""Round steps for an axis."""

from itertools import count

SHARES = (50, 100, 200, 250)


def round_step(span: float, most: int) -> int:
    """The finest of 50, 100, 200, 250, 500, 1000, … that puts at most so many steps into a span."""
    for power in count():
        for share in SHARES:
            step: int = share * 10**power
            if step * most >= span:
                return step
    raise AssertionError
