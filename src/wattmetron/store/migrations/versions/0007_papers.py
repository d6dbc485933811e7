"""House texts and sets, links to sets, snapshots that came from elsewhere."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "papers",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("document", sa.Text, nullable=True),
        sa.Column("before", sa.Text, nullable=True),
        sa.Column("changed_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_index("papers_by_kind", "papers", ["kind", "id"])
    with op.batch_alter_table("links") as links:
        links.alter_column("brief_id", existing_type=sa.Integer, nullable=True)
        links.add_column(
            sa.Column(
                "paper_id",
                sa.Integer,
                sa.ForeignKey("papers.id", name="links_paper"),
                nullable=True,
            )
        )
    op.create_index("links_by_paper", "links", ["paper_id", "id"])
    with op.batch_alter_table("snapshots") as snapshots:
        snapshots.alter_column("as_of", existing_type=sa.Integer, nullable=True)
