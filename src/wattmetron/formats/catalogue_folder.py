"""A catalogue folder: one CSV per kind of part, offers.csv, regions.csv, games.json,
datapackage.json.
"""

import json
import os
from collections.abc import Callable, Iterable, Set
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from pathlib import Path
from shutil import rmtree
from tempfile import mkdtemp
from typing import Annotated, Any, Literal

from annotated_types import Ge, Le

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.sources import unreadable
from wattmetron.core.values.charts import Chart
from wattmetron.core.values.fields import Column
from wattmetron.core.values.games import Game
from wattmetron.core.values.ids import ID_WORDS, is_id
from wattmetron.core.values.money import to_decimal
from wattmetron.core.values.offers import LINKS, Condition, Offer, Region, SoldBy, Terms
from wattmetron.core.values.own_record import OwnRecord, with_records
from wattmetron.core.values.part_kinds import FURTHER_KINDS, SPECS, Kind
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.core.values.parts import Part
from wattmetron.core.values.published import Assumptions, Published
from wattmetron.core.values.results import Results
from wattmetron.formats.charts_file import ChartLine, read_charts, write_charts
from wattmetron.formats.columns import ColumnSpec, columns_of
from wattmetron.formats.csv_table import decoded, read_table, write_table
from wattmetron.formats.games_file import read_games, write_games
from wattmetron.formats.problems import FormatError, Problem, add_problem
from wattmetron.formats.references_file import read_references, write_references
from wattmetron.formats.requirements_file import (
    REQUIREMENTS_FORMAT,
    PublishedGame,
    RequirementsFile,
    read_requirements,
    write_requirements,
)
from wattmetron.formats.shops_file import read_shops, write_shops

PART_FILES: dict[Kind, str] = {kind: spec.file for kind, spec in SPECS.items()}
OFFERS_FILE, REGIONS_FILE, GAMES_FILE, PACKAGE_FILE = (
    "offers.csv",
    "regions.csv",
    "games.json",
    "datapackage.json",
)
REQUIREMENTS_FILE, CHARTS_FILE, OWN_FILE = "requirements.json", "charts.csv", "own_records.csv"
REFERENCES_FILE, SHOPS_FILE = "references.json", "shops.json"

Amount = Annotated[Decimal, Ge(0), Le(10_000_000)]


@dataclass(slots=True, kw_only=True)
class OfferRow:
    """A line of offers.csv."""

    part_id: Annotated[str, Column("Id of the part offered")]
    shop: Annotated[str, Column("Shop")]
    region: Annotated[str, Column("Id of the region it sells to")]
    price: Annotated[Amount, Column("Price with tax", "currency")]
    shipping: Annotated[Amount, Column("Shipping for this part alone", "currency")]
    currency: Annotated[str, Column("ISO 4217 currency code; the region's")]
    in_stock: Annotated[bool, Column("Whether it can be bought on that day")]
    condition: Annotated[Condition, Column("new, refurbished, remanufactured or used")]
    seen_on: Annotated[date, Column("Day on which the offer was seen, ISO 8601")]
    stock: Annotated[
        Literal["", "in", "few", "ordered", "out"],
        Column("in, few, ordered or out; empty: in or out, as in_stock says"),
    ] = ""
    sold_by: Annotated[SoldBy, Column("How it is had: order, waiting list or raffle")] = "order"
    rebate: Annotated[Amount, Column("Money that comes back for a form sent in", "currency")] = (
        Decimal(0)
    )
    extra: Annotated[str, Column("What lies in the box besides")] = ""
    extra_worth: Annotated[Amount, Column("What that may sell for", "currency")] = Decimal(0)
    remarks: Annotated[
        tuple[str, ...],
        Column(
            "Remarks on a part that is not new, separated by ;, such as worked hard for hire,"
            " display output not tested, no returns"
        ),
    ] = ()
    warranty_months: Annotated[
        int | None, Ge(0), Le(600), Column("Warranty that is left; empty: not said", "months")
    ] = None
    returns: Annotated[bool | None, Column("Whether the shop takes it back; empty: not said")] = (
        None
    )
    link: Annotated[str, Column("Its page, https:// or http://")] = ""
    list_price: Annotated[Amount, Column("The maker's list price, for reference", "currency")] = (
        Decimal(0)
    )


def row_of(offer: Offer) -> OfferRow:
    return OfferRow(
        part_id=offer.part_id,
        shop=offer.shop,
        region=offer.region,
        price=to_decimal(offer.price_minor),
        shipping=to_decimal(offer.shipping_minor),
        currency=offer.currency,
        in_stock=offer.in_stock,
        condition=offer.condition,
        seen_on=offer.seen_on,
        stock="" if offer.stock in ("in", "out") else offer.stock,
        sold_by=offer.terms.sold_by,
        rebate=to_decimal(offer.terms.rebate_minor),
        extra=offer.terms.extra,
        extra_worth=to_decimal(offer.terms.extra_minor),
        remarks=offer.terms.remarks,
        warranty_months=offer.terms.warranty_months,
        returns=offer.terms.returns,
        link=offer.terms.link,
        list_price=to_decimal(offer.terms.list_minor),
    )


def read_catalogue(folder: Path) -> Catalogue:
    """The catalogue of a folder; raises FormatError with every problem found."""
    if not folder.is_dir():
        raise FormatError(
            [
                Problem(
                    file=str(folder),
                    line=None,
                    column="",
                    actual="no such folder",
                    expected="a catalogue folder",
                )
            ]
        )

    def load(name: str) -> bytes | None:
        path = folder / name
        return path.read_bytes() if path.is_file() else None

    return parse_catalogue(load)


def parse_catalogue(load: Callable[[str], bytes | None]) -> Catalogue:
    """The catalogue from files by name; a file that is not there is None."""
    problems: list[Problem] = []

    def text_of(name: str) -> str | None:
        data = load(name)
        if data is None:
            add_problem(
                problems, name, actual="no such file", expected="the file, with its header at least"
            )
            return None
        return decoded(name, data, problems)

    parts: dict[str, Part] = {}
    broken: set[str] = set()
    whole = True
    for kind, name in PART_FILES.items():
        if kind in FURTHER_KINDS and load(name) is None:
            continue
        before = len(problems)
        text = text_of(name)
        if text is not None:
            for line, part in read_table(PART_TYPES[kind], name, text, problems, broken):
                _add_part(parts, name, line, part, problems)
        whole = whole and not _of_whole_file(problems[before:])
    regions = _read_regions(text_of(REGIONS_FILE), problems)
    known = parts.keys() | broken if whole else None
    offers = _read_offers(text_of(OFFERS_FILE), known, regions, problems)
    games = _read_games(text_of(GAMES_FILE), problems)
    requirements = _read_requirements(load(REQUIREMENTS_FILE), games, problems)
    charts = _read_charts(load(CHARTS_FILE), problems)
    own_records = _read_own(load(OWN_FILE), problems)
    listed = load(REFERENCES_FILE)
    references = read_references(REFERENCES_FILE, listed, problems) if listed else {}
    document = load(SHOPS_FILE)
    shops = read_shops(SHOPS_FILE, document, regions, problems) if document else {}
    if problems:
        raise FormatError(problems)
    return Catalogue(
        parts=with_records(parts, own_records),
        games=games,
        offers=tuple(offers),
        regions=regions,
        published={game.game: game.published for game in requirements.games if game.tiers},
        named={named_part.id: named_part for named_part in requirements.named},
        assumptions=requirements.assumptions or Assumptions(),
        charts=charts,
        results={
            game.game: Results(game=game.game, items=game.results)
            for game in requirements.games
            if game.results
        },
        own=own_records,
        references=references,
        shops=shops,
    )


def _of_whole_file(problems: list[Problem]) -> bool:
    """Whether a file could not be read beyond some point: what refers to it is then not called
    wrong as well.
    """
    return any(problem.line in (None, 1) or not problem.column for problem in problems)


def _read_charts(data: bytes | None, problems: list[Problem]) -> dict[str, Chart]:
    """The charts of a folder; a folder without the file has none."""
    text = None if data is None else decoded(CHARTS_FILE, data, problems)
    return {} if text is None else read_charts(CHARTS_FILE, text, problems)


def _read_own(data: bytes | None, problems: list[Problem]) -> dict[str, OwnRecord]:
    """Own records by their keys; a folder without the file has none."""
    text = None if data is None else decoded(OWN_FILE, data, problems)
    if text is None:
        return {}
    return {record.key: record for _, record in read_table(OwnRecord, OWN_FILE, text, problems)}


def _read_requirements(
    data: bytes | None, games: dict[str, Game], problems: list[Problem]
) -> RequirementsFile:
    """The requirements of a folder; a folder without the file has none."""
    empty = RequirementsFile(format=REQUIREMENTS_FORMAT)
    if data is None:
        return empty
    try:
        file = read_requirements(REQUIREMENTS_FILE, data)
    except FormatError as error:
        problems += error.problems
        return empty
    for number, game in enumerate(file.games, start=1):
        if games and game.game not in games:
            add_problem(
                problems,
                REQUIREMENTS_FILE,
                actual=f"“{game.game}”",
                expected="the id of a game",
                column=f"games › {number}",
            )
    return file


OF_SOURCES = {
    "claimed": "names of the part's own columns",
    "disputed": (
        "a column of the part that holds a number, the other figure and who says so, as in"
        " length_mm=309 by a shop"
    ),
}


def _add_part(
    parts: dict[str, Part], file: str, line: int, part: Part, problems: list[Problem]
) -> None:
    if not is_id(part.id):
        add_problem(
            problems, file, actual=f"“{part.id}”", expected=ID_WORDS, line=line, column="id"
        )
    elif part.id in parts:
        add_problem(
            problems,
            file,
            actual=f"“{part.id}” a second time",
            expected="an id used once in the catalogue",
            line=line,
            column="id",
        )
    elif (wrong := unreadable(part)) is not None:
        add_problem(
            problems,
            file,
            actual=f"“{wrong[1]}”",
            expected=OF_SOURCES[wrong[0]],
            line=line,
            column=wrong[0],
        )
    else:
        parts[part.id] = part


def _read_regions(text: str | None, problems: list[Problem]) -> dict[str, Region]:
    regions: dict[str, Region] = {}
    for line, region in (
        read_table(Region, REGIONS_FILE, text, problems) if text is not None else ()
    ):
        if region.id in regions:
            add_problem(
                problems,
                REGIONS_FILE,
                actual=f"“{region.id}” a second time",
                expected="an id used once",
                line=line,
                column="id",
            )
        regions[region.id] = region
    if text is not None and not regions and not any(p.file == REGIONS_FILE for p in problems):
        add_problem(
            problems,
            REGIONS_FILE,
            actual="no region",
            expected="one at least: a line with its id, name and currency",
        )
    return regions


def _read_offers(
    text: str | None, part_ids: Set[str] | None, regions: dict[str, Region], problems: list[Problem]
) -> list[Offer]:
    """The offers; without ``part_ids`` or regions that could be read, what they name is not
    judged.
    """
    offers = []
    seen: set[tuple[str, str, str, str]] = set()
    for line, row in read_table(OfferRow, OFFERS_FILE, text, problems) if text is not None else ():
        key = (row.part_id, row.shop, row.region, row.condition)
        region = regions.get(row.region)
        if part_ids is not None and row.part_id not in part_ids:
            add_problem(
                problems,
                OFFERS_FILE,
                actual=f"“{row.part_id}”",
                expected="the id of a part",
                line=line,
                column="part_id",
            )
        elif region is None and not regions:
            continue
        elif region is None:
            add_problem(
                problems,
                OFFERS_FILE,
                actual=f"“{row.region}”",
                expected="the id of a region",
                line=line,
                column="region",
            )
        elif region.currency != row.currency:
            add_problem(
                problems,
                OFFERS_FILE,
                actual=f"“{row.currency}”",
                expected=region.currency,
                line=line,
                column="currency",
            )
        elif key in seen:
            words = "the same part, shop, region and condition twice"
            add_problem(
                problems,
                OFFERS_FILE,
                actual=words,
                expected="one line for each",
                line=line,
                column="part_id",
            )
        else:
            seen.add(key)
            offers.append(_offer(row))
    return offers


def _offer(row: OfferRow) -> Offer:
    return Offer(
        part_id=row.part_id,
        shop=row.shop,
        region=row.region,
        currency=row.currency,
        price_minor=int(row.price * 100),
        shipping_minor=int(row.shipping * 100),
        stock=row.stock or ("in" if row.in_stock else "out"),
        condition=row.condition,
        seen_on=row.seen_on,
        terms=Terms(
            sold_by=row.sold_by,
            rebate_minor=int(row.rebate * 100),
            extra=row.extra,
            extra_minor=int(row.extra_worth * 100),
            remarks=row.remarks,
            warranty_months=row.warranty_months,
            returns=row.returns,
            link=row.link if row.link.startswith(LINKS) else "",
            list_minor=int(row.list_price * 100),
        ),
    )


def _read_games(text: str | None, problems: list[Problem]) -> dict[str, Game]:
    games: dict[str, Game] = {}
    for number, game in enumerate(
        read_games(GAMES_FILE, text, problems) if text is not None else (), start=1
    ):
        if not is_id(game.id):
            add_problem(
                problems,
                GAMES_FILE,
                actual=f"“{game.id}”",
                expected=ID_WORDS,
                column=f"{number} › id",
            )
        elif game.id in games:
            add_problem(
                problems,
                GAMES_FILE,
                actual=f"“{game.id}” a second time",
                expected="an id used once",
                column=f"{number} › id",
            )
        games[game.id] = game
    return games


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
