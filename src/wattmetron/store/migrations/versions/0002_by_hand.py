"""Edits by hand beside imports; the revisions of one entry in order."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.add_column(
        "imports", sa.Column("by_hand", sa.Boolean, nullable=False, server_default=sa.false())
    )
    op.create_index("entries_by_key", "entries", ["kind", "key", "id"])
