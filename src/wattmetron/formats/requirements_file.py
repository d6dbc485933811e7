"""Published requirements as JSON, one game or many, and their flat part as CSV."""

from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass, fields, is_dataclass
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, TypeAdapter, ValidationError

from wattmetron.core.values.fields import Column
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.parts import StorageKind
from wattmetron.core.values.published import (
    Amount,
    Assumed,
    Assumptions,
    Listed,
    NamedPart,
    Pixels,
    Published,
    Tier,
)
from wattmetron.core.values.results import Result
from wattmetron.formats.brief_file import problem_of
from wattmetron.formats.csv_table import decoded, read_table, write_table
from wattmetron.formats.json_text import bounded
from wattmetron.formats.problems import FormatError, Problem

REQUIREMENTS_FORMAT: Literal["wattmetron-requirements/1"] = "wattmetron-requirements/1"
MAX_BYTES = 20_000_000
MAX_TEXTS = {
    "text": 20_000,
    "label": 80,
    "notes": 600,
    "system": 120,
    "api": 120,
    "source": 200,
    "name": 120,
}
MAX_TIERS, MAX_LISTED = 12, 40


@dataclass(frozen=True, slots=True, kw_only=True)
class PublishedGame:
    """A game with what it publishes; name and genre serve where the catalogue does not have the
    game.
    """

    game: Annotated[str, Column("Game id: small letters, digits and hyphens")]
    name: Annotated[str, Column("Name")] = ""
    genre: Annotated[str, Column("Genre")] = ""
    source: Annotated[str, Column("Where it was published")] = ""
    published_on: Annotated[date | None, Column("Date of publication, ISO 8601")] = None
    text: Annotated[str, Column("The text as published")] = ""
    tiers: Annotated[tuple[Tier, ...], Column("Tiers, in the publisher's order")]
    results: Annotated[tuple[Result, ...], Column("Benchmark results and own runs")] = ()

    @property
    def published(self) -> Published:
        return Published(
            game=self.game,
            tiers=self.tiers,
            text=self.text,
            source=self.source,
            published_on=self.published_on,
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class RequirementsFile:
    """Requirements of games, with the named parts that they mention and the table of
    assumptions.
    """

    format: Annotated[
        Literal["wattmetron-requirements/1"], Column("Always wattmetron-requirements/1")
    ]
    games: Annotated[tuple[PublishedGame, ...], Column("Games with their tiers")] = ()
    named: Annotated[
        tuple[NamedPart, ...], Column("Parts that the catalogue lacks, placed by one comparison")
    ] = ()
    assumptions: Annotated[Assumptions | None, Column("Table of assumptions; null: as it is")] = (
        None
    )


DESCRIBED = (RequirementsFile, PublishedGame, Tier, Listed, Result, NamedPart, Assumed, Assumptions)
for _kind in DESCRIBED:
    setattr(_kind, "__pydantic_config__", ConfigDict(extra="forbid"))  # noqa: B010
REQUIREMENTS: TypeAdapter[RequirementsFile] = TypeAdapter(RequirementsFile)


def write_requirements(file: RequirementsFile) -> str:
    """The JSON text; what is at its default is left out."""
    return REQUIREMENTS.dump_json(file, indent=2, exclude_defaults=True).decode() + "\n"


_TIER: TypeAdapter[Tier] = TypeAdapter(Tier)


def tier_document(tier: Tier) -> dict[str, Any]:
    """A tier as it stands in a file."""
    document: dict[str, Any] = _TIER.dump_python(tier, mode="json", exclude_defaults=True)
    return document


def read_requirements(name: str, data: bytes) -> RequirementsFile:
    """The requirements of a JSON file; raises FormatError with every problem."""
    if len(data) > MAX_BYTES:
        raise FormatError(
            [
                Problem(
                    file=name,
                    line=None,
                    column="",
                    actual=f"{len(data) / 1e6:,.0f} MB",
                    expected="at most 20 MB",
                )
            ]
        )
    try:
        file = REQUIREMENTS.validate_json(bounded(name, data))
    except ValidationError as error:
        raise FormatError(
            [problem_of(name, problem) for problem in error.errors(include_url=False)[:200]]
        ) from error
    problems = list(_problems(name, file))
    if problems:
        raise FormatError(problems)
    return file


def _problems(name: str, file: RequirementsFile) -> Iterable[Problem]:
    seen: set[str] = set()
    for number, game in enumerate(file.games, start=1):
        where = f"games › {number}"
        if game.game in seen:
            yield Problem(
                file=name,
                line=None,
                column=where,
                actual=f"“{game.game}” a second time",
                expected="each game once",
            )
        seen.add(game.game)
        if not (game.tiers or game.results) or len(game.tiers) > MAX_TIERS:
            yield Problem(
                file=name,
                line=None,
                column=f"{where} › tiers",
                actual=f"{len(game.tiers)} tiers",
                expected=f"1 to {MAX_TIERS}",
            )
        for tier in game.tiers:
            if max(len(tier.processors), len(tier.graphics)) > MAX_LISTED:
                yield Problem(
                    file=name,
                    line=None,
                    column=f"{where} › tiers",
                    actual="a list of parts too long",
                    expected=f"at most {MAX_LISTED}",
                )
        yield from _long(name, where, game)


def _long(name: str, where: str, value: Any) -> Iterable[Problem]:
    """Texts longer than a page can carry."""
    if isinstance(value, tuple):
        for item in value:
            yield from _long(name, where, item)
    elif is_dataclass(value):
        for item in fields(value):
            inner = getattr(value, item.name)
            most = MAX_TEXTS.get(item.name, 200) if not isinstance(value, Listed) else 200
            if isinstance(inner, str) and len(inner) > most:
                yield Problem(
                    file=name,
                    line=None,
                    column=f"{where} › {item.name}",
                    actual=f"{len(inner):,} characters",
                    expected=f"at most {most:,}",
                )
            elif not isinstance(inner, str):
                yield from _long(name, where, inner)


@dataclass(frozen=True, slots=True, kw_only=True)
class TierRow:
    """The flat part of a tier: a line of requirements.csv."""

    game: Annotated[str, Column("Game id")]
    tier: Annotated[str, Column("The publisher's own label")]
    processors: Annotated[tuple[str, ...], Column("Processors as named, separated by ;")] = ()
    graphics: Annotated[tuple[str, ...], Column("Graphics parts as named, separated by ;")] = ()
    memory_gb: Annotated[Amount | None, Column("Main memory", "GB")] = None
    video_memory_gb: Annotated[Amount | None, Column("Video memory", "GB")] = None
    storage_gb: Annotated[Amount | None, Column("Storage", "GB")] = None
    storage_kind: Annotated[StorageKind | None, Column("Kind of storage")] = None
    system: Annotated[str, Column("Operating system")] = ""
    api: Annotated[str, Column("Graphics API and level")] = ""
    width_px: Annotated[Pixels | None, Column("Resolution across", "px")] = None
    height_px: Annotated[Pixels | None, Column("Resolution down", "px")] = None
    preset: Annotated[PresetName | None, Column("Preset")] = None
    fps: Annotated[float | None, Column("Frame rate", "fps")] = None
    upscaling: Annotated[bool | None, Column("Whether with upscaling")] = None
    ray_tracing: Annotated[bool | None, Column("Whether with ray tracing")] = None
    generated: Annotated[bool | None, Column("Whether generated frames are among those meant")] = (
        None
    )
    notes: Annotated[str, Column("What else the tier says")] = ""


def write_flat(published: Iterable[Published]) -> str:
    """The tiers as CSV, one line each."""
    return write_table(
        TierRow,
        (
            _row(each_published.game, tier)
            for each_published in published
            for tier in each_published.tiers
        ),
    )


def _row(game: str, tier: Tier) -> TierRow:
    plain = {
        item.name: getattr(tier, item.name)
        for item in fields(Tier)
        if item.name in TierRow.__dataclass_fields__
    }
    named = {
        side: tuple(_cell(item) for item in plain[side]) for side in ("processors", "graphics")
    }
    return TierRow(game=game, tier=tier.label, **{**plain, **named})


def _cell(listed: Listed) -> str:
    memory = f" {listed.memory_gb:g} GB" if listed.memory_gb else ""
    return (listed.text + memory).replace(";", ",")


def read_flat(name: str, data: bytes) -> list[TierRow]:
    """The lines of a CSV file; raises FormatError with every problem."""
    problems: list[Problem] = []
    text = decoded(name, data, problems)
    rows = [] if text is None else [row for _, row in read_table(TierRow, name, text, problems)]
    if problems:
        raise FormatError(problems)
    return rows


def tier_of_row(row: TierRow, processors: Sequence[Listed], graphics: Sequence[Listed]) -> Tier:
    """A tier from its flat part, with the parts matched."""
    plain = {
        name: value for name, value in asdict(row).items() if name in Tier.__dataclass_fields__
    }
    return Tier(
        label=row.tier, **{**plain, "processors": tuple(processors), "graphics": tuple(graphics)}
    )
