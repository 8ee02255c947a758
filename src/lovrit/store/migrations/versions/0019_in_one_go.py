"""What people do of a move in one go; and records of a year are worked out anew, with what each person felt."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("mosts", sa.JSON(), nullable=False, server_default="{}"))
    op.execute("DELETE FROM class_record WHERE day >= date('now', '-400 days')")


def downgrade() -> None:
    op.drop_column("person", "mosts")
