"""The hidden truth of the made-up world, as its simulated meters need it: what each game really
asks of each part. ``true_work.json`` is written by the world's generator.
"""

import json
from dataclasses import dataclass, fields
from pathlib import Path
from typing import Any

TRUTH_FILE = Path(__file__).parent / "true_work.json"
SIZES = ((1920, 1080), (2560, 1440), (3840, 2160))
PRESETS = ("low", "medium", "high", "ultra")
FULL_HD_MPX = 2.0736


@dataclass(frozen=True, kw_only=True)
class TrueWork:
    """A game as it really is: work in ms, preset factors, the power with which graphics work grows
    with the pixels, variations, and how it takes to each design of chip.
    """

    c: float
    g: float
    pi: float
    phi: float
    power: float
    u: dict[str, float]
    w: dict[str, float]
    v_c: float
    v_g: float
    likes_c: tuple[float, ...]
    likes_g: tuple[float, ...]
    threads: int
    crowding: float

    def processor_ms(self, speeds: tuple[float, float], design: int, preset: str) -> float:
        """The processor's true mean time a frame, in ms; speeds on one core and on all."""
        single, all_core = speeds
        work = 100 * self.c * self.u[preset]
        return float(work * ((1 - self.pi) / single + self.pi / all_core) * self.likes_c[design])

    def graphics_ms(self, speed: float, design: int, size: tuple[int, int], preset: str) -> float:
        """The graphics' true mean time a frame, in ms; the speed at this size."""
        pixels = size[0] * size[1] / 1e6 / FULL_HD_MPX
        drawn = self.phi + (1 - self.phi) * pixels**self.power
        return float(100 / speed * self.g * self.w[preset] * drawn * self.likes_g[design])


@dataclass(frozen=True, kw_only=True)
class TruePart:
    """A processor's or chip's true speeds, and the number of its design."""

    speeds: tuple[float, ...]
    design: int


@dataclass(frozen=True, kw_only=True)
class HiddenTruth:
    """Games by their identifier, with the work that an estimate would need; parts by the key of
    their speeds.
    """

    games: dict[str, TrueWork]
    known_work: dict[str, dict[str, float]]
    parts: dict[str, TruePart]


def read_truth() -> HiddenTruth:
    """What the generator wrote down."""
    document: dict[str, Any] = json.loads(TRUTH_FILE.read_text())
    return HiddenTruth(
        games={game: TrueWork(**_tuples(work)) for game, work in document["games"].items()},
        known_work=document["known_work"],
        parts={key: TruePart(**_tuples(part)) for key, part in document["parts"].items()},
    )


def written_truth(truth: HiddenTruth) -> str:
    """The text of the file: a line for each game and part."""
    lines = {
        "games": {game: _document(work) for game, work in truth.games.items()},
        "known_work": truth.known_work,
        "parts": {key: _document(part) for key, part in truth.parts.items()},
    }
    groups = (
        f'"{name}": {{\n'
        + ",\n".join(f"{json.dumps(key)}: {json.dumps(value)}" for key, value in group.items())
        + "\n}"
        for name, group in lines.items()
    )
    return "{\n" + ",\n".join(groups) + "\n}\n"


def _document(value: TrueWork | TruePart) -> dict[str, Any]:
    return {field.name: getattr(value, field.name) for field in fields(value)}


def _tuples(document: dict[str, Any]) -> dict[str, Any]:
    """JSON knows lists alone."""
    return {
        name: tuple(value) if isinstance(value, list) else value for name, value in document.items()
    }
