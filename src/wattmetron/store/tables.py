"""The database tables."""

from datetime import date, datetime

from sqlalchemy import (
    Boolean,
    Date,
    DateTime,
    ForeignKey,
    Index,
    Integer,
    LargeBinary,
    String,
    Text,
)
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Base of all tables."""


class ImportRow(Base):
    """One import of a catalogue, or one edit by hand; revisions name the one that brought and the
    one that ended them.
    """

    __tablename__ = "imports"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    source: Mapped[str] = mapped_column(String(200))
    by_hand: Mapped[bool] = mapped_column(Boolean, default=False)


class EntryRow(Base):
    """A revision of a part, game, region or of what a game publishes, as JSON; never changed but
    for ``until_import``.
    """

    __tablename__ = "entries"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    key: Mapped[str] = mapped_column(String(80))
    data: Mapped[str] = mapped_column(Text)
    from_import: Mapped[int] = mapped_column(ForeignKey("imports.id"))
    until_import: Mapped[int | None] = mapped_column(ForeignKey("imports.id"), nullable=True)
    __table_args__ = (
        Index("entries_by_import", "from_import", "until_import"),
        Index("entries_by_key", "kind", "key", "id"),
    )


class StoredOffer(Base):
    """A revision of an offer; never changed but for ``until_import``."""

    __tablename__ = "offers"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    part_id: Mapped[str] = mapped_column(String(80))
    shop: Mapped[str] = mapped_column(String(120))
    region: Mapped[str] = mapped_column(String(80))
    currency: Mapped[str] = mapped_column(String(3))
    price_minor: Mapped[int] = mapped_column(Integer)
    shipping_minor: Mapped[int] = mapped_column(Integer)
    stock: Mapped[str] = mapped_column(String(10), server_default="in")
    condition: Mapped[str] = mapped_column(String(10))
    seen_on: Mapped[date] = mapped_column(Date)
    terms: Mapped[str] = mapped_column(Text, server_default="")
    from_import: Mapped[int] = mapped_column(ForeignKey("imports.id"))
    until_import: Mapped[int | None] = mapped_column(ForeignKey("imports.id"), nullable=True)
    __table_args__ = (Index("offers_by_import", "from_import", "until_import"),)


class PictureRow(Base):
    """A revision of a part's picture as WebP; never changed but for ``until_import``."""

    __tablename__ = "pictures"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    part_id: Mapped[str] = mapped_column(String(80))
    digest: Mapped[str] = mapped_column(String(24))
    data: Mapped[bytes] = mapped_column(LargeBinary)
    from_import: Mapped[int] = mapped_column(ForeignKey("imports.id"))
    until_import: Mapped[int | None] = mapped_column(ForeignKey("imports.id"), nullable=True)
    __table_args__ = (Index("pictures_by_part", "part_id", "until_import"),)


class BriefRow(Base):
    """A brief with its build as a document; ``version`` rises with every change, undo included."""

    __tablename__ = "briefs"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    version: Mapped[int] = mapped_column(Integer)
    document: Mapped[str | None] = mapped_column(Text, nullable=True)
    changed_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))


class ChangeRow(Base):
    """One change of a brief: the document before and after, so that it can be undone and redone."""

    __tablename__ = "changes"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    brief_id: Mapped[int] = mapped_column(ForeignKey("briefs.id"))
    version: Mapped[int] = mapped_column(Integer)
    summary: Mapped[str] = mapped_column(String(300))
    before: Mapped[str | None] = mapped_column(Text, nullable=True)
    after: Mapped[str | None] = mapped_column(Text, nullable=True)
    undone: Mapped[bool] = mapped_column(Boolean)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    __table_args__ = (Index("changes_by_brief", "brief_id", "id"),)


class PaperRow(Base):
    """The house texts, or a set of dated builds, as a document; ``before`` is what the last change
    replaced.
    """

    __tablename__ = "papers"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    kind: Mapped[str] = mapped_column(String(10))
    version: Mapped[int] = mapped_column(Integer)
    document: Mapped[str | None] = mapped_column(Text, nullable=True)
    before: Mapped[str | None] = mapped_column(Text, nullable=True)
    changed_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    __table_args__ = (Index("papers_by_kind", "kind", "id"),)


class RunRow(Base):
    """A measured run: what is said of it as a document, what was worked out of it, what is drawn of
    it, its frames as packed bytes; ``before`` is what the last change replaced. Without a document
    it was taken out.
    """

    __tablename__ = "runs"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    version: Mapped[int] = mapped_column(Integer)
    game: Mapped[str] = mapped_column(String(80))
    brief_id: Mapped[int] = mapped_column(Integer)
    document: Mapped[str | None] = mapped_column(Text, nullable=True)
    before: Mapped[str | None] = mapped_column(Text, nullable=True)
    figures: Mapped[str] = mapped_column(Text)
    drawing: Mapped[str | None] = mapped_column(Text, nullable=True)
    frames: Mapped[bytes | None] = mapped_column(LargeBinary, nullable=True)
    changed_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    __table_args__ = (Index("runs_by_brief", "brief_id", "id"), Index("runs_by_game", "game", "id"))


class LinkRow(Base):
    """A link to the handout of a brief or of a set: the hash of its key, the plan or set as it was,
    the import of that day.
    """

    __tablename__ = "links"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    key_hash: Mapped[str] = mapped_column(String(64), unique=True)
    brief_id: Mapped[int | None] = mapped_column(ForeignKey("briefs.id"), nullable=True)
    paper_id: Mapped[int | None] = mapped_column(ForeignKey("papers.id"), nullable=True)
    document: Mapped[str] = mapped_column(Text)
    as_of: Mapped[int] = mapped_column(ForeignKey("imports.id"))
    made_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    ends_on: Mapped[date | None] = mapped_column(Date, nullable=True)
    revoked: Mapped[bool] = mapped_column(Boolean)
    __table_args__ = (
        Index("links_by_brief", "brief_id", "id"),
        Index("links_by_paper", "paper_id", "id"),
    )


class SnapshotRow(Base):
    """A plan as it was on a day, the import of that day (None: it came from elsewhere), what was
    computed then.
    """

    __tablename__ = "snapshots"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    brief_id: Mapped[int] = mapped_column(ForeignKey("briefs.id"))
    name: Mapped[str] = mapped_column(String(80))
    made_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    document: Mapped[str] = mapped_column(Text)
    as_of: Mapped[int | None] = mapped_column(ForeignKey("imports.id"), nullable=True)
    figures: Mapped[str] = mapped_column(Text)
    __table_args__ = (Index("snapshots_by_brief", "brief_id", "id"),)


class SessionRow(Base):
    """A browser that is logged in: the hash of its token and of the passphrase's hash that it was
    begun with.
    """

    __tablename__ = "sessions"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    door: Mapped[str] = mapped_column(String(64))
    begun_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    used_at: Mapped[datetime] = mapped_column(DateTime(timezone=True))
    browser: Mapped[str] = mapped_column(String(200))
    address: Mapped[str] = mapped_column(String(80))
