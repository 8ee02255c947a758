"""An age counts on by its year of birth; whether somebody's heart may be kept was asked, and when.

Ages of before are kept as they are: nobody knows in which year they were said. Whose heart was kept before it was asked
stays so until somebody asks.
"""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("born", sa.Integer(), nullable=True))
    add_column("person", sa.Column("hearts", sa.String(), nullable=False, server_default=""))
    add_column("person", sa.Column("hearts_since", sa.String(), nullable=True))
    op.execute(
        "UPDATE person SET hearts = 'before' WHERE EXISTS (SELECT 1 FROM sample WHERE sample.person_id = person.id)"
    )


def downgrade() -> None:
    for name in ("hearts_since", "hearts", "born"):
        op.drop_column("person", name)
