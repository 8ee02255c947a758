"""An age counts on by its year of birth; whether somebody's heart may be kept was asked, and when.

Ages of before are kept as they are: nobody knows in which year they were said. Whose heart was kept before it was asked
stays so until somebody asks. Who changed what of somebody's health is kept from now on.
"""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_table

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("born", sa.Integer(), nullable=True))
    add_column("person", sa.Column("hearts", sa.String(), nullable=False, server_default=""))
    add_column("person", sa.Column("hearts_since", sa.String(), nullable=True))
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
    op.execute(
        "UPDATE person SET hearts = 'before' WHERE EXISTS (SELECT 1 FROM sample WHERE sample.person_id = person.id)"
    )


def downgrade() -> None:
    op.drop_table("person_change")
    for name in ("hearts_since", "hearts", "born"):
        op.drop_column("person", name)
