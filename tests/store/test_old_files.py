"""A file as every landed version made it opens, with all that was in it, and is like one of now."""

import gzip
import hashlib
import json
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from lovrit.settings import Settings
from lovrit.store import migrations, people
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

VERSIONS = Path(migrations.__file__).parent / "versions"
# each migration as it landed; one that lands gets its line with the next, and is not touched again
LANDED = {
    "0001": "de56e4fafc84ea0e",
    "0002": "0acca0be4680a0dd",
    "0003": "1b3821c2b7b482a9",
    "0004": "1620664d051d89ad",
    "0005": "b385c6ffc4258445",
    "0006": "e5f7ad69dc283f81",
    "0007": "f7053b106e802ba6",
    "0008": "1e4b802e1991fcb3",
    "0009": "d7aa11062231f347",
    "0010": "a11e728cd6d3ce4c",
    "0011": "ae05b9a854623963",
    "0012": "07d7f2d122b07600",
    "0013": "d0fa460a74de591c",
    "0014": "08b29d4b726b39b0",
    "0015": "fac9ff078e2db0d8",
    "0016": "a0dc3f54074cf974",
    "0017": "0ccf0b9c06b0b73a",
    "0018": "c4267445fdceeeca",
    "0019": "d68808c4a1b84bd3",
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


def test_a_migration_that_has_landed_is_as_it_landed() -> None:
    """Some were added to after a file of theirs was made, and such a file would not have opened."""
    now = {
        path.stem[:4]: hashlib.sha256(path.read_bytes()).hexdigest()[:16]
        for path in VERSIONS.glob("0*.py")
    }
    assert {one: said for one, said in now.items() if one in LANDED} == LANDED


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
