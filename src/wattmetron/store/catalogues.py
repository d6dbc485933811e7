"""The catalogue in the database: imports bring and end revisions, nothing is overwritten."""

import json
import logging
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, fields, replace
from datetime import UTC, datetime
from functools import lru_cache
from operator import attrgetter
from typing import Any, NamedTuple, cast

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import Table, and_, func, or_, select, update
from sqlalchemy.orm import Session

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, InvalidError, StorageError
from wattmetron.core.values.charts import Chart
from wattmetron.core.values.games import Game
from wattmetron.core.values.offers import Offer, Region, Terms
from wattmetron.core.values.own_record import OwnRecord, with_records
from wattmetron.core.values.part_types import PART_TYPES, kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.published import Assumptions, NamedPart, Published
from wattmetron.core.values.references import Reference
from wattmetron.core.values.results import ColumnRoles, Results
from wattmetron.core.values.shops import ShopRules
from wattmetron.store.database import found
from wattmetron.store.offer_terms import read_terms, terms_document
from wattmetron.store.pictures import (
    PICTURE_COLUMNS,
    PICTURES,
    digest_of,
    pictured,
    standing_picture,
)
from wattmetron.store.tables import EntryRow, ImportRow, StoredOffer

OFFER_COLUMNS = tuple(field.name for field in fields(Offer) if field.name != "risk_minor")
_fields_of = attrgetter(*OFFER_COLUMNS)
_ADAPTERS: dict[str, TypeAdapter[Any]] = {
    **{kind: TypeAdapter(part_type) for kind, part_type in PART_TYPES.items()},
    "game": TypeAdapter(Game),
    "region": TypeAdapter(Region),
    "published": TypeAdapter(Published),
    "named": TypeAdapter(NamedPart),
    "assumptions": TypeAdapter(Assumptions),
    "chart": TypeAdapter(Chart),
    "results": TypeAdapter(Results),
    "columns": TypeAdapter(ColumnRoles),
    "own": TypeAdapter(OwnRecord),
    "reference": TypeAdapter(Reference),
    "shop": TypeAdapter(ShopRules),
}
logger = logging.getLogger("wattmetron")
NEVER_ENDED = ("own", "columns", "reference")
"""What belongs to the user: an import that lacks it leaves it."""
ASSUMPTIONS_KEY, TOOK_BACK = "table", "took back: "
ENTRIES, OFFERS = cast(Table, EntryRow.__table__), cast(Table, StoredOffer.__table__)


def latest_import(session: Session) -> int | None:
    """Id of the newest import, or None while nothing was imported."""
    return session.scalar(select(func.max(ImportRow.id)))


def import_time(session: Session, import_id: int) -> datetime | None:
    """When an import was made; None where there is none of this id."""
    return session.scalar(select(ImportRow.at).where(ImportRow.id == import_id))


def begin(
    session: Session, source: str, by_hand: bool, moment: datetime | None = None
) -> ImportRow:
    row = ImportRow(at=moment or datetime.now(UTC), source=source[:200], by_hand=by_hand)
    session.add(row)
    session.flush()
    return row


def rows_by_hand(session: Session, table: Table = ENTRIES) -> set[int]:
    """Standing rows that were made by hand: an import that lacks them leaves them."""
    query = (
        select(table.c.id)
        .join(ImportRow, ImportRow.id == table.c.from_import)
        .where(table.c.until_import.is_(None), ImportRow.by_hand.is_(True))
    )
    return set(session.scalars(query))


def insert_rows(
    session: Session, table: str, columns: tuple[str, ...], rows: list[tuple[Any, ...]]
) -> None:
    """Many rows at once, through the driver; names come from this module only."""
    if rows:
        marks = ", ".join("?" * len(columns))
        session.connection().exec_driver_sql(
            f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({marks})", rows
        )


class EntryDocument(NamedTuple):
    """Kind, key and document of what a catalogue describes."""

    kind: str
    key: str
    document: str


class EntryKey(NamedTuple):
    """Row, kind and key of a stored entry."""

    row_id: int
    kind: str
    key: str


def entries_of(catalogue: Catalogue) -> Iterator[EntryDocument]:
    """Kind, key and document of everything that a catalogue describes but offers."""
    for kind, key, value in _values(catalogue):
        yield EntryDocument(kind, key, document_of(kind, value))


def _values(catalogue: Catalogue) -> Iterator[tuple[str, str, Any]]:
    for part in catalogue.parts.values():
        yield kind_of(part), part.id, part
    yield from (("game", game.id, game) for game in catalogue.games.values())
    yield from (("region", region.id, region) for region in catalogue.regions.values())
    yield from (
        ("published", requirements.game, requirements)
        for requirements in catalogue.published.values()
    )
    yield from (("named", named.id, named) for named in catalogue.named.values())
    yield from (("chart", chart.id, chart) for chart in catalogue.charts.values())
    yield from (("results", results.game, results) for results in catalogue.results.values())
    yield from (("own", record.key, record) for record in catalogue.own.values())
    yield from (
        ("reference", reference.id, reference) for reference in catalogue.references.values()
    )
    yield from (("shop", shop.key[:80], shop) for shop in catalogue.shops.values())
    if catalogue.assumptions != Assumptions():
        yield "assumptions", ASSUMPTIONS_KEY, catalogue.assumptions


def document_of(kind: str, value: Any) -> str:
    """How a value is stored, whether it was imported or typed."""
    if kind in PART_TYPES or kind == "region":
        return _plain_json(value)
    return str(_ADAPTERS[kind].dump_json(value, exclude_defaults=kind != "game").decode())


def says_the_same(kind: str, document: str, other: str) -> bool:
    """Whether two documents describe the same, in whichever way they were written."""
    if document == other:
        return True
    try:
        return bool(_read_entry(kind, "", document) == _read_entry(kind, "", other))
    except StorageError:
        return False


def _acceptable(kind: str, value: Any) -> str:
    """An entry as it is stored, if it can be read again; raises InvalidError with what is wrong."""
    data = document_of(kind, value)
    try:
        _ADAPTERS[kind].validate_json(data)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        location = " › ".join(str(step) for step in first["loc"])
        raise InvalidError(
            f"Nothing was stored: {location} is “{str(first['input'])[:60]}”, but the"
            f" {first['msg'][:1].lower()}{first['msg'][1:]}: enter another value."
        ) from error
    return data


_NAMES = {
    kind: tuple(field.name for field in fields(kind) if not field.metadata.get("folded"))
    for kind in (*PART_TYPES.values(), Region)
}


def _plain_json(value: Part | Region) -> str:
    return json.dumps(
        {name: getattr(value, name) for name in _NAMES[type(value)]},
        default=str,
        ensure_ascii=False,
    )


def end_rows(session: Session, table: Table, row_ids: list[int], import_id: int) -> None:
    for start in range(0, len(row_ids), 500):
        chunk = row_ids[start : start + 500]
        session.execute(update(table).where(table.c.id.in_(chunk)).values(until_import=import_id))


def load_catalogue(session: Session, as_of: int) -> Catalogue:
    """The catalogue as it stood after an import, without what cannot be read of it."""
    parts: dict[str, Part] = {}
    others: dict[str, dict[str, Any]] = {kind: {} for kind in _ADAPTERS if kind not in PART_TYPES}
    query = (
        select(ENTRIES.c.kind, ENTRIES.c.key, ENTRIES.c.data)
        .where(_standing(ENTRIES, as_of))
        .order_by(ENTRIES.c.id)
    )
    for kind, key, data in session.execute(query):
        of_kind = parts if kind in PART_TYPES else others[kind]
        try:
            of_kind[key] = _read_entry(kind, key, data)
        except StorageError as error:
            logger.warning("left out: %s", error)
    columns = [OFFERS.c[name] for name in OFFER_COLUMNS]
    rows = session.execute(select(*columns).where(_standing(OFFERS, as_of)).order_by(OFFERS.c.id))
    games, pictures = others["game"], pictured(session, as_of)
    parts |= {
        part_id: replace(parts[part_id], picture=digest)
        for part_id, digest in pictures.items()
        if part_id in parts
    }
    return Catalogue(
        parts=with_records(parts, others["own"]),
        pictures=pictures,
        games=games,
        offers=tuple(_offers(rows)),
        regions=others["region"],
        published={key: other for key, other in others["published"].items() if key in games},
        named=others["named"],
        assumptions=others["assumptions"].get(ASSUMPTIONS_KEY, Assumptions()),
        charts=others["chart"],
        results={key: other for key, other in others["results"].items() if key in games},
        own=others["own"],
        references=others["reference"],
        shops={shop.key: shop for shop in others["shop"].values()},
    )


def _read_entry(kind: str, key: str, data: str) -> Any:
    try:
        return _ADAPTERS[kind].validate_json(data)
    except ValidationError as error:
        raise StorageError(
            f"The catalogue's {kind} “{key}” cannot be read: run “wattmetron doctor”, then import"
            " the catalogue again."
        ) from error


def standing_keys(session: Session, kind: str) -> set[str]:
    """The keys of what stands of a kind."""
    query = select(ENTRIES.c.key).where(ENTRIES.c.kind == kind, ENTRIES.c.until_import.is_(None))
    return set(session.scalars(query))


def unreadable_entries(session: Session) -> Iterator[EntryKey]:
    """Row, kind and key of every standing entry that cannot be read."""
    query = select(ENTRIES.c.id, ENTRIES.c.kind, ENTRIES.c.key, ENTRIES.c.data).where(
        ENTRIES.c.until_import.is_(None)
    )
    for row_id, kind, key, data in session.execute(query):
        try:
            _read_entry(kind, key, data)
        except StorageError:
            yield EntryKey(row_id, kind, key)


def _offers(rows: Iterable[Any]) -> Iterator[Offer]:
    read = lru_cache(maxsize=4096)(read_terms)
    for row in rows:
        values = dict(zip(OFFER_COLUMNS, row, strict=True))
        yield Offer(**values | {"terms": read(values["terms"])})


def values_of(offer: Offer) -> tuple[Any, ...]:
    """The values of an offer's columns."""
    return tuple(
        terms_document(value) if isinstance(value, Terms) else value for value in _fields_of(offer)
    )


def _standing(table: Table, as_of: int) -> Any:
    return and_(
        table.c.from_import <= as_of,
        or_(table.c.until_import.is_(None), table.c.until_import > as_of),
    )


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
        Revision(row_id, _read_entry(kind, key, data), moment, source)
        for row_id, data, moment, source in session.execute(query)
    ]
