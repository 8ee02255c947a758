"""What was learnt of a heart, what it is not to pass, by which formula a highest is; straps from outside."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("person", sa.Column("by_age", sa.String(), nullable=False, server_default=""))
    add_column("person", sa.Column("limit_hr", sa.Integer(), nullable=True))
    add_column("person", sa.Column("heart", sa.JSON(), nullable=True))
    add_column(
        "person", sa.Column("learnt_from_ms", sa.Integer(), nullable=False, server_default="0")
    )
    if not sa.inspect(op.get_bind()).has_table("strap"):
        op.create_table(
            "strap",
            sa.Column("id", sa.String(), primary_key=True),
            sa.Column("name", sa.String(), nullable=False, server_default=""),
            sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="SET NULL")),
            sa.Column("seen_ms", sa.Integer(), nullable=False, server_default="0"),
        )


def downgrade() -> None:
    op.drop_table("strap")
    for name in ("by_age", "limit_hr", "heart", "learnt_from_ms"):
        op.drop_column("person", name)
