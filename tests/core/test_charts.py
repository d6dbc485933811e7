"""One scale from many charts: by hand, against a full least-squares solution, and against hidden
truths.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wattmetron.core.speeds.reconcile import SpeedPrior, reconcile
from wattmetron.core.speeds.scaled_catalogue import settled
from wattmetron.core.values.charts import Chart, ChartRow
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue


def chart(key: str, noise=0.03, muted=False, measure="1080p", **values: float) -> Chart:
    rows = tuple(
        ChartRow(text=name.upper(), part=name, value=value) for name, value in values.items()
    )
    return Chart(id=key, name=key, measure=measure, noise=noise, muted=muted, rows=rows)


def test_a_chart_with_its_own_unit_places_a_part_by_hand():
    """a is known exactly at 100; the chart says b is twice a, in a unit of its own."""
    found = reconcile({"a": SpeedPrior(math.log(100), 1e-6)}, [chart("c", a=7.0, b=14.0)])
    assert math.exp(found.ln["b"]) == pytest.approx(200, rel=1e-6)
    assert found.sd["b"] == pytest.approx(math.sqrt(2) * found.sources[0].noise, rel=0.05)
    assert math.exp(found.sources[0].offset) == pytest.approx(0.07, rel=1e-5)


def test_two_sources_meet_between_weighed_by_their_spreads_by_hand():
    known = {"a": SpeedPrior(0.0, 1e-6), "b": SpeedPrior(math.log(2), 0.03)}
    found = reconcile(known, [chart("c", a=1.0, b=2.2)])
    chart_sd = math.sqrt(2) * found.sources[0].noise
    weights = 1 / 0.03**2, 1 / chart_sd**2
    middle = (weights[0] * math.log(2) + weights[1] * math.log(2.2)) / sum(weights)
    assert found.ln["b"] == pytest.approx(middle, abs=0.004)
    assert found.sd["b"] == pytest.approx(1 / math.sqrt(sum(weights)), rel=0.06)


def test_two_charts_without_a_common_part_are_bridged_by_one_comparison():
    known = {"a": SpeedPrior(math.log(100), 0.01)}
    first, second = chart("first", a=50.0, b=75.0), chart("second", c=1.0, d=3.0)
    apart = reconcile(known, [first, second])
    assert set(apart.ln) == {"a", "b"} and apart.loose == (("c", "d"),)
    assert apart.tie == (("c", "a"),) and not apart.sources[1].tied
    bridged = reconcile(known, [first, second, chart("bridge", c=0.5, b=1.0)])
    assert bridged.loose == () and set(bridged.ln) == {"a", "b", "c", "d"}
    assert math.exp(bridged.ln["d"]) == pytest.approx(100 * 1.5 * 0.5 * 3, rel=1e-6)
    assert bridged.sd["d"] > bridged.sd["c"] > bridged.sd["b"] > bridged.sd["a"]


def test_a_muted_chart_says_nothing_and_a_single_part_compares_with_nothing():
    known = {"a": SpeedPrior(0.0, 0.03), "b": SpeedPrior(0.5, 0.03)}
    found = reconcile(known, [chart("m", muted=True, a=1.0, b=9.0), chart("one", a=5.0)])
    assert found.ln == pytest.approx({"a": 0.0, "b": 0.5}) and found.sd["a"] == pytest.approx(0.03)
    assert not any(source.tied for source in found.sources)


def test_one_wrong_value_is_named_and_hardly_moves_the_others():
    names = [f"p{n}" for n in range(12)]
    known = {name: SpeedPrior(math.log(50 + 10 * n), 0.03) for n, name in enumerate(names)}
    right = {name: 50.0 + 10 * n for n, name in enumerate(names)}
    slipped = chart("slip", noise=0.02, **{**right, "p5": 150.0})
    found = reconcile(known, [slipped, chart("sound", noise=0.02, **right)])
    assert found.disagreements[0].chart.id == "slip" and found.disagreements[0].position == 5
    assert found.disagreements[0].weight < 0.2
    assert max(abs(found.ln[name] - known[name].ln) for name in names) < 0.02


def test_a_chain_that_contradicts_itself_is_split_and_listed():
    known = {"a": SpeedPrior(0.0, 0.001)}
    loop = [
        chart("ab", noise=0.01, a=1.0, b=2.0),
        chart("bc", noise=0.01, b=1.0, c=2.0),
        chart("ca", noise=0.01, c=1.0, a=0.5),
    ]
    found = reconcile(known, loop)
    assert 2.0 < math.exp(found.ln["c"]) < 4.0
    assert any(disagreement.chart.id in ("bc", "ca", "ab") for disagreement in found.disagreements)


@settings(max_examples=40)
@given(st.integers(0, 10_000))
def test_the_linear_solution_equals_a_full_least_squares_over_parts_and_offsets(seed):
    """At the weights found, numpy's least squares over the whole design gives the same speeds and
    spreads.
    """
    known, charts, _ = made_up(seed, parts=12, sources=3, rows=6)
    found = reconcile(known, charts)
    keys = list(found.ln)
    weight = {
        (disagreement.chart.id, disagreement.position): disagreement.weight
        for disagreement in found.disagreements
    }
    design, right = [], []
    for key, item in known.items():
        line = np.zeros(len(keys) + len(charts))
        line[keys.index(key)] = 1 / item.sd
        design.append(line)
        right.append(item.ln / item.sd)
    for n, source in enumerate(found.sources):
        for place, row in enumerate(source.chart.rows):
            residual = math.log(row.value) - found.ln[row.part] - source.offset
            own = weight.get((source.chart.id, place), 4 / (4 + (residual / source.noise) ** 2))
            line = np.zeros(len(keys) + len(charts))
            line[keys.index(row.part)] = line[len(keys) + n] = math.sqrt(own) / source.noise
            design.append(line)
            right.append(math.log(row.value) * math.sqrt(own) / source.noise)
    matrix = np.array(design)
    solved = np.linalg.lstsq(matrix, np.array(right), rcond=None)[0]
    cover = np.linalg.inv(matrix.T @ matrix)
    for n, key in enumerate(keys):
        assert found.ln[key] == pytest.approx(solved[n], abs=2e-5)
        assert found.sd[key] == pytest.approx(math.sqrt(cover[n, n]), rel=2e-3)


def made_up(seed: int, parts: int, sources: int, rows: int):
    rng = np.random.default_rng(seed)
    truth = np.log(rng.uniform(30, 200, parts))
    known = {f"p{n}": SpeedPrior(truth[n] + rng.normal(0, 0.03), 0.03) for n in range(parts)}
    charts = []
    for k in range(sources):
        chosen = rng.choice(parts, rows, replace=False)
        error = rng.normal(0, rng.uniform(0.01, 0.05), rows)
        error[rng.random(rows) < 0.05] += 0.3
        unit = rng.normal(0, 2)
        charts.append(
            chart(
                f"c{k}",
                **{
                    f"p{n}": float(np.exp(truth[n] + unit + error[i])) for i, n in enumerate(chosen)
                },
            )
        )
    return known, charts, truth


def test_intervals_cover_hidden_truths_as_often_as_they_say_and_errors_halve():
    inside, with_charts, without = [], [], []
    for seed in range(12):
        known, charts, truth = made_up(seed, 150, 10, 50)
        found = reconcile(known, charts)
        for n, true in enumerate(truth):
            miss = found.ln[f"p{n}"] - true
            inside.append(abs(miss) < 1.2816 * found.sd[f"p{n}"])
            with_charts.append(abs(miss))
            without.append(abs(known[f"p{n}"].ln - true))
    assert 0.76 <= np.mean(inside) <= 0.86
    assert np.median(with_charts) < 0.55 * np.median(without)


@settings(max_examples=30)
@given(st.integers(0, 10_000), st.floats(0.01, 1000))
def test_a_charts_own_unit_does_not_matter(seed, unit):
    known, charts, _ = made_up(seed, parts=10, sources=3, rows=6)
    scaled = [
        chart(each_chart.id, **{row.part: row.value * unit for row in each_chart.rows})
        if n == 0
        else each_chart
        for n, each_chart in enumerate(charts)
    ]
    before, after = reconcile(known, charts), reconcile(known, scaled)
    assert before.ln == pytest.approx(after.ln, abs=1e-6) and before.sd == pytest.approx(
        after.sd, rel=1e-5
    )


def test_the_catalogue_moves_to_where_its_charts_put_it_and_keeps_what_was_described():
    raw = read_catalogue(CATALOGUE)
    moved = settled(raw)
    assert moved.described is raw and moved.raw is raw
    lantern = [
        part for part in moved.parts.values() if getattr(part, "chip", "") == "Orlop Lantern"
    ]
    before = [raw.parts[part.id] for part in lantern]
    factors = {
        round(new.speed_1080p / old.speed_1080p, 9)
        for new, old in zip(lantern, before, strict=True)
    }
    assert len(factors) == 1, "all cards of a chip move together"
    assert all(new.speed_sd < old.speed_sd for new, old in zip(lantern, before, strict=True))
    assert moved.parts["ledgerock-ledge-500"] is raw.parts["ledgerock-ledge-500"]
    assert settled(moved.described).parts == moved.parts
    assert settled(replace(raw, charts={})).raw is None
