"""Figures of cards together with one that comes later."""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.later_upgrades import ToCome
from wattmetron.core.power.draw import spike_of_card_w
from wattmetron.core.values.parts import Graphics

Ints = NDArray[np.int64]


def with_later(counts: Ints, later: ToCome, of: Callable[[Graphics], int]) -> Ints:
    """The most of a figure of cards that machines to come have beside cards of so much."""
    most = counts * 2 if later.second else counts
    return np.maximum(most, of(later.card)) if later.card else most


def full_of_card_w(card: Graphics) -> int:
    return card.board_power_w


def spike_w_of(card: Graphics) -> int:
    return spike_of_card_w(card.board_power_w, card.spike_factor)
