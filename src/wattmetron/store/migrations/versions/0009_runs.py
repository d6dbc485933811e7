"""Measured runs."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "runs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("game", sa.String(80), nullable=False),
        sa.Column("brief_id", sa.Integer, nullable=False),
        sa.Column("document", sa.Text, nullable=True),
        sa.Column("before", sa.Text, nullable=True),
        sa.Column("figures", sa.Text, nullable=False),
        sa.Column("drawing", sa.Text, nullable=True),
        sa.Column("frames", sa.LargeBinary, nullable=True),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_index("runs_by_brief", "runs", ["brief_id", "id"])
    op.create_index("runs_by_game", "runs", ["game", "id"])
