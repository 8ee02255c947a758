"""What somebody does of a move is kept: the version, and its load."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("does", sa.JSON(), nullable=False, server_default="{}"))


def downgrade() -> None:
    op.drop_column("person", "does")
