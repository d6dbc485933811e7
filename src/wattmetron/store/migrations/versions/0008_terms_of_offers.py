"""Offers say how much there is of a part, and their terms beyond the price."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.add_column("offers", sa.Column("stock", sa.String(10), nullable=False, server_default="in"))
    op.add_column("offers", sa.Column("terms", sa.Text, nullable=False, server_default=""))
    op.execute("UPDATE offers SET stock = 'out' WHERE NOT in_stock")
    with op.batch_alter_table("offers") as offers:
        offers.drop_column("in_stock")
