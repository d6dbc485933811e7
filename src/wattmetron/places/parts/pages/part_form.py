"""The form of a part: a field for each column, with what it may hold."""

from collections.abc import Mapping
from dataclasses import dataclass

from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.formats.columns import ColumnSpec, columns_of
from wattmetron.words.figures import KIND_WORDS

FIRST = ("maker", "model", "colour")


@dataclass(frozen=True, slots=True, kw_only=True)
class FieldView:
    """One field: its name and title, unit, what it may hold, what stands in it, and choices where
    there are few.
    """

    name: str
    title: str
    unit: str
    expected: str
    value: str
    choices: tuple[tuple[str, str], ...]
    required: bool
    wide: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class PartForm:
    """A part's form; ``part_id`` is empty for a new one."""

    kind: Kind
    word: str
    part_id: str
    title: str
    action: str
    version: int
    needed: tuple[FieldView, ...]
    more: tuple[FieldView, ...]
    back: str


def part_form(
    kind: Kind, part_id: str, name: str, cells: Mapping[str, str], version: int
) -> PartForm:
    """A form that shows these cells."""
    fields = [
        _field(spec, cells.get(spec.name, ""))
        for spec in columns_of(PART_TYPES[kind])
        if spec.name != "id"
    ]
    first = [field for word in FIRST for field in fields if field.name == word]
    rest = [field for field in fields if field.name not in FIRST]
    return PartForm(
        kind=kind,
        word=KIND_WORDS[kind],
        part_id=part_id,
        title=f"Change {name}" if part_id else f"A new {KIND_WORDS[kind]}",
        action=f"/parts/{part_id}/edit" if part_id else "/parts/new",
        version=version,
        needed=(*first, *(view for view in rest if view.required)),
        more=tuple(view for view in rest if not view.required),
        back=f"/parts/{part_id}" if part_id else f"/parts?kind={kind}",
    )


def _field(spec: ColumnSpec, value: str) -> FieldView:
    choices: tuple[tuple[str, str], ...] = ()
    if spec.base is bool:
        choices = (("true", "yes"), ("false", "no"))
        if spec.default is not None:
            value = value or str(bool(spec.default)).lower()
    elif spec.choices and not spec.many:
        choices = tuple((str(choice), str(choice)) for choice in spec.choices)
    if choices and not value:
        choices = (("", "choose" if spec.required else "not known"), *choices)
    elif choices and not spec.required and spec.default is None:
        choices = (("", "not known"), *choices)
    title = spec.text.split(";")[0].removesuffix(", separated by ").removesuffix(", ISO 8601")
    return FieldView(
        name=spec.name,
        title=title,
        unit=spec.unit,
        expected=spec.expected,
        value=value,
        choices=choices,
        required=spec.required or spec.name in ("maker", "model"),
        wide=(spec.base is str and not choices) or spec.many,
    )
