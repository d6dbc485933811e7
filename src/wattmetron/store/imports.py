"""What an import does to the catalogue: what comes, what goes, what stays; and back again."""

from collections import Counter
from collections.abc import Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import select
from sqlalchemy.orm import Session

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.store.catalogue_edits import raw, take_back
from wattmetron.store.catalogues import (
    ENTRIES,
    NEVER_ENDED,
    OFFER_COLUMNS,
    OFFERS,
    begin,
    end_rows,
    entries_of,
    insert_rows,
    rows_by_hand,
    says_the_same,
    values_of,
)
from wattmetron.store.tables import ImportRow

COUNTED: dict[str, str] = {"game": "games", "region": "regions"} | dict.fromkeys(ALL_KINDS, "parts")
Key = tuple[str, str]


class StandingEntry(NamedTuple):
    """A revision of an entry that stands: its row, its document, where it came from."""

    row_id: int
    data: str
    by_hand: bool
    source: str


@dataclass(frozen=True, slots=True)
class ImportEffect:
    """What an import would take away: how many parts, games, regions and offers; of how many parts
    it would overwrite what was typed; from which other catalogues those come that go.
    """

    removed: Counter[str] = field(default_factory=Counter)
    typed_replaced: int = 0
    elsewhere: tuple[str, ...] = ()

    @property
    def loses(self) -> bool:
        return bool(self.removed.total() or self.typed_replaced)


def store_catalogue(
    session: Session, catalogue: Catalogue, source: str, moment: datetime | None = None
) -> int:
    """Make a catalogue the current one; unchanged entries and offers keep their revisions, what was
    typed and is not in it stays. ``moment`` is when it was seen, where that is not now.
    """
    catalogue = catalogue.described
    row = begin(session, source, False, moment)
    standing, new = _standing_entries(session), _documents(catalogue)
    end_rows(session, ENTRIES, [item.row_id for _, item in _ended(standing, new)], row.id)
    rows = [
        (*key, data, row.id)
        for key, data in new.items()
        if key not in standing or not says_the_same(key[0], standing[key].data, data)
    ]
    insert_rows(session, "entries", ("kind", "key", "data", "from_import"), rows)
    _revise_offers(session, catalogue.offers, row.id, rows_by_hand(session, OFFERS))
    return row.id


def store_prices(session: Session, offers: Iterable[Offer], source: str) -> int:
    """Make these offers the current ones and leave everything else as it is."""
    row = begin(session, source, False)
    _revise_offers(session, offers, row.id, frozenset())
    return row.id


def effect_of(session: Session, catalogue: Catalogue, source: str) -> ImportEffect:
    """What importing a catalogue would take away."""
    standing, new = _standing_entries(session), _documents(catalogue.described)
    removed: Counter[str] = Counter()
    elsewhere, typed = set(), 0
    for (kind, key), item in _ended(standing, new):
        if (kind, key) in new:
            typed += item.by_hand and kind in ALL_KINDS
            continue
        if kind in COUNTED:
            removed[COUNTED[kind]] += 1
            elsewhere |= {item.source} - {source}
    wanted = [values_of(offer) for offer in catalogue.described.offers]
    staying = rows_by_hand(session, OFFERS)
    removed["offers"] = len(_gone(_standing_offers(session), wanted, staying))
    return ImportEffect(+removed, typed, tuple(sorted(elsewhere)))


def undo_import(session: Session) -> str:
    """Take the last import back; returns where it came from. Raises ConflictError where there is
    none, or something that it touched was changed since.
    """
    newest = session.scalar(select(ImportRow).order_by(ImportRow.id.desc()).limit(1))
    if newest is None or newest.by_hand:
        raise ConflictError(
            "There is no import to take back: it has to be the last thing that was changed in the"
            " catalogue."
        )
    return take_back(session, newest)


def _standing_entries(session: Session) -> dict[Key, StandingEntry]:
    query = (
        select(
            ENTRIES.c.kind,
            ENTRIES.c.key,
            ENTRIES.c.id,
            ENTRIES.c.data,
            ImportRow.by_hand,
            ImportRow.source,
        )
        .join(ImportRow, ImportRow.id == ENTRIES.c.from_import)
        .where(ENTRIES.c.until_import.is_(None))
    )
    return {(kind, key): StandingEntry(*rest) for kind, key, *rest in session.execute(query)}


def _documents(catalogue: Catalogue) -> dict[Key, str]:
    return {(kind, key): data for kind, key, data in entries_of(catalogue)}


def _ended(
    standing: dict[Key, StandingEntry], new: dict[Key, str]
) -> Iterator[tuple[Key, StandingEntry]]:
    """What is replaced, or goes; what was typed and what is the user's own goes with no import."""
    for key, item in standing.items():
        if key in new:
            if not says_the_same(key[0], item.data, new[key]):
                yield key, item
        elif not item.by_hand and key[0] not in NEVER_ENDED:
            yield key, item


def _standing_offers(session: Session) -> dict[tuple[Any, ...], int]:
    columns = [OFFERS.c[name] for name in OFFER_COLUMNS]
    query = select(OFFERS.c.id, *columns).where(OFFERS.c.until_import.is_(None))
    return {tuple(values): row_id for row_id, *values in session.execute(query)}


def _gone(
    standing: Mapping[tuple[Any, ...], int],
    wanted: Iterable[tuple[Any, ...]],
    staying: Collection[int],
) -> list[int]:
    new = set(wanted)
    return [
        row_id for values, row_id in standing.items() if values not in new and row_id not in staying
    ]


def _revise_offers(
    session: Session, offers: Iterable[Offer], import_id: int, staying: Collection[int]
) -> None:
    wanted, standing = list(dict.fromkeys(map(values_of, offers))), _standing_offers(session)
    end_rows(session, OFFERS, _gone(standing, wanted, staying), import_id)
    rows = [(*map(raw, values), import_id) for values in wanted if values not in standing]
    insert_rows(session, "offers", (*OFFER_COLUMNS, "from_import"), rows)
