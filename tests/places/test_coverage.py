"""Library coverage in words and shelves, and what money runs before any brief."""

from dataclasses import replace
from functools import cache

import pytest

from tests.demo import loft, loft_build, world
from wattmetron.cache.cache import Keeper
from wattmetron.core.errors import BriefError
from wattmetron.places.balance.coverage import cover, genres_of, rate_of, what_money_runs


@cache
def loft_machine():
    return world().machine(loft_build())


def test_every_game_stands_in_every_cell_once_and_the_sentence_counts_them():
    found = cover(world(), loft(), loft_machine())
    for row in found.rows:
        for cell in row:
            names = [name for name, _ in (*cell.reached, *cell.missed)]
            assert sorted(names) == sorted(game.name for game in world().games.values())
            assert all(fps >= 60 for _, fps in cell.reached)
    high = found.cell("1920x1080 high")
    assert f"({len(high.reached)}) at 1920x1080" in found.words and "likely" in found.words
    easy = cover(world(), loft(), loft_machine(), fps=1.0)
    assert "all at 1920x1080" in easy.words and not easy.cell("3840x2160 ultra").missed
    assert found.cell("1x1 high") is None


def test_a_shelf_is_a_genre_and_one_without_games_is_said():
    for genre in genres_of(world()):
        own = [game for game in world().games.values() if game.genre == genre]
        assert cover(world(), loft(), loft_machine(), genre=genre).rows[0][0].games == len(own)
    with pytest.raises(BriefError, match="no games of the genre “whistling”: choose another"):
        cover(world(), loft(), loft_machine(), genre="whistling")
    bare = replace(world(), games={}).kept_by(Keeper())
    with pytest.raises(BriefError, match="The catalogue has no games: choose another shelf"):
        cover(bare, replace(loft(), targets=()), loft_machine())
    for wrong in (0.0, 2000.0, float("nan")):
        with pytest.raises(BriefError, match="must lie within 1–1000 fps"):
            cover(world(), loft(), loft_machine(), fps=wrong)
    assert rate_of("") == 60 and rate_of("90,5") == 90.5
    with pytest.raises(BriefError, match="“fast” is no frame rate"):
        rate_of("fast")


@pytest.mark.parametrize("region", ["vellmouth", "overwater"])
def test_more_money_never_buys_less_and_no_row_is_over_its_money(region):
    region = region if region in world().regions else sorted(world().regions)[0]
    rows = what_money_runs(world(), region)
    assert len(rows) > 4
    for row in rows:
        assert row.assessment.spent_minor <= row.budget * 100
        assert row.assessment.whole and not row.assessment.floors
    counts = [len(row.cells[1].reached) for row in rows]
    assert counts[-1] > counts[0] and counts[-1] == max(counts)
