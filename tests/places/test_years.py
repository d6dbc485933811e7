"""Years to keep: the next step against every build."""

from dataclasses import replace

from tests.core.brute import every_build
from tests.core.questions import ids_of, question
from tests.extent import exhaustive, extent
from tests.worlds import FLOORS
from wattmetron.cache.cache import Keeper
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.wishes import letting_go
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.years import FREED, asking_more, years_kept

LIKELY = (214, 373, 379, 225, 195, 89, 300, 473, 111)
"""Seeds with a step, looked at first."""
LET_GO = ("wireless", "buys", "later_card", "later_card_w", "later_sticks")
ENOUGH = {"steps": extent(2, 6), "forced": 1, "nothing": extent(1, 4)}
"""Steps that do, those among them that force other parts, and those that nothing does."""


@exhaustive
def test_the_next_step_is_the_least_that_meets_again_what_is_met_today():
    """Every build of the parts that are there, free of charge, with what is bought anew; the rest
    stays in its place.
    """
    seen = dict.fromkeys(ENOUGH, 0)
    for seed in dict.fromkeys((*LIKELY, *range(200))):
        if all(seen[name] >= least for name, least in ENOUGH.items()):
            return
        catalogue, brief, kept = question(seed)
        brief = letting_go(brief, (*FLOORS, "reserve_percent", *LET_GO))
        build = propose(catalogue, brief, "most frames", kept).build
        if build is None or not kept.empty or not brief.counted_targets:
            continue
        brief = replace(brief, years=2, growth_percent=60.0)
        now = assess(catalogue, brief, build)
        year = next((item for item in years_kept(catalogue, now) if item.lost), None)
        plenty = seen["nothing"] >= extent(2, 8)
        if year is None or (plenty and not any(own.parts for own in year.steps)):
            continue
        book, present = (
            catalogue.prices(brief.region, NEW_PARTS),
            {part_id for _, part_id in build.ids()},
        )
        games = {
            game: asking_more(fitted_game(catalogue, game), year.more) for game in catalogue.games
        }
        met = tuple(item.target for item in now.counted if item.state == "meets")
        fits = {
            name: replace(game, memory_gb=catalogue.games[name].memory_gb)
            for name, game in games.items()
        }
        for step in year.steps:
            free = {kind for side in step.sides for kind in FREED[side]}
            wanting = games if "memory" in free else fits
            grown = replace(catalogue, games=wanting, results={}, published={}).kept_by(Keeper())
            everything = every_build(grown, replace(brief, targets=met, part_cap_minor=None))
            able = []
            for item in everything:
                same = all(
                    item.ids[place] == ids_of(build)[place]
                    for place, kind in enumerate(KINDS)
                    if kind not in free
                )
                bought = [
                    item
                    for item in (*item.ids[:4], *item.ids[4], *item.ids[5:8])
                    if item and item not in present
                ]
                costs = [book.cost(part_id) for part_id in bought]
                if (
                    same
                    and item.met == sum(target.weight for target in met)
                    and max(costs, default=0) <= (brief.part_cap_minor or 10**9)
                ):
                    able.append(sum(costs))
            if step.parts:
                assert (
                    step.cost_minor == min(able) == sum(book.cost(part.id) for part in step.parts)
                ), (seed, step.sides)
                seen["forced"] += any(kind_of(part) not in step.sides for part in step.parts)
                seen["steps"] += 1
            else:
                assert not able, (seed, step.sides)
                seen["nothing"] += 1
        assert len(year.steps) == 2 or not any(each_step.parts for each_step in year.steps[:2])
    raise AssertionError(seen)
