"""The catalogue in the database: imports bring and end revisions, nothing is overwritten."""

import json
import logging
from collections.abc import Iterable, Iterator
from dataclasses import fields, replace
from datetime import UTC, datetime
from functools import lru_cache
from operator import attrgetter
from typing import Any, NamedTuple, cast

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import Table, and_, func, or_, select, update
from sqlalchemy.orm import Session

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import StorageError
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
from wattmetron.store.offer_terms import read_terms, terms_document
from wattmetron.store.pictures import (
    pictured,
)
from wattmetron.store.tables import EntryRow, ImportRow, StoredOffer

OFFER_COLUMNS = tuple(field.name for field in fields(Offer) if field.name != "risk_minor")
_fields_of = attrgetter(*OFFER_COLUMNS)
ADAPTERS: dict[str, TypeAdapter[Any]] = {
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
    return str(ADAPTERS[kind].dump_json(value, exclude_defaults=kind != "game").decode())


def says_the_same(kind: str, document: str, other: str) -> bool:
    """Whether two documents describe the same, in whichever way they were written."""
    if document == other:
        return True
    try:
        return bool(read_entry(kind, "", document) == read_entry(kind, "", other))
    except StorageError:
        return False


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
    others: dict[str, dict[str, Any]] = {kind: {} for kind in ADAPTERS if kind not in PART_TYPES}
    query = (
        select(ENTRIES.c.kind, ENTRIES.c.key, ENTRIES.c.data)
        .where(_standing(ENTRIES, as_of))
        .order_by(ENTRIES.c.id)
    )
    for kind, key, data in session.execute(query):
        of_kind = parts if kind in PART_TYPES else others[kind]
        try:
            of_kind[key] = read_entry(kind, key, data)
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


def read_entry(kind: str, key: str, data: str) -> Any:
    try:
        return ADAPTERS[kind].validate_json(data)
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
            read_entry(kind, key, data)
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
