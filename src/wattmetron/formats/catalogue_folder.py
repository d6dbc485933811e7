"""A catalogue folder: one CSV per kind of part, offers.csv, regions.csv, games.json,
datapackage.json.
"""

from collections.abc import Callable, Set
from pathlib import Path

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.sources import unreadable
from wattmetron.core.values.charts import Chart
from wattmetron.core.values.games import Game
from wattmetron.core.values.ids import ID_WORDS, is_id
from wattmetron.core.values.offers import LINKS, Offer, Region, Terms
from wattmetron.core.values.own_record import OwnRecord, with_records
from wattmetron.core.values.part_kinds import FURTHER_KINDS
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.core.values.parts import Part
from wattmetron.core.values.published import Assumptions
from wattmetron.core.values.results import Results
from wattmetron.formats.catalogue_file_names import (
    CHARTS_FILE,
    GAMES_FILE,
    OFFERS_FILE,
    OWN_FILE,
    PART_FILES,
    REFERENCES_FILE,
    REGIONS_FILE,
    REQUIREMENTS_FILE,
    SHOPS_FILE,
)
from wattmetron.formats.charts_file import read_charts
from wattmetron.formats.csv_table import decoded, read_table
from wattmetron.formats.games_file import read_games
from wattmetron.formats.offer_rows import OfferRow
from wattmetron.formats.problems import FormatError, Problem, add_problem
from wattmetron.formats.references_file import read_references
from wattmetron.formats.requirements_file import (
    REQUIREMENTS_FORMAT,
    RequirementsFile,
    read_requirements,
)
from wattmetron.formats.shops_file import read_shops


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
