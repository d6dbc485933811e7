"""JSON Schemas of the JSON formats, generated from their models."""

from typing import Any

from wattmetron.formats.brief_file import BriefFile, BuildFile
from wattmetron.formats.columns import columns_of
from wattmetron.formats.games_file import GAMES

SCHEMAS = ("brief", "build", "games")


def schema(name: str) -> dict[str, Any]:
    """The JSON Schema of ``brief``, ``build`` or ``games``."""
    if name == "brief":
        return BriefFile.model_json_schema()
    if name == "build":
        return BuildFile.model_json_schema()
    return _described(GAMES.json_schema())


def _described(found: dict[str, Any]) -> dict[str, Any]:
    """Add the texts and units of the core fields."""
    from wattmetron.core.games import Game, Preset, VideoMemoryNeed

    for kind in (Game, Preset, VideoMemoryNeed):
        for spec in columns_of(kind):
            place = found["$defs"].get(kind.__name__, {}).get("properties", {}).get(spec.name)
            if place is not None:
                place["description"] = f"{spec.text} ({spec.unit})" if spec.unit else spec.text
    return found
