"""Whose word it was that a child's heart may be kept."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("guardian", sa.String(), nullable=False, server_default=""))


def downgrade() -> None:
    op.drop_column("person", "guardian")
