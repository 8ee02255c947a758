"""Copies of the club's file: whole while it is written to, kept by days, weeks and months, put back, and refused."""

import io
import sqlite3
import threading
from contextlib import closing
from datetime import date, timedelta
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as some

from lovrit.settings import Settings
from lovrit.store import people
from lovrit.store.check import look_through
from lovrit.store.copies import (
    DAYS,
    MONTHS,
    WAITING,
    WEEKS,
    NoCopy,
    copy,
    forget_old,
    kept_of,
    nightly,
    of_folder,
    put_waiting,
    restore,
)  # fmt: skip
from lovrit.web.app import create_app
from lovrit.web.serve import backup, put_back
from tests.conftest import Clock, ready


def names(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as file:
        return [row[0] for row in file.execute("SELECT name FROM person ORDER BY name")]


def test_a_copy_is_whole_while_the_club_is_written_to(tmp_path: Path) -> None:
    database = ready(tmp_path / "lovrit.sqlite")
    done = threading.Event()

    def write() -> None:
        nth = 0
        while not done.is_set():
            with database.writing() as work:
                people.add_person(work, f"Writer {nth}")
            nth += 1

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for nth in range(5):
            to = copy(tmp_path / "lovrit.sqlite", tmp_path / "elsewhere" / f"{nth}.sqlite")
            looked = look_through(to)
            assert looked.sound, looked.said
            assert to.stat().st_mode & 0o077 == 0
            assert not to.with_name(f"{to.name}-wal").exists()
    finally:
        done.set()
        writer.join()
        database.close()
    with pytest.raises(NoCopy):
        copy(tmp_path / "nothing.sqlite", tmp_path / "x.sqlite")


@given(
    some.sets(some.dates(date(2024, 1, 1), date(2027, 12, 31)), max_size=400),
    some.dates(date(2024, 1, 1), date(2027, 12, 31)),
)
def test_few_are_kept_and_never_the_newest_let_go(days: set[date], today: date) -> None:
    here = {one for one in days if one <= today}
    kept = kept_of(days, today)
    assert kept <= here and len(kept) <= DAYS + WEEKS + MONTHS + 1
    assert not here or max(here) in kept
    assert {one for one in here if one > today - timedelta(days=DAYS)} <= kept
    assert kept_of(kept, today) == kept  # the next night lets none of them go


def test_a_year_of_nights_leaves_days_weeks_and_months(tmp_path: Path) -> None:
    ready(tmp_path / "lovrit.sqlite").close()
    first, folder = date(2026, 1, 1), tmp_path / "copies"
    folder.mkdir()
    for nth in range(0, 360):
        day = first + timedelta(days=nth)
        (folder / f"lovrit-{day}.sqlite").touch()
    last = first + timedelta(days=360)
    assert nightly(tmp_path / "lovrit.sqlite", folder, last)
    assert not nightly(tmp_path / "lovrit.sqlite", folder, last)
    here = sorted(of_folder(folder))
    assert here[-7:] == [last - timedelta(days=nth) for nth in range(6, -1, -1)]
    assert len({(one.year, one.month) for one in here}) == 12 and len(here) <= DAYS + WEEKS + MONTHS
    assert names(folder / f"lovrit-{last}.sqlite")


def test_a_copy_is_put_back_and_what_was_there_is_kept_for_two_weeks(tmp_path: Path) -> None:
    path = tmp_path / "lovrit.sqlite"
    database = ready(path)
    copied = copy(path, tmp_path / "then.sqlite")
    with database.work() as work:
        people.add_person(work, "Zora")
    database.close()
    before = restore(copied, path, "1")
    assert before and "Zora" in names(before) and "Zora" not in names(path)
    forget_old(path, before.stat().st_mtime + 13 * 86_400)
    assert before.exists()
    forget_old(path, before.stat().st_mtime + 15 * 86_400)
    assert not before.exists()


@pytest.mark.parametrize("bad", ["nothing", "text", "other", "cut"])
def test_what_is_no_copy_is_refused_and_nothing_is_changed(tmp_path: Path, bad: str) -> None:
    path, copied = tmp_path / "lovrit.sqlite", tmp_path / "bad.sqlite"
    ready(path).close()
    before = names(path)
    if bad == "text":
        copied.write_text("not a database")
    if bad == "other":
        with closing(sqlite3.connect(copied)) as other:
            other.execute("CREATE TABLE recipes (id)")
    if bad == "cut":
        whole = copy(path, tmp_path / "whole.sqlite").read_bytes()
        copied.write_bytes(whole[: len(whole) // 2])
    with pytest.raises(NoCopy):
        restore(copied, path, "1")
    assert names(path) == before


def test_by_command_and_not_while_lovrit_has_it_open(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    from lovrit.store.lock import FolderLock

    monkeypatch.setenv("LOVRIT_DATA", str(tmp_path / "data"))
    assert backup(tmp_path / "copy.sqlite") != 0 and "no club's file" in capsys.readouterr().err
    ready(tmp_path / "data" / "lovrit.sqlite").close()
    lock = FolderLock(tmp_path / "data", "the test")
    assert backup(tmp_path / "copy.sqlite") == 0 and "whole" in capsys.readouterr().out
    assert put_back(tmp_path / "copy.sqlite") != 0 and "the test" in capsys.readouterr().err
    lock.release()
    assert put_back(tmp_path / "copy.sqlite") == 0 and "is in place" in capsys.readouterr().out


def test_from_the_clubs_page_a_copy_is_taken_and_waits_for_the_next_start(
    tmp_path: Path, clock: Clock
) -> None:
    settings = Settings(data=tmp_path)
    with TestClient(
        create_app(settings, ready(settings.database), clock), base_url="http://127.0.0.1"
    ) as client:
        taken = client.get("/club/copy.sqlite")
        assert taken.content[:15] == b"SQLite format 3" and not list(tmp_path.glob("copy-*"))
        refused = client.post("/club/restore", files={"file": ("x.sqlite", io.BytesIO(b"nothing"))})
        assert refused.status_code == 409 and not (tmp_path / WAITING).exists()
        client.post("/people", data={"text": "Zora"})
        asked = client.post(
            "/club/restore", files={"file": ("x.sqlite", io.BytesIO(taken.content))}
        )
        assert "A copy waits" in asked.text
        client.post("/club/restore/not")
        assert put_waiting(settings.database, "1") is None
        client.post("/club/restore", files={"file": ("x.sqlite", io.BytesIO(taken.content))})
    assert "Zora" in names(settings.database)
    assert put_waiting(settings.database, "2")
    assert "Zora" not in names(settings.database) and not (tmp_path / WAITING).exists()
