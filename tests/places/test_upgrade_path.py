"""The upgrade path of a brief: every target holds in every year, at no more than buying at once."""

from collections import Counter
from dataclasses import replace
from functools import cache

from tests import demo
from tests.demo import loft
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.upgrade_path import _Prices, upgrade_path
from wattmetron.places.balance.years import grown, growth


@cache
def brief_of_years():
    return replace(
        loft(),
        years=4,
        growth_percent=20.0,
        targets=tuple(
            replace(target, fps=45.0, ray_tracing=False, preset="medium")
            for target in loft().targets
            if target.game_id in ("gullwing-circuit", "lanternfolk", "ashfall-wardens")
        ),
    )


def test_every_target_holds_in_every_year_and_the_sums_are_those_of_the_parts():
    found = upgrade_path(demo.world(), brief_of_years(), Build())
    assert len(found.years) == 5 and found.ends is None
    prices, had, spent = _Prices(demo.world(), brief_of_years()), Counter(), 0
    for own in found.years:
        world = grown(demo.world(), brief_of_years(), growth(brief_of_years(), own.year))
        now = assess(world, brief_of_years(), own.build)
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
    hard = replace(brief_of_years(), years=10, growth_percent=60.0)
    found = upgrade_path(demo.world(), hard, Build())
    assert found.ends is not None and len(found.years) == found.ends <= 10
    beyond = tuple(replace(target, fps=900.0) for target in brief_of_years().targets)
    assert upgrade_path(demo.world(), replace(brief_of_years(), targets=beyond), Build()) is None
    assert upgrade_path(demo.world(), replace(brief_of_years(), years=0), Build()) is None
