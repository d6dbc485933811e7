"""What a part lacks is stated: an empty field now means that it is not known.

Until here an empty field of these four meant that there is none, so that is what is written down.
"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
NONE_OF_A_KIND: dict[str, dict[str, int | str]] = {
    "processor": {"igpu_speed": 0, "boxed_cooler_w": 0},
    "graphics": {"ray_speed": 0},
    "mainboard": {"wireless": "none"},
}


def upgrade() -> None:
    bind = op.get_bind()
    for kind, none in NONE_OF_A_KIND.items():
        rows = bind.execute(
            sa.text("SELECT id, data FROM entries WHERE kind = :kind"), {"kind": kind}
        ).all()
        for row_id, data in rows:
            part = json.loads(data)
            lacking = {name: value for name, value in none.items() if part.get(name) in (None, "")}
            if lacking:
                bind.execute(
                    sa.text("UPDATE entries SET data = :data WHERE id = :id"),
                    {
                        "data": json.dumps(
                            part | lacking, separators=(",", ":"), ensure_ascii=False
                        ),
                        "id": row_id,
                    },
                )
