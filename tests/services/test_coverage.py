"""Library coverage in words and shelves, and what money runs before any brief."""

from dataclasses import replace
from pathlib import Path

import pytest

from wattmetron.core.errors import BriefError
from wattmetron.demo import generate
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.services.advice.coverage import cover, genres_of, rate_of, what_money_runs
from wattmetron.study.keeper import Keeper

WORLD = read_catalogue(Path(generate.__file__).parent / "catalogue").kept_by(Keeper())
BRIEF, BUILD = generate.briefs(WORLD)["net-loft"]
MACHINE = WORLD.machine(BUILD)


def test_every_game_stands_in_every_cell_once_and_the_sentence_counts_them():
    found = cover(WORLD, BRIEF, MACHINE)
    for row in found.rows:
        for cell in row:
            names = [name for name, _ in (*cell.reached, *cell.missed)]
            assert sorted(names) == sorted(game.name for game in WORLD.games.values())
            assert all(fps >= 60 for _, fps in cell.reached)
    high = found.cell("1920x1080 high")
    assert f"({len(high.reached)}) at 1920x1080" in found.words and "likely" in found.words
    easy = cover(WORLD, BRIEF, MACHINE, fps=1.0)
    assert "all at 1920x1080" in easy.words and not easy.cell("3840x2160 ultra").missed
    assert found.cell("1x1 high") is None


def test_a_shelf_is_a_genre_and_one_without_games_is_said():
    for genre in genres_of(WORLD):
        own = [game for game in WORLD.games.values() if game.genre == genre]
        assert cover(WORLD, BRIEF, MACHINE, genre=genre).rows[0][0].games == len(own)
    with pytest.raises(BriefError, match="no games of the genre “whistling”: choose another"):
        cover(WORLD, BRIEF, MACHINE, genre="whistling")
    bare = replace(WORLD, games={}).kept_by(Keeper())
    with pytest.raises(BriefError, match="The catalogue has no games: choose another shelf"):
        cover(bare, replace(BRIEF, targets=()), MACHINE)
    for wrong in (0.0, 2000.0, float("nan")):
        with pytest.raises(BriefError, match="must lie within 1–1000 fps"):
            cover(WORLD, BRIEF, MACHINE, fps=wrong)
    assert rate_of("") == 60 and rate_of("90,5") == 90.5
    with pytest.raises(BriefError, match="“fast” is no frame rate"):
        rate_of("fast")


@pytest.mark.parametrize("region", ["vellmouth", "overwater"])
def test_more_money_never_buys_less_and_no_row_is_over_its_money(region):
    region = region if region in WORLD.regions else sorted(WORLD.regions)[0]
    rows = what_money_runs(WORLD, region)
    assert len(rows) > 4
    for row in rows:
        assert row.assessment.spent_minor <= row.budget * 100
        assert row.assessment.whole and not row.assessment.floors
    counts = [len(row.cells[1].reached) for row in rows]
    assert counts[-1] > counts[0] and counts[-1] == max(counts)
