"""Promises against measurements: targets, and how honest intervals were."""

import numpy as np
import pytest

from wattmetron.core.frames import frame_rates
from wattmetron.core.frames.pacing import paced
from wattmetron.core.runs.prediction import Outcome, Promised, honesty, kept
from wattmetron.core.runs.statistics import MeasuredRate


def promise(fps, sd):
    return Promised(
        average_fps=fps,
        least_fps=float(fps * np.exp(-1.2816 * sd)),
        most_fps=float(fps * np.exp(1.2816 * sd)),
        low_fps=fps * 0.8,
        processor_share=0.5,
    )


def test_a_target_as_measured():
    far, near = (kept([MeasuredRate(fps, 0, 0, 0.01)], 60, 0.8) for fps in (70.0, 60.0))
    assert far.state == "meets" and near.state == "unsure" and near.chance == pytest.approx(0.5)
    assert kept([MeasuredRate(55.0, 0, 0, 0.01)], 60, 0.8).state == "short"
    many = kept([MeasuredRate(61.0, 0, 0, 0.01)] * 4, 60, 0.8)
    assert many.chance > kept([MeasuredRate(61.0, 0, 0, 0.01)], 60, 0.8).chance
    assert many.most_fps - many.least_fps < far.most_fps - far.least_fps


def test_honest_promises_hold_as_often_as_they_say_and_boasts_do_not():
    source = np.random.default_rng(8)

    def outcomes(said_sd):
        return [
            Outcome(
                promise(80.0, said_sd),
                MeasuredRate(
                    float(80 * np.exp(source.normal(0, np.hypot(0.1, 0.0224)))), 0, 0, 0.01
                ),
            )
            for _ in range(800)
        ]

    honest, boast = honesty(outcomes(0.1)), honesty(outcomes(0.04))
    assert honest and boast
    for said, held in honest.steps:
        assert held == pytest.approx(said, abs=0.05)
    assert dict(boast.steps)[0.8] < 0.6 and boast.whole.covered < 0.5
    assert abs(honest.whole.bias) < 0.02
    assert honesty([]) is None


def test_groups_of_three_and_more_are_told():
    rows = [
        Outcome(promise(100, 0.05), MeasuredRate(fps, 0, 0, 0.01)) for fps in (110, 111, 112, 90)
    ]
    own = honesty(rows, (("kind", lambda n: "high" if n < 3 else "low"),))
    assert own
    ((name, groups),) = own.groups
    assert name == "kind" and [(g.name, g.runs) for g in groups] == [("high", 3)]
    assert groups[0].bias == pytest.approx(0.11, abs=0.001)


@pytest.mark.parametrize(
    ("sides", "hz", "variable"),
    [
        ((8, 0.15, 8, 0.06), 144, 48),
        ((15, 0.2, 9, 0.08), 60, None),
        ((5, 0.15, 10, 0.06), 120, 60),
        ((20, 0.18, 18, 0.08), 60, None),
    ],
)
def test_what_the_display_does_is_what_a_simulation_sees(sides, hz, variable):
    t_c, v_c, t_g, v_g = sides
    source, refresh = np.random.default_rng(11), 1000 / hz

    def side(mean, v):
        s = np.sqrt(np.log1p(v**2))
        return mean * np.exp(source.normal(-(s**2) / 2, s, 400_000))

    frame = np.maximum(side(t_c, v_c), side(t_g, v_g))
    own = paced((t_c, t_g, v_c, v_g), hz, variable)
    assert own.quicker == pytest.approx((frame < refresh).mean(), abs=0.004)
    if variable:
        assert own.slower == pytest.approx((frame > 1000 / variable).mean(), abs=0.004)
        assert own.lag_ms == pytest.approx(np.maximum(0, refresh - frame).mean(), abs=0.02)
    else:
        held = np.ceil(frame / refresh) * refresh
        assert own.shown_fps == pytest.approx(1000 / held.mean(), rel=0.003)
        assert own.lag_ms == pytest.approx((held - frame).mean(), abs=0.05)
        assert own.torn == pytest.approx(
            min(1, refresh / float(frame_rates.mean_ms(t_c, t_g, v_c, v_g))), abs=1e-9
        )
