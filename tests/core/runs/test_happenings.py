"""What happened in simulated runs whose truth is known: named rightly, and nothing where nothing
was; which side limits; what is wrong with a log.
"""

from collections import Counter

import numpy as np
import pytest

from wattmetron.core.runs.events import happenings
from wattmetron.core.runs.limiting_side import limits
from wattmetron.core.runs.log_errors import mended
from wattmetron.core.runs.phases import phases
from wattmetron.core.runs.report import TooShortError, report
from wattmetron.core.values.runs import Trace
from wattmetron.demo.simulated_run import SCENARIOS, TrueMachine, simulated

USUAL = (0.18, 0.08)
SEEDS = range(10)


def machine(source):
    processor = float(np.exp(source.uniform(np.log(4), np.log(22))))
    away = source.choice([-1, 1]) * source.uniform(0.12, 0.7)
    return TrueMachine(
        processor_ms=processor,
        graphics_ms=processor * float(np.exp(away)),
        processor_variation=source.uniform(0.1, 0.25),
        graphics_variation=source.uniform(0.04, 0.12),
    )


def runs(scenario, seeds=SEEDS, seconds=60.0):
    source = np.random.default_rng(len(scenario))
    for seed in seeds:
        own, hz = machine(source), float(source.choice([60, 75, 120, 144]))
        yield own, hz, simulated(own, scenario, seconds, seed, refresh_hz=hz)


def truth(run):
    graphics = 1 - run.held_share - run.processor_share
    if run.held_share > max(run.processor_share, graphics):
        return "neither"
    return "processor" if run.processor_share > graphics else "graphics"


def test_happenings_and_sides_are_named_rightly_in_95_of_100_scenarios():
    right = sides = by_use = total = 0
    for scenario in SCENARIOS:
        for own, hz, run in runs(scenario):
            wanted = {each.what for each in run.happened} - {"scene"}
            found = {each.what for each in happenings(run.trace, hz, own.memory_gb)}
            right += found == wanted
            sides += limits(run.trace, USUAL).side == truth(run)
            channels = {n: v for n, v in run.trace.channels.items() if not n.endswith("_ms")}
            bare = Trace(run.trace.start_s, run.trace.frame_ms, channels)
            by_use += limits(bare, USUAL).side == truth(run)
            total += 1
    assert total == 100
    assert right >= 95 and sides >= 95 and by_use >= 95


def test_nothing_is_named_in_95_of_100_clean_runs():
    named = [
        happenings(run.trace, hz, own.memory_gb)
        for own, hz, run in runs("clean", range(100, 200), 40.0)
    ]
    assert sum(not own for own in named) >= 95


def test_stretches_are_where_they_were():
    for scenario in ("throttling", "memory overflow", "background task", "menu in between"):
        for own, hz, run in runs(scenario, range(4)):
            (found,) = happenings(run.trace, hz, own.memory_gb)
            (true,) = run.happened
            assert found.stretches[0][0] == pytest.approx(true.from_s, abs=6)
            assert found.stretches[-1][1] == pytest.approx(true.to_s, abs=6)


def test_the_shape_alone_is_a_hint_and_no_more():
    right, said = 0, []
    for _, _, run in runs("clean", range(40), 40.0):
        own = limits(Trace(run.trace.start_s, run.trace.frame_ms), USUAL)
        right += own.side == truth(run)
        said.append(own.sure)
    assert max(said) <= 0.75 and right >= 28


def test_faults_of_a_log_are_named_and_mended():
    kinds = {"drop out": "drop-out", "repeat": "repeated", "jump": "clock"}
    for fault, kind in kinds.items():
        for seed in range(5):
            whole = simulated(TrueMachine(processor_ms=9, graphics_ms=7), "clean", 20, seed)
            spoilt = simulated(
                TrueMachine(processor_ms=9, graphics_ms=7), "clean", 20, seed, fault=fault
            )
            own = mended(spoilt.trace)
            assert Counter(each.kind for each in own.faults) == {kind: 1}
            assert (np.diff(own.trace.start_s) > 0).all()
            if fault != "drop out":
                assert own.trace.count == whole.trace.count
    assert not mended(whole.trace).faults


def test_scenes_are_told_apart_and_a_quiet_run_is_one():
    told = [phases(run.trace) for _, _, run in runs("two scenes", range(10))]
    apart = [found for found in told if 2 <= len(found) <= 4]
    assert len(apart) >= 9
    assert all(found[1].average_fps < found[0].average_fps for found in apart)
    for _, _, run in runs("clean", range(6)):
        assert len(phases(run.trace)) == 1


def test_a_report_has_everything_and_a_short_stretch_is_refused():
    run = simulated(TrueMachine(processor_ms=9, graphics_ms=7), "clean", 30, 2)
    own = report(run.trace)
    watts, spent = run.trace.channels["watts"], run.trace.frame_ms
    assert own.energy_j == pytest.approx((watts * spent).sum() / 1000 / spent.size)
    assert own.levels["processor_mhz"].median == pytest.approx(4600)
    assert sum((own.limits.processor, own.limits.graphics, own.limits.neither)) == pytest.approx(1)
    assert report(run.trace, from_s=5, to_s=15).summary.seconds == pytest.approx(10, abs=0.2)
    with pytest.raises(TooShortError, match="too few"):
        report(run.trace, from_s=29)
