"""Texts kept: undo in the order of doing, posts twice, two windows at once, migrations."""

from pathlib import Path

from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from hypothesis import given
from hypothesis import strategies as st
from sqlmodel import SQLModel

from lovrit.store import sessions
from lovrit.store.database import Database
from lovrit.store.merge import ALSO, merge
from tests.conftest import examples, ready

BASE = "title: a\n\nwarm-up 5:00\n\nrest 1:00\n\ncool-down 3:00\n"


def test_the_tables_are_what_the_migrations_make() -> None:
    database = ready(filled=False)
    with database.engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        apart = compare_metadata(context, SQLModel.metadata)
        # an index of words is SQLite's own kind of table, which the tables in Python don't know
        words = ("session_words", "class_words")
        assert [one for one in apart if not one[1].name.startswith(words)] == []
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1


def test_a_file_is_kept_in_wal_mode(tmp_path: Path) -> None:
    database = Database(tmp_path / "x.sqlite")
    with database.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"


@given(st.lists(st.sampled_from(["undo", "redo", "type", "drag"]), max_size=25))
def test_undo_and_redo_walk_the_texts_that_were(steps: list[str]) -> None:
    """Against a plain list with a place in it."""
    database = ready(filled=False)
    with database.work() as work:
        row = sessions.create(work, "0", "", 0)
        texts, at = ["0"], 0
        for nth, step in enumerate(steps, 1):
            now = nth * 10_000
            if step in ("undo", "redo"):
                by = -1 if step == "undo" else 1
                at = min(len(texts) - 1, max(0, at + by))
                written = sessions.step_back(work, row, by, str(nth), now)
            else:
                texts, at = [*texts[: at + 1], str(nth)], at + 1
                written = sessions.write_text(work, row, str(nth), row.version, str(nth), step, now)
            work.flush()
            assert written.text == texts[at] == row.text
            assert (written.undo, written.redo) == (at > 0, at < len(texts) - 1)


def test_typing_in_one_go_is_one_step() -> None:
    database = ready(filled=False)
    with database.work() as work:
        row = sessions.create(work, "", "", 0)
        for nth, text in enumerate(["r", "re", "rest 1:00"]):
            sessions.write_text(work, row, text, row.version, str(nth), "typing", nth * 200)
            work.flush()
        sessions.write_text(work, row, "rest 2:00", row.version, "d", "drag", 700)
        work.flush()
        assert sessions.step_back(work, row, -1, None, 800).text == "rest 1:00"
        work.flush()
        assert sessions.step_back(work, row, -1, None, 900).text == ""


def test_a_post_sent_twice_counts_once() -> None:
    database = ready(filled=False)
    with database.work() as work:
        row = sessions.create(work, "a", "", 0)
        first = sessions.write_text(work, row, "b", 1, "op", None, 1)
        work.flush()
        assert sessions.write_text(work, row, "b", 1, "op", None, 2) == first
        assert row.version == 2


def test_two_windows_keep_both_changes() -> None:
    merged, collided = merge(BASE, BASE.replace("5:00", "6:00"), BASE.replace("3:00", "4:00"))
    assert not collided
    assert "warm-up 6:00" in merged and "cool-down 4:00" in merged


def test_the_same_line_at_once_is_neither_lost_nor_silently_overwritten() -> None:
    merged, collided = merge(
        BASE, BASE.replace("rest 1:00", "rest 2:00"), BASE.replace("rest 1:00", "rest 3:00")
    )
    assert collided
    assert "\nrest 3:00" in merged
    assert f"{ALSO}rest 2:00" in merged


@given(st.text("ab\n", max_size=12), st.text("ab\n", max_size=12))
def test_a_merge_loses_no_line(theirs: str, mine: str) -> None:
    merged, _ = merge("", theirs, mine)
    for line in (theirs + "\n" + mine).split("\n"):
        assert line in merged


@examples(300)
@given(st.permutations("abcdef"), st.permutations("abcdef"), st.sampled_from(["", "rest 1:00"]))
def test_two_who_give_an_order_at_once_lose_no_line(
    theirs: list[str], mine: list[str], more: str
) -> None:
    """A line that one moves up and the other down was gone from both places; a remark was all that was left of it."""
    merged, collided = merge("\n".join("abcdef"), "\n".join([*theirs, more]), "\n".join(mine))
    lines = merged.split("\n")
    assert sorted(one for one in lines if one in "abcdef" and one) == list("abcdef")
    assert more in merged
    assert collided or theirs == list("abcdef") or mine == list("abcdef") or theirs == mine
