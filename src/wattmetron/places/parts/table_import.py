"""Bringing a table of parts or offers in: first what is new, changed or wrong, then all of it or
nothing.
"""

from dataclasses import dataclass, field

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.sources import unreadable
from wattmetron.core.errors import InvalidError
from wattmetron.core.values.ids import is_id
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.part_types import PART_TYPES, kind_of
from wattmetron.core.values.parts import Part
from wattmetron.formats.catalogue_file_names import PART_FILES
from wattmetron.formats.catalogue_folder import OF_SOURCES
from wattmetron.formats.columns import columns_of
from wattmetron.formats.csv_table import decoded, read_table
from wattmetron.formats.problems import Problem, add_problem
from wattmetron.places.parts.part_edits import Done
from wattmetron.store import catalogue_edits
from wattmetron.workshop.workshop import Workshop


class ImportTableError(InvalidError):
    """A table that cannot be brought in."""


@dataclass(frozen=True, slots=True)
class ChangedPart:
    """A part that is there with other figures: title, what it says now, what the table says; and
    who uses it.
    """

    part: Part
    figures: tuple[tuple[str, str, str], ...]
    used_in: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class TablePreview:
    """What a table would do; nothing is written yet."""

    kind: Kind
    text: str
    new: tuple[Part, ...] = ()
    changed: tuple[ChangedPart, ...] = ()
    same: int = 0
    problems: tuple[Problem, ...] = field(default=())

    @property
    def parts(self) -> tuple[Part, ...]:
        """Everything that would be written."""
        return (*self.new, *(part.part for part in self.changed))


def kind_of_file(name: str, chosen: str) -> Kind:
    """The kind of a table: as chosen, else as the file is called."""
    if chosen in ALL_KINDS:
        return next(kind for kind in ALL_KINDS if kind == chosen)
    by_file = {file: kind for kind, file in PART_FILES.items()}
    if name in by_file:
        return by_file[name]
    raise ImportTableError(
        f"It is not clear what “{name}” holds: choose the kind of part, or name the file like one"
        f" of {', '.join(by_file)}."
    )


def preview(
    workshop: Workshop, catalogue: Catalogue, kind: Kind, name: str, data: bytes
) -> TablePreview:
    """Read a table and compare it with the catalogue as described."""
    problems: list[Problem] = []
    text = decoded(name, data, problems)
    if text is None:
        return TablePreview(kind=kind, text="", problems=tuple(problems))
    new, changed, same = [], [], 0
    seen: set[str] = set()
    uses = _uses(workshop)
    standing = catalogue.described.parts
    for line, part in read_table(PART_TYPES[kind], name, text, problems):
        old = standing.get(part.id)
        if not is_id(part.id):
            add_problem(
                problems,
                name,
                actual=f"“{part.id}”",
                expected="small letters, digits and hyphens",
                line=line,
                column="id",
            )
        elif part.id in seen:
            add_problem(
                problems,
                name,
                actual=f"“{part.id}” a second time",
                expected="an id used once",
                line=line,
                column="id",
            )
        elif (wrong := unreadable(part)) is not None:
            add_problem(
                problems,
                name,
                actual=f"“{wrong[1]}”",
                expected=OF_SOURCES[wrong[0]],
                line=line,
                column=wrong[0],
            )
        elif old is not None and kind_of(old) != kind:
            add_problem(
                problems,
                name,
                actual=f"“{part.id}”, which is a {kind_of(old)} in the catalogue",
                expected="an id of its own",
                line=line,
                column="id",
            )
        elif old is None:
            new.append(part)
        elif old == part:
            same += 1
        else:
            changed.append(ChangedPart(part, _figures(old, part), uses.get(part.id, ())))
        seen.add(part.id)
    if not new and not changed and not same and not problems:
        add_problem(
            problems, name, actual="no line with a part", expected="a header and at least one part"
        )
    return TablePreview(
        kind=kind,
        text=text,
        new=tuple(new),
        changed=tuple(changed),
        same=same,
        problems=tuple(problems),
    )


def _figures(old: Part, new: Part) -> tuple[tuple[str, str, str], ...]:
    figures = []
    for spec in columns_of(type(old)):
        before, after = getattr(old, spec.name), getattr(new, spec.name)
        if before != after:
            figures.append(
                (spec.text.split(";")[0], _said(before, spec.unit), _said(after, spec.unit))
            )
    return tuple(figures)


def _said(value: object, unit: str) -> str:
    if value in (None, "", ()):
        return "not known"
    if isinstance(value, tuple):
        return ", ".join(str(item) for item in value)
    if isinstance(value, float):
        return f"{value:g} {unit}".strip()
    return f"{value} {unit}".strip()


def _uses(workshop: Workshop) -> dict[str, tuple[str, ...]]:
    """Names of the briefs in whose build or among whose owned parts each part is."""
    uses: dict[str, list[str]] = {}
    for brief in workshop.briefs():
        for part_id in {part_id for _, part_id in brief.plan.build.ids()} | set(
            brief.plan.brief.owned
        ):
            uses.setdefault(part_id, []).append(brief.plan.brief.name)
    return {part_id: tuple(names) for part_id, names in uses.items()}


def bring_in(workshop: Workshop, catalogue: Catalogue, kind: Kind, name: str, data: bytes) -> Done:
    """Write what the table brings, as one edit; raises ImportTableError while anything in it is
    wrong.
    """
    table_preview = preview(workshop, catalogue, kind, name, data)
    if table_preview.problems:
        raise ImportTableError(
            "\n".join(
                [
                    "Nothing was brought in: mend these lines first.",
                    *map(str, table_preview.problems[:20]),
                ]
            )
        )
    if not table_preview.parts:
        raise ImportTableError(
            "Nothing was brought in: every part of the table is in the catalogue with the same"
            " figures."
        )
    sentence = (
        f"brought in {name}: {len(table_preview.new)} new, {len(table_preview.changed)} changed"
    )
    with workshop.database.writing() as session:
        edit = catalogue_edits.revise(
            session, {(kind, part.id): part for part in table_preview.parts}, sentence
        )
    return Done(table_preview.parts[0].id, sentence, edit)
