"""Averages and lows of traces: by hand, against simulation, and how often their intervals hold."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.signal import lfilter

from tests.extent import exhaustive, extent
from wattmetron.core.runs.difference import difference
from wattmetron.core.runs.statistics import MeasuredRate, block_length, summary


def correlated(source, count, variation, kept, mean_ms):
    shocks = source.normal(size=count + 2000) * np.sqrt(1 - kept**2)
    noise = lfilter([1], [1, -kept], shocks)[2000:]
    s = np.sqrt(np.log1p(variation**2))
    return mean_ms * np.exp(s * noise - s**2 / 2)


def frames(source, count, kept, v_c, v_g):
    return np.maximum(
        correlated(source, count, v_c, kept, 7.0), correlated(source, count, v_g, kept, 7.5)
    )


def test_figures_by_hand():
    times = np.concatenate([np.full(990, 10.0), np.full(10, 50.0)])
    own = summary(times)
    assert own.frames == 1000 and own.seconds == pytest.approx(10.4)
    assert own.average.fps == pytest.approx(1000 / 10.4)
    assert own.median_ms == 10 and own.lowest_fps == pytest.approx(20)
    assert own.spread == pytest.approx(np.std(times) / 10.4)
    assert summary(np.full(200, 8.0)).spread == 0


@pytest.mark.parametrize(
    ("count", "kept", "v_c", "v_g"),
    [(4000, 0.8, 0.12, 0.05), (9000, 0.95, 0.25, 0.12), (30000, 0.98, 0.18, 0.08)],
)
@exhaustive
def test_intervals_cover_the_truth_three_to_six_in_seven_times(count, kept, v_c, v_g):
    """80 % intervals over correlated traces: 75 to 85 of 100 within what chance allows."""
    source = np.random.default_rng(17)
    long = np.concatenate([frames(source, 200_000, kept, v_c, v_g) for _ in range(8)])
    average, low = 1000 / long.mean(), 1000 / np.quantile(long, 0.99)
    held = np.zeros(2)
    traces = extent(60, 150)
    for _ in range(traces):
        own = summary(frames(source, count, kept, v_c, v_g))
        held += (
            own.average.least_fps <= average <= own.average.most_fps,
            own.low.least_fps <= low <= own.low.most_fps,
        )
    assert (held / traces > 0.66).all() and (held / traces < 0.93).all()


def test_blocks_are_longer_where_frames_remember_longer():
    source = np.random.default_rng(3)
    lengths = [
        block_length(correlated(source, 20_000, 0.15, kept, 8.0)) for kept in (0.0, 0.7, 0.95)
    ]
    assert lengths[0] < lengths[1] < lengths[2]


@given(st.lists(st.floats(1, 100), min_size=20, max_size=300), st.floats(0.1, 10))
def test_every_trace_has_ordered_figures_that_scale(times, factor):
    own, scaled = summary(np.array(times)), summary(np.array(times) * factor)
    assert own.average.least_fps <= own.average.most_fps
    assert own.low.fps <= own.average.fps * 1.0000001 or own.spread < 1e-9 or own.frames < 100
    assert scaled.average.fps == pytest.approx(own.average.fps / factor, rel=1e-6)


@exhaustive
def test_the_difference_is_real_as_often_as_it_says():
    source = np.random.default_rng(5)
    rows = []
    for _ in range(extent(2000, 6000)):
        true, run_sd = source.normal(0, 0.03), 0.012 * np.exp(source.normal(0, 0.4))

        def side(ln, run_sd=run_sd):
            widths = source.uniform(0.004, 0.015, source.integers(1, 6))
            return [
                MeasuredRate(
                    float(np.exp(ln + source.normal(0, run_sd) + source.normal(0, w))), 0, 0, w
                )
                for w in widths
            ]

        own = difference(side(4.0), side(4.0 + true))
        rows.append((own.chance, (own.change > 0) == (true > 0)))
    table = np.array(rows, dtype=float)
    for low, high in ((0.5, 0.7), (0.7, 0.85), (0.85, 0.95), (0.95, 1.01)):
        inside = (table[:, 0] >= low) & (table[:, 0] < high)
        said, right = table[inside].mean(axis=0)
        assert right == pytest.approx(said, abs=extent(0.07, 0.05))


def test_more_runs_that_would_settle_it_do():
    before = [MeasuredRate(100.0, 0, 0, 0.01)] * 2
    after = [MeasuredRate(101.5, 0, 0, 0.01)] * 2
    own = difference(before, after)
    assert own.chance < 0.95 and own.more_runs
    more = own.more_runs
    assert difference(before + before[:1] * more, after + after[:1] * more).chance >= 0.94
    assert difference(before, before).more_runs is None
