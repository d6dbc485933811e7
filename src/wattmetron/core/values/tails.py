"""How the 1 % low hangs on the variation of frame times."""

from math import log1p, sqrt

VARIATION_SD = 0.5
"""Spread in ln of how much a game's frame times vary, before any low of it is known."""
LOW_FORM_SD = 0.05
"""What the model's form leaves open of the low, in ln: frame times have other tails than
lognormals.
"""
LATE = 2.3263478740408408
"""The standard normal's 99th percentile."""


def tail_slope(variation: float) -> float:
    """d ln (99th percentile) / d ln v of a lognormal time with mean 1 and coefficient of variation
    v: with s = sqrt(ln(1 + v^2)) the percentile is exp(2.326 s - s^2/2).
    """
    s = sqrt(log1p(variation**2))
    if s == 0:
        return 0.0
    return variation**2 / ((1 + variation**2) * s) * (LATE - s)
