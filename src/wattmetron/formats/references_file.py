"""Machines to compare with as JSON: references.json of a catalogue folder."""

from collections.abc import Iterable

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.values.references import Reference
from wattmetron.formats.problems import Problem, add_problem

_ADAPTER = TypeAdapter(list[Reference])


def read_references(file: str, data: bytes, problems: list[Problem]) -> dict[str, Reference]:
    """The machines by id; what cannot be read is added to the problems."""
    try:
        references = _ADAPTER.validate_json(data)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        location = " › ".join(str(step) for step in first["loc"])
        add_problem(
            problems,
            file,
            actual=f"“{str(first.get('input'))[:60]}”",
            expected=f"machines as docs/formats.md describes them ({first['msg']})",
            column=location,
        )
        return {}
    return {reference.id: reference for reference in references}


def write_references(references: Iterable[Reference]) -> str:
    return _ADAPTER.dump_json(list(references), indent=1).decode() + "\n"
