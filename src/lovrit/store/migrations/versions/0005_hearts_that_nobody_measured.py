"""Heart figures that nobody measured are none; people who are let go are erased a while later."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("gone_ms", sa.Integer(), nullable=True))
    with op.batch_alter_table("person") as table:
        table.alter_column("rest_hr", existing_type=sa.Integer(), nullable=True)
        table.alter_column("max_hr", existing_type=sa.Integer(), nullable=True)
    # both were given to everybody whom nobody had asked
    op.execute(
        "UPDATE person SET rest_hr = NULL, max_hr = NULL WHERE rest_hr = 62 AND max_hr = 186"
    )


def downgrade() -> None:
    op.execute("UPDATE person SET rest_hr = 62 WHERE rest_hr IS NULL")
    op.execute("UPDATE person SET max_hr = 186 WHERE max_hr IS NULL")
    with op.batch_alter_table("person") as table:
        table.alter_column("rest_hr", existing_type=sa.Integer(), nullable=False)
        table.alter_column("max_hr", existing_type=sa.Integer(), nullable=False)
        table.drop_column("gone_ms")
