"""The catalogue in the database: imports bring and end revisions, nothing is overwritten."""

import json
from collections.abc import Iterable, Iterator
from dataclasses import fields
from datetime import UTC, datetime
from operator import attrgetter
from typing import Any, cast

from pydantic import TypeAdapter
from sqlalchemy import Table, and_, func, or_, select, update
from sqlalchemy.orm import Session

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.games import Game
from wattmetron.core.parts import KINDS, PART_TYPES, Part, kind_of
from wattmetron.core.prices.offers import Offer, Region
from wattmetron.store.tables import EntryRow, ImportRow, OfferRow

OFFER_COLUMNS = tuple(one.name for one in fields(Offer))
_values_of = attrgetter(*OFFER_COLUMNS)
_ADAPTERS: dict[str, TypeAdapter[Any]] = {
    **{kind: TypeAdapter(part_type) for kind, part_type in PART_TYPES.items()},
    "game": TypeAdapter(Game),
    "region": TypeAdapter(Region),
}
ENTRIES, OFFERS = cast(Table, EntryRow.__table__), cast(Table, OfferRow.__table__)


def latest_import(session: Session) -> int | None:
    """Id of the newest import, or None while nothing was imported."""
    return session.scalar(select(func.max(ImportRow.id)))


def store_catalogue(session: Session, catalogue: Catalogue, source: str) -> int:
    """Make a catalogue the current one; unchanged entries and offers keep their revisions."""
    row = ImportRow(at=datetime.now(UTC), source=source[:200])
    session.add(row)
    session.flush()
    _revise_entries(session, catalogue, row.id)
    _revise_offers(session, catalogue, row.id)
    return row.id


def _revise_entries(session: Session, catalogue: Catalogue, import_id: int) -> None:
    standing = {
        (kind, key): (row_id, data)
        for row_id, kind, key, data in session.execute(
            select(ENTRIES.c.id, ENTRIES.c.kind, ENTRIES.c.key, ENTRIES.c.data).where(ENTRIES.c.until_import.is_(None))
        )
    }
    new = {(kind, key): data for kind, key, data in _entries(catalogue)}
    gone = [row_id for place, (row_id, data) in standing.items() if new.get(place) != data]
    _end(session, ENTRIES, gone, import_id)
    rows = [
        (kind, key, data, import_id)
        for (kind, key), data in new.items()
        if (kind, key) not in standing or standing[kind, key][1] != data
    ]
    _insert(session, "entries", ("kind", "key", "data", "from_import"), rows)


def _insert(session: Session, table: str, columns: tuple[str, ...], rows: list[tuple[Any, ...]]) -> None:
    """Many rows at once, through the driver; names come from this module only."""
    if rows:
        marks = ", ".join("?" * len(columns))
        session.connection().exec_driver_sql(f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({marks})", rows)


def _entries(catalogue: Catalogue) -> Iterator[tuple[str, str, str]]:
    for part in catalogue.parts.values():
        yield kind_of(part), part.id, _plain_json(part)
    for game in catalogue.games.values():
        yield "game", game.id, _ADAPTERS["game"].dump_json(game).decode()
    for region in catalogue.regions.values():
        yield "region", region.id, _plain_json(region)


_NAMES = {kind: tuple(one.name for one in fields(kind)) for kind in (*PART_TYPES.values(), Region)}


def _plain_json(value: Part | Region) -> str:
    return json.dumps({name: getattr(value, name) for name in _NAMES[type(value)]}, default=str, ensure_ascii=False)


def _revise_offers(session: Session, catalogue: Catalogue, import_id: int) -> None:
    columns = [OFFERS.c[name] for name in OFFER_COLUMNS]
    standing: dict[tuple[Any, ...], int] = {
        tuple(values): row_id
        for row_id, *values in session.execute(select(OFFERS.c.id, *columns).where(OFFERS.c.until_import.is_(None)))
    }
    wanted = [_values_of(offer) for offer in catalogue.offers]
    new = set(wanted)
    _end(session, OFFERS, [row_id for values, row_id in standing.items() if values not in new], import_id)
    rows = [
        (*values[:-1], values[-1].isoformat(), import_id) for values in wanted if values not in standing
    ]
    _insert(session, "offers", (*OFFER_COLUMNS, "from_import"), rows)


def _end(session: Session, table: Table, row_ids: list[int], import_id: int) -> None:
    for start in range(0, len(row_ids), 500):
        chunk = row_ids[start : start + 500]
        session.execute(update(table).where(table.c.id.in_(chunk)).values(until_import=import_id))


def load_catalogue(session: Session, as_of: int) -> Catalogue:
    """The catalogue as it stood after an import."""
    parts: dict[str, Part] = {}
    games: dict[str, Game] = {}
    regions: dict[str, Region] = {}
    query = select(ENTRIES.c.kind, ENTRIES.c.key, ENTRIES.c.data).where(_standing(ENTRIES, as_of)).order_by(ENTRIES.c.id)
    for kind, key, data in session.execute(query):
        if kind in KINDS:
            parts[key] = _ADAPTERS[kind].validate_json(data)
        elif kind == "game":
            games[key] = _ADAPTERS["game"].validate_json(data)
        else:
            regions[key] = _ADAPTERS["region"].validate_json(data)
    columns = [OFFERS.c[name] for name in OFFER_COLUMNS]
    rows = session.execute(select(*columns).where(_standing(OFFERS, as_of)).order_by(OFFERS.c.id))
    return Catalogue(parts, games, tuple(_offers(rows)), regions)


def _offers(rows: Iterable[Any]) -> Iterator[Offer]:
    for row in rows:
        yield Offer(**dict(zip(OFFER_COLUMNS, row, strict=True)))


def _standing(table: Table, as_of: int) -> Any:
    return and_(table.c.from_import <= as_of, or_(table.c.until_import.is_(None), table.c.until_import > as_of))


