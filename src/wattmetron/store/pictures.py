"""Pictures of parts: revisions like everything else that is changed by hand."""

from hashlib import sha256
from typing import cast

from sqlalchemy import Table, and_, or_, select
from sqlalchemy.orm import Session

from wattmetron.store.tables import PictureRow

PICTURES = cast(Table, PictureRow.__table__)
PICTURE_COLUMNS = ("part_id", "digest", "data")


def digest_of(data: bytes) -> str:
    return sha256(data).hexdigest()[:24]


def standing_picture(session: Session, part_id: str) -> int:
    """The row of a part's picture, 0 where it has none: the version that an edit must name."""
    query = select(PICTURES.c.id).where(
        PICTURES.c.part_id == part_id, PICTURES.c.until_import.is_(None)
    )
    return session.scalar(query) or 0


def pictured(session: Session, as_of: int) -> dict[str, str]:
    """The digest of each part's picture as they stood after an import."""
    query = select(PICTURES.c.part_id, PICTURES.c.digest).where(
        and_(
            PICTURES.c.from_import <= as_of,
            or_(PICTURES.c.until_import.is_(None), PICTURES.c.until_import > as_of),
        )
    )
    return dict(iter(session.execute(query)))


def picture_data(session: Session, part_id: str) -> bytes | None:
    """The standing picture of a part."""
    query = select(PICTURES.c.data).where(
        PICTURES.c.part_id == part_id, PICTURES.c.until_import.is_(None)
    )
    return session.scalar(query)
