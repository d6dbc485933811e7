"""Links to handouts: what was handed over and when, under the hash of a key that is not kept."""

import secrets
from dataclasses import dataclass
from datetime import UTC, date, datetime
from hashlib import sha256

from sqlalchemy import Select, select
from sqlalchemy.orm import Session

from wattmetron.core.errors import BriefError, NotFoundError
from wattmetron.store.tables import LinkRow

KEY_BYTES = 16
MOST_LINKS = 50


@dataclass(frozen=True, slots=True, kw_only=True)
class StoredLink:
    """A link without its key: the document that it opens and the catalogue's import of the day;
    either a brief's or a paper's.
    """

    id: int
    brief_id: int | None
    paper_id: int | None
    document: str
    as_of: int
    made_at: datetime
    ends_on: date | None
    revoked: bool


class NoSuchLinkError(NotFoundError):
    """A key that opens nothing: never made, taken back or ended; all three look alike."""

    def __init__(self) -> None:
        super().__init__("This link opens nothing: ask whoever gave it to you for a new one.")


@dataclass(frozen=True, slots=True)
class Of:
    """What links belong to: a brief, or a paper."""

    brief_id: int | None = None
    paper_id: int | None = None

    @property
    def query(self) -> Select[LinkRow]:
        return select(LinkRow).where(
            LinkRow.brief_id == self.brief_id, LinkRow.paper_id == self.paper_id
        )


def make_link(session: Session, of: Of, document: str, as_of: int, ends_on: date | None) -> str:
    """Store a link and return its key, which is kept nowhere."""
    today = datetime.now(UTC).date()
    live = [
        link
        for link in links_of(session, of)
        if not link.revoked and (link.ends_on is None or link.ends_on >= today)
    ]
    if len(live) >= MOST_LINKS:
        raise BriefError(f"There are {MOST_LINKS} links already: use one of them, or end one.")
    key = secrets.token_urlsafe(KEY_BYTES)
    session.add(
        LinkRow(
            key_hash=_hash(key),
            brief_id=of.brief_id,
            paper_id=of.paper_id,
            document=document,
            as_of=as_of,
            made_at=datetime.now(UTC),
            ends_on=ends_on,
            revoked=False,
        )
    )
    return key


def links_of(session: Session, of: Of) -> tuple[StoredLink, ...]:
    """The links of a brief or a paper, the newest first."""
    return tuple(_stored(row) for row in session.scalars(of.query.order_by(LinkRow.id.desc())))


def open_link(session: Session, key: str, today: date) -> StoredLink:
    """What a key opens; raises NoSuchLinkError."""
    row = session.scalar(select(LinkRow).where(LinkRow.key_hash == _hash(key)))
    if row is None or row.revoked or (row.ends_on is not None and row.ends_on < today):
        raise NoSuchLinkError
    return _stored(row)


def revoke_link(session: Session, of: Of, link_id: int) -> None:
    """Take a link back; one of another brief or paper is none."""
    row = session.scalar(of.query.where(LinkRow.id == link_id))
    if row is None:
        raise NoSuchLinkError
    row.revoked = True


def _hash(key: str) -> str:
    return sha256(key[:200].encode(errors="replace")).hexdigest()


def _stored(row: LinkRow) -> StoredLink:
    return StoredLink(
        id=row.id,
        brief_id=row.brief_id,
        paper_id=row.paper_id,
        document=row.document,
        as_of=row.as_of,
        made_at=row.made_at,
        ends_on=row.ends_on,
        revoked=row.revoked,
    )
