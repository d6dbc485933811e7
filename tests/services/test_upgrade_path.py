"""The upgrade path of a brief: every target holds in every year, at no more than buying at once."""

from collections import Counter
from dataclasses import replace
from pathlib import Path

from wattmetron.core.values.build import Build
from wattmetron.demo import generate
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.services.advice.upgrade_path import _Prices, upgrade_path
from wattmetron.services.advice.years import grown, growth
from wattmetron.services.desk.assess import assess
from wattmetron.study.keeper import Keeper

WORLD = read_catalogue(Path(generate.__file__).parent / "catalogue").kept_by(Keeper())
LOFT, _ = generate.briefs(WORLD)["net-loft"]
ASKED = replace(
    LOFT,
    years=4,
    growth_percent=20.0,
    targets=tuple(
        replace(target, fps=45.0, ray_tracing=False, preset="medium")
        for target in LOFT.targets
        if target.game_id in ("gullwing-circuit", "lanternfolk", "ashfall-wardens")
    ),
)


def test_every_target_holds_in_every_year_and_the_sums_are_those_of_the_parts():
    found = upgrade_path(WORLD, ASKED, Build())
    assert len(found.years) == 5 and found.ends is None
    prices, had, spent = _Prices(WORLD, ASKED), Counter(), 0
    for own in found.years:
        world = grown(WORLD, ASKED, growth(ASKED, own.year))
        now = assess(world, ASKED, own.build)
        assert now.whole and all(run.state == "meets" for run in now.counted), own.year
        parts = Counter(part_id for _, part_id in own.build.ids())
        bought = sum(prices.price(own.year, p) * n for p, n in (parts - had).items())
        sold = sum(prices.used(own.year, p) * n for p, n in (had - parts).items())
        assert (own.bought_minor, own.sold_minor) == (bought, sold)
        spent += bought - sold
        had = parts
    end = sum(prices.used(len(found.years), p) * n for p, n in had.items())
    assert found.total_minor == spent - end <= found.at_once_minor


def test_a_target_that_nothing_holds_later_ends_the_path_and_none_today_has_none():
    hard = replace(ASKED, years=10, growth_percent=60.0)
    found = upgrade_path(WORLD, hard, Build())
    assert found.ends is not None and len(found.years) == found.ends <= 10
    beyond = tuple(replace(target, fps=900.0) for target in ASKED.targets)
    assert upgrade_path(WORLD, replace(ASKED, targets=beyond), Build()) is None
    assert upgrade_path(WORLD, replace(ASKED, years=0), Build()) is None
