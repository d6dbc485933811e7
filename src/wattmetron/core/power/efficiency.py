"""Efficiency of power supplies from the published test points of the 80 PLUS levels, and what it
costs.

Source of the points: the programme's published thresholds, 115 V internal and 230 V EU internal, at
10, 20, 50 and 100 % of the rated output.
"""

from decimal import ROUND_HALF_UP, Decimal

import numpy as np

Points = dict[int, float]
TEST_POINTS: dict[int, dict[str, Points]] = {
    115: {
        "White": {20: 80, 50: 80, 100: 80},
        "Bronze": {20: 82, 50: 85, 100: 82},
        "Silver": {20: 85, 50: 88, 100: 85},
        "Gold": {20: 87, 50: 90, 100: 87},
        "Platinum": {20: 90, 50: 92, 100: 89},
        "Titanium": {10: 90, 20: 92, 50: 94, 100: 90},
    },
    230: {
        "White": {20: 82, 50: 85, 100: 82},
        "Bronze": {20: 85, 50: 88, 100: 85},
        "Silver": {20: 87, 50: 90, 100: 87},
        "Gold": {20: 90, 50: 92, 100: 89},
        "Platinum": {20: 92, 50: 94, 100: 90},
        "Titanium": {10: 90, 20: 94, 50: 96, 100: 94},
    },
}
LEVELS = tuple(TEST_POINTS[230])
UNRATED: Points = {20: 75, 50: 78, 100: 75}
DAYS = 365


def test_points(level: str, mains_v: int) -> Points:
    """Load in % of the rated output to efficiency in %; a supply without a level is assumed below
    all of them.
    """
    return TEST_POINTS[230 if mains_v > 170 else 115].get(level, UNRATED)


def efficiency(level: str, mains_v: int, load_share: float) -> float:
    """Efficiency (0–1) at a share of the rated output: straight between the test points.

    Below the lowest point the loss in W is taken to stay what it is there; above 100 % the last
    point stands.
    """
    if load_share <= 0:
        return 0.0
    points = test_points(level, mains_v)
    lowest = min(points) / 100
    at_lowest = points[min(points)] / 100
    if load_share < lowest:
        lost = lowest / at_lowest - lowest
        return load_share / (load_share + lost)
    return float(np.interp(100 * load_share, list(points), list(points.values()))) / 100


def wall_w(level: str, mains_v: int, rated_w: int, load_w: float) -> float:
    """What is drawn from the wall, in W, for a load behind the supply."""
    return load_w / efficiency(level, mains_v, load_w / rated_w) if load_w > 0 else 0.0


def yearly_kwh(*spans: tuple[float, float]) -> float:
    """Energy of a year in kWh from spans of (W at the wall, hours a day)."""
    return sum(watts * hours for watts, hours in spans) * DAYS / 1000


def cost_minor(kwh: float, tariff_per_kwh: Decimal) -> int:
    """Cost in minor units of the currency that the tariff is in."""
    return int((Decimal(repr(kwh)) * tariff_per_kwh * 100).quantize(Decimal(1), ROUND_HALF_UP))


def better_level(level: str) -> str | None:
    """The next better level; None above the best."""
    if level not in LEVELS:
        return LEVELS[0]
    index = LEVELS.index(level) + 1
    return LEVELS[index] if index < len(LEVELS) else None
