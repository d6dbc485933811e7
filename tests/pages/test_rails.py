"""Requirement rails: nothing overlaps, nothing leaves the chart, and the chart says what it
shows.
"""

import re
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.extent import exhaustive, extent
from wattmetron.drawing.rails import HEIGHT, SPACING, Band, Marker, Rail, Tick, rails

TEXT = re.compile(
    r'<text x="([\d.]+)" y="([\d.]+)" text-anchor="(\w+)" class="(t-ink|t-own)">([^<]*)'
)
SPEED = st.floats(np.log(8), np.log(400))


@st.composite
def rail(draw):
    ticks = [
        Tick(draw(SPEED), f"Maker Part {n}", draw(st.booleans()), draw(st.booleans()))
        for n in range(draw(st.integers(0, 9)))
    ]
    bands = [Band(draw(SPEED), draw(st.floats(0, 0.7)), n) for n in range(draw(st.integers(0, 4)))]
    marker = Marker(draw(SPEED), 0.03, "Maker Own") if draw(st.booleans()) else None
    return Rail(tuple(ticks), tuple(bands), marker)


TIERS = (
    ("Minimum", "1920x1080, low, 30 fps"),
    ("Recommended", "1920x1080, high, 60 fps"),
    ("Ultra", ""),
    ("More", ""),
)


@exhaustive
@settings(max_examples=extent(40, 480))
@given(rail(), rail(), st.sampled_from([380, 820]))
def test_labels_are_spaced_and_stay_within_the_chart(left, right, width):
    chart = str(rails(left, right, TIERS, "a chart", width))
    for anchor in ("start", "end"):
        rows = sorted(
            float(y)
            for _, y, where, _, words in TEXT.findall(chart)
            if where == anchor and not words.isdigit()
        )
        assert all(0 < y < HEIGHT + 6 for y in rows)
        assert all(after - before >= SPACING - 0.11 for before, after in pairwise(rows))
    for x in re.findall(r'\bx[12]?="(-?[\d.]+)"', chart):
        assert 0 <= float(x) <= width
    assert "nan" not in chart and "inf" not in chart


def test_faster_parts_stand_higher_and_the_odd_one_is_hollow():
    side = Rail(
        (
            Tick(np.log(100), "Maker Fast", False, False),
            Tick(np.log(50), "Maker Slow", True, False),
        ),
        (Band(np.log(80), 0.3, 0),),
        Marker(np.log(70), 0.05, "Maker Own"),
    )
    chart = str(rails(side, side, TIERS[:1], "x", 820))
    at = {words: float(y) for _, y, _, _, words in TEXT.findall(chart)}
    assert at["Maker Fast"] < at["▸ Maker Own"] < at["Maker Slow (out of line)"]
    assert chart.count('class="i-ground s-ink"') == 2, "one hollow tick on each rail"
    assert 'aria-label="x"' in chart


def test_names_are_escaped_and_long_ones_drop_their_maker_first():
    side = Rail((Tick(np.log(50), "<Maker> A Rather Long Name Of A Part", False, False),), (), None)
    chart = str(rails(side, side, (), "x", 820))
    assert "<Maker>" not in chart and "A Rather Long Name Of A Part" in chart
    assert "Maker" not in chart


@pytest.mark.parametrize("width", [380, 820])
def test_an_empty_rail_is_drawn_all_the_same(width):
    assert "<svg" in rails(Rail((), (), None), Rail((), (), None), (), "nothing placed", width)
