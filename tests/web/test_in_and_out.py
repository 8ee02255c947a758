"""Nobody in, nothing out: hosts, the passphrase, bodies, files for spreadsheets, logs."""

import contextlib
import csv
import io
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy.exc import SQLAlchemyError

from lovrit.core.crew.person import Comer
from lovrit.formats.cells import NotCsv, Reader, as_written, told_apart
from lovrit.formats.moves_file import read_moves
from lovrit.house.guests import FREE_GUESSES, GUESSES_IN_ALL, Guesses
from lovrit.settings import Settings
from lovrit.store import classes
from lovrit.store.database import Database
from lovrit.web.app import create_app
from tests.conftest import Clock, ready

SECRET = "a heron on one leg"


@pytest.fixture
def guarded(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    """Behind loopback, with a passphrase, by another name and over TLS, as behind something that answers for it."""
    database = ready(tmp_path / "x.sqlite")
    settings = Settings(data=tmp_path, passphrase=SECRET, hosts=("club.test",))
    with TestClient(create_app(settings, database, clock), base_url="https://club.test") as client:
        yield client


def test_only_names_that_are_served_are_answered(client: TestClient) -> None:
    for host in ("testserver", "elsewhere.test", "127.0.0.1.elsewhere.test", ""):
        assert client.get("/debrief", headers={"host": host}).status_code == 421
    assert client.get("/debrief", headers={"host": "localhost:9"}).status_code == 200


def test_behind_loopback_a_passphrase_that_is_set_is_asked(guarded: TestClient) -> None:
    asked = guarded.get("/debrief", headers={"accept": "text/html"}, follow_redirects=False)
    assert asked.headers["location"] == "/passphrase"
    assert guarded.get("/stream?on=coach-1").status_code == 401
    assert "max-age" in asked.headers["strict-transport-security"]


def test_a_browser_that_is_in_is_known_by_nothing_that_could_be_made_again(
    guarded: TestClient, tmp_path: Path, clock: Clock
) -> None:
    came = guarded.post("/passphrase", data={"passphrase": SECRET}, follow_redirects=False)
    cookie = came.headers["set-cookie"]
    assert cookie.startswith("__Host-lovrit-in=") and "Secure" in cookie and "HttpOnly" in cookie
    token = re.search(r"=([^;]+)", cookie)[1]
    assert guarded.get("/debrief").status_code == 200
    raw = b"".join(path.read_bytes() for path in tmp_path.iterdir())
    assert token.encode() not in raw and SECRET.encode() not in raw
    key = re.search(r"/club/guests/(\w+)/end", guarded.get("/club").text)[1]
    other = TestClient(guarded.app, base_url="https://club.test", cookies={"__Host-lovrit-in": key})
    assert other.get("/debrief").status_code == 401
    clock.on(31 * 86_400)
    assert guarded.get("/debrief").status_code == 401
    guarded.post("/passphrase", data={"passphrase": SECRET})
    key = re.search(r"\(this one\).*?/club/guests/(\w+)/end", guarded.get("/club").text, re.S)[1]
    guarded.post(f"/club/guests/{key}/end")
    assert guarded.get("/debrief").status_code == 401


def test_guesses_are_slowed_by_address_and_in_all(guarded: TestClient, clock: Clock) -> None:
    for _ in range(FREE_GUESSES):
        assert guarded.post("/passphrase", data={"passphrase": "wrong"}).status_code == 401
    refused = guarded.post("/passphrase", data={"passphrase": SECRET})
    assert refused.status_code == 429 and "Try again in" in refused.text
    clock.on(2)
    assert guarded.post("/passphrase", data={"passphrase": SECRET}).status_code == 200
    guesses = Guesses()
    for nth in range(GUESSES_IN_ALL):
        guesses.begin(f"192.0.2.{nth}", nth)
    assert guesses.begin("198.51.100.1", GUESSES_IN_ALL) > 500


def test_bodies_are_refused_before_they_are_read(client: TestClient) -> None:
    def unsaid() -> Iterator[bytes]:
        for _ in range(40):
            yield b"x" * 65_536

    for path in ("/api/plan", "/run/1/happen", "/desk/4/text", "/club", "/debrief/1/note"):
        assert client.post(path, content=b"{" + b" " * 1_100_000).status_code == 413
        said = {"content-length": "400000000", "content-type": "application/json"}
        assert client.post(path, content=b"{}", headers=said).status_code == 413
        kind = (
            "application/json"
            if path in ("/api/plan", "/run/1/happen")
            else "application/x-www-form-urlencoded"
        )
        assert (
            client.post(path, content=unsaid(), headers={"content-type": kind}).status_code == 413
        )
    assert client.post("/moves/file", files={"file": ("x", b"x" * 6_000_000)}).status_code == 413


def test_pages_with_people_are_kept_nowhere(client: TestClient) -> None:
    for path in ("/desk", "/crew/4", "/debrief", "/api/moves", "/desk/4/session.csv"):
        assert client.get(path).headers["cache-control"] == "no-store"


@given(st.text(max_size=30))
def test_cells_are_words_for_a_spreadsheet_and_come_back_as_they_were(words: str) -> None:
    cell = told_apart(words)
    assert not cell.startswith(("=", "+", "-", "@", "\t", "\r"))
    assert as_written(cell) == words or (words.startswith("'") and cell == words)


def test_a_name_that_is_a_formula_is_told_apart_in_every_csv(client: TestClient) -> None:
    client.post("/crew/4/join", data={"name": "=HYPERLINK(x)"})
    class_id = int(
        client.post("/desk/4/floor", follow_redirects=False).headers["location"].rsplit("/", 1)[1]
    )
    house = client.app_state.house  # type: ignore[attr-defined]
    person = house.database
    with person.writing() as work:
        who = next(
            one.id
            for one in classes.comers(classes.get(work, class_id))
            if one.name.startswith("=")
        )
        classes.add_samples(work, class_id, [(1000, {who: 120})])
    rows = list(csv.reader(io.StringIO(client.get(f"/debrief/{class_id}/traces.csv").text)))
    assert rows[1][0] == "'=HYPERLINK(x)"
    moves = client.get("/moves/library.csv").text
    assert not read_moves(moves).problems


@pytest.mark.parametrize(
    "text",
    ['start_s,end_s,phase\n"', "a\rb,c\n", "start_s,end_s,phase\n" + "x" * 200_000, "\x00,a\n1"],
)
def test_files_that_are_no_csv_are_said(text: str) -> None:
    with contextlib.suppress(NotCsv):  # some of these are odd, and CSV all the same
        assert all(isinstance(row, dict) for row in Reader(text))


def test_what_fails_to_be_written_puts_no_heart_into_the_log(tmp_path: Path) -> None:
    database = Database(tmp_path / "x.sqlite")
    comer = Comer(id=7, name="Quite Unusual", initials="QU")
    with pytest.raises(SQLAlchemyError) as failed, database.work() as work:
        classes.add_samples(work, 99, [(1000, {comer.id: 187})])
    assert "187" not in str(failed.value) and "1000" not in str(failed.value)
