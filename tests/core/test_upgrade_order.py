"""What first: the order of changes against every order and grouping, and against the rules."""

from collections import Counter
from dataclasses import replace
from itertools import permutations

from hypothesis import given, settings
from hypothesis import strategies as st

from tests import demo
from tests.demo import plans
from tests.extent import exhaustive, extent
from wattmetron.core.balance.order import Worth, best_order
from wattmetron.core.balance.upgrade_order import changes_between, steps_between, with_changes
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import blocks
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.proposal import propose


def every_way(left: frozenset[int]):
    """Every order of groups of these changes."""
    if not left:
        yield ()
        return
    members = sorted(left)
    for bits in range(1, 1 << len(members)):
        group = frozenset(own for n, own in enumerate(members) if bits >> n & 1)
        for rest in every_way(left - group):
            yield (group, *rest)


def area(way, costs, worth):
    """Weight met and U, each times the money spent while it lasts, counted by single coins."""
    met = gain = taken = 0
    for group in way:
        cost = sum(costs[own] for own in group)
        met += worth[taken].met * cost
        gain += worth[taken].gain * cost
        taken |= sum(1 << own for own in group)
    return met, gain, len(way)


@exhaustive
@settings(max_examples=extent(50, 600))
@given(st.data(), st.integers(1, 4))
def test_no_other_order_or_grouping_gives_more_sooner(data, n):
    size = 1 << n
    costs = data.draw(st.lists(st.integers(0, 9), min_size=n, max_size=n))
    stands = data.draw(st.lists(st.booleans(), min_size=size, max_size=size))
    worth = [
        Worth(met, gain)
        for met, gain in data.draw(
            st.lists(st.tuples(st.integers(0, 3), st.integers(-9, 9)), min_size=size, max_size=size)
        )
    ]
    found = best_order(costs, stands.__getitem__, worth.__getitem__)
    ways = []
    for way in every_way(frozenset(range(n))):
        after, taken = [], 0
        for group in way:
            taken |= sum(1 << own for own in group)
            after.append(taken)
        if all(stands[own] for own in after):
            ways.append(way)
    if found is None:
        assert not ways
        return
    mine = tuple(frozenset(own for own in range(n) if step >> own & 1) for step in found)
    assert mine in ways
    assert area(mine, costs, worth) == max(area(way, costs, worth) for way in ways)


def test_a_card_that_needs_a_stronger_supply_brings_it_along_by_hand():
    """The processor meets one target for 100; the card two for 300, with a supply for 80 under it:
    the supply alone brings nothing, so it comes with the card, and the processor first: 100 coins
    at none, then 380 at one, against 380 at none.
    """
    processor, card, supply = 1, 2, 4
    stands = {0, processor, supply, processor | supply, card | supply, 7}
    met = {0: 0, processor: 1, card | supply: 2, 7: 3}

    def worth(taken):
        return Worth(met.get(taken, met.get(taken & ~supply, 0)), 0)

    assert best_order((100, 300, 80), stands.__contains__, worth) == (processor, supply, card)
    alone = stands - {supply, processor | supply}
    assert best_order((100, 300, 80), alone.__contains__, worth) == (processor, card | supply)
    assert best_order((100, 300, 80), (stands - {7}).__contains__, worth) is None


def test_every_step_between_two_builds_is_a_machine_that_runs():
    """From the answer for one budget to that for another, both ways."""
    world = demo.world()
    ways = grouped = 0
    for name in ("net-loft", "harbour-hall", "weather-ship"):
        brief, _ = plans()[name]
        built = [
            propose(world, brief, budget_minor=money * 100).build for money in (800, 1300, 2400)
        ]
        for now, then in permutations(built, 2):
            steps = steps_between(world, brief, now, then)
            assert steps is not None
            done, build = [], now
            for step in steps:
                done += step.changes
                build = with_changes(now, then, done)
                machine = machine_of(world, build, brief.clocks)
                assert not machine.missing() and not blocks(machine, wishes_of(brief))
            assert not changes_between(build, then)
            assert sorted(done, key=repr) == sorted(changes_between(now, then), key=repr)
            ways += len(steps) > 1
            grouped += any(len(step.changes) > 1 for step in steps)
            book = world.prices(brief.region, brief.may_buy)
            priced = [sum(book.cost(own) for _, own in build.ids()) for build in (now, then)]
            assert sum(step.cost_minor for step in steps) == priced[1] - priced[0]
            owning = replace(brief, owned=tuple(part_id for _, part_id in now.ids()))
            bought = Counter(then.ids()) - Counter(now.ids())
            assert sum(step.cost_minor for step in steps_between(world, owning, now, then)) == sum(
                book.cost(part_id) for _, part_id in bought.elements()
            )
    assert ways > 10 and grouped > 5, (ways, grouped)
