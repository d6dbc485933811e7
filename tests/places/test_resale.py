"""What owned parts may sell for: by hand, by the cheapest used price, counted where asked."""

from dataclasses import replace

import pytest

from tests.demo import bench, bench_build, world
from wattmetron.core.errors import BriefError
from wattmetron.core.search.proposal import besides_minor, propose
from wattmetron.core.search.resale import left_of, resale_minor
from wattmetron.core.values.brief import Resale
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.plan import Plan
from wattmetron.formats.brief_file import brief_file, brief_from
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.brief_edits import count_resale, own, sell_for
from wattmetron.places.proposal.left_over import left_over_words


def spent(brief, build):
    return assess(world(), brief, build).spent_minor


def test_counted_resale_is_taken_off_what_the_machine_costs():
    """EUR 40 and 25 for two of the parts: what is left over of them comes off the total, what is
    used does not, and the budget buys so much more.
    """
    by_hand = tuple(
        Resale(part=part, minor=minor)
        for part, minor in zip(bench().owned, (4000, 2500), strict=False)
    )
    counted = replace(bench(), resale=by_hand, counts_resale=True)
    found = propose(world(), counted, "most frames")
    bought = sum(line.cost_minor for line in assess(world(), counted, found.build).lines)
    left = [resale_minor(world(), counted, part) or 0 for part in left_of(counted, found.build)]
    assert sum(left) > 0
    assert spent(counted, found.build) == bought - sum(left) <= bench().budget_high_minor
    assert found.cost_minor + besides_minor(world(), counted, Build()) == bought - sum(left)
    plain = propose(world(), bench(), "most frames")
    assert (found.weight_met, found.gain) >= (plain.weight_met, plain.gain)
    said = left_over_words(world(), counted, found.build, "EUR")
    assert said.endswith("taken off the total.")


def test_the_usual_resale_is_a_share_of_the_cheapest_used_price():
    offers = [offer for offer in world().offers if offer.condition == "used"]
    part, region = offers[0].part_id, offers[0].region
    cheapest = min(o.price_minor for o in offers if (o.part_id, o.region) == (part, region))
    brief = replace(bench(), owned=(part,), region=region, resale=())
    assert resale_minor(world(), brief, part) == cheapest * 7 // 10
    never = next(own for own in world().parts if own not in {offer.part_id for offer in offers})
    assert resale_minor(world(), brief, never) is None


def test_a_build_that_is_not_whole_sells_nothing():
    counted = replace(bench(), counts_resale=True)
    assert spent(counted, Build()) == bench().extras_minor
    assert assess(world(), counted, Build(processor=bench_build().processor)).sold_minor == 0


def test_resale_above_the_new_price_is_refused_and_leaves_with_the_part():
    plan, part = (
        Plan(bench(), bench_build()),
        next(own for own in bench().owned if world().prices(bench().region, NEW_PARTS).cost(own)),
    )
    new = world().prices(bench().region, NEW_PARTS).cost(part)
    with pytest.raises(BriefError, match="more than a new one costs today, EUR"):
        sell_for(plan, part, new + 1, world())
    said, words = sell_for(plan, part, new, world())
    assert said.brief.resale == (Resale(part=part, minor=new),) and "may sell for EUR" in words
    assert sell_for(said, part, None, world())[0].brief.resale == ()
    assert own(said, part, False, world())[0].brief.resale == ()
    counted, words = count_resale(said, True)
    assert counted.brief.counts_resale and words.startswith("the budget counts")
    assert brief_from(brief_file(counted.brief)) == counted.brief
