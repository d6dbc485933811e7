"""Wishes that nothing grants: explained, with the fewest to let go and what is left then."""

from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests import small
from tests.extent import exhaustive, extent
from wattmetron.cache.cache import Keeper
from wattmetron.core.balance.conflict import relaxed
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.build import Build
from wattmetron.core.values.wishes import wishes_held, without
from wattmetron.places.proposal.proposals import answer

IMPOSSIBLE = {
    "volume_limit_l": 3.0,
    "memory_gb": 900.0,
    "noise_limit_dba": 1.0,
    "part_cap_minor": 1_00,
    "fan_headers": 40,
    "rear_usb": 90,
    "cable_room_mm": 900,
    "storage_gb": 90_000.0,
}


@pytest.fixture(scope="module")
def world():
    return small.described().kept_by(Keeper())


def test_two_wishes_that_are_each_impossible_are_both_named_with_what_is_left(world):
    brief = replace(small.brief("net-loft"), volume_limit_l=3.0, memory_gb=900.0)
    said = answer(world, brief, Build(), "most frames").headline
    assert said.startswith("Each of these wishes cannot be granted: ")
    assert "case at most 3" in said and "900" in said and "EUR" in said
    bare = replace(brief, volume_limit_l=None, memory_gb=0.0)
    why = relaxed(world, brief, Build())
    assert (
        {wish.name for wish in why.dropped}
        == {"volume_limit_l", "memory_gb"}
        == {wish.name for wish in why.alone}
    )
    assert why.cost_minor == cheapest_fit(world, bare, Build(), video_memory=True).cost_minor


@exhaustive
@settings(max_examples=extent(6, 60))
@given(st.sets(st.sampled_from(sorted(IMPOSSIBLE)), min_size=1, max_size=4))
def test_any_set_of_impossible_wishes_is_explained_and_no_smaller_set_would_do(world, names):
    brief = replace(small.brief("net-loft"), **{name: IMPOSSIBLE[name] for name in names})
    for aim in ("most frames", "least money"):
        found = answer(world, brief, Build(), aim)
        assert found.assessment is None and found.headline.endswith(".")
    why = relaxed(world, brief, Build())
    assert names <= {wish.name for wish in why.dropped}

    def fits(dropped):
        bare = without(brief, dropped)
        found = cheapest_fit(world, bare, Build(), video_memory=not bare.accept_spill)
        return found.build is not None

    assert fits(why.dropped)
    others = [wish for wish in wishes_held(brief) if wish.name in names]
    for fewer in combinations(others, len(why.dropped) - 1):
        assert not fits(fewer)
