"""The fields of the form, as they are asked."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import (
    DISPLAY,
    SURENESS,
    Brief,
)
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KIND_PLURALS, Kind
from wattmetron.places.brief.pages.brief_choices import choices_of
from wattmetron.places.brief.pages.forms import GENERAL
from wattmetron.shell.forms import entry_name
from wattmetron.shell.pages import amount, plain
from wattmetron.words.figures import KIND_WORDS
from wattmetron.words.standing import GROUPS, group_words

Drafts = Mapping[str, str]


Choice = tuple[str, str]
"""A value and its words."""


@dataclass(frozen=True, slots=True, kw_only=True)
class AskedEntry:
    """One entry of a form: its id, name and label, the trade word to explain, how it is typed, what
    stands in it, and what can be chosen (value, words) or is suggested.
    """

    id: str
    name: str
    label: str
    term: str
    mode: str
    value: str
    empty: str
    longest: int
    choices: tuple[Choice, ...] = ()
    suggested: tuple[str, ...] = ()
    wide: bool = False

    @property
    def is_figure(self) -> bool:
        return self.mode in ("decimal", "numeric", "size")


@dataclass(frozen=True, slots=True, kw_only=True)
class TickBox:
    """A box to tick."""

    id: str
    name: str
    label: str
    term: str
    ticked: bool
    disabled: bool = False


@dataclass(frozen=True, slots=True)
class Ticks:
    """Boxes of which several may be ticked."""

    label: str
    term: str
    boxes: tuple[TickBox, ...]


@dataclass(frozen=True, slots=True)
class FieldGroup:
    """Entries and boxes that are sent together, under one line that says what they come to."""

    id: str
    name: str
    summary: str
    entries: tuple[AskedEntry, ...]
    flags: tuple[TickBox, ...]
    ticks: tuple[Ticks, ...]
    open: bool

    @property
    def scope(self) -> str:
        return f"{self.id}:"

    @property
    def by_name(self) -> dict[str, AskedEntry]:
        return {entry.name: entry for entry in self.entries}


class FormFields:
    """The general form of one brief."""

    def __init__(self, catalogue: Catalogue, brief: Brief, currency: str, drafts: Drafts) -> None:
        self.catalogue, self.brief, self.currency, self.drafts = catalogue, brief, currency, drafts

    @property
    def names(self) -> Mapping[str, str]:
        return choices_of(self.catalogue).names

    def group(self, name: str) -> FieldGroup:
        """The fields of a group; the display's size stands before its refresh."""
        fields = [field for field in GENERAL if field.spec.group == name]
        entries = [self._entry(field, self._value(field)) for field in fields if _is_entry(field)]
        if name == "display":
            entries.insert(0, self._size())
        known = name in GROUPS
        return FieldGroup(
            name,
            GROUPS.get(name, ""),
            group_words(self.brief, name, self.currency, self.names) if known else "",
            tuple(entries),
            tuple(self._flag(field) for field in fields if field.bare is bool),
            tuple(self._ticks(field) for field in fields if field.several),
            f"{name}:*" in self.drafts,
        )

    def _value(self, field: Declared) -> Any:
        holder = self.brief.display if field in DISPLAY else self.brief
        return getattr(holder, field.name)

    def _size(self) -> AskedEntry:
        display = self.brief.display
        value = self._draft("display", "size", f"{display.width_px}x{display.height_px}")
        return AskedEntry(
            id="f-size",
            name="size",
            label="Display, pixels",
            term="",
            mode="size",
            value=value,
            empty="",
            longest=20,
        )

    def _draft(self, group: str, name: str, actual: str) -> str:
        return self.drafts.get(f"{group}:{name}", actual)

    def _entry(self, field: Declared, value: Any) -> AskedEntry:
        name, spec = entry_name(field), field.spec
        if name in ("budget_low", "budget_high"):
            value *= self.brief.seats
        empty = spec.empty
        if spec.choices == "tariff":
            empty = str(self.catalogue.region(self.brief.region).tariff_per_kwh or "")
        return AskedEntry(
            id="f-" + name.replace("_", "-"),
            name=name,
            label=self._label(field),
            term=field.name if spec.meaning else "",
            mode=field_mode(field),
            value=self._draft(spec.group, name, self._shown(field, value)),
            empty=empty,
            longest=spec.longest,
            choices=self._choices(field),
            suggested=self._suggested(spec.choices),
            wide=spec.wide,
        )

    def _shown(self, field: Declared, value: Any) -> str:
        """What stands in an entry: parts of a kind go by their names."""
        if field.spec.choices in OF_KIND:
            return self.names.get(value) or str(value)
        return field_words(field, value)

    def _label(self, field: Declared) -> str:
        label, unit = field.spec.label, field.spec.unit
        if field.spec.amount or field.spec.choices == "tariff":
            together = self.brief.seats > 1 and field.name.startswith("budget")
            return f"{label} ({self.currency}{', all' if together else ''})"
        return f"{label}, {unit}" if unit else label

    def _choices(self, field: Declared) -> tuple[tuple[str, str], ...]:
        if field.spec.choices == "regions":
            regions = self.catalogue.regions.values()
            return tuple((region.id, f"{region.name} ({region.currency})") for region in regions)
        if field.name == "sureness":
            return tuple((word, f"{word}, {share:.0%}") for word, share in SURENESS.items())
        return tuple((word, word) for word in field.options)

    def _suggested(self, source: str) -> tuple[str, ...]:
        if source in OF_KIND:
            return tuple(part.name for part in self.catalogue.by_kind[OF_KIND[source]])
        lists = choices_of(self.catalogue)
        return {"colours": lists.colours, "systems": lists.systems}.get(source, ())

    def _ticks(self, field: Declared) -> Ticks:
        options: Iterable[Any] = field.options
        if field.spec.choices == "further kinds":
            options = FURTHER_KINDS
        chosen = getattr(self.brief, field.name)
        boxes = tuple(
            self._tick(
                f"f-{field.name}-{option.replace(' ', '-')}",
                f"{field.name}.{option}",
                (KIND_PLURALS if options is FURTHER_KINDS else BOUGHT).get(option, option),
                option in chosen,
                field.spec.group,
            )
            for option in options
        )
        return Ticks(field.spec.label, field.name if field.spec.meaning else "", boxes)

    def _flag(self, field: Declared) -> TickBox:
        id_ = "f-" + field.name.replace("_", "-")
        term = field.name if field.spec.meaning else ""
        actual = getattr(self.brief, field.name)
        return self._tick(id_, field.name, field.spec.label, actual, field.spec.group, term)

    def _tick(
        self, id_: str, name: str, label: str, actual: bool, group: str, term: str = ""
    ) -> TickBox:
        return TickBox(
            id=id_,
            name=name,
            label=label,
            term=term,
            ticked=is_ticked(self.drafts, f"{group}:", name, actual),
        )


OF_KIND: dict[str, Kind] = {"cards": "graphics", "chips": "processor"}
"""Entries that take the name of a part of a kind."""
BOUGHT = {**KIND_WORDS, "input": "keyboard and mouse"}


def _is_entry(field: Declared) -> bool:
    return bool(field.spec.label) and not field.several and field.bare is not bool


def is_ticked(drafts: Drafts, scope: str, name: str, actual: bool) -> bool:
    return (scope + name) in drafts if f"{scope}*" in drafts else actual


def field_mode(field: Declared) -> str:
    if field.options or field.spec.choices == "regions":
        return "choice"
    if field.bare is str:
        return "notes" if field.spec.longest > 1000 else "text"
    return "numeric" if field.bare is int and not field.spec.amount else "decimal"


def field_words(field: Declared, value: Any) -> str:
    if value is None or (field.name == "years" and not value):
        return ""
    if field.spec.amount:
        return amount(value)
    return plain(value) if isinstance(value, float) else str(value)
