"""What people do of a move in one go, as it was kept of their scores."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("mosts", sa.JSON(), nullable=False, server_default="{}"))


def downgrade() -> None:
    op.drop_column("person", "mosts")
