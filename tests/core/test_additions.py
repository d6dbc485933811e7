"""The rest well spent: every addition is a whole, sound machine within the money, at the same
frames.
"""

from dataclasses import replace

import pytest

from tests.core.test_balance import adds_nothing
from tests.demo import names, plans, world
from tests.extent import exhaustive, extent
from wattmetron.core.balance.additions import additions, together
from wattmetron.core.compatibility.floor_violations import broken
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.search.proposal import propose


def price(build) -> int:
    book = world().prices(build[0].region, build[0].may_buy)
    return sum(book.cost(part_id) or 0 for _, part_id in build[1].ids())


@exhaustive
@pytest.mark.parametrize("name", names()[: extent(3, None)])
def test_each_addition_and_all_together_are_sound_and_within_the_money(name):
    brief, _ = plans()[name]
    brief = replace(brief, owned=(), outside=(), budget_high_minor=brief.budget_high_minor + 40_000)
    build = propose(world(), brief).build
    if build is None:
        return
    left, floors = 30_000, floors_of(world(), brief)
    found = additions(world(), brief, build, left)
    whole, spent = together(world(), brief, build, found, left)
    assert found and spent <= left
    assert price((brief, whole)) - price((brief, build)) == spent
    for other, cost in [*((item.build, item.cost_minor) for item in found), (whole, spent)]:
        assert price((brief, other)) - price((brief, build)) == cost and 0 <= cost <= left
        machine = world().machine(other)
        assert not machine.missing() and not broken(machine, floors)
        assert adds_nothing(world(), brief, build, other)
        for target in brief.counted_targets:
            game = fitted_game(world(), target.game_id)
            was, now = (
                estimate(world().machine(own), game, target, brief) for own in (build, other)
            )
            assert now.state == was.state or was.state == "short"
            most = target.fps * max(1.0, min(1.5, brief.display.refresh_hz / target.fps))
            assert min(now.reliable_fps, most) > 0.979 * min(was.reliable_fps, most)


def test_what_is_taken_keeps_to_a_small_rest():
    brief, _ = plans()["net-loft"]
    build = propose(world(), brief).build
    found = additions(world(), brief, build, 4_000)
    assert {item.kind for item in found} >= {"memory", "supply", "fan"}
    assert all(item.cost_minor <= 4_000 for item in found)
    assert additions(world(), brief, build, 0) == []
    memory = next(item for item in found if item.kind == "memory")
    assert world().part(memory.part.id).total_gb == 2 * world().machine(build).memory.total_gb
    kept = additions(world(), brief, build.keeping(build.memory, True), 4_000)
    assert "memory" not in {item.kind for item in kept}
