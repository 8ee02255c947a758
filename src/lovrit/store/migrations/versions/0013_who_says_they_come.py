"""Who says that they come to a session, or can't; and which of a person's links holds."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_index, add_table

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_table(
        "answer",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column(
            "session_id",
            sa.Integer(),
            sa.ForeignKey("session.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE")),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("day", sa.String(), nullable=False),
        sa.Column("comes", sa.Boolean(), nullable=False),
        sa.Column("word", sa.String(), nullable=False),
        sa.Column("at_ms", sa.Integer(), nullable=False),
        sa.UniqueConstraint("session_id", "person_id", name="uq_answer_session_person"),
    )
    add_index("ix_answer_session_id", "answer", "session_id")
    add_column("person", sa.Column("link_no", sa.Integer(), nullable=False, server_default="0"))


def downgrade() -> None:
    op.drop_column("person", "link_no")
    op.drop_table("answer")
