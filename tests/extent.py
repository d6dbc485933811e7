"""How much a test tries: a seeded part in ``make test``, all of it in ``make exact``."""

import os
from typing import TypeVar

import pytest

T = TypeVar("T")
FULL = os.environ.get("WATTMETRON_EXTENT") == "full"
exhaustive, thorough = pytest.mark.exhaustive, pytest.mark.thorough


def extent(few: T, everything: T) -> T:
    """What a test marked ``exhaustive`` tries: few of them, or everything in ``make exact``."""
    return everything if FULL else few
