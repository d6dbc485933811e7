"""A place of a case takes radiators of several sizes."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
PLACES = ("radiator_front_mm", "radiator_top_mm", "radiator_rear_mm")


def upgrade() -> None:
    bind = op.get_bind()
    cases = bind.execute(sa.text("SELECT id, data FROM entries WHERE kind = 'case'")).all()
    for row_id, data in cases:
        case = {
            name: [value] if name in PLACES and isinstance(value, int) else value
            for name, value in json.loads(data).items()
            if name not in PLACES or value is not None
        }
        bind.execute(
            sa.text("UPDATE entries SET data = :data WHERE id = :id"),
            {"data": json.dumps(case, separators=(",", ":"), ensure_ascii=False), "id": row_id},
        )
