"""What links are signed with stands beside the club's file and not in it."""

from pathlib import Path

import pytest
from jinja2 import Environment

from lovrit.house.house import House
from lovrit.house.signed import link, numbers_of
from lovrit.settings import Settings
from lovrit.store import club
from lovrit.store.copies import copy
from lovrit.store.database import Database
from lovrit.store.secret import NAME, secret_of
from lovrit.store.sessions import Gone
from tests.conftest import Clock, ready


def house_in(folder: Path) -> House:
    return House(Settings(data=folder), Database(folder / "lovrit.sqlite"), Environment(), Clock())


def test_a_copied_file_makes_no_link_and_a_new_start_keeps_those_that_were_given(
    tmp_path: Path,
) -> None:
    ready(tmp_path / "lovrit.sqlite").close()
    house = house_in(tmp_path)
    given = link(house, "hand", 3, 7).rsplit("/", 1)[1]
    house.database.close()
    key = tmp_path / NAME
    assert key.stat().st_mode & 0o077 == 0
    assert numbers_of(house_in(tmp_path), "hand", given) == [3, 7]
    for kept in tmp_path.glob("lovrit.sqlite*"):
        assert key.read_bytes() not in kept.read_bytes()
    elsewhere = tmp_path / "elsewhere"
    copy(tmp_path / "lovrit.sqlite", elsewhere / "lovrit.sqlite")
    copied = house_in(elsewhere)
    with pytest.raises(Gone):
        numbers_of(copied, "hand", given)
    with pytest.raises(Gone):
        numbers_of(house_in(tmp_path), "hand", link(copied, "hand", 3, 7).rsplit("/", 1)[1])


def test_a_key_of_before_moves_out_and_a_cut_off_one_is_made_anew(tmp_path: Path) -> None:
    database = ready(tmp_path / "lovrit.sqlite")
    with database.writing() as work:
        club.choose(work, "secret", "k" * 43)
    assert secret_of(database) == "k" * 43
    with database.work() as work:
        assert club.old_secret(work) == ""
    database.close()
    assert b"k" * 43 not in (tmp_path / "lovrit.sqlite").read_bytes()
    (tmp_path / NAME).write_text("kkk")
    again = secret_of(Database(tmp_path / "lovrit.sqlite"))
    assert len(again) >= 32 and again == secret_of(Database(tmp_path / "lovrit.sqlite"))
