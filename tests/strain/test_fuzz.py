"""A share of ``make fuzz``, the same every time."""

import pytest

from tests.extent import exhaustive, extent
from tests.strain.fuzz import fuzzed, small_world


@exhaustive
@pytest.mark.parametrize("seed", extent([1], [1, 2]))
def test_random_requests_are_answered_without_a_5xx(tmp_path, seed):
    workshop = small_world(tmp_path / "fuzz.sqlite")
    fuzz = fuzzed(workshop, extent(40, 400), seed)
    workshop.close()
    assert fuzz.failures == []
    assert fuzz.statuses[200] > 8 and fuzz.statuses[422] > 2
