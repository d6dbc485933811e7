"""Draw, efficiency, energy, heat and noise: worked by hand, against the published test points, as
properties.
"""

from dataclasses import replace
from decimal import Decimal
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_compatibility_rules import WHOLE
from wattmetron.core.power import efficiency as eff
from wattmetron.core.power.account import PowerUse, account
from wattmetron.core.power.draw import draw, needed_supply_w

PUBLISHED = {
    (230, "Gold"): {20: 90, 50: 92, 100: 89},
    (230, "Titanium"): {10: 90, 20: 94, 50: 96, 100: 94},
    (115, "Bronze"): {20: 82, 50: 85, 100: 82},
    (115, "Titanium"): {10: 90, 20: 92, 50: 94, 100: 90},
}
USE = PowerUse(
    headroom_percent=140,
    play_hours=2.0,
    desk_hours=3.0,
    tariff_per_kwh=Decimal("0.32"),
    mains_v=230,
)


def game(
    processor_ms: float,
    graphics_ms: float,
    mean_ms: float,
    weight: int = 1,
    capped: float | None = None,
):
    """What the account reads of an estimate."""
    return SimpleNamespace(
        processor_ms=processor_ms,
        graphics_ms=graphics_ms,
        mean_frame_ms=mean_ms,
        average_fps=1000 / mean_ms,
        capped_fps=capped,
        shown=1,
        game=SimpleNamespace(name="Game"),
        target=SimpleNamespace(weight=weight),
        cannot="",
        cap_fps=None,
    )


@pytest.mark.parametrize("key", PUBLISHED)
def test_efficiency_agrees_with_the_published_test_points(key):
    mains_v, level = key
    for load, percent in PUBLISHED[key].items():
        assert eff.efficiency(level, mains_v, load / 100) == pytest.approx(percent / 100)


def test_efficiency_between_and_below_the_points_by_hand():
    assert eff.efficiency("Gold", 230, 0.35) == pytest.approx(0.91), "half way from 20 to 50 %"
    lost = 0.2 / 0.90 - 0.2
    assert eff.efficiency("Gold", 230, 0.1) == pytest.approx(0.1 / (0.1 + lost))
    assert eff.efficiency("Gold", 230, 1.3) == eff.efficiency("Gold", 230, 1.0)
    assert (
        eff.efficiency("no such badge", 230, 0.5) == 0.78
        and eff.efficiency("Gold", 230, 0.0) == 0.0
    )


@given(
    st.sampled_from(("", *eff.LEVELS)),
    st.sampled_from((115, 230)),
    st.integers(1, 1000),
    st.integers(1, 1000),
)
def test_more_load_never_draws_less_from_the_wall(level, mains_v, one, other):
    low, high = sorted((one, other))
    assert eff.wall_w(level, mains_v, 1000, low) <= eff.wall_w(level, mains_v, 1000, high) + 1e-9
    better = eff.better_level(level)
    if better:
        assert eff.wall_w(better, mains_v, 1000, high) < eff.wall_w(level, mains_v, 1000, high)


def test_the_account_by_hand():
    """100 W processor (60 in games), 200 W card with spikes of 1.5, board 30, fans 8, two sticks,
    one NVMe: 51 W.
    """
    told = account(WHOLE, (game(5, 10, 10), game(10, 5, 10, weight=3)), USE)
    (desk,), games, (full,), (spike,) = (
        told.of(state) for state in ("desk", "game", "full", "spike")
    )
    assert desk.total_w == pytest.approx(15 + 16 + 51)
    assert [span.total_w for span in games] == [
        pytest.approx(30 + 200 + 51),
        pytest.approx(60 + 100 + 51),
    ]
    assert full.total_w == draw(WHOLE).full_w == 351 and full.load_share == pytest.approx(351 / 600)
    assert spike.total_w == 451 and spike.wall_w is None
    assert full.efficiency == pytest.approx(0.92 - 0.03 * (58.5 - 50) / 50)
    assert told.needed_w == 492 and told.fitting_w == 500
    assert told.later_card_w == 600 * 100 // 140 - 100 - 51


def test_energy_and_cost_of_a_year_by_hand():
    """Play at (281 + 3 x 211) / 4 = 228.5 W: 38.08 % of 600 W; the desk at 82 W: 13.67 %, below the
    lowest point.
    """
    year = account(WHOLE, (game(5, 10, 10), game(10, 5, 10, weight=3)), USE).year
    play = 228.5 / (0.90 + 0.02 * (228.5 / 6 - 20) / 30)
    desk = 82 + 600 * (0.2 / 0.9 - 0.2)
    kwh = (play * 2 + desk * 3) * 365 / 1000
    assert year.kwh == pytest.approx(kwh, rel=1e-9)
    assert year.cost_minor == round(kwh * 32)
    assert year.better == "Platinum" and 0 < year.saves_minor < year.cost_minor * 0.05
    assert account(replace(WHOLE, supply=None), (), USE).year is None
    assert (
        account(
            replace(WHOLE, supply=replace(WHOLE.supply, efficiency="Titanium")), (), USE
        ).year.better
        is None
    )


def test_a_cap_lowers_the_draw_by_the_busy_shares():
    free, capped = (
        account(WHOLE, (game(5, 10, 10, capped=cap),), USE).of("game")[0] for cap in (None, 50.0)
    )
    assert free.total_w == pytest.approx(30 + 200 + 51) and capped.total_w == pytest.approx(
        60 * 0.25 + 200 * 0.5 + 51
    )


def test_heat_and_noise_are_indications_with_a_source():
    told = account(WHOLE, (game(5, 10, 10),), USE)
    assert (told.heat.processor_w, told.heat.cooler_w, told.heat.machine_w, told.heat.case_w) == (
        100,
        100,
        351,
        520,
    )
    assert told.noise_dba == pytest.approx(36.11, abs=0.01), (
        "the card alone at its full 200 W: the cooler's noise is not known"
    )
    quiet = account(
        replace(WHOLE, cooler=replace(WHOLE.cooler, noise_dba=36.0, capacity_w=60)),
        (game(5, 10, 10),),
        USE,
    )
    assert quiet.noise_dba == pytest.approx(36 + 3.06, abs=0.01), (
        "two equal sounds are 3 dB more than one"
    )
    bare = account(replace(WHOLE, graphics=None), (), USE)
    assert bare.noise_dba is None and bare.of("full")[0].graphics_w == 0


def test_the_supply_is_sized_for_headroom_and_reserve_by_hand():
    """301 W x 1.4 = 421.4, rounded up; a tenth more on top: 463.54."""
    assert needed_supply_w(301, 140) == 422
    assert needed_supply_w(301, 140, 10) == 464
