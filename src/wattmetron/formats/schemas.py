"""JSON Schemas of the JSON formats, generated from their models."""

from typing import Any

from wattmetron.core.values.games import Game, Preset, VideoMemoryNeed
from wattmetron.formats.brief_file import BriefFile, BuildFile
from wattmetron.formats.columns import columns_of
from wattmetron.formats.games_file import GAMES
from wattmetron.formats.requirements_file import DESCRIBED, REQUIREMENTS

SCHEMAS = ("brief", "build", "games", "requirements")


def schema(name: str) -> dict[str, Any]:
    """The JSON Schema of one of SCHEMAS."""
    if name == "brief":
        return BriefFile.model_json_schema()
    if name == "build":
        return BuildFile.model_json_schema()
    if name == "requirements":
        return _described(REQUIREMENTS.json_schema(), DESCRIBED)
    return _described(GAMES.json_schema(), (Game, Preset, VideoMemoryNeed))


def _described(schema: dict[str, Any], kinds: tuple[type, ...]) -> dict[str, Any]:
    """Add the texts and units of the core fields."""
    for kind in kinds:
        for spec in columns_of(kind):
            holder = (
                schema
                if schema.get("title") == kind.__name__
                else schema["$defs"].get(kind.__name__, {})
            )
            column = holder.get("properties", {}).get(spec.name)
            if column is not None:
                column["description"] = f"{spec.text} ({spec.unit})" if spec.unit else spec.text
    return schema
