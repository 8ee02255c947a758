"""Who changed what of somebody's health, and when, is kept; what it was is not.

0015 makes the table too; a file that an earlier 0015 made lacks it.
"""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_table

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_table(
        "person_change",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column(
            "person_id",
            sa.Integer(),
            sa.ForeignKey("person.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("at_ms", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(), nullable=False),
        sa.Column("what", sa.String(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("person_change")
