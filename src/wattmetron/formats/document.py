"""The formats in words: Markdown for every table and the JSON Schemas, all from the models."""

import json

from wattmetron.formats.catalogue_writing import tables
from wattmetron.formats.columns import columns_of
from wattmetron.formats.requirements_file import TierRow
from wattmetron.formats.schemas import SCHEMAS, schema


def tables_markdown() -> str:
    """One Markdown table per CSV file: column, what it holds, unit, what a cell must be."""
    pieces = []
    for name, kind in {**tables(), "requirements.csv": TierRow}.items():
        pieces.append(f"### {name}\n")
        pieces.append("| column | holds | unit | a cell is |\n| --- | --- | --- | --- |")
        pieces += [
            f"| `{spec.name}` | {spec.text} | {spec.unit or '–'} | {spec.expected} |"
            for spec in columns_of(kind)
        ]
        pieces.append("")
    return "\n".join(pieces)


def schema_files() -> dict[str, str]:
    """The JSON Schema files by name."""
    return {
        f"{name}.schema.json": json.dumps(schema(name), indent=2, ensure_ascii=False) + "\n"
        for name in SCHEMAS
    }
