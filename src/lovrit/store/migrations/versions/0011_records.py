"""What is kept of a class beside its events: its record, scores that can be compared, words to find it by."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    if not sa.inspect(op.get_bind()).has_table("class_record"):
        op.create_table(
            "class_record",
            sa.Column(
                "class_id",
                sa.Integer(),
                sa.ForeignKey("class.id", ondelete="CASCADE"),
                primary_key=True,
            ),
            sa.Column("day", sa.String(), nullable=False),
            sa.Column("did", sa.JSON(), nullable=False),
            sa.Column("changes", sa.JSON(), nullable=False),
            sa.Column("outcome", sa.JSON(), nullable=False),
        )
        op.create_index("ix_class_record_day", "class_record", ["day"])
        op.create_table(
            "class_score",
            sa.Column(
                "class_id",
                sa.Integer(),
                sa.ForeignKey("class.id", ondelete="CASCADE"),
                primary_key=True,
            ),
            sa.Column("block", sa.Integer(), primary_key=True),
            sa.Column("person_id", sa.Integer(), primary_key=True),
            sa.Column("day", sa.String(), nullable=False),
            sa.Column("kin", sa.String(), nullable=False),
            sa.Column("ways", sa.String(), nullable=False),
            sa.Column("label", sa.String(), nullable=False),
            sa.Column("figure", sa.String(), nullable=False),
            sa.Column("value", sa.Float(), nullable=False),
            sa.Column("more", sa.Boolean(), nullable=False),
            sa.Column("said", sa.String(), nullable=False),
        )
        op.create_index("ix_class_score_kin", "class_score", ["kin", "day"])
        op.create_index("ix_class_score_person", "class_score", ["person_id", "day"])
    op.execute(
        "CREATE VIRTUAL TABLE IF NOT EXISTS class_words"
        " USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '1 2 3')"
    )
    op.execute(
        "CREATE TRIGGER IF NOT EXISTS class_words_gone AFTER DELETE ON class_record BEGIN"
        " DELETE FROM class_words WHERE rowid = old.class_id; END"
    )
    op.execute("CREATE INDEX IF NOT EXISTS ix_class_made_ms ON class (made_ms)")


def downgrade() -> None:
    op.execute("DROP INDEX ix_class_made_ms")
    op.execute("DROP TRIGGER class_words_gone")
    for name in ("class_words", "class_score", "class_record"):
        op.drop_table(name)
