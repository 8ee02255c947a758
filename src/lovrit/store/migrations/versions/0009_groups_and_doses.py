"""Whom people go with and on which level, how much of the hard work is theirs, their threshold and bests."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None
NAMES = ("share", "threshold_hr", "measured", "level", "together", "apart", "bests")


def upgrade() -> None:
    for name in ("share", "measured"):
        add_column("person", sa.Column(name, sa.String(), nullable=False, server_default=""))
    for name in ("threshold_hr", "level"):
        add_column("person", sa.Column(name, sa.Integer(), nullable=True))
    for name in ("together", "apart"):
        add_column("person", sa.Column(name, sa.JSON(), nullable=False, server_default="[]"))
    add_column("person", sa.Column("bests", sa.JSON(), nullable=False, server_default="{}"))


def downgrade() -> None:
    for name in NAMES:
        op.drop_column("person", name)
