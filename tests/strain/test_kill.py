"""A share of ``make kill``."""

from tests.strain.kill import Kills


def test_nothing_acknowledged_is_lost_and_nothing_is_half(tmp_path):
    kills = Kills(tmp_path, seed=3)
    for turn in (0, 2, 3):
        kills.once(turn)
    assert kills.failures == []
