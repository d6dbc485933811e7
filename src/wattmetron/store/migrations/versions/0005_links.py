"""Links to handouts."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "links",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("key_hash", sa.String(64), nullable=False, unique=True),
        sa.Column("brief_id", sa.Integer, sa.ForeignKey("briefs.id"), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("as_of", sa.Integer, sa.ForeignKey("imports.id"), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("ends_on", sa.Date, nullable=True),
        sa.Column("revoked", sa.Boolean, nullable=False),
    )
    op.create_index("links_by_brief", "links", ["brief_id", "id"])
