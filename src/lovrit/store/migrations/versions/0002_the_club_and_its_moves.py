"""What a club holds: its choices, its own moves, remarks put aside; and how people stand."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_table

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_table(
        "club",
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("value", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("key"),
    )
    add_table(
        "own_move",
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.Column("drawing", sa.JSON(), nullable=True),
        sa.Column("changed_ms", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("key"),
    )
    add_table(
        "aside",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("code", sa.String(), nullable=False),
        sa.Column("session_id", sa.Integer(), nullable=True),
        sa.Column("reason", sa.String(), nullable=False),
        sa.Column("at_ms", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["session_id"], ["session.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
    )
    add_column("person", sa.Column("standing", sa.String(), nullable=False, server_default="usual"))
    add_column("person", sa.Column("since", sa.String(), nullable=True))
    add_column("person", sa.Column("pace_100_s", sa.Integer(), nullable=True))
    add_column("person", sa.Column("limits", sa.JSON(), nullable=False, server_default="[]"))


def downgrade() -> None:
    for name in ("standing", "since", "pace_100_s", "limits"):
        op.drop_column("person", name)
    for name in ("aside", "own_move", "club"):
        op.drop_table(name)
