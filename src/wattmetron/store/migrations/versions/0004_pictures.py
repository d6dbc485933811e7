"""Pictures of parts."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "pictures",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("part_id", sa.String(80), nullable=False),
        sa.Column("digest", sa.String(24), nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.Column("from_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=False),
        sa.Column("until_import", sa.Integer, sa.ForeignKey("imports.id"), nullable=True),
    )
    op.create_index("pictures_by_part", "pictures", ["part_id", "until_import"])
