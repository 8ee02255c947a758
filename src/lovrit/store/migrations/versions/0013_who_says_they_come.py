"""Who says that they come, or can't; evenings that somebody ran alone; which of a person's links holds."""

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
    add_table(
        "own_evening",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column(
            "person_id",
            sa.Integer(),
            sa.ForeignKey("person.id", ondelete="CASCADE"),
            nullable=False,
        ),
        sa.Column("session_id", sa.Integer(), sa.ForeignKey("session.id", ondelete="SET NULL")),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("day", sa.String(), nullable=False),
        sa.Column("at_ms", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("at_home", sa.Boolean(), nullable=False),
        sa.Column("lasted_s", sa.Integer(), nullable=False),
        sa.Column("whole", sa.Boolean(), nullable=False),
        sa.Column("felt", sa.Float(), nullable=True),
        sa.Column("word", sa.String(), nullable=False),
        sa.Column("scores", sa.JSON(), nullable=False),
        sa.Column("laps", sa.JSON(), nullable=False),
        sa.UniqueConstraint("person_id", "key", name="uq_own_evening_key"),
    )
    add_index("ix_own_evening_person_id", "own_evening", "person_id")
    add_column("person", sa.Column("link_no", sa.Integer(), nullable=False, server_default="0"))


def downgrade() -> None:
    op.drop_column("person", "link_no")
    op.drop_table("own_evening")
    op.drop_table("answer")
