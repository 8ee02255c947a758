"""What four migrations left out in files that had run them before they were changed; classes can be put away.

It looks at what is there: a file made by a later Lovrit has all of it.
"""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("session", sa.Column("good_text", sa.String(), nullable=False, server_default=""))
    op.execute("UPDATE session SET good_text = text WHERE good_text = ''")
    add_column("person", sa.Column("pace_100_s", sa.Integer(), nullable=True))
    add_column("person", sa.Column("bests", sa.JSON(), nullable=False, server_default="{}"))
    add_column("person", sa.Column("limit_hr", sa.Integer(), nullable=True))
    op.execute("DROP INDEX IF EXISTS ix_class_made")
    op.execute("CREATE INDEX IF NOT EXISTS ix_class_made_ms ON class (made_ms)")
    # records say by now what was done of a class: they are worked out again as the house is open
    for table in ("class_score", "class_record"):
        op.execute(f"DELETE FROM {table}")
    add_column("class", sa.Column("away_ms", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("class", "away_ms")
