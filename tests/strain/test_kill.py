"""A share of ``make kill``."""

from tests.extent import exhaustive, extent
from tests.strain.kill import Kills


@exhaustive
def test_nothing_acknowledged_is_lost_and_nothing_is_half(tmp_path):
    kills = Kills(tmp_path, seed=3)
    for turn in extent((0, 1, 5, 6), range(30)):
        kills.once(turn)
    assert kills.failures == [] and kills.acknowledged > 10
