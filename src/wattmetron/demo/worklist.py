"""Hand-written workloads of the made-up games."""

from wattmetron.core.games import Game, Preset, VideoMemoryNeed

# name, genre, C, pi, kappa, G, phi, v_c, v_g, Y, upscalers, engine cap, sd C, sd G, memory, storage, video memory (high), rt GB
GAMES = [
    ("Causeway Clash", "competitive shooter", 3.3, 0.35, 0.28, 3.4, 0.28, 0.20, 0.09, None, "Spyglass", None, 0.07, 0.07, 8, 35, (3.4, 4.1, 5.6), 0),
    ("Hollow Meridian", "open world", 8.6, 0.40, 0.20, 11.2, 0.18, 0.20, 0.08, 3.1, "Driftlens;Spyglass", None, 0.10, 0.09, 16, 110, (7.2, 8.6, 11.4), 1.6),
    ("Gullwing Circuit", "racing", 6.4, 0.30, 0.18, 7.4, 0.20, 0.13, 0.06, 1.9, "Driftlens;Spyglass", None, 0.08, 0.07, 12, 90, (5.6, 6.6, 8.8), 1.1),
    ("Deepwater Pilot", "ship simulation", 15.5, 0.22, 0.30, 11.8, 0.22, 0.22, 0.08, None, "Spyglass", None, 0.12, 0.10, 16, 140, (6.8, 8.2, 11.6), 0),
    ("Ashfall Wardens", "co-operative action", 7.8, 0.42, 0.20, 9.1, 0.20, 0.21, 0.09, None, "Driftlens;Spyglass", None, 0.10, 0.08, 12, 95, (6.1, 7.3, 9.7), 0),
    ("Lanternfolk", "cosy farming", 4.2, 0.10, 0.15, 2.2, 0.35, 0.15, 0.06, None, "", 120, 0.09, 0.09, 8, 6, (1.6, 1.9, 2.6), 0),
    ("Thousand Towers", "grand strategy", 17.5, 0.28, 0.34, 4.4, 0.30, 0.28, 0.07, None, "", None, 0.12, 0.10, 16, 30, (3.2, 3.8, 5.1), 0),
    ("Vantage Null", "ray-traced thriller", 8.1, 0.38, 0.18, 12.4, 0.15, 0.16, 0.08, 3.6, "Driftlens;Spyglass", None, 0.10, 0.09, 16, 85, (8.1, 9.4, 12.2), 2.0),
    ("Kiteball Arena", "arena sport", 4.0, 0.25, 0.24, 3.0, 0.30, 0.16, 0.07, None, "Spyglass", 250, 0.07, 0.07, 8, 22, (2.4, 2.9, 4.0), 0),
    ("Tin Harbour", "colony building", 14.0, 0.35, 0.30, 5.2, 0.26, 0.26, 0.08, None, "", None, 0.12, 0.10, 12, 12, (2.8, 3.3, 4.4), 0),
    ("Brinewalkers", "survival craft", 9.6, 0.30, 0.22, 8.6, 0.22, 0.24, 0.10, None, "Driftlens;Spyglass", None, 0.11, 0.10, 16, 48, (6.4, 7.5, 9.8), 0),
    ("Low Orbit Salvage", "space sandbox", 11.0, 0.30, 0.25, 9.8, 0.20, 0.23, 0.08, 2.4, "Driftlens", 144, 0.11, 0.09, 16, 70, (6.6, 8.0, 10.8), 1.4),
]

# preset, u, w, share of the video memory at high
PRESET_FACTORS = (("low", 0.86, 0.50, 0.62), ("medium", 0.93, 0.72, 0.80), ("high", 1.0, 1.0, 1.0), ("ultra", 1.06, 1.32, 1.18))


def games() -> list[Game]:
    """All games of the made-up world."""
    return [_game(*row) for row in GAMES]


def _game(name, genre, c, pi, kappa, g, phi, v_c, v_g, ray, upscalers, cap, sd_c, sd_g, memory, storage, video, ray_gb):  # type: ignore[no-untyped-def]
    presets = tuple(
        Preset(
            name=preset,
            processor_factor=u,
            graphics_factor=w,
            video_memory=VideoMemoryNeed(
                at_1080p_gb=round(video[0] * share, 1),
                at_1440p_gb=round(video[1] * share, 1),
                at_2160p_gb=round(video[2] * share, 1),
            ),
        )
        for preset, u, w, share in PRESET_FACTORS
    )
    return Game(
        id=name.lower().replace(" ", "-"),
        name=name,
        genre=genre,
        processor_ms=c,
        parallel_share=pi,
        memory_sensitivity=kappa,
        graphics_ms=g,
        fixed_share=phi,
        processor_variation=v_c,
        graphics_variation=v_g,
        ray_tracing_ms_per_mpx=ray,
        ray_tracing_memory_gb=float(ray_gb),
        upscaling_ms_per_mpx=0.12,
        upscalers=tuple(filter(None, upscalers.split(";"))),
        engine_cap_fps=cap,
        processor_work_sd=sd_c,
        graphics_work_sd=sd_g,
        memory_gb=float(memory),
        storage_gb=float(storage),
        presets=presets,
    )
