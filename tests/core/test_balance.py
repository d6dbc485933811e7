"""The proposal against brute force over every build of small catalogues."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.brute import answer, every_build
from tests.worlds import World
from wattmetron.core.balance import AIMS, cheapest_fit, propose
from wattmetron.core.balance.platforms import _best, _packed
from wattmetron.core.balance.search import BAND
from wattmetron.core.briefs import Build

SEEDS = range(120)
CHUNK = 15


def ids_of(build: Build) -> tuple:
    return (
        build.processor,
        build.graphics or "",
        build.mainboard,
        build.memory,
        build.storage,
        build.cooler or "",
        build.supply,
        build.case,
    )


def question(seed: int):
    """A small catalogue, mostly of one platform, with or without results of its games, a brief with or without
    owned parts, and perhaps a kept part."""
    world = World(seed)
    if seed % 4:
        world.sockets, world.types = ("Capstan",), ("DDR5",)
    catalogue = world.catalogue(per_kind=3 if seed % 3 else 4, games=2)
    if seed % 8:
        catalogue = world.eased(catalogue)
    if seed % 2:
        catalogue = replace(catalogue, results=world.results(catalogue, 1 + seed % 3))
    brief = world.brief(catalogue, targets=int(world.rng.integers(0, 4)))
    if seed % 3 == 1:
        catalogue, brief = world.odd(catalogue, brief)
    ids = sorted(catalogue.parts)
    kept = Build()
    if seed % 5 == 0:
        brief = replace(brief, owned=(ids[int(world.rng.integers(len(ids)))],))
    if seed % 7 == 0:
        part = catalogue.by_kind[world.pick("processor", "graphics", "case", "storage", "cooler")][0]
        kind = part.id.split("-")[0]
        kept = Build().with_part(kind, part.id).keeping(part.id, True)
    return catalogue, brief, kept


@pytest.mark.parametrize("first", range(SEEDS.start, SEEDS.stop, CHUNK))
def test_equals_brute_force(first):
    outcomes = set()
    for seed in range(first, first + CHUNK):
        catalogue, brief, kept = question(seed)
        found = every_build(catalogue, brief, kept)
        weight = sum(target.weight for target in brief.targets)
        budget = brief.budget_high_minor - brief.extras_minor
        for aim in AIMS:
            expected = answer(found, aim, weight, budget, BAND)
            got = propose(catalogue, brief, aim, kept)
            if expected is None:
                assert got.build is None, (seed, aim)
            else:
                assert got.build is not None, (seed, aim)
                assert (got.cost_minor, got.weight_met, got.gain) == (
                    expected.cost,
                    expected.met,
                    expected.gain,
                ), (seed, aim)
                assert ids_of(got.build) == expected.ids, (seed, aim)
            outcomes.add((aim, expected is None))
        if brief.accept_spill:
            least = cheapest_fit(catalogue, brief, kept)
            assert least.cost_minor == min((one.cost for one in found), default=least.cost_minor), seed
    assert len(outcomes) >= 3


@settings(max_examples=200, deadline=None)
@given(st.lists(st.tuples(*[st.integers(0, 3)] * 5), max_size=30))
def test_only_rows_that_nothing_beats_stay(rows):
    """Against the plain definition, pair by pair, on tables full of ties."""
    key, cost, latency, bandwidth, gb = np.array(rows, dtype=np.int64).reshape(-1, 5).T
    kept = set(_best(key, cost, latency, -bandwidth, -gb).tolist())

    def as_good(one, other):
        return (
            one[0] == other[0]
            and one[1] <= other[1]
            and one[2] <= other[2]
            and one[3] >= other[3]
            and one[4] >= other[4]
        )

    for i, row in enumerate(rows):
        better = [other for other in rows if as_good(other, row) and other != row]
        twins = [j for j, other in enumerate(rows) if other == row]
        assert len(kept & set(twins)) == (0 if better else 1), i


@settings(max_examples=200, deadline=None)
@given(st.lists(st.tuples(*[st.sampled_from([0, 1, 5, 1 << 20, 1 << 40])] * 4), min_size=1, max_size=10))
def test_packed_keys_are_equal_only_where_all_columns_are(rows):
    packed = _packed(*np.array(rows, dtype=np.int64).T)
    for i, one in enumerate(rows):
        assert [bool(key == packed[i]) for key in packed] == [other == one for other in rows]
