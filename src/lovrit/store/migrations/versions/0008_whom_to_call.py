"""Whom to call for somebody, whether a doctor has cleared them, and until when they don't do something."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("contact", sa.String(), nullable=False, server_default=""))
    add_column("person", sa.Column("cleared", sa.String(), nullable=False, server_default=""))
    add_column("person", sa.Column("until", sa.String(), nullable=True))


def downgrade() -> None:
    for name in ("until", "cleared", "contact"):
        op.drop_column("person", name)
