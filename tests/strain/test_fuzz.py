"""A share of ``make fuzz``, the same every time."""

import pytest

from tests.strain.fuzz import fuzzed, small_world


@pytest.mark.parametrize("seed", [1, 2])
def test_random_requests_are_answered_without_a_5xx(tmp_path, seed):
    workshop = small_world(tmp_path / "fuzz.sqlite")
    fuzz = fuzzed(workshop, 110, seed)
    workshop.close()
    assert fuzz.failures == []
    assert fuzz.statuses[200] > 20 and fuzz.statuses[422] > 6
