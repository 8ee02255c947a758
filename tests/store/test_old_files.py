"""A file as every landed version made it opens, with all that was in it, and is like one of now."""

import gzip
import json
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from lovrit.settings import Settings
from lovrit.store import people
from lovrit.store.check import look_through, schema
from lovrit.store.database import Database
from lovrit.web.app import create_app
from tests.conftest import ready

OLD = sorted((Path(__file__).parent / "old").glob("*.sqlite.gz"))
KEPT = {
    "person": "id, name, initials, strap, mind",
    "session": "id, title, text, version, position",
    "class": "id, title, text, people, over_ms",
    "class_event": "class_id, seq, event_id, at_ms, body",
    "sample": "class_id, person_id, at_ms, bpm",
}


def unpacked(packed: Path, to: Path) -> Path:
    path = to / "lovrit.sqlite"
    path.write_bytes(gzip.decompress(packed.read_bytes()))
    return path


def rows(path: Path) -> dict[str, list[Any]]:
    with closing(sqlite3.connect(path)) as file:
        return {
            table: file.execute(f"SELECT {columns} FROM {table} ORDER BY 1, 2").fetchall()
            for table, columns in KEPT.items()
        }


@pytest.mark.parametrize("packed", OLD, ids=lambda one: one.name.split(".")[0])
def test_a_file_of_every_version_opens_whole(packed: Path, tmp_path: Path) -> None:
    path = unpacked(packed, tmp_path)
    before = rows(path)
    looked = look_through(path)
    assert looked.sound, looked.said
    assert rows(path) == before  # looking changes nothing
    database = Database(path)
    assert schema(database) == schema(ready(filled=False))
    assert rows(path) == before
    create_app(Settings(data=tmp_path), database).state.house.database.close()
    assert look_through(path).sound


def test_hearts_that_were_kept_stay_until_somebody_asks(tmp_path: Path) -> None:
    """And what links are signed with leaves the file, with links going on."""
    path = unpacked(next(one for one in OLD if one.name.startswith("0014")), tmp_path)
    with closing(sqlite3.connect(path)) as file:
        (before,) = file.execute("SELECT value FROM club WHERE key = 'secret'").fetchone()
    database = Database(path)
    with database.work() as work:
        hearts = {one.id: one.hearts for one in people.everyone(work)}
    assert {who for who, said in hearts.items() if said == "before"} == {1, 2}
    assert set(hearts.values()) == {"", "before"}
    create_app(Settings(data=tmp_path), database).state.house.database.close()
    assert (tmp_path / "links.key").read_text() == json.loads(before)
    with closing(sqlite3.connect(path)) as file:
        assert not file.execute("SELECT value FROM club WHERE key = 'secret'").fetchone()


def test_what_a_file_lacks_is_said(tmp_path: Path) -> None:
    path = tmp_path / "lovrit.sqlite"
    ready(path).close()
    with closing(sqlite3.connect(path)) as file:
        file.execute("ALTER TABLE person DROP COLUMN limit_hr")
        file.commit()
    found = look_through(path)
    assert not found.sound and "person.limit_hr" in found.said[0]
