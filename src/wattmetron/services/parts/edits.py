"""Parts and their offers by hand: typed values checked like those of a file, stored as one edit
that can be undone.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, InvalidError
from wattmetron.core.fit.sources import unreadable
from wattmetron.core.values.kinds import PART_TYPES, kind_of
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.parts import Kind, Part
from wattmetron.formats.catalogue_folder import OF_SOURCES, is_id
from wattmetron.formats.columns import ColumnSpec, cell_of, columns_of, reader_of
from wattmetron.services.workshop import Workshop
from wattmetron.store import catalogues as store

Form = Mapping[str, str]
MOST_TEXT = 2000


class PartError(InvalidError):
    """A part or offer that cannot be read; the message has one sentence for each field."""


@dataclass(frozen=True, slots=True)
class Done:
    """What was done, and the edit that undo takes back."""

    part_id: str
    said: str
    edit_id: int


def typed_part(kind: Kind, form: Form, part_id: str) -> Part:
    """A part from typed cells, one for each column; raises PartError with every field that cannot
    be read.
    """
    values: dict[str, Any] = {"id": part_id}
    wrong = []
    for spec in columns_of(PART_TYPES[kind]):
        if spec.name == "id":
            continue
        text = form.get(spec.name, "").strip()[:MOST_TEXT]
        try:
            values[spec.name] = _value(spec, text)
        except (ValueError, OverflowError):
            found = f"“{text}”" if text else "empty"
            wrong.append(f"{_title(spec)} is {found}: enter {spec.expected}.")
    if not form.get("maker", "").strip() or not form.get("model", "").strip():
        wrong.insert(0, "Maker and model are the part's name: enter both.")
    if wrong:
        raise PartError("\n".join(dict.fromkeys(wrong)))
    part = PART_TYPES[kind](**values)
    if (entry := unreadable(part)) is not None:
        raise PartError(f"“{entry[1]}” is not understood: enter {OF_SOURCES[entry[0]]}.")
    return part


def _value(spec: ColumnSpec, text: str) -> Any:
    if text:
        return reader_of(spec)(text)
    if spec.optional:
        return None
    if spec.many:
        return ()
    if spec.required:
        raise ValueError
    return spec.default


def _title(spec: ColumnSpec) -> str:
    return spec.text.split(";")[0].split(":")[0].split(", ")[0]


def cells_of(part: Part) -> dict[str, str]:
    """The cells of a part as a form shows them."""
    return {spec.name: cell_of(getattr(part, spec.name)) for spec in columns_of(type(part))}


def new_id(catalogue: Catalogue, form: Form) -> str:
    """An id from maker, model and colour that the catalogue lacks."""
    words = " ".join(form.get(name, "") for name in ("maker", "model", "colour"))
    base = re.sub(r"[^a-z0-9]+", "-", words.lower()).strip("-")[:70] or "part"
    taken = catalogue.described.parts
    return next(
        one for n in range(1, 10_000) if (one := base if n == 1 else f"{base}-{n}") not in taken
    )


def add_part(workshop: Workshop, catalogue: Catalogue, kind: Kind, form: Form) -> Done:
    """Store a new part; a part of the same name and colour is refused."""
    part_id = new_id(catalogue, form)
    part = typed_part(kind, form, part_id)
    if not is_id(part_id):
        raise PartError("The part has no usable name: enter maker and model in letters and digits.")
    same = [
        one
        for one in catalogue.parts.values()
        if (one.name, one.colour) == (part.name, part.colour)
    ]
    if same:
        raise PartError(
            f"There is a {part.name} already: change that one, or give this one another model name"
            " or colour."
        )
    with workshop.database.writing() as session:
        edit = store.revise(session, {(kind, part_id): part}, f"added {part.name}")
    return Done(part_id, f"added {part.name}", edit)


def change_part(workshop: Workshop, catalogue: Catalogue, part_id: str, form: Form) -> Done:
    """Store a part's figures as typed, unless it was changed elsewhere since the form was shown."""
    old = catalogue.described.part(part_id)
    kind = kind_of(old)
    part = typed_part(kind, form, part_id)
    if part == old:
        raise PartError(f"Nothing was changed of {old.name}.")
    changed = [
        _title(spec).lower()
        for spec in columns_of(type(old))
        if getattr(part, spec.name) != getattr(old, spec.name)
    ]
    said = f"changed {old.name}: {', '.join(changed[:4])}" + (
        f" and {len(changed) - 4} more" if len(changed) > 4 else ""
    )
    with workshop.database.writing() as session:
        _check_version(store.standing_id(session, kind, part_id), form)
        edit = store.revise(session, {(kind, part_id): part}, said)
    return Done(part_id, said, edit)


def take_out_part(workshop: Workshop, catalogue: Catalogue, part_id: str, form: Form) -> Done:
    """Take a part out of the catalogue; briefs that use it say so and keep its place."""
    old = catalogue.described.part(part_id)
    kind = kind_of(old)
    with workshop.database.writing() as session:
        _check_version(store.standing_id(session, kind, part_id), form)
        edit = store.revise(session, {(kind, part_id): None}, f"took out {old.name}")
    return Done(part_id, f"took out {old.name}", edit)


def _check_version(standing: int, form: Form) -> None:
    if form.get("version", "") != str(standing):
        raise ConflictError(
            "This part was changed in another tab: here is what it says now; make your change"
            " again."
        )


def part_version(workshop: Workshop, part_id: str, kind: Kind) -> int:
    with workshop.database.reading() as session:
        return store.standing_id(session, kind, part_id)


def type_offer(
    workshop: Workshop, catalogue: Catalogue, part_id: str, form: Form, today: date
) -> Done:
    """Store what a shop asks today, in place of what it asked before."""
    part = catalogue.part(part_id)
    shop = form.get("shop", "").strip()[:120]
    if not shop:
        raise PartError("The offer has no shop: say who asks this price.")
    region = catalogue.region(form.get("region", ""))
    offer = Offer(
        part_id=part_id,
        shop=shop,
        region=region.id,
        currency=region.currency,
        price_minor=to_minor(form.get("price", ""), "The price"),
        shipping_minor=to_minor(form.get("shipping", "").strip() or "0", "Shipping"),
        in_stock="in_stock" in form,
        condition="used" if form.get("condition") == "used" else "new",
        seen_on=today,
    )
    said = f"noted what {shop} asks for {part.name}"
    with workshop.database.writing() as session:
        edit = store.revise_offers(session, part_id, region.id, [offer], said)
    return Done(part_id, said, edit)


def undo_edit(workshop: Workshop, edit_id: int) -> str:
    """Take an edit back; returns what it was."""
    with workshop.database.writing() as session:
        return store.undo_edit(session, edit_id)


def edit_said(workshop: Workshop, edit_id: str) -> str:
    """What an edit was, for the notice that offers to take it back."""
    if not edit_id.isdecimal():
        return ""
    with workshop.database.reading() as session:
        return store.edit_said(session, int(edit_id))


def variant_of(part: Part) -> dict[str, str]:
    """The cells of a new part like this one: a variant differs in colour or size and gets an id and
    offers of its own.
    """
    return cells_of(
        replace(part, reviews=None, review_percent=None, reviews_on=None, reviews_from="")
    )
