"""Weeks that people see: a draft at first, marked where it changes, two calendars read it, a new link ends it."""

import re
from datetime import timedelta

import vobject
from fastapi.testclient import TestClient
from icalendar import Calendar

from tests.web.test_weeks import LEGS, PULL, made


def let_see(client: TestClient, **more: str) -> None:
    client.post("/weeks/see", data={"at": "2027-03-01", "until": "2027-03-28", **more})


def link_of(client: TestClient) -> str:
    return re.search(r'href="(/see/[^"/]+)"', client.get("/weeks?from=2027-03-01").text)[1]


def events(client: TestClient) -> dict[str, tuple[int, str, str]]:
    """Each event's number, status and beginning, the same by two readers."""
    text = client.get(f"{link_of(client)}/weeks.ics").text
    ours = {
        str(one["uid"]): (
            int(one["sequence"]),
            str(one["status"]),
            f"{one.decoded('dtstart'):%Y-%m-%d %H:%M}",
        )
        for one in Calendar.from_ical(text).walk("VEVENT")
    }
    theirs = {
        one.uid.value: (
            int(one.sequence.value),
            one.status.value,
            f"{one.dtstart.value:%Y-%m-%d %H:%M}",
        )
        for one in vobject.readOne(text).vevent_list
    }
    assert ours == theirs
    starts = [one.decoded("dtstart") for one in Calendar.from_ical(text).walk("VEVENT")]
    assert all(start.utcoffset() in (timedelta(hours=1), timedelta(hours=2)) for start in starts)
    return ours


def test_a_week_is_a_draft_then_seen_changed_and_called_off(client: TestClient) -> None:
    legs, pull = made(client, LEGS), made(client, PULL)
    client.post("/weeks/put", data={"session": legs, "day": "2027-03-02"})
    assert "nobody sees these weeks yet" in client.get("/weeks?from=2027-03-01").text
    client.post("/weeks/theme", data={"monday": "2027-03-01", "text": "quiet landings"})
    let_see(client, words="Bring water & a friend", bring="indoor shoes")
    page = client.get(link_of(client)).text
    assert (
        "Tuesday 2 March" in page
        and "quiet landings" in page
        and "Bring water &amp; a friend" in page
    )
    assert "hard legs" in page and "<em>new</em>" not in page
    assert events(client) == {f"session-{legs}@lovrit": (0, "CONFIRMED", "2027-03-02 18:10")}
    client.post("/weeks/move", data={"session": legs, "day": "2027-03-04"})
    client.post("/weeks/put", data={"session": pull, "day": "2027-03-05"})
    board = client.get("/weeks?from=2027-03-01").text
    assert "2 things are otherwise than they saw" in board and "→ Thursday 4 March, 18:10" in board
    assert (
        "Tuesday 2 March" in client.get(link_of(client)).text
    )  # until it is said, they see it as it was
    let_see(client)
    page = client.get(link_of(client)).text
    assert "was Tuesday 2 March, 18:10" in page and page.count("<em>new</em>") == 1
    assert events(client)[f"session-{legs}@lovrit"] == (1, "CONFIRMED", "2027-03-04 18:10")
    client.post("/weeks/move", data={"session": legs, "day": ""})
    let_see(client)
    assert "called off" in client.get(link_of(client)).text
    assert events(client)[f"session-{legs}@lovrit"][:2] == (2, "CANCELLED")
    let_see(client)
    assert events(client)[f"session-{legs}@lovrit"][:2] == (2, "CANCELLED")


def test_the_page_has_nothing_of_anybody_and_an_old_link_ends(client: TestClient) -> None:
    legs = made(client, LEGS)
    client.post(f"/crew/{legs}/who/all")
    client.post(
        "/weeks/put", data={"session": legs, "day": "2027-03-28"}
    )  # the clocks go on that night
    let_see(client)
    path = link_of(client)
    seen = client.get(path).text + client.get(f"{path}/weeks.ics").text
    people = re.findall(r'<h1>|aria-label="name of ([^"]+)"', client.get("/people").text)
    names = [name for name in people if name]
    assert len(names) > 15 and not any(name in seen for name in names)
    client.post("/weeks/renew")
    assert client.get(path).status_code == 404 and "has ended" in client.get(path).text
    assert client.get(f"{path}/weeks.ics").status_code == 404
    assert client.get(link_of(client)).status_code == 200
    assert client.get("/see/nonsense").status_code == 404
