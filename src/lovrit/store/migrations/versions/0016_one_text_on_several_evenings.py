"""A session that is put on a second evening is the same text there: both know the first one."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_index

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("session", sa.Column("evening_of", sa.Integer(), nullable=True))
    add_index("ix_session_evening_of", "session", "evening_of")


def downgrade() -> None:
    op.drop_index("ix_session_evening_of", "session")
    op.drop_column("session", "evening_of")
