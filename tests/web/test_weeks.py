"""Weeks in use: sessions are put on days, clash, take the better order, and every step is taken back."""

import re

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.session.dated import with_date
from lovrit.core.session.reader import read
from lovrit.store import sessions
from tests.core.session.slates import slates

LEGS = "title: Legs\nslot: 18:10-18:55\n\nwarm-up 6:00 at 3\n\n5 rounds of 60/20 at 9\n  jump squat\n  squat\n  squat\n"
PULL = "title: Pull\n\nwarm-up 6:00 at 3\n\n4 rounds of 40/20 at 8\n  ring row\n  bell row\n"


@given(slates(), st.dates().map(str), st.dates().map(str))
def test_a_day_is_set_changed_and_taken_off_and_all_else_stays(
    text: str, one: str, two: str
) -> None:
    dated = with_date(text, one)
    assert read(dated).session.date == one
    again = with_date(dated, two)
    assert read(again).session.date == two
    off = with_date(again, None)
    assert read(off).session.date is None
    assert off == with_date(text, None)
    assert read(off).session.blocks == read(text).session.blocks


def made(client: TestClient, text: str) -> str:
    return client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1]


def days(client: TestClient) -> dict[str, str]:
    """Which session stands on which day."""
    page = client.get("/weeks?from=2027-03-01").text
    return dict(re.findall(r'data-session="(\d+)" data-day="([\d-]+)"', page))


def test_a_week_is_laid_out_clashes_is_mended_and_taken_back(client: TestClient) -> None:
    one, two, pull = made(client, LEGS), made(client, LEGS), made(client, PULL)
    for session, day in ((one, "2027-03-02"), (two, "2027-03-03"), (pull, "2027-03-05")):
        client.post("/weeks/put", data={"session": session, "day": day})
    assert days(client) == {one: "2027-03-02", two: "2027-03-03", pull: "2027-03-05"}
    assert "clash" in client.get("/weeks?from=2027-03-01").text
    page = client.get("/weeks/clashes?from=2027-03-01").text
    assert "Legs</a> asks hard work of legs, where hard work of Legs, 24 hours before" in page
    page = client.get("/weeks/better?from=2027-03-01").text
    assert "no order is better" in page
    fields = dict(re.findall(r'name="(to-\d+)" value="([\d-]+)"', page))
    assert fields, page
    client.post("/weeks/order", data=fields)
    better = days(client)
    assert sorted(better.values()) == ["2027-03-02", "2027-03-03", "2027-03-05"]
    assert better[pull] == "2027-03-03" and better != {one: "2027-03-02", two: "2027-03-03"}
    client.post("/weeks/undo")
    assert days(client)[pull] == "2027-03-05"
    with client.app_state.house.database.work() as work:  # type: ignore[attr-defined]
        assert "date: 2027-03-05" in sessions.get(work, int(pull)).text


def test_a_copy_is_put_where_a_session_has_its_day_already(client: TestClient) -> None:
    legs = made(client, LEGS)
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-02"})
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-09"})
    assert sorted(days(client).values()) == ["2027-03-02", "2027-03-09"]
    client.post("/weeks/move", data={"session": legs, "day": ""})
    assert list(days(client).values()) == ["2027-03-09"]
    client.post("/weeks/undo")
    client.post("/weeks/undo")
    assert days(client) == {legs: "2027-03-02"}


def test_other_load_weighs_and_goes_again(client: TestClient) -> None:
    legs = made(client, LEGS)
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-03"})
    fields = {"what": "Regatta", "day": "2027-03-02", "weight": "hard", "patterns": ["squat"]}
    client.post("/weeks/other", data=fields)
    assert "Regatta" in client.get("/weeks?from=2027-03-01").text
    page = client.get("/weeks/clashes?from=2027-03-01").text
    assert "the load of Regatta, 30 hours before, is still carried" in page
    client.post("/weeks/other/1/gone")
    assert "Regatta" not in client.get("/weeks?from=2027-03-01").text
    client.post("/weeks/undo")
    assert "Regatta" in client.get("/weeks?from=2027-03-01").text


@pytest.mark.parametrize(
    ("path", "fields"),
    [
        ("/weeks/move", {"session": "1", "day": "soon"}),
        ("/weeks/put", {"session": "1", "day": ""}),
        ("/weeks/other", {"what": "", "day": "2027-03-02"}),
        ("/weeks/other", {"what": "x", "day": "2027-03-02", "weight": "heavy"}),
        ("/weeks/order", {"to-1": "never"}),
    ],
)
def test_what_cannot_be_is_said_and_nothing_changes(
    client: TestClient, path: str, fields: dict[str, str]
) -> None:
    before = client.get("/weeks").text
    answer = client.post(path, data=fields)
    assert answer.status_code == 409 and (
        "no day" in answer.text or "Other load needs" in answer.text
    )
    assert client.get("/weeks").text.count("data-session") == before.count("data-session")
    assert client.get("/weeks?from=someday").status_code == 409


def test_an_empty_board_says_where_to_begin(client: TestClient) -> None:
    assert "Nothing is planned here yet" in client.get("/weeks?from=2031-01-06").text
