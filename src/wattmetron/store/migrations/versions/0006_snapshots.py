"""Snapshots of briefs."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "snapshots",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("brief_id", sa.Integer, sa.ForeignKey("briefs.id"), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("as_of", sa.Integer, sa.ForeignKey("imports.id"), nullable=False),
        sa.Column("figures", sa.Text, nullable=False),
    )
    op.create_index("snapshots_by_brief", "snapshots", ["brief_id", "id"])
