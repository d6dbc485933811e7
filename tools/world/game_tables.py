"""Games of the made-up world from their tables: what is known of them, and, for the generator
alone, their true work.
"""

from dataclasses import replace
from types import SimpleNamespace

from tools.world.tables import items, rows
from wattmetron.core.game_fit.priors import presets_from, unknown_game
from wattmetron.core.values.games import Game, Option

WORK_FIELDS = (
    "processor_ms",
    "parallel_share",
    "memory_sensitivity",
    "graphics_ms",
    "fixed_share",
    "processor_variation",
    "graphics_variation",
)


def games() -> list[Game]:
    """All games of the made-up world; of those by requirements nothing but the genre and the
    published tiers is known.
    """
    measured = [_measured(row) for row in rows("games")]
    return [*measured, *(_described(row) for row in rows("games_by_requirements"))]


def true_works() -> list[Game]:
    """The games that are measured, with their true work in place of what is known of it."""
    known = {game.id: game for game in games()}
    work = {game_id(row.name): row for row in rows("games")}
    work |= {row.game: row for row in rows("true_works")}
    return [
        replace(known[key], **{name: getattr(row, name) for name in WORK_FIELDS})
        for key, row in work.items()
    ]


def game_id(name: str) -> str:
    return name.lower().replace("'", "").replace(" ", "-")


def _described(row: SimpleNamespace) -> Game:
    key = game_id(row.name)
    return replace(
        unknown_game(key, row.name, row.genre, row.released),
        ray_tracing_ms_per_mpx=row.ray_tracing_ms_per_mpx,
        upscalers=items(row.upscalers),
        memory_gb=float(row.memory_gb),
        storage_gb=float(row.storage_gb),
        generators=items(row.generators),
        options=_options(key),
    )


def _measured(row: SimpleNamespace) -> Game:
    video_memory_gb = (
        row.video_memory_1080p_gb,
        row.video_memory_1440p_gb,
        row.video_memory_2160p_gb,
    )
    return replace(
        _described(row),
        ray_tracing_memory_gb=float(row.ray_tracing_memory_gb),
        upscaling_ms_per_mpx=0.12,
        engine_cap_fps=row.engine_cap_fps,
        presets=presets_from(video_memory_gb),
    )


def _options(key: str) -> tuple[Option, ...]:
    return tuple(
        Option(
            name=row.name,
            processor_factor=row.processor_factor,
            graphics_factor=row.graphics_factor,
            video_memory_gb=row.video_memory_gb,
        )
        for row in rows("game_options")
        if row.game == key
    )
