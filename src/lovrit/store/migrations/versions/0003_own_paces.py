"""People's own numbered paces."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("paces", sa.JSON(), nullable=False, server_default="[]"))


def downgrade() -> None:
    op.drop_column("person", "paces")
