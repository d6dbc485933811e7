"""The briefs that ship with the demo."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief, Display, Extra, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_types import kind_of


def wanted(
    size: tuple[int, int], *rows: tuple[str, str, float, dict[str, object]]
) -> tuple[Target, ...]:
    return tuple(
        Target(
            id=f"t{n}",
            game_id=game,
            width_px=size[0],
            height_px=size[1],
            preset=preset,
            fps=fps,
            **more,
        )
        for n, (game, preset, fps, more) in enumerate(rows, start=1)
    )


OWNED = (
    "quillon-cutter-ebb-6",
    "pellworth-holm-8-plain",
    "pellworth-groyne-micro-bollard",
    "bramblebyte-plain-16-single-ddr4",
    "stonepier-slate-480",
    "lowhum-even-550",
    "boxwood-yard-crate",
)


def owned_build(world: Catalogue, owned: tuple[str, ...]) -> Build:
    build = Build()
    for part_id in owned:
        build = build.with_part(kind_of(world.parts[part_id]), part_id)
    return build


def briefs(world: Catalogue) -> dict[str, tuple[Brief, Build]]:
    """The briefs that ship with the demo, each with the build it starts from."""
    net_loft = Brief(
        name="Net loft all-rounder",
        region="vellmouth",
        budget_low_minor=105000,
        budget_high_minor=125000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=144.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("hollow-meridian", "high", 70.0, {"weight": 3}),
            ("ashfall-wardens", "high", 90.0, {"weight": 2}),
            ("vantage-null", "high", 60.0, {"weight": 2, "upscaling": True, "ray_tracing": True}),
            ("gullwing-circuit", "ultra", 90.0, {"weight": 2}),
            ("thousand-towers", "high", 60.0, {"weight": 1}),
            ("lanternfolk", "ultra", 100.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        system="Tidewater 11",
        notes="One room, one machine: open worlds in the evening, light games in between.",
    )
    hall = Brief(
        name="Harbour hall, seat row",
        region="vellmouth",
        budget_low_minor=80000,
        budget_high_minor=95000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=240.0),
        targets=wanted(
            (1920, 1080),
            ("causeway-clash", "medium", 240.0, {"weight": 3}),
            ("kiteball-arena", "high", 240.0, {"weight": 2}),
            ("ashfall-wardens", "medium", 100.0, {"weight": 1}),
            ("causeway-clash", "low", 165.0, {"weight": 2, "measure": "low"}),
        ),
        seats=6,
        storage_gb=500.0,
        part_cap_minor=45000,
        notes="The budget pays for six alike. No single part above EUR 450.",
    )
    bunk = Brief(
        name="Ferry bunk",
        region="vellmouth",
        budget_low_minor=50000,
        budget_high_minor=70000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=60.0),
        targets=wanted(
            (1920, 1080),
            ("lanternfolk", "high", 60.0, {"weight": 3}),
            ("kiteball-arena", "low", 60.0, {"weight": 2}),
            ("causeway-clash", "low", 60.0, {"weight": 1, "upscaling": True}),
            ("tin-harbour", "low", 40.0, {"weight": 1}),
        ),
        storage_gb=500.0,
        extras=(Extra(name="Operating system", minor=0, in_budget=True),),
        watt_limit_w=140,
        notes="A shelf of six litres and an inverter that gives 140 W; the case is there already.",
        owned=("lidd-frame-bunk",),
    )
    chart = Brief(
        name="Chart room",
        region="overwater",
        budget_low_minor=1300000,
        budget_high_minor=1700000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=100.0, variable_from_hz=40.0),
        sureness="near certain",
        targets=wanted(
            (2560, 1440),
            ("thousand-towers", "high", 60.0, {"weight": 3}),
            ("tin-harbour", "high", 75.0, {"weight": 3, "measure": "low"}),
            ("deepwater-pilot", "medium", 45.0, {"weight": 2}),
            ("lanternfolk", "high", 90.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        memory_gb=32.0,
        extras=(Extra(name="Operating system", minor=149000, in_budget=True),),
        notes="The late game is what counts here.",
    )
    tower = Brief(
        name="Signal tower, sent-in list",
        region="vellmouth",
        budget_low_minor=110000,
        budget_high_minor=140000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=165.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("causeway-clash", "high", 165.0, {"weight": 2}),
            ("brinewalkers", "high", 75.0, {"weight": 2}),
            ("low-orbit-salvage", "high", 70.0, {"weight": 1}),
            ("deepwater-pilot", "medium", 50.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        system="Tidewater 10",
        notes="A list that somebody sent, put together for looks. Keep or change, and say why.",
    )
    lamp = Brief(
        name="Lamp room",
        region="vellmouth",
        budget_low_minor=150000,
        budget_high_minor=180000,
        display=Display(width_px=3440, height_px=1440, refresh_hz=144.0, variable_from_hz=48.0),
        targets=wanted(
            (3440, 1440),
            ("gullwing-circuit", "high", 100.0, {"weight": 3}),
            ("vantage-null", "high", 60.0, {"weight": 3, "upscaling": True, "ray_tracing": True}),
            ("hollow-meridian", "high", 70.0, {"weight": 1}),
            ("deepwater-pilot", "high", 60.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        trust_floor="plain or proven",
        wireless=True,
        system="Tidewater 11",
        notes="Beside the lamp it must stay quiet. No cable reaches the room.",
    )
    bench = Brief(
        name="Old bench machine",
        region="vellmouth",
        budget_low_minor=25000,
        budget_high_minor=45000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=75.0),
        targets=wanted(
            (1920, 1080),
            ("ashfall-wardens", "medium", 70.0, {"weight": 2}),
            ("hollow-meridian", "medium", 60.0, {"weight": 2}),
            ("kiteball-arena", "high", 75.0, {"weight": 1}),
            ("lanternfolk", "high", 75.0, {"weight": 1}),
        ),
        storage_gb=480.0,
        allow_used=True,
        owned=OWNED,
        notes="The bench has a machine already: keep what is good, replace what limits.",
    )
    ship = Brief(
        name="Weather ship, all processor",
        region="vellmouth",
        budget_low_minor=115000,
        budget_high_minor=136000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=120.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("hollow-meridian", "high", 65.0, {"weight": 3}),
            ("gullwing-circuit", "high", 80.0, {"weight": 2}),
            ("ashfall-wardens", "high", 85.0, {"weight": 1}),
            ("brinewalkers", "high", 70.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        notes="Bought for the many cores; the games never see them.",
    )
    lopsided = Build(
        processor="quillon-barque-flood-12",
        graphics="pellworth-reef-8-plain",
        mainboard="saltgrove-mole-full-capstan",
        memory="bramblebyte-burdock-32-pair-ddr5",
        storage=("ledgerock-cairn-1000",),
        cooler="coldreach-trade-wind-twin",
        supply="ampherst-ballast-750",
        case="boxwood-yard-hold",
    )
    sent = Build(
        processor="marrowgate-heron-dun-6",
        graphics="kitefall-pharos-16-triple",
        mainboard="pellworth-wharf-full",
        memory="bramblebyte-plain-16-single-ddr4",
        storage=("ledgerock-ledge-500",),
        cooler="coldreach-gust",
        supply="lowhum-bargain-700",
        case="lidd-frame-porthole",
    )
    four_cores = Build(
        processor="quillon-wherry-flood-4",
        graphics="pellworth-bank-12-plain",
        mainboard="pellworth-groyne-micro-capstan",
        memory="bramblebyte-burdock-16-pair-ddr5",
        storage=("ledgerock-ledge-1000",),
        cooler="coldreach-draught",
        supply="lowhum-level-750",
        case="boxwood-yard-crate",
    )
    seat = propose(world, hall).build
    assert seat
    return {
        "net-loft": (net_loft, four_cores),
        "harbour-hall": (hall, seat),
        "ferry-bunk": (bunk, Build(case="lidd-frame-bunk")),
        "lamp-room": (lamp, Build()),
        "old-bench-machine": (bench, owned_build(world, OWNED)),
        "chart-room": (chart, Build()),
        "signal-tower": (tower, sent),
        "weather-ship": (ship, lopsided),
    }
