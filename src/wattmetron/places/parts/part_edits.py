"""Parts and their offers by hand, stored as edits that can be undone."""

import re
from dataclasses import dataclass, replace
from datetime import date

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, InvalidError
from wattmetron.core.values.ids import ADDRESSES, is_id
from wattmetron.core.values.offers import PLAIN, Condition, Offer, Stock, Terms
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.formats.columns import column_title, columns_of
from wattmetron.formats.picture_file import kept_picture
from wattmetron.store import catalogue_edits
from wattmetron.store.pictures import picture_data, standing_picture
from wattmetron.workshop.workshop import Workshop

MOST_CHANGES = 4


class PartError(InvalidError):
    """A part or offer that cannot be stored; the message has one sentence for each field."""


@dataclass(frozen=True, slots=True)
class Done:
    """What was done, and the edit that undo takes back."""

    part_id: str
    sentence: str
    edit_id: int


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedOffer:
    """What a shop asks for a part; amounts in minor units of the region's currency."""

    shop: str
    region: str
    price_minor: int
    shipping_minor: int
    stock: Stock
    condition: Condition
    terms: Terms = PLAIN


def new_id(catalogue: Catalogue, maker: str, model: str, colour: str) -> str:
    """An id from maker, model and colour that the catalogue lacks."""
    words = f"{maker} {model} {colour}".lower()
    base = re.sub(r"[^a-z0-9]+", "-", words).strip("-")[:70] or "part"
    if base in ADDRESSES:
        base = f"{base}-part"
    taken = catalogue.described.parts
    ids = (base if n == 1 else f"{base}-{n}" for n in range(1, 10_000))
    return next(part_id for part_id in ids if part_id not in taken)


def add_part(workshop: Workshop, catalogue: Catalogue, part: Part) -> Done:
    """Store a new part; a part of the same name and colour is refused."""
    kind = kind_of(part)
    if not is_id(part.id):
        raise PartError("The part has no usable name: enter maker and model in letters and digits.")
    if any(
        (each_part.name, each_part.colour) == (part.name, part.colour)
        for each_part in catalogue.parts.values()
    ):
        raise PartError(
            f"There is a {part.name} already: change that one, or give this one another model name"
            " or colour."
        )
    with workshop.database.writing() as session:
        edit = catalogue_edits.revise(session, {(kind, part.id): part}, f"added {part.name}")
    return Done(part.id, f"added {part.name}", edit)


def change_part(workshop: Workshop, catalogue: Catalogue, part: Part, version: int) -> Done:
    """Store a part's figures in place of a version; raises ConflictError on a stale one."""
    old = catalogue.described.part(part.id)
    kind = kind_of(old)
    if part == old:
        raise PartError(f"Nothing was changed of {old.name}.")
    changed = [
        column_title(spec).lower()
        for spec in columns_of(type(old))
        if getattr(part, spec.name) != getattr(old, spec.name)
    ]
    more = f" and {len(changed) - MOST_CHANGES} more" if len(changed) > MOST_CHANGES else ""
    sentence = f"changed {old.name}: {', '.join(changed[:MOST_CHANGES])}{more}"
    with workshop.database.writing() as session:
        _check_version(catalogue_edits.standing_id(session, kind, part.id), version)
        edit = catalogue_edits.revise(session, {(kind, part.id): part}, sentence)
    return Done(part.id, sentence, edit)


def take_out_part(workshop: Workshop, catalogue: Catalogue, part_id: str, version: int) -> Done:
    """Take a part out of the catalogue; briefs that use it say so and keep its place."""
    old = catalogue.described.part(part_id)
    kind = kind_of(old)
    with workshop.database.writing() as session:
        _check_version(catalogue_edits.standing_id(session, kind, part_id), version)
        edit = catalogue_edits.revise(session, {(kind, part_id): None}, f"took out {old.name}")
    return Done(part_id, f"took out {old.name}", edit)


def _check_version(standing: int, version: int) -> None:
    if version != standing:
        raise ConflictError(
            "This part was changed in another tab: here is what it says now; make your change"
            " again."
        )


def part_version(workshop: Workshop, part_id: str, kind: Kind) -> int:
    with workshop.database.reading() as session:
        return catalogue_edits.standing_id(session, kind, part_id)


def type_offer(
    workshop: Workshop, catalogue: Catalogue, part_id: str, typed: TypedOffer, today: date
) -> Done:
    """Store what a shop asks today, in place of what it asked before."""
    part = catalogue.part(part_id)
    if not typed.shop:
        raise PartError("The offer has no shop: say who asks this price.")
    region = catalogue.region(typed.region)
    offer = Offer(
        part_id=part_id,
        shop=typed.shop,
        region=region.id,
        currency=region.currency,
        price_minor=typed.price_minor,
        shipping_minor=typed.shipping_minor,
        stock=typed.stock,
        condition=typed.condition,
        seen_on=today,
        terms=typed.terms,
    )
    sentence = f"noted what {typed.shop} asks for {part.name}"
    with workshop.database.writing() as session:
        edit = catalogue_edits.revise_offers(session, part_id, region.id, [offer], sentence)
    return Done(part_id, sentence, edit)


def keep_picture(
    workshop: Workshop, catalogue: Catalogue, part_id: str, file: tuple[str, bytes], version: int
) -> Done:
    """Keep a picture of a part (name and bytes of its file), in place of a version; raises
    PictureError for what is no picture.
    """
    name, data = file
    if not data:
        raise PartError("No picture was chosen: choose a PNG, JPEG or WebP file.")
    sentence = f"kept a picture of {catalogue.part(part_id).name}"
    return _revise_picture(workshop, part_id, kept_picture(name, data), version, sentence)


def drop_picture(workshop: Workshop, catalogue: Catalogue, part_id: str, version: int) -> Done:
    """Let the drawing stand for a part again."""
    sentence = f"took away the picture of {catalogue.part(part_id).name}"
    return _revise_picture(workshop, part_id, None, version, sentence)


def _revise_picture(
    workshop: Workshop, part_id: str, picture: bytes | None, version: int, sentence: str
) -> Done:
    with workshop.database.writing() as session:
        _check_version(standing_picture(session, part_id), version)
        edit = catalogue_edits.revise_picture(session, part_id, picture, sentence)
    return Done(part_id, sentence, edit)


def picture_version(workshop: Workshop, part_id: str) -> int:
    with workshop.database.reading() as session:
        return standing_picture(session, part_id)


def picture_of(workshop: Workshop, part_id: str) -> bytes | None:
    with workshop.database.reading() as session:
        return picture_data(session, part_id)


OWN_KIND = "own"


def note_own(workshop: Workshop, record: OwnRecord, version: int) -> Done:
    """Store what one has seen oneself, in place of a version; an empty record takes it away.
    ``part_id`` of what is done is the record's name.
    """
    if record.failed > record.used > 0:
        raise PartError(
            f"{record.failed} came back of {record.used} used: enter at least as many used as came"
            " back, or leave “used” empty."
        )
    sentence = f"noted what you saw of {record.name}"
    if record.empty:
        sentence = f"took out what you noted of {record.name}"
    with workshop.database.writing() as session:
        standing = catalogue_edits.standing_id(session, OWN_KIND, record.key)
        _check_version(standing, version)
        if record.empty and not standing:
            raise PartError("Nothing was noted: enter how many you used, or tick the mark.")
        entry = None if record.empty else record
        edit = catalogue_edits.revise(session, {(OWN_KIND, record.key): entry}, sentence)
    return Done(record.name, sentence, edit)


def own_version(workshop: Workshop, key: str) -> int:
    with workshop.database.reading() as session:
        return catalogue_edits.standing_id(session, OWN_KIND, key)


def undo_edit(workshop: Workshop, edit_id: int) -> str:
    """Take an edit back; returns what it was."""
    with workshop.database.writing() as session:
        return catalogue_edits.undo_edit(session, edit_id)


def edit_said(workshop: Workshop, edit_id: int) -> str:
    """What an edit was, for the notice that offers to take it back."""
    with workshop.database.reading() as session:
        return catalogue_edits.edit_said(session, edit_id)


def variant_of(part: Part) -> Part:
    """A new part like this one, with nothing said of it yet: a variant differs in colour or size
    and gets an id and offers of its own.
    """
    return replace(part, reviews=None, review_percent=None, reviews_on=None, reviews_from="")
