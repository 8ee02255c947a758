"""The club's file deleted, renamed or replaced under a house that runs: nothing is lost, and it goes back."""

import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from lovrit.store import classes
from lovrit.store.check import look_through
from lovrit.store.database import Database
from lovrit.store.trouble import Busy, Moved
from lovrit.web import settle
from lovrit.web.settle import look_after_file
from tests.conftest import Clock
from tests.house.test_floor import House


def gone(path: Path, how: str) -> None:
    """What somebody does to a file that runs."""
    if how == "renamed":
        path.rename(path.with_name("elsewhere.sqlite"))
        return
    for end in ("", "-wal", "-shm"):
        path.with_name(path.name + end).unlink(missing_ok=True)
    if how == "replaced":
        with closing(sqlite3.connect(path)) as other:
            other.execute("CREATE TABLE something (else_ TEXT)")


@pytest.mark.parametrize("how", ["deleted", "renamed", "replaced"])
def test_a_class_goes_on_and_all_of_it_is_in_place_afterwards(
    how: str, tmp_path: Path, clock: Clock
) -> None:
    house = House(tmp_path, clock)
    path = house.settings.database
    class_id = house.to_the_floor()
    house.happen(class_id, "start")
    own = house.floor.house
    assert not own.database.lost()
    gone(path, how)
    if own.beside is None:  # its own watch may have been quicker
        look_after_file(own)
    assert not own.database.lost() and own.kept_in != path
    clock.on(30)
    house.happen(class_id, "mark", text="after it was gone")
    page = house.client.get("/club").text
    assert "Nothing is lost" in page and "Put it back in its place" in page
    house.client.post("/club/home")
    assert own.kept_in == path and "Nothing is lost" not in house.client.get("/club").text
    assert bool(list(tmp_path.glob("*-other-*"))) == (how == "replaced")
    assert not list(tmp_path.glob("lovrit-rescued-*"))
    clock.on(10)
    house.happen(class_id, "end")
    house.again()
    with house.floor.house.database.work() as work:
        kinds = [one.kind for one in classes.events(work, class_id)]
    assert kinds == ["start", "mark", "end"]
    house.stop()
    assert look_through(path).sound


def test_a_house_that_stops_puts_its_file_back(tmp_path: Path, clock: Clock) -> None:
    house = House(tmp_path, clock)
    made = house.client.post("/desk", data={"text": "title: Kept\n\nrest 1:00\n"})
    number = int(made.url.path.rsplit("/", 1)[1])
    gone(house.settings.database, "deleted")
    if house.floor.house.beside is None:
        look_after_file(house.floor.house)
    house.stop()
    assert house.settings.database.is_file() and not list(tmp_path.glob("lovrit-rescued-*"))
    house.start()
    assert "Kept" in house.client.get(f"/desk/{number}").text
    house.stop()


def test_what_was_being_written_as_it_moved_is_not_acknowledged(tmp_path: Path) -> None:
    database = Database(tmp_path / "lovrit.sqlite")

    def written_as_it_moves() -> None:
        with database.work() as work:
            database.move_to(tmp_path / "other.sqlite")
            work.connection().exec_driver_sql("INSERT INTO club (key, value) VALUES ('a', '1')")

    with pytest.raises(Moved):
        written_as_it_moves()
    with database.work() as work:
        asked = "SELECT count(*) FROM club WHERE key = 'a'"
        assert work.connection().exec_driver_sql(asked).scalar() == 0
    database.close()


@pytest.mark.parametrize("trouble", [Busy, Moved])
def test_work_beside_begins_again_where_the_file_is_held_or_moving(
    trouble: type[Exception], tmp_path: Path, clock: Clock, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settle, "AGAIN_S", 0.01)
    house = House(tmp_path, clock)
    tried: list[int] = []

    def does(_house: object) -> None:
        tried.append(1)
        if len(tried) < 3:
            raise trouble

    settle.beside(house.floor.house, does)
    house.stop()
    assert len(tried) == 3
