"""What is taken for granted about a game of which nothing but its genre and its requirements is
known.
"""

from datetime import date

from wattmetron.core.values.games import Game, Preset, PresetName, VideoMemoryNeed

UNKNOWN_SD = 0.5
"""Spread of C and G in ln before any evidence: games of one genre differ by a factor of two either
way.
"""

# genre -> C ms, pi, kappa, G ms, phi, v_c, v_g: the middle of the demo world's games of that genre
GENRES: dict[str, tuple[float, float, float, float, float, float, float]] = {
    "competitive shooter": (4.0, 0.33, 0.26, 4.0, 0.28, 0.19, 0.09),
    "open world": (8.5, 0.40, 0.20, 10.0, 0.20, 0.20, 0.08),
    "racing": (6.5, 0.30, 0.18, 7.5, 0.20, 0.14, 0.07),
    "simulation": (13.0, 0.25, 0.28, 9.0, 0.22, 0.22, 0.08),
    "action": (7.5, 0.40, 0.20, 9.0, 0.20, 0.20, 0.09),
    "adventure": (6.0, 0.30, 0.18, 8.0, 0.22, 0.17, 0.08),
    "strategy": (14.0, 0.30, 0.32, 5.0, 0.28, 0.26, 0.08),
    "sport": (5.0, 0.28, 0.22, 5.0, 0.28, 0.16, 0.07),
    "survival": (9.5, 0.30, 0.22, 8.5, 0.22, 0.24, 0.10),
    "cosy": (4.5, 0.15, 0.16, 3.0, 0.33, 0.16, 0.07),
}
OTHER = (7.5, 0.32, 0.20, 7.5, 0.22, 0.19, 0.08)

PRESET_PRIORS: tuple[tuple[PresetName, float, float, float], ...] = (
    ("low", 0.86, 0.50, 0.62),
    ("medium", 0.93, 0.72, 0.80),
    ("high", 1.0, 1.0, 1.0),
    ("ultra", 1.06, 1.32, 1.18),
)
"""Preset, u, w, share of the video memory at high."""
USUAL_VIDEO_MEMORY_GB = (5.5, 6.5, 8.8)


def presets_from(needs_gb: tuple[float, float, float]) -> tuple[Preset, ...]:
    """The four presets with usual factors, from the video memory at high in GB at 1080p, 1440p and
    2160p.
    """
    return tuple(
        Preset(
            name=name,
            processor_factor=u,
            graphics_factor=w,
            video_memory=VideoMemoryNeed(
                at_1080p_gb=round(needs_gb[0] * share, 1),
                at_1440p_gb=round(needs_gb[1] * share, 1),
                at_2160p_gb=round(needs_gb[2] * share, 1),
            ),
        )
        for name, u, w, share in PRESET_PRIORS
    )


def unknown_game(game_id: str, name: str, genre: str, released: date | None = None) -> Game:
    """A game with everything taken from the priors of its genre, which a word of it can name."""
    words = genre.lower()
    prior = next(
        (row for key, row in GENRES.items() if key in words or words in key.split()), OTHER
    )
    c, pi, kappa, g, phi, v_c, v_g = prior
    return Game(
        id=game_id,
        name=name,
        genre=genre,
        released=released,
        processor_ms=c,
        parallel_share=pi,
        memory_sensitivity=kappa,
        graphics_ms=g,
        fixed_share=phi,
        processor_variation=v_c,
        graphics_variation=v_g,
        processor_work_sd=UNKNOWN_SD,
        graphics_work_sd=UNKNOWN_SD,
        presets=presets_from(USUAL_VIDEO_MEMORY_GB),
    )
