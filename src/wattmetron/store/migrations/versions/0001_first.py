"""Catalogue revisions, briefs and their changes."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "imports",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("source", sa.String(200), nullable=False),
    )
    op.create_table(
        "entries",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("key", sa.String(80), nullable=False),
        sa.Column("data", sa.Text, nullable=False),
        sa.Column("from_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=False),
        sa.Column("until_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=True),
    )
    op.create_index("entries_by_import", "entries", ["from_import", "until_import"])
    op.create_table(
        "offers",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("part_id", sa.String(80), nullable=False),
        sa.Column("shop", sa.String(120), nullable=False),
        sa.Column("region", sa.String(80), nullable=False),
        sa.Column("currency", sa.String(3), nullable=False),
        sa.Column("price_minor", sa.Integer, nullable=False),
        sa.Column("shipping_minor", sa.Integer, nullable=False),
        sa.Column("in_stock", sa.Boolean, nullable=False),
        sa.Column("condition", sa.String(10), nullable=False),
        sa.Column("seen_on", sa.Date, nullable=False),
        sa.Column("from_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=False),
        sa.Column("until_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=True),
    )
    op.create_index("offers_by_import", "offers", ["from_import", "until_import"])
    op.create_table(
        "briefs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("document", sa.Text, nullable=True),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_table(
        "changes",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("brief_id", sa.Integer, sa.ForeignKey("briefs.id"), nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("summary", sa.String(300), nullable=False),
        sa.Column("before", sa.Text, nullable=True),
        sa.Column("after", sa.Text, nullable=True),
        sa.Column("undone", sa.Boolean, nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_index("changes_by_brief", "changes", ["brief_id", "id"])
