"""Hand-written games of the made-up world: what is known of them, and, for the generator alone,
their true work.
"""

from dataclasses import replace
from datetime import date
from typing import Any, NamedTuple

from wattmetron.core.game_fit.priors import presets_from, unknown_game
from wattmetron.core.values.games import Game, Option

# name, genre, and the truth: C, pi, kappa, G, phi, v_c, v_g, Y, upscalers, engine cap, memory,
# storage, video memory (high), rt GB
GAMES = [
    (
        "Causeway Clash",
        "competitive shooter",
        3.3,
        0.35,
        0.28,
        3.4,
        0.28,
        0.20,
        0.09,
        None,
        "Spyglass",
        None,
        8,
        35,
        (3.4, 4.1, 5.6),
        0,
    ),
    (
        "Hollow Meridian",
        "open world",
        8.6,
        0.40,
        0.20,
        11.2,
        0.18,
        0.20,
        0.08,
        3.1,
        "Driftlens;Spyglass",
        None,
        16,
        110,
        (7.2, 8.6, 11.4),
        1.6,
    ),
    (
        "Gullwing Circuit",
        "racing",
        6.4,
        0.30,
        0.18,
        7.4,
        0.20,
        0.13,
        0.06,
        1.9,
        "Driftlens;Spyglass",
        None,
        12,
        90,
        (5.6, 6.6, 8.8),
        1.1,
    ),
    (
        "Deepwater Pilot",
        "ship simulation",
        15.5,
        0.22,
        0.30,
        11.8,
        0.22,
        0.22,
        0.08,
        None,
        "Spyglass",
        None,
        16,
        140,
        (6.8, 8.2, 11.6),
        0,
    ),
    (
        "Ashfall Wardens",
        "co-operative action",
        7.8,
        0.42,
        0.20,
        9.1,
        0.20,
        0.21,
        0.09,
        None,
        "Driftlens;Spyglass",
        None,
        12,
        95,
        (6.1, 7.3, 9.7),
        0,
    ),
    (
        "Lanternfolk",
        "cosy farming",
        4.2,
        0.10,
        0.15,
        2.2,
        0.35,
        0.15,
        0.06,
        None,
        "",
        120,
        8,
        6,
        (1.6, 1.9, 2.6),
        0,
    ),
    (
        "Thousand Towers",
        "grand strategy",
        17.5,
        0.28,
        0.34,
        4.4,
        0.30,
        0.28,
        0.07,
        None,
        "",
        None,
        16,
        30,
        (3.2, 3.8, 5.1),
        0,
    ),
    (
        "Vantage Null",
        "ray-traced thriller",
        8.1,
        0.38,
        0.18,
        12.4,
        0.15,
        0.16,
        0.08,
        3.6,
        "Driftlens;Spyglass",
        None,
        16,
        85,
        (8.1, 9.4, 12.2),
        2.0,
    ),
    (
        "Kiteball Arena",
        "arena sport",
        4.0,
        0.25,
        0.24,
        3.0,
        0.30,
        0.16,
        0.07,
        None,
        "Spyglass",
        250,
        8,
        22,
        (2.4, 2.9, 4.0),
        0,
    ),
    (
        "Tin Harbour",
        "colony building",
        14.0,
        0.35,
        0.30,
        5.2,
        0.26,
        0.26,
        0.08,
        None,
        "",
        None,
        12,
        12,
        (2.8, 3.3, 4.4),
        0,
    ),
    (
        "Brinewalkers",
        "survival craft",
        9.6,
        0.30,
        0.22,
        8.6,
        0.22,
        0.24,
        0.10,
        None,
        "Driftlens;Spyglass",
        None,
        16,
        48,
        (6.4, 7.5, 9.8),
        0,
    ),
    (
        "Low Orbit Salvage",
        "space sandbox",
        11.0,
        0.30,
        0.25,
        9.8,
        0.20,
        0.23,
        0.08,
        2.4,
        "Driftlens",
        144,
        16,
        70,
        (6.6, 8.0, 10.8),
        1.4,
    ),
]

# name, genre, Y, upscalers, memory, storage: of these nothing but the genre and the published tiers
# is known
BY_REQUIREMENTS = [
    ("Saltmarsh Rally", "racing", 1.7, "Spyglass", 12, 60),
    ("The Quiet Lock", "puzzle adventure", None, "Spyglass", 8, 40),
    ("Ferryman's Due", "open world", 2.9, "Driftlens;Spyglass", 16, 120),
    ("Cold Harbour Nine", "competitive shooter", None, "Spyglass", 8, 28),
    ("Gable Row", "town simulation", None, "", 8, 25),
    ("Twelve Bells", "co-operative action", 2.2, "Driftlens;Spyglass", 12, 65),
    ("Drowned Parish", "horror adventure", 2.5, "Driftlens;Spyglass", 12, 75),
    ("Kelp Barons", "trade strategy", None, "", 12, 18),
    ("Mudlark Stories", "cosy adventure", None, "", 4, 3),
    ("Breakwater Siege", "competitive shooter", None, "Spyglass", 8, 45),
    ("Paper Lighthouse", "cosy puzzle", None, "", 4, 9),
    ("Winter Buoy", "survival craft", None, "Spyglass", 12, 54),
    ("Net and Anchor", "fishing simulation", None, "Spyglass", 16, 55),
    ("Ropewalk", "climbing sport", None, "", 6, 15),
]
# The truth of one more that is measured: C, pi, kappa, G, phi, v_c, v_g
TRUE_WORKS = {
    "saltmarsh-rally": (6.9, 0.30, 0.18, 7.0, 0.20, 0.14, 0.07),
}
# game -> frame generators offered
GENERATORS = {
    "hollow-meridian": ("Halfwake", "Interswell"),
    "deepwater-pilot": ("Interswell",),
    "vantage-null": ("Halfwake", "Interswell"),
    "ashfall-wardens": ("Halfwake",),
    "ferrymans-due": ("Halfwake", "Interswell"),
    "drowned-parish": ("Interswell",),
}
# game -> name of an option, what is left of processor and graphics work when it is lower, GB saved
OPTIONS = {
    "hollow-meridian": (("distant fields", 0.95, 0.90, 0.3), ("soft shadows", 1.0, 0.92, 0.5)),
    "gullwing-circuit": (("mirrors", 0.95, 0.93, 0.1),),
    "deepwater-pilot": (("wave detail", 0.92, 0.90, 0.2), ("harbour traffic", 0.86, 0.97, 0.0)),
    "thousand-towers": (("crowds in the streets", 0.84, 0.96, 0.0),),
    "vantage-null": (("wet floors", 1.0, 0.88, 0.4),),
    "brinewalkers": (("weed and kelp", 0.97, 0.89, 0.4),),
}
RELEASED = {
    "causeway-clash": date(2023, 5, 25),
    "hollow-meridian": date(2025, 9, 18),
    "gullwing-circuit": date(2024, 12, 5),
    "deepwater-pilot": date(2025, 3, 20),
    "ashfall-wardens": date(2024, 8, 29),
    "lanternfolk": date(2022, 10, 20),
    "thousand-towers": date(2024, 2, 22),
    "vantage-null": date(2025, 10, 23),
    "kiteball-arena": date(2023, 8, 3),
    "tin-harbour": date(2024, 6, 13),
    "brinewalkers": date(2024, 3, 28),
    "low-orbit-salvage": date(2025, 7, 3),
    "saltmarsh-rally": date(2023, 9, 28),
    "the-quiet-lock": date(2024, 4, 18),
    "ferrymans-due": date(2025, 7, 17),
    "cold-harbour-nine": date(2024, 11, 7),
    "gable-row": date(2025, 3, 13),
    "twelve-bells": date(2025, 5, 1),
    "drowned-parish": date(2025, 11, 14),
    "kelp-barons": date(2024, 6, 20),
    "mudlark-stories": date(2021, 6, 3),
    "breakwater-siege": date(2024, 9, 26),
    "paper-lighthouse": date(2025, 5, 22),
    "winter-buoy": date(2025, 1, 30),
    "net-and-anchor": date(2024, 12, 19),
    "ropewalk": date(2023, 3, 16),
}


def games() -> list[Game]:
    """All games of the made-up world."""
    games = [
        *(_game(_Row(*row)) for row in GAMES),
        *(_by_requirements(*row) for row in BY_REQUIREMENTS),
    ]
    return [
        replace(
            game,
            generators=GENERATORS.get(game.id, ()),
            options=tuple(
                Option(name=n, processor_factor=u, graphics_factor=w, video_memory_gb=gb)
                for n, u, w, gb in OPTIONS.get(game.id, ())
            ),
        )
        for game in games
    ]


def game_id(name: str) -> str:
    return name.lower().replace("'", "").replace(" ", "-")


def _by_requirements(
    name: str, genre: str, ray: float | None, upscalers: str, memory: float, storage: float
) -> Game:
    key = game_id(name)
    return replace(
        unknown_game(key, name, genre, RELEASED[key]),
        ray_tracing_ms_per_mpx=ray,
        upscalers=tuple(filter(None, upscalers.split(";"))),
        memory_gb=float(memory),
        storage_gb=float(storage),
    )


def true_works() -> list[Game]:
    """The games that are measured, with their true work in place of what is known of it."""
    known = {game.id: game for game in games()}
    rows = {game_id(row[0]): row[2:9] for row in GAMES} | TRUE_WORKS
    names = (
        "processor_ms",
        "parallel_share",
        "memory_sensitivity",
        "graphics_ms",
        "fixed_share",
        "processor_variation",
        "graphics_variation",
    )
    return [replace(known[key], **dict(zip(names, row, strict=True))) for key, row in rows.items()]


class _Row(NamedTuple):
    """A line of GAMES: work, ray tracing, upscalers, engine cap, what it wants of memory and
    storage.
    """

    name: str
    genre: str
    processor_ms: float
    parallel_share: float
    memory_sensitivity: float
    graphics_ms: float
    fixed_share: float
    processor_variation: float
    graphics_variation: float
    ray_tracing_ms_per_mpx: float | None
    upscalers: str
    engine_cap_fps: float | None
    memory_gb: float
    storage_gb: float
    video_memory_gb: Any
    ray_tracing_memory_gb: float


def _game(row: _Row) -> Game:
    return replace(
        unknown_game(game_id(row.name), row.name, row.genre, RELEASED[game_id(row.name)]),
        ray_tracing_ms_per_mpx=row.ray_tracing_ms_per_mpx,
        ray_tracing_memory_gb=float(row.ray_tracing_memory_gb),
        upscaling_ms_per_mpx=0.12,
        upscalers=tuple(filter(None, row.upscalers.split(";"))),
        engine_cap_fps=row.engine_cap_fps,
        memory_gb=float(row.memory_gb),
        storage_gb=float(row.storage_gb),
        presets=presets_from(row.video_memory_gb),
    )
