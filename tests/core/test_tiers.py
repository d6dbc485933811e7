"""Bars, doubts, verdicts, evidence and equals: by hand, as properties, and by a second
formulation.
"""

import math
from dataclasses import replace
from datetime import date
from statistics import median

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import minimize_scalar
from scipy.stats import norm

from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.game_fit.game_evidence import OPEN_GAP
from wattmetron.core.game_fit.informed import fitted_game, informed_game
from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT
from wattmetron.core.game_fit.priors import unknown_game
from wattmetron.core.requirements.agreement import doubts
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.requirements.verdicts import (
    WORDS,
    Contender,
    asked_amounts,
    highest_met,
    standings,
    storage_needed_gb,
    tier_verdicts,
)
from wattmetron.core.requirements.versions import version_of
from wattmetron.core.speeds.equal_parts import Use, equals
from wattmetron.core.speeds.speed_scale import Scale, scale_of
from wattmetron.core.values.published import Assumptions, Listed, NamedPart, Published, Tier

MAKER = World(7)


def processor(
    key: str, single: float, all_core: float, released=date(2020, 1, 1), withdrawn=None, sd=0.02
):
    part = MAKER.processor(0)
    return replace(
        part,
        id=key,
        model=key,
        single_speed=single,
        all_core_speed=all_core,
        speed_sd=sd,
        released=released,
        withdrawn=withdrawn,
    )


def card(
    key: str,
    speed: float,
    gb: float,
    chip: str = "",
    released=date(2020, 1, 1),
    withdrawn=None,
    sd=0.02,
):
    part = MAKER.card(0)
    return replace(
        part,
        id=key,
        model=key,
        chip=chip or key,
        speed_1080p=speed,
        speed_1440p=speed,
        speed_2160p=speed,
        speed_sd=sd,
        memory_gb=gb,
        ray_speed=None,
        released=released,
        withdrawn=withdrawn,
    )


PARTS = [
    processor("slow", 40, 40),
    processor("middling", 50, 50),
    processor("quick", 100, 100),
    card("dim", 40, 4),
    card("fair", 50, 8),
    card("bright", 100, 8),
    card("twin-small", 60, 3, "twin"),
    card("twin-large", 70, 6, "twin"),
]
GAME = replace(
    unknown_game("game", "Game", "action"), parallel_share=0.5, processor_ms=8.0, graphics_ms=8.0
)
STATED = {"width_px": 1920, "height_px": 1080, "preset": "high", "fps": 60.0}


def listed(*keys: str) -> tuple[Listed, ...]:
    return tuple(Listed(text=key, part=key) for key in keys)


def world(*tiers: Tier, game=GAME, parts=PARTS, **more) -> Catalogue:
    published = Published(game="game", tiers=tiers, published_on=date(2022, 1, 1))
    return Catalogue(
        parts={part.id: part for part in parts},
        games={"game": game},
        offers=(),
        regions={},
        published={"game": published},
        **more,
    ).kept_by(Keeper())


def tier(label="Minimum", cpu=("slow",), gpu=("dim",), **more) -> Tier:
    return Tier(label=label, processors=listed(*cpu), graphics=listed(*gpu), **{**STATED, **more})


def rules(found: Catalogue) -> list[tuple[str, int]]:
    return [
        (doubt.rule, doubt.tier) for doubt in doubts(tiers_of(found), "game", found.assumptions)
    ]


# --- bars
# ---------------------------------------------------------------------------------------------


def test_a_bar_is_the_middle_of_its_list_by_hand():
    found = world(
        tier(cpu=("slow", "quick", "middling")), tier("Recommended", cpu=("slow", "quick"))
    )
    bars = tiers_of(found).sides["processor"]
    assert np.exp(bars.bar) == pytest.approx([50, math.sqrt(40 * 100)])
    uneven = np.log([40, 100])
    assert bars.uneven[1] == pytest.approx(np.std(uneven, ddof=1))
    assert bars.bar_sd[1] == pytest.approx(0.02 / math.sqrt(2))


def test_the_game_decides_how_cores_count_by_hand():
    parts = [processor("wide", 60, 120), *PARTS]
    found = world(tier(cpu=("wide",)), parts=parts)
    assert np.exp(tiers_of(found).sides["processor"].bar[0]) == pytest.approx(
        1 / (0.5 / 60 + 0.5 / 120)
    )


def test_an_excluded_entry_does_not_count_and_an_empty_bar_is_none():
    left_out = replace(listed("quick")[0], excluded=True)
    found = world(Tier(label="Minimum", processors=(*listed("slow"), left_out), **STATED))
    assert np.exp(tiers_of(found).sides["processor"].bar[0]) == pytest.approx(40)
    assert np.isnan(tiers_of(found).sides["graphics"].bar[0])


def test_variants_by_stated_by_wanted_and_open():
    scale = Scale(PARTS, {})
    assert [item.memory_gb for item in scale.meant("twin", "graphics", 3, 6)] == [3]
    assert [item.memory_gb for item in scale.meant("twin", "graphics", None, 4)] == [6]
    assert [item.memory_gb for item in scale.meant("twin", "graphics", None, 3)] == [3]
    assert [item.memory_gb for item in scale.meant("twin", "graphics", None, 12)] == [6]
    assert [item.memory_gb for item in scale.meant("twin", "graphics", None)] == [3, 6]
    found = world(tier(gpu=("twin",)))
    assert np.exp(tiers_of(found).sides["graphics"].bar[0]) == pytest.approx(70), (
        "the stricter one counts"
    )


def test_a_named_part_stands_where_its_comparison_puts_it():
    named = {
        "b": NamedPart(id="b", side="processor", name="B", than="a", percent=10),
        "a": NamedPart(
            id="a", side="processor", name="A", than="quick", percent=-20, speed_sd=0.05
        ),
        "lost": NamedPart(id="lost", side="processor", name="Lost", than="nobody", percent=1),
    }
    scale = Scale(PARTS, named)
    assert scale.standings["a"].speeds == pytest.approx((80, 80))
    assert scale.standings["b"].speeds == pytest.approx((88, 88))
    assert scale.standings["a"].sd == pytest.approx(math.hypot(0.02, 0.05))
    assert "lost" not in scale.standings


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.integers(0, 10_000))
def test_bars_of_random_worlds_equal_a_plain_second_formulation(seed):
    """Against medians in plain Python, entry by entry, over several games at once."""
    rng = np.random.default_rng(seed)
    maker = World(seed)
    parts = [*(maker.processor(n) for n in range(9)), *(maker.card(n) for n in range(9))]
    cards = [part for part in parts if part.id.startswith("graphics")]
    games, published = {}, {}
    for n in range(4):
        game = replace(maker.game(n), id=f"game-{n}")
        tiers = []
        for place in range(int(rng.integers(1, 4))):
            cpu = rng.choice(9, int(rng.integers(0, 5)), replace=False)
            gpu = rng.choice(9, int(rng.integers(0, 5)), replace=False)
            size = [(1920, 1080), (2560, 1440), (3840, 2160)][int(rng.integers(3))]
            tiers.append(
                Tier(
                    label=f"tier {place}",
                    preset="high",
                    fps=60.0,
                    width_px=size[0],
                    height_px=size[1],
                    processors=tuple(
                        Listed(text="x", part=parts[i].id, excluded=bool(rng.random() < 0.2))
                        for i in cpu
                    ),
                    graphics=tuple(Listed(text="x", part=cards[i].id) for i in gpu),
                )
            )
        games[game.id] = game
        published[game.id] = Published(game=game.id, tiers=tuple(tiers))
    found = Catalogue(
        parts={part.id: part for part in parts},
        games=games,
        offers=(),
        regions={},
        published=published,
    ).kept_by(Keeper())
    for game_id, own in published.items():
        for row, tier in zip(tiers_of(found).of_game(game_id), own.tiers, strict=True):
            share = games[game_id].parallel_share
            speeds = [
                1 / ((1 - share) / chip.single_speed + share / chip.all_core_speed)
                for entry in tier.processors
                if not entry.excluded
                for chip in [found.parts[entry.part]]
            ]
            _same(tiers_of(found).sides["processor"].bar[row], speeds)
            rasters = [
                _raster(scale_of(found).standing(entry.part).speeds, tier.height_px)
                for entry in tier.graphics
            ]
            _same(tiers_of(found).sides["graphics"].bar[row], rasters)


def _raster(speeds, height: int) -> float:
    return speeds[{1080: 0, 1440: 1, 2160: 2}[height]]


def _same(bar: float, speeds: list[float]) -> None:
    if not speeds:
        assert np.isnan(bar)
    else:
        assert bar == pytest.approx(median(math.log(speed) for speed in speeds))


# --- doubts
# -------------------------------------------------------------------------------------------


def test_a_list_that_agrees_raises_nothing():
    assert rules(world(tier(), tier("Recommended", ("middling",), ("fair",)))) == []


def spread_cards(*speeds: float) -> Catalogue:
    parts = [*PARTS, *(card(f"c{n}", speed, 8) for n, speed in enumerate(speeds))]
    return world(tier(gpu=tuple(f"c{n}" for n in range(len(speeds)))), parts=parts)


def test_out_of_line_begins_where_uncertainty_and_unevenness_end():
    bar_sd = 1.2533 * 0.02 / math.sqrt(3)
    limit = 2 * math.sqrt(0.02**2 + bar_sd**2 + 0.07**2)
    within, beyond = math.exp(limit - 0.005), math.exp(limit + 0.005)
    assert rules(spread_cards(100, 100, 100 * within)) == []
    assert rules(spread_cards(100, 100, 100 * beyond)) == [("out of line", 0)]
    assert rules(spread_cards(100, 100, 100 / beyond)) == [("out of line", 0)]


def test_an_entry_among_scattered_ones_is_not_the_odd_one():
    assert rules(spread_cards(60, 100, 140, 85)) == []


def test_two_entries_too_far_apart_are_said_without_blaming_either():
    limit = 2 * math.sqrt(2 * 0.02**2 + 2 * 0.07**2)
    assert rules(spread_cards(100, 100 * math.exp(limit - 0.005))) == []
    assert rules(spread_cards(100, 100 * math.exp(limit + 0.005))) == [("far apart", 0)]


def test_every_other_rule_speaks_and_says_its_figures():
    found = world(
        tier("Minimum", ("middling",), ("fair",), memory_gb=16.0),
        tier("Recommended", ("quick",), ("dim",), memory_gb=8.0, video_memory_gb=6.0),
        replace(
            Tier(
                label="Ultra",
                processors=(Listed(text="Pilot 5"), Listed(text="3 GHz", clock_ghz=3.0)),
                graphics=listed("twin"),
            )
        ),
    )
    said = {
        (doubt.rule, doubt.tier): doubt.sentence
        for doubt in doubts(tiers_of(found), "game", found.assumptions)
    }
    assert set(said) == {
        ("tiers out of order", 1),
        ("too little video memory", 1),
        ("variant open", 2),
        ("not placed", 2),
        ("figures alone", 2),
        ("conditions unstated", 2),
    }
    assert "8 GB of memory" in said["tiers out of order", 1].replace("\u202f", " ")
    assert "has 4\u202fGB" in said["too little video memory", 1]
    assert "3 and 6" in said["variant open", 2] and "do not compare" in said["figures alone", 2]
    assert "2560x1440, high, 60" in said["conditions unstated", 2]


def test_a_single_part_below_the_tier_under_it_is_named():
    found = world(
        tier("Minimum", gpu=("fair",)),
        tier("Recommended", ("middling",), ("bright", "bright", "dim")),
    )
    assert ("below the tier under it", 1) in rules(found)
    (item,) = [
        doubt
        for doubt in doubts(tiers_of(found), "game", found.assumptions)
        if doubt.rule == "below the tier under it"
    ]
    assert "20\u202f% below what Minimum asks for" in item.sentence and (
        item.side,
        item.position,
    ) == (
        "graphics",
        2,
    )


# --- verdicts
# -----------------------------------------------------------------------------------------

FULL = tier(
    "Minimum",
    ("middling",),
    ("fair",),
    memory_gb=16.0,
    video_memory_gb=6.0,
    storage_gb=100.0,
    storage_kind="SSD",
    system="Tidewater 11 64-bit",
    api="Fairlead 12",
)
HAS = Contender(
    processor=(60.0, 60.0),
    processor_name="p",
    processor_sd=0.03,
    graphics=(45.0, 45.0, 45.0),
    graphics_name="g",
    graphics_sd=0.03,
    video_memory_gb=8.0,
    memory_gb=12.0,
    storage_gb=500.0,
    storage_kind="NVMe SSD",
    system="Tidewater 11",
    apis=("Fairlead 11",),
)


def verdict(found: Catalogue, contender: Contender, sureness=0.8):
    judged = standings(tiers_of(found), asked_amounts(found), contender, sureness)
    return tier_verdicts(tiers_of(found), judged, contender, "game")


def test_verdicts_by_hand_and_the_shortest_first():
    (item,) = verdict(world(FULL), HAS)
    words = {
        each.aspect: (each.word, None if each.ratio is None else round(each.ratio, 4))
        for each in item.aspects
    }
    assert words == {
        "processor": ("meets", 1.2),
        "graphics": ("short", 0.9),
        "video memory": ("meets", round(8 / 6, 4)),
        "memory": ("short", 0.75),
        "storage": ("meets", 5.0),
        "operating system": ("meets", None),
        "graphics API": ("short", None),
    }
    assert item.word == "short" and item.shortest.aspect == "memory"
    graphics = next(each for each in item.aspects if each.aspect == "graphics")
    assert graphics.chance == pytest.approx(norm.cdf(math.log(0.9) / math.hypot(0.03, 0.02)))


def test_words_follow_the_chance_and_the_sureness():
    near = replace(HAS, graphics=(50.5, 50.5, 50.5), memory_gb=16.0, apis=("Fairlead 12",))
    chance = norm.cdf(math.log(1.01) / math.hypot(0.03, 0.02))
    assert 0.5 < chance < 0.8
    assert verdict(world(FULL), near)[0].word == "unsure"
    assert verdict(world(FULL), near, sureness=0.5)[0].word == "meets"


def test_what_is_not_known_is_said_and_only_a_system_does_not_count():
    (item,) = verdict(
        world(FULL), replace(HAS, system="", apis=(), memory_gb=16.0, graphics=(90.0, 90.0, 90.0))
    )
    assert item.word == "meets"
    assert {each.aspect for each in item.aspects if each.word == "not known"} == {
        "operating system",
        "graphics API",
    }
    assert verdict(world(FULL), Contender())[0].word == "not known"


def test_a_slower_kind_of_storage_is_short_and_an_older_or_other_system_too():
    (disk,) = verdict(world(FULL), replace(HAS, storage_kind="hard disk"))
    assert next(each.word for each in disk.aspects if each.aspect == "storage") == "short"
    for system, word in (
        ("Tidewater 10", "short"),
        ("Stillwater 12", "short"),
        ("Tidewater 12", "meets"),
    ):
        (item,) = verdict(world(FULL), replace(HAS, system=system))
        assert next(each.word for each in item.aspects if each.aspect == "operating system") == word
    assert version_of("Fairlead 12_1")[1:] == ("fairlead", (12, 1))
    assert version_of("Tidewater 10, 64 bit").numbers == (10,)


def test_rays_cannot_be_met_by_what_cannot_trace_them():
    rays = tier("Rays", gpu=("bright",), ray_tracing=True)
    traced = [replace(part, ray_speed=80.0) if part.id == "bright" else part for part in PARTS]
    found = world(rays, parts=traced)
    share = tiers_of(found).ray_share[0]
    assert np.exp(tiers_of(found).sides["graphics"].bar[0]) == pytest.approx(
        1 / ((1 - share) / 100 + share / 80)
    )
    (item,) = verdict(found, replace(HAS, graphics=(900.0, 900.0, 900.0), ray_speed=None))
    assert item.shortest.aspect == "graphics" and item.shortest.chance == 0


def test_highest_met_stops_at_the_first_tier_that_is_short():
    found = world(tier("A", ("slow",)), tier("B", ("quick",)), tier("C", ("slow",)))
    judged = standings(tiers_of(found), asked_amounts(found), HAS, 0.8)
    assert highest_met(tiers_of(found), judged, "game") == 0
    none = standings(
        tiers_of(found), asked_amounts(found), replace(HAS, processor=(10.0, 10.0)), 0.8
    )
    assert highest_met(tiers_of(found), none, "game") is None


def test_storage_together_keeps_a_fifth_free():
    assert storage_needed_gb([100.0, 60.0]) == pytest.approx(200.0)


SPEED = st.floats(10, 300)


@exhaustive
@settings(max_examples=extent(26, 320))
@given(SPEED, SPEED, SPEED, st.floats(1.0, 2.0))
def test_a_faster_part_never_worsens_a_verdict(single, all_core, raster, factor):
    found = world(
        tier(cpu=("slow", "middling", "quick")), tier("Recommended", ("quick",), ("fair", "bright"))
    )
    slower = replace(HAS, processor=(single, all_core), graphics=(raster,) * 3)
    faster = replace(HAS, processor=(single * factor, all_core), graphics=(raster * factor,) * 3)
    before, after = (
        standings(tiers_of(found), asked_amounts(found), item, 0.8) for item in (slower, faster)
    )
    for side in (0, 1):
        assert (after.ratios[:, side] >= before.ratios[:, side] - 1e-12).all()
        assert (after.codes[:, side] >= before.codes[:, side]).all()
    assert all(WORDS[code] in ("short", "unsure", "meets") for code in after.codes[:, :2].ravel())


@exhaustive
@settings(max_examples=extent(20, 160))
@given(SPEED, SPEED, st.floats(1.05, 3.0))
def test_a_higher_bar_is_never_easier(low, has, step):
    parts = [*PARTS, processor("low", low, low), processor("high", low * step, low * step)]
    found = world(tier("A", ("low",)), tier("B", ("high",)), parts=parts)
    judged = standings(
        tiers_of(found), asked_amounts(found), replace(HAS, processor=(has, has)), 0.8
    )
    assert judged.ratios[0, 0] == pytest.approx(judged.ratios[1, 0] * step)
    assert judged.codes[0, 0] >= judged.codes[1, 0]


# --- evidence
# -----------------------------------------------------------------------------------------

MARGIN, NOISE = NOTHING_LEARNT.margin, NOTHING_LEARNT.noise


def test_one_tier_as_evidence_by_hand():
    found = world(
        tier("Recommended", ("middling",), ("fair",)),
        game=replace(GAME, processor_work_sd=0.5, graphics_work_sd=0.5),
    )
    informed = informed_game(found, "game")
    item = next(each_item for each_item in informed.items if each_item.side == "processor")
    gap = math.log(50 / 40)
    assert (item.gap, item.next_weaker) == (
        pytest.approx(gap),
        scale_of(found).standing("slow").name,
    )
    work = 1000 / 60 * math.exp(-MARGIN) * math.exp(-gap / 2) * 50 / 100
    assert item.work_ms == pytest.approx(work)
    sd = math.sqrt(NOISE**2 + gap**2 / 12 + 0.02**2)
    assert item.sd == pytest.approx(sd)
    sigma, upper = math.hypot(NOISE, 0.02), math.log(1000 / 60) - MARGIN

    def surprise(ln_c: float) -> float:
        """Prior and one-sided band, of the listed part's time of 2 C ms."""
        x = ln_c + math.log(2)
        band = norm.cdf((upper - x) / sigma) - norm.cdf((upper - gap - x) / sigma)
        return 0.5 * ((ln_c - math.log(8)) / 0.5) ** 2 - math.log(band)

    best = minimize_scalar(surprise, bounds=(0, 4), method="bounded", options={"xatol": 1e-10}).x
    assert math.log(informed.game.processor_ms) == pytest.approx(best, abs=1e-4)
    step = 1e-3
    bend = (surprise(best + step) - 2 * surprise(best) + surprise(best - step)) / step**2
    assert informed.game.processor_work_sd == pytest.approx(1 / math.sqrt(bend), rel=1e-3)
    assert fitted_game(found, "game") == informed.game and found.games["game"].processor_ms == 8.0


def test_the_market_of_the_day_decides_the_band():
    later = processor("later", 49, 49, released=date(2023, 1, 1))
    gone = processor("gone", 48, 48, withdrawn=date(2021, 1, 1))
    found = world(tier("Recommended", ("middling",)), parts=[*PARTS, later, gone])
    item = next(
        each_item
        for each_item in informed_game(found, "game").items
        if each_item.side == "processor"
    )
    assert item.gap == pytest.approx(math.log(50 / 40))
    lowest = next(
        each_item
        for each_item in informed_game(world(tier("Recommended", ("slow",))), "game").items
        if each_item.side == "processor"
    )
    assert (lowest.gap, lowest.next_weaker) == (OPEN_GAP, "")


def test_assumed_conditions_widen_and_move_the_evidence():
    stated = informed_game(world(tier("Minimum", preset="low", fps=30.0)), "game").items
    bare = informed_game(
        world(Tier(label="Minimum", processors=listed("slow"), graphics=listed("dim"))), "game"
    ).items
    rate, preset = math.log(60 / 30), math.log(0.93 / 0.86)
    third = NOTHING_LEARNT.assumed_share
    shift = (rate + preset) / 3
    assert bare[0].work_ms == pytest.approx(stated[0].work_ms / math.exp(shift * third)), (
        "a third of the triangular means"
    )
    assert bare[0].assumed_sd == pytest.approx(math.sqrt((rate**2 + preset**2) / 18))
    assert all(
        other.sd > item.sd and item.assumed_sd == 0
        for item, other in zip(stated, bare, strict=True)
    )
    table = Assumptions(minimum=replace(Assumptions().minimum, fps=60.0, least_fps=60.0))
    moved = informed_game(
        world(Tier(label="Minimum", processors=listed("slow")), assumptions=table), "game"
    ).items[0]
    assert moved.work_ms == pytest.approx(stated[0].work_ms / 2 / math.exp(preset / 3 * third))


def test_a_game_without_tiers_is_left_as_it_was():
    found = Catalogue(parts={}, games={"game": GAME}, offers=(), regions={})
    assert found.game("game") == GAME and informed_game(found, "game").items == ()


# --- as good
# ------------------------------------------------------------------------------------------


def test_equals_and_their_chance_by_hand():
    scale = Scale(PARTS, {})
    wanted = scale.standing("fair")
    assert wanted is not None
    found = {equal.part.id: equal for equal in equals(wanted, PARTS, scale, Use())}
    assert set(found) == {"fair", "bright", "twin-small", "twin-large"}
    assert found["twin-small"].ratio == pytest.approx(1.2)
    assert found["twin-small"].chance == pytest.approx(
        norm.cdf(math.log(1.2) / math.hypot(0.02, 0.02))
    )
    assert found["fair"].named and found["fair"].chance == 1


def test_equal_processors_depend_on_the_use():
    parts = [processor("narrow", 100, 40), processor("wide", 80, 160)]
    scale = Scale(parts, {})
    narrow = scale.standing("narrow")
    assert narrow is not None
    assert {equal.part.id for equal in equals(narrow, parts, scale, Use(parallel_share=0.0))} == {
        "narrow"
    }
    assert {equal.part.id for equal in equals(narrow, parts, scale, Use(parallel_share=0.6))} == {
        "narrow",
        "wide",
    }
