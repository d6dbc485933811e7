"""Games and what they ask of a machine."""

from wattmetron.core.games.model import PRESETS, Game, Preset, PresetName, VideoMemoryNeed

__all__ = ["PRESETS", "Game", "Preset", "PresetName", "VideoMemoryNeed"]
