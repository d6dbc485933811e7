"""Games and what they ask of a machine."""

from wattmetron.core.games.model import PRESETS, Game, Option, Preset, PresetName, VideoMemoryNeed

__all__ = ["PRESETS", "Game", "Option", "Preset", "PresetName", "VideoMemoryNeed"]
