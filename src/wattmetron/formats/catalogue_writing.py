"""A catalogue as the files of a folder, and what describes them."""

import json
import os
from collections.abc import Iterable
from pathlib import Path
from shutil import rmtree
from tempfile import mkdtemp
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Region
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.core.values.published import Published
from wattmetron.formats.catalogue_file_names import (
    CHARTS_FILE,
    GAMES_FILE,
    OFFERS_FILE,
    OWN_FILE,
    PACKAGE_FILE,
    PART_FILES,
    REFERENCES_FILE,
    REGIONS_FILE,
    REQUIREMENTS_FILE,
    SHOPS_FILE,
)
from wattmetron.formats.charts_file import ChartLine, write_charts
from wattmetron.formats.columns import ColumnSpec, columns_of
from wattmetron.formats.csv_table import write_table
from wattmetron.formats.games_file import write_games
from wattmetron.formats.offer_rows import OfferRow, row_of
from wattmetron.formats.problems import FormatError, Problem
from wattmetron.formats.references_file import write_references
from wattmetron.formats.requirements_file import (
    REQUIREMENTS_FORMAT,
    PublishedGame,
    RequirementsFile,
    write_requirements,
)
from wattmetron.formats.shops_file import write_shops


def catalogue_files(catalogue: Catalogue) -> dict[str, str]:
    """The texts of all files of a catalogue folder, by name; parts as described."""
    catalogue = catalogue.described
    files = {
        name: write_table(PART_TYPES[kind], catalogue.by_kind[kind])
        for kind, name in PART_FILES.items()
    }
    files[REGIONS_FILE] = write_table(Region, catalogue.regions.values())
    files[OFFERS_FILE] = write_table(OfferRow, (row_of(offer) for offer in catalogue.offers))
    files[GAMES_FILE] = write_games(list(catalogue.games.values()))
    files[REQUIREMENTS_FILE] = write_requirements(requirements_of(catalogue))
    files[CHARTS_FILE] = write_charts(catalogue.charts.values())
    files[REFERENCES_FILE] = write_references(catalogue.references.values())
    files[SHOPS_FILE] = write_shops(catalogue.shops.values())
    files[OWN_FILE] = write_table(OwnRecord, catalogue.own.values())
    files[PACKAGE_FILE] = json.dumps(package_description(), indent=2, ensure_ascii=False) + "\n"
    return files


def requirements_of(
    catalogue: Catalogue, game_ids: Iterable[str] | None = None
) -> RequirementsFile:
    """What the games publish, all or the named ones, with named parts and assumptions where it is
    all of them.
    """
    known = [
        game for game in catalogue.games if game in catalogue.published or game in catalogue.results
    ]
    wanted = known if game_ids is None else [game_id for game_id in game_ids if game_id in known]
    return RequirementsFile(
        format=REQUIREMENTS_FORMAT,
        games=tuple(_published_game(catalogue, game_id) for game_id in wanted),
        named=tuple(catalogue.named.values()),
        assumptions=catalogue.assumptions if game_ids is None else None,
    )


def _published_game(catalogue: Catalogue, game_id: str) -> PublishedGame:
    game = catalogue.games[game_id]
    published = catalogue.published.get(game_id) or Published(game=game_id, tiers=())
    results = catalogue.results.get(game_id)
    return PublishedGame(
        game=game_id,
        name=game.name,
        genre=game.genre,
        source=published.source,
        published_on=published.published_on,
        text=published.text,
        tiers=published.tiers,
        results=results.items if results else (),
    )


def write_catalogue(catalogue: Catalogue, folder: Path) -> None:
    """Write all files of a catalogue into a folder, which is made where it is missing: all of them
    beside it first, so that a full disk leaves it as it was.
    """
    if folder.exists() and not folder.is_dir():
        raise FormatError(
            [
                Problem(
                    file=str(folder),
                    line=None,
                    column="",
                    actual="a file",
                    expected="a folder, or a name that is free",
                )
            ]
        )
    folder.parent.mkdir(parents=True, exist_ok=True)
    part = Path(mkdtemp(prefix=f".{folder.name}.", suffix=".part", dir=folder.parent))
    try:
        for name, text in catalogue_files(catalogue).items():
            _write_through(part / name, text)
        if folder.exists():
            for path in part.iterdir():
                path.replace(folder / path.name)
        else:
            part.chmod(0o755)
            part.rename(folder)
    finally:
        rmtree(part, ignore_errors=True)


def _write_through(path: Path, text: str) -> None:
    with path.open("w", encoding="utf-8", newline="") as file:
        file.write(text)
        file.flush()
        os.fsync(file.fileno())


def tables() -> dict[str, type]:
    """The row type of every CSV file."""
    tables: dict[str, type] = {name: PART_TYPES[kind] for kind, name in PART_FILES.items()}
    return {
        **tables,
        REGIONS_FILE: Region,
        OFFERS_FILE: OfferRow,
        CHARTS_FILE: ChartLine,
        OWN_FILE: OwnRecord,
    }


def package_description() -> dict[str, Any]:
    """The Data Package descriptor of a catalogue folder."""
    resources: list[dict[str, Any]] = [
        {
            "name": name.removesuffix(".csv"),
            "path": name,
            "format": "csv",
            "mediatype": "text/csv",
            "encoding": "utf-8",
            "schema": {
                "fields": [_field(spec) for spec in columns_of(kind)],
                "missingValues": [""],
                **_keys(name),
            },
        }
        for name, kind in tables().items()
    ]
    resources += [
        {
            "name": name,
            "path": path,
            "format": "json",
            "mediatype": "application/json",
            "encoding": "utf-8",
        }
        for name, path in (
            ("games", GAMES_FILE),
            ("requirements", REQUIREMENTS_FILE),
            ("references", REFERENCES_FILE),
            ("shops", SHOPS_FILE),
        )
    ]
    return {
        "name": "wattmetron-catalogue",
        "title": "Parts, offers and games for building gaming PCs",
        "profile": "data-package",
        "resources": resources,
    }


def _keys(name: str) -> dict[str, Any]:
    if name == CHARTS_FILE:
        return {"primaryKey": ["chart", "part"]}
    if name == OWN_FILE:
        return {"primaryKey": ["of", "name"]}
    if name != OFFERS_FILE:
        return {"primaryKey": "id"}
    return {
        "primaryKey": ["part_id", "shop", "region", "condition"],
        "foreignKeys": [{"fields": "region", "reference": {"resource": "regions", "fields": "id"}}],
    }


def _field(spec: ColumnSpec) -> dict[str, Any]:
    text = f"{spec.text} ({spec.unit})" if spec.unit else spec.text
    constraints: dict[str, Any] = {"required": spec.required and not spec.optional}
    if spec.choices and not spec.many:
        constraints["enum"] = list(spec.choices)
    return {
        "name": spec.name,
        "type": spec.type_name,
        "description": text,
        "constraints": constraints,
    }
