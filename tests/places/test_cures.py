"""One set of changes that clears all that blocks: it does, it keeps the rest, and none of it can be
left out.
"""

from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.demo import tower, tower_build, world
from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.core.compatibility.floor_violations import broken
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import blocks, check
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.places.assessment.assess import assess
from wattmetron.places.compatibility.cures import cure


def test_the_sent_in_list_needs_two_changes():
    brief, build = tower(), tower_build()
    now = assess(world(), brief, build)
    found = cure(world(), now)
    assert found.changed == ("supply", "case") and found.cleared == now.blocking == 4
    after = assess(world(), brief, found.build)
    assert after.blocking == 0 and after.spent_minor - now.spent_minor == found.cost_minor
    assert [estimate and estimate.average_fps for estimate in after.estimates] == [
        estimate and estimate.average_fps for estimate in now.estimates
    ]
    assert cure(world(), after) is None
    assert cure(world(), assess(world(), brief, Build())) is None


@exhaustive
@settings(max_examples=extent(20, 160))
@given(st.integers(0, 10_000))
@example(135)
@example(608)
@example(1500)
def test_a_cure_clears_all_and_no_change_of_it_can_be_left_out(seed):
    maker = World(seed)
    catalogue = maker.catalogue(5, 2)
    brief = maker.brief(catalogue, 1)
    build = Build()
    for kind in KINDS:
        build = build.with_part(kind, maker.pick(*catalogue.by_kind[kind]).id)
    now = assess(catalogue, brief, build)
    found = cure(catalogue, now)
    if found is None:
        return
    wishes, floors = wishes_of(brief), floors_of(catalogue, brief)
    assert now.blocking and not blocks(catalogue.machine(found.build), wishes)
    assert all(
        found.build.of(kind) == build.of(kind) for kind in KINDS if kind not in found.changed
    )
    for kind in found.changed:
        back = found.build
        for part_id in back.of(kind):
            back = back.without(kind, part_id)
        for part_id in build.of(kind):
            back = back.with_part(kind, part_id)
        machine = catalogue.machine(back)
        worse = broken(machine, floors) - broken(now.machine, floors)
        short = any(item.rule == "supply watts" for item in check(machine, wishes))
        assert blocks(machine, wishes) or machine.missing() or worse or short or kind == "cooler"
