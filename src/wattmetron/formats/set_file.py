"""Dated builds and sets of them as files; snapshots travel in the same form."""

import json
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field, ValidationError

from wattmetron.core.errors import InvalidError
from wattmetron.core.values.dated import LONGEST_NAME, MOST_ENTRIES, BuildSet, Dated
from wattmetron.core.values.handout import LONGEST_OPENING
from wattmetron.formats.declared_fields import Strict
from wattmetron.formats.plan_file import PlanError, from_document, to_document

SET_FORMAT = "wattmetron-set/1"
Name = Annotated[str, Field(max_length=LONGEST_NAME)]


class SetError(InvalidError):
    """A document that is no set."""


class DatedFile(Strict):
    """A build as it was on a day."""

    name: Name = Field(description="What it is called")
    made_at: datetime = Field(description="When it was kept")
    as_of: int | None = Field(description="The import of that day, in the database it is from")
    imported_at: datetime | None = Field(description="When that import was made")
    figures: Annotated[str, Field(max_length=20_000)] = Field(
        description="What was computed then, as JSON"
    )
    plan: dict[str, Any] = Field(description="The plan, as a file of its own has it")


class SetFile(Strict):
    """A set of dated builds."""

    format: str = SET_FORMAT
    name: Name = Field(description="What the set is called")
    opening: Annotated[str, Field(max_length=LONGEST_OPENING)] = Field(
        "", description="Text before the builds"
    )
    entries: list[DatedFile] = Field(
        default_factory=list, max_length=MOST_ENTRIES, description="The builds in order"
    )


def dated_file(dated_build: Dated) -> DatedFile:
    return DatedFile(
        name=dated_build.name,
        made_at=dated_build.made_at,
        as_of=dated_build.as_of,
        imported_at=dated_build.imported_at,
        figures=dated_build.figures,
        plan=json.loads(to_document(dated_build.plan)),
    )


def dated_from(file: DatedFile) -> Dated:
    """Raises PlanError where the plan is none."""
    return Dated(
        name=file.name,
        made_at=file.made_at,
        as_of=file.as_of,
        imported_at=file.imported_at,
        figures=file.figures,
        plan=from_document(json.dumps(file.plan)),
    )


def set_document(build_set: BuildSet) -> str:
    """The stored form of a set, which is its file as well."""
    file = SetFile(
        name=build_set.name,
        opening=build_set.opening,
        entries=[dated_file(entry) for entry in build_set.entries],
    )
    return file.model_dump_json()


def set_from(document: str) -> BuildSet:
    """The set of a document; raises SetError for what is none."""
    try:
        file = SetFile.model_validate_json(document)
        entries = tuple(dated_from(entry) for entry in file.entries)
    except (ValidationError, PlanError, RecursionError, ValueError) as error:
        raise SetError("What is stored is no set of builds.") from error
    return BuildSet(file.name, file.opening, entries)


def read_set(name: str, data: bytes) -> BuildSet:
    """A set from the bytes of a JSON file; raises SetError with what is wrong."""
    try:
        document = json.loads(data)
        format_name = document.get("format") if isinstance(document, dict) else None
    except (ValueError, RecursionError) as error:
        raise SetError(f"{name} is no JSON: choose a set that was saved here.") from error
    if (
        isinstance(format_name, str)
        and format_name.startswith("wattmetron-set/")
        and format_name != SET_FORMAT
    ):
        raise SetError(f"{name} was written by a newer Wattmetron: open it there.")
    if format_name != SET_FORMAT:
        raise SetError(f"{name} is no set of builds: choose one that was saved under Sets.")
    try:
        return set_from(data.decode())
    except (SetError, UnicodeDecodeError) as error:
        raise SetError(f"{name} is damaged: save it again where it came from.") from error
