"""A class may be a try: one to three people, or the coach alone, before the group meets it."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("class", sa.Column("is_try", sa.Boolean(), nullable=False, server_default="0"))


def downgrade() -> None:
    op.drop_column("class", "is_try")
