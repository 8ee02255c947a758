"""A club as open files: equal after the round, from any version that has landed; refused in a sentence."""

import gzip
import json
import re
import sqlite3
import zipfile
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from lovrit.store.archive import NoArchive, export_club, import_club
from lovrit.store.database import Database
from lovrit.store.trouble import Newer
from tests.conftest import ready
from tests.formats.test_command_line import run
from tests.store.test_old_files import OLD


def rows_of(path: Path) -> dict[str, list[tuple[Any, ...]]]:
    """Every row of every table but who is signed in and what signs; JSON by what it says, not by how it is spaced."""
    with closing(sqlite3.connect(path)) as club:
        names = [
            name for (name,) in club.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        ]
        club.row_factory = sqlite3.Row
        return {
            name: sorted(
                (
                    tuple((column, _plain(row[column])) for column in sorted(row.keys()))
                    for row in club.execute(f'SELECT * FROM "{name}"')
                    if "secret" not in tuple(row)
                ),
                key=repr,
            )
            for name in names
            if name not in ("guest", "sqlite_sequence") and not re.search("_words_", name)
        }


def _plain(value: Any) -> Any:
    try:
        return json.dumps(json.loads(value), sort_keys=True) if isinstance(value, str) else value
    except ValueError:
        return value


def test_a_club_is_equal_after_the_round(tmp_path: Path) -> None:
    here, there = tmp_path / "lovrit.sqlite", tmp_path / "other" / "lovrit.sqlite"
    there.parent.mkdir()
    ready(here).close()
    archive = export_club(here, tmp_path / "club.zip")
    assert archive.stat().st_mode & 0o077 == 0
    import_club(archive, there)
    Database(here).close()
    assert rows_of(there) == rows_of(here)
    with zipfile.ZipFile(archive) as opened:
        assert any(name.startswith("slates/") for name in opened.namelist())
        assert b'"secret"' not in opened.read("tables/club.jsonl")
    with pytest.raises(NoArchive, match="already"):
        import_club(archive, there)


@pytest.mark.parametrize("old", OLD, ids=lambda one: str(one.name[:12]))
def test_a_file_of_any_version_moves_through_open_files(old: Path, tmp_path: Path) -> None:
    here, there = tmp_path / "here.sqlite", tmp_path / "there.sqlite"
    here.write_bytes(gzip.decompress(old.read_bytes()))
    archive = export_club(here, tmp_path / "club.zip")
    import_club(archive, there)
    Database(here).close()  # brought up to date where it is
    assert rows_of(there) == rows_of(here)


def changed(archive: Path, name: str, text: str | None) -> Path:
    """An archive with one of its files changed, or left out."""
    to = archive.with_name("changed.zip")
    with zipfile.ZipFile(archive) as old, zipfile.ZipFile(to, "w") as new:
        for one in old.namelist():
            if one != name:
                new.writestr(one, old.read(one))
        if text is not None:
            new.writestr(name, text)
    return to


@pytest.mark.parametrize(
    ("name", "text", "said"),
    [
        ("club.json", None, "is no club’s archive"),
        ("club.json", "{", "is no club’s archive"),
        ("club.json", '{"form": 2}', "another kind"),
        ("club.json", '{"form": 1, "version": "0001", "tables": ["nowhere"]}', "doesn’t know"),
        ("tables/person.jsonl", "[1]\n", "is none"),
        ("tables/person.jsonl", '{"id": 1, "horse": 2}\n', "“horse” of person"),
        ("tables/person.jsonl", '{"id": 1}\n', "does not fit|belongs to nothing"),
        ("tables/session.jsonl", None, "is no club’s archive"),
    ],
)
def test_what_is_no_archive_is_said_and_leaves_nothing(
    name: str, text: str | None, said: str, tmp_path: Path
) -> None:
    ready(tmp_path / "lovrit.sqlite").close()
    archive = changed(export_club(tmp_path / "lovrit.sqlite", tmp_path / "club.zip"), name, text)
    to = tmp_path / "new"
    to.mkdir()
    with pytest.raises(NoArchive, match=said):
        import_club(archive, to / "lovrit.sqlite")
    assert not list(to.iterdir())


def test_an_archive_of_a_later_lovrit_is_refused(tmp_path: Path) -> None:
    ready(tmp_path / "lovrit.sqlite").close()
    archive = export_club(tmp_path / "lovrit.sqlite", tmp_path / "club.zip")
    later = changed(archive, "club.json", '{"form": 1, "version": "9999", "tables": []}')
    with pytest.raises(Newer):
        import_club(later, tmp_path / "new.sqlite")
    (tmp_path / "text.zip").write_text("hello")
    with pytest.raises(NoArchive, match="no club’s archive"):
        import_club(tmp_path / "text.zip", tmp_path / "new.sqlite")


def test_the_commands_move_a_club_and_say_who_may(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    here, there = tmp_path / "here", tmp_path / "there"
    here.mkdir()
    monkeypatch.setenv("LOVRIT_DATA", str(here))
    assert "no club" in run("people").stderr.lower() or run("people").exit_code == 2
    ready(here / "lovrit.sqlite").close()
    assert "Nobody comes in by a name yet" in run("people").stdout
    invited = run("people", "invite", "Ola", "--role", "owner")
    assert "/invited/" in invited.stdout and "Ola, owner, invited" in run("people").stdout
    assert (
        "called so" in run("people", "invite", "ola").stderr
        or run("people", "invite", "ola").exit_code == 2
    )
    assert "/invited/" in run("people", "again", "Ola").stdout
    assert "may not come in" in run("people", "end", "Ola").stdout
    assert run("people", "end", "Nils").exit_code == 2
    assert "KiB" in run("export-club", str(tmp_path / "club.zip")).stdout
    monkeypatch.setenv("LOVRIT_DATA", str(there))
    assert "is in place" in run("import-club", str(tmp_path / "club.zip")).stdout
    assert rows_of(there / "lovrit.sqlite")["person"] == rows_of(here / "lovrit.sqlite")["person"]
    again = run("import-club", str(tmp_path / "club.zip"))
    assert again.exit_code == 2 and "already" in again.stderr
    assert run("read-class", str(tmp_path / "club.zip")).exit_code == 2
