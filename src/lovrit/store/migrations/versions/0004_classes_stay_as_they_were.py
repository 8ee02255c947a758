"""Classes keep what they are run by; sessions keep how long they are and their words; browsers that came in."""

import sqlalchemy as sa
from alembic import op

from lovrit.store.migrations.missing import add_column, add_index, add_table

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    add_column("class", sa.Column("frozen", sa.JSON(), nullable=True))
    add_column("session", sa.Column("length_s", sa.Integer(), nullable=True))
    add_column("session", sa.Column("structures", sa.String(), nullable=False, server_default=""))
    add_column("session", sa.Column("moves", sa.JSON(), nullable=False, server_default="[]"))
    add_column("session", sa.Column("day", sa.String(), nullable=True))
    add_index("ix_session_day", "session", "day")
    add_table(
        "class_learnt",
        sa.Column("class_id", sa.Integer(), nullable=False),
        sa.Column("ratios", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["class_id"], ["class.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("class_id"),
    )
    add_table(
        "guest",
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("said", sa.String(), nullable=False),
        sa.Column("came_ms", sa.Integer(), nullable=False),
        sa.Column("seen_ms", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("key"),
    )
    op.execute(
        "CREATE VIRTUAL TABLE IF NOT EXISTS session_words"
        " USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '1 2 3')"
    )
    op.execute(
        "INSERT INTO session_words (rowid, words) SELECT id, title || ' ' || text FROM session"
    )
    for name, when in (
        ("kept", "INSERT"),
        ("changed", "UPDATE OF text, title, structures, length_s"),
    ):
        op.execute(
            f"CREATE TRIGGER IF NOT EXISTS session_words_{name} AFTER {when} ON session BEGIN"
            " INSERT OR REPLACE INTO session_words (rowid, words)"
            " VALUES (new.id, new.title || ' ' || new.text || ' ' || new.structures"
            " || ifnull(printf(' %d:%02d', new.length_s / 60, new.length_s % 60), '')); END"
        )
    op.execute(
        "CREATE TRIGGER IF NOT EXISTS session_words_gone AFTER DELETE ON session BEGIN"
        " DELETE FROM session_words WHERE rowid = old.id; END"
    )


def downgrade() -> None:
    for name in ("kept", "changed", "gone"):
        op.execute(f"DROP TRIGGER session_words_{name}")
    for name in ("session_words", "guest", "class_learnt"):
        op.drop_table(name)
    op.drop_index("ix_session_day", "session")
    for table, name in (
        *(("session", name) for name in ("day", "moves", "structures", "length_s")),
        ("class", "frozen"),
    ):
        op.drop_column(table, name)
