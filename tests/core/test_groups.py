"""Options in groups, remembered rows and machines side by side, against plain definitions."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.test_frames import scene
from tests.extent import exhaustive, extent
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.lazy import NumberedRows
from wattmetron.core.search.equivalents import Groups
from wattmetron.core.search.platform_classes import NO_OPTIONS, Options

ROWS = st.lists(st.tuples(st.integers(1, 12), st.integers(0, 4)), max_size=12)


def options(rows: list[tuple[int, int]]) -> Options:
    """Options of these costs and frames, the cheapest first; what a group brings follows from its
    number.
    """
    cost, frames = np.array(sorted(rows), dtype=np.int64).reshape(-1, 2).T
    brought = {
        "latency_ns": 10.0 - (frames * 7) % 5,
        "bandwidth_gbs": 20.0 + (frames * 3) % 5,
        "gb": 16.0 + frames,
        "link_gen": frames,
        "link_lanes": 16 - frames,
    }
    rest = {
        name: np.zeros(cost.size, dtype=np.int64)
        for name in ("form", "leads", "memory_level", "bays", "cards", "rest_w", "power_level")
    }
    return Options(cost=cost, frames=frames, **brought, **rest) if rows else NO_OPTIONS


@exhaustive
@settings(max_examples=extent(50, 600))
@given(st.lists(ROWS, min_size=1, max_size=4), st.integers(0, 13), st.integers(0, 13))
def test_groups_hold_every_option_of_every_class(classes, most, under):
    """By class the groups within a cost, the options behind each first one, and the best of all
    that is within reach.
    """
    groups = Groups([options(rows) for rows in classes])
    kinds = np.arange(len(classes))
    if not groups.least.size:
        return
    at, found = groups.of(kinds, np.full(kinds.size, most))
    for kind, rows in enumerate(classes):
        wanted = {frames: min(cost for cost, own in rows if own == frames) for _, frames in rows}
        inside = sorted(cost for cost in wanted.values() if cost <= most)
        own = found[at == kind]
        assert groups.least[own].tolist() == inside
        assert sorted(groups.columns["frames"][groups.head[own]].tolist()) == sorted(
            frames for frames, cost in wanted.items() if cost <= most
        )
        if inside:
            last = groups.last(np.array([kind]), np.array([most]))
            brought = groups.figures.of(own)
            best = [
                brought.latency_ns.min(),
                brought.bandwidth_gbs.max(),
                brought.gb.max(),
                brought.link_gen.max(),
                brought.link_lanes.max(),
            ]
            assert [float(column[0]) for column in groups.best.of(last)] == best
        place, behind = groups.dearer(own, np.full(own.size, under))
        for n, group in enumerate(own):
            frames, least = groups.columns["frames"][groups.head[group]], groups.least[group]
            costs = sorted(cost for cost, item in rows if item == frames)
            assert costs[0] == least
            assert sorted(groups.columns["cost"][behind[place == n]].tolist()) == [
                cost for cost in costs[1:] if cost < under
            ]


@exhaustive
@settings(max_examples=extent(33, 400))
@given(st.lists(st.lists(st.integers(0, 700), max_size=400), max_size=6))
def test_remembered_rows_are_worked_out_once(asked):
    seen = []

    def compute(keys):
        seen.extend(keys.tolist())
        return np.stack([keys * 3, keys**2], axis=1)

    memo = NumberedRows(701, 2, compute)
    for keys in asked:
        rows = memo[np.array(keys, dtype=np.int64)]
        assert rows.tolist() == [[key * 3, key**2] for key in keys]
    assert len(seen) == len(set(seen)) and set(seen) == {key for keys in asked for key in keys}


@exhaustive
@settings(max_examples=extent(20, 160))
@given(st.lists(st.integers(0, 300), min_size=1, max_size=4))
def test_machines_side_by_side_have_the_sides_of_each_alone(seeds):
    """All of them on the first one's target, among them machines without a processor, which do not
    run.
    """
    scenes = [scene(seed) for seed in seeds]
    _, game, target, brief = scenes[0]
    machines = [
        item for machine, *_ in scenes for item in (machine, replace(machine, processor=None))
    ]
    sides = Lineup(machines).sides(game, target)
    for i, machine in enumerate(machines):
        item = estimate(machine, game, target, brief)
        if item is None:
            assert machine.processor is None and np.isnan(sides.processor_ms[i])
            continue
        assert sides.processor_ms[i] == pytest.approx(item.processor_ms, rel=1e-12)
        assert sides.graphics_ms[i] == pytest.approx(item.graphics_ms, rel=1e-12)
        assert (sides.processor_sd[i], sides.graphics_sd[i]) == pytest.approx(
            (item.processor_sd, item.graphics_sd), rel=1e-9
        )
        assert sides.cov[i] == item.workload.side_cov
