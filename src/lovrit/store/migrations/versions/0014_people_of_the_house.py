"""People of the house: who may come in by a name and a passphrase of their own, and as what; whose a browser is."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_table

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_table(
        "keeper",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("role", sa.String(), nullable=False),
        sa.Column("hash", sa.String(), nullable=True),
        sa.Column("invite", sa.String(), nullable=True),
        sa.Column("invited_ms", sa.Integer(), nullable=False),
        sa.Column("ended_ms", sa.Integer(), nullable=True),
    )
    add_column("guest", sa.Column("keeper_id", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("guest", "keeper_id")
    op.drop_table("keeper")
