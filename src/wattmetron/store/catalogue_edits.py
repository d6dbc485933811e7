"""Changes of the catalogue by hand: each a dated revision with what undoes it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from pydantic import ValidationError
from sqlalchemy import Table, select
from sqlalchemy.orm import Session

from wattmetron.core.errors import ConflictError, InvalidError
from wattmetron.core.values.charts import Chart
from wattmetron.core.values.games import Game
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.parts import Part
from wattmetron.core.values.published import Assumptions, NamedPart, Published
from wattmetron.core.values.references import Reference
from wattmetron.core.values.results import ColumnRoles, Results
from wattmetron.store.catalogues import (
    ADAPTERS,
    ENTRIES,
    OFFER_COLUMNS,
    OFFERS,
    TOOK_BACK,
    begin,
    document_of,
    end_rows,
    insert_rows,
    read_entry,
    rows_by_hand,
    values_of,
)
from wattmetron.store.database import found
from wattmetron.store.pictures import (
    PICTURE_COLUMNS,
    PICTURES,
    digest_of,
    standing_picture,
)
from wattmetron.store.tables import ImportRow


def _acceptable(kind: str, value: Any) -> str:
    """An entry as it is stored, if it can be read again; raises InvalidError with what is wrong."""
    data = document_of(kind, value)
    try:
        ADAPTERS[kind].validate_json(data)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        location = " › ".join(str(step) for step in first["loc"])
        raise InvalidError(
            f"Nothing was stored: {location} is “{str(first['input'])[:60]}”, but the"
            f" {first['msg'][:1].lower()}{first['msg'][1:]}: enter another value."
        ) from error
    return data


Edit = (
    Part
    | Game
    | Published
    | NamedPart
    | Assumptions
    | Chart
    | Results
    | ColumnRoles
    | OwnRecord
    | Reference
    | None
)


@dataclass(frozen=True, slots=True)
class Revision:
    """One state of an entry: its row, its value (None: taken out), when and by what it came."""

    id: int
    value: Any
    at: datetime
    source: str


def standing_id(session: Session, kind: str, key: str) -> int:
    """The row of the standing revision of an entry, 0 where there is none: the version that an edit
    must name.
    """
    query = select(ENTRIES.c.id).where(
        ENTRIES.c.kind == kind, ENTRIES.c.key == key, ENTRIES.c.until_import.is_(None)
    )
    return session.scalar(query) or 0


def made_by_hand(session: Session, kind: str, key: str) -> bool:
    """Whether the standing revision of an entry was made by hand."""
    return standing_id(session, kind, key) in rows_by_hand(session)


def changed_by_hand(session: Session, kind: str, key: str) -> bool:
    """Whether the last change of an entry, its removal included, was made by hand."""
    query = (
        select(ENTRIES.c.until_import, ENTRIES.c.from_import)
        .where(ENTRIES.c.kind == kind, ENTRIES.c.key == key)
        .order_by(ENTRIES.c.id.desc())
        .limit(1)
    )
    last = session.execute(query).first()
    return last is not None and bool(
        session.scalar(select(ImportRow.by_hand).where(ImportRow.id == (last[0] or last[1])))
    )


def revise(session: Session, edits: Mapping[tuple[str, str], Edit], source: str) -> int:
    """Replace entries by hand (None takes one out), as one edit; returns its id."""
    row = begin(session, source, True)
    gone = [row_id for kind, key in edits if (row_id := standing_id(session, kind, key))]
    end_rows(session, ENTRIES, gone, row.id)
    rows = [
        (kind, key, _acceptable(kind, value), row.id)
        for (kind, key), value in edits.items()
        if value is not None
    ]
    insert_rows(session, "entries", ("kind", "key", "data", "from_import"), rows)
    return row.id


def revise_offers(
    session: Session, part_id: str, region: str, offers: Iterable[Offer], source: str
) -> int:
    """Put offers by hand in place of a part's offers of the same shops in a region; returns the
    edit's id.
    """
    row = begin(session, source, True)
    new = list(offers)
    query = select(OFFERS.c.id).where(
        OFFERS.c.until_import.is_(None),
        OFFERS.c.part_id == part_id,
        OFFERS.c.region == region,
        OFFERS.c.shop.in_([offer.shop for offer in new]),
    )
    end_rows(session, OFFERS, list(session.scalars(query)), row.id)
    rows = [(*map(raw, values), row.id) for values in map(values_of, new)]
    insert_rows(session, "offers", (*OFFER_COLUMNS, "from_import"), rows)
    return row.id


def revise_picture(session: Session, part_id: str, data: bytes | None, source: str) -> int:
    """Put a picture in the place of a part's present one, or take that away; returns the edit's
    id.
    """
    row = begin(session, source, True)
    standing = standing_picture(session, part_id)
    end_rows(session, PICTURES, [standing] if standing else [], row.id)
    new = [] if data is None else [(part_id, digest_of(data), data, row.id)]
    insert_rows(session, "pictures", (*PICTURE_COLUMNS, "from_import"), new)
    return row.id


def edit_said(session: Session, edit_id: int) -> str:
    """What an edit by hand was, while it can be taken back; empty otherwise."""
    made = found(session, ImportRow, edit_id)
    return made.source if made is not None and made.by_hand else ""


def undo_edit(session: Session, edit_id: int) -> str:
    """Take an edit by hand back; returns what it was. Raises ConflictError where something that it
    touched was changed since.
    """
    made = found(session, ImportRow, edit_id)
    if made is None or not made.by_hand:
        raise ConflictError("There is no such edit to take back.")
    return take_back(session, made)


def take_back(session: Session, made: ImportRow) -> str:
    """Take an edit or an import back: entries, offers and pictures. What was typed comes back as
    typed, what was imported as imported. Raises ConflictError where something that it touched was
    changed since.
    """
    # The one of what was typed comes last: what was taken back is no import to be taken back.
    back = {typed: begin(session, TOOK_BACK + made.source, typed).id for typed in (False, True)}
    for table, key, columns in (
        (ENTRIES, ("kind", "key"), ("kind", "key", "data")),
        (OFFERS, ("part_id", "shop", "region", "condition"), OFFER_COLUMNS),
        (PICTURES, ("part_id",), PICTURE_COLUMNS),
    ):
        brought = session.execute(
            select(table.c.id, table.c.until_import).where(table.c.from_import == made.id)
        ).all()
        ended = session.execute(
            select(*(table.c[name] for name in columns), ImportRow.by_hand)
            .join(ImportRow, ImportRow.id == table.c.from_import)
            .where(table.c.until_import == made.id)
        ).all()
        keys = [tuple(getattr(item, name) for name in key) for item in ended]
        later = [
            each_key
            for each_key in keys
            if _stands_otherwise(session, table, key, each_key, made.id)
        ]
        if later or any(pair.until_import is not None for pair in brought):
            raise ConflictError(
                "What this change touched was changed since: look at what it says now."
            )
        end_rows(session, table, [pair.id for pair in brought], back[True])
        insert_rows(
            session,
            table.name,
            (*columns, "from_import"),
            [(*(raw(value) for value in item[:-1]), back[item.by_hand]) for item in ended],
        )
    return made.source


def _stands_otherwise(
    session: Session, table: Table, key: tuple[str, ...], values: tuple[Any, ...], edit_id: int
) -> bool:
    """Whether another revision than the edit's stands in a place."""
    same = [table.c[name] == value for name, value in zip(key, values, strict=True)]
    query = select(table.c.id).where(
        *same, table.c.until_import.is_(None), table.c.from_import != edit_id
    )
    return session.scalar(query) is not None


def raw(value: Any) -> Any:
    return value.isoformat() if hasattr(value, "isoformat") else value


def revisions(session: Session, kind: str, key: str, most: int = 20) -> list[Revision]:
    """The states of an entry, the newest first."""
    query = (
        select(ENTRIES.c.id, ENTRIES.c.data, ImportRow.at, ImportRow.source)
        .join(ImportRow, ImportRow.id == ENTRIES.c.from_import)
        .where(ENTRIES.c.kind == kind, ENTRIES.c.key == key)
        .order_by(ENTRIES.c.id.desc())
        .limit(most)
    )
    return [
        Revision(row_id, read_entry(kind, key, data), moment, source)
        for row_id, data, moment, source in session.execute(query)
    ]
