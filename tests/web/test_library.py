"""Sessions listed and searched, begun from shapes and boards, revisions compared and taken back."""

import re

from fastapi.testclient import TestClient

WINTER = 4


def test_sessions_are_searched_put_away_and_brought_back(client: TestClient) -> None:
    assert "Long and even" in client.get("/desk").text
    found = client.get("/desk", params={"words": "rope skip"}).text
    assert "Winter hall 4" in found and "Long and even" not in found
    assert "No session has all these words" in client.get("/desk", params={"words": "100%_"}).text
    assert "At home" in client.get("/desk", params={"words": "growing hold never 28:00"}).text
    assert client.post("/desk/3/copy").url.path == "/desk/5"
    assert client.get("/desk").text.count("Long and even</a>") == 2
    client.post("/desk/5/away")
    client.post("/desk/3/away")
    assert "Long and even" not in client.get("/desk").text
    assert "Long and even" in client.get("/desk", params={"away": True}).text
    client.post("/desk/3/bring-back")
    assert "Long and even" in client.get("/desk").text


def test_a_session_begins_from_a_shape_or_a_board(client: TestClient) -> None:
    page = client.get("/desk").text
    assert page.count("all out, full rest") == 1
    made = client.post("/desk", data={"text": "title: New\nwarm-up 5:00"})
    assert "New" in made.text and "5:00" in made.text
    empty = client.post("/desk").text
    assert "Start from a shape" in empty and "Nothing on the clock yet" in empty
    asked = client.post(
        "/desk/board", data={"text": "3 rounds 40 on 20 off\n- squat\n\n5 x 5 deadlift"}
    )
    assert "1 question about it" in asked.text and "5 sets of 5 reps, rest 3:00" in asked.text
    assert "3 rounds of 40/20" in asked.text and "# 5 x 5 deadlift" in asked.text
    whole = client.post("/desk/board", data={"text": "3 rounds 40 on 20 off\n- squat"})
    assert "3 rounds of 40/20" in whole.text and 'id="desk"' in whole.text
    dropped = client.post("/desk/board", files={"file": ("x.slate", b"warm-up 7:00 at 3")})
    assert "7:00" in dropped.text


def test_files_that_are_none_are_refused_in_words(client: TestClient) -> None:
    for raw, said in (
        (b"\xff\xfe\x00r", "not UTF-8"),
        (b"x" * 300_000, "256 KiB"),
        (b"  ", "nothing in it"),
    ):
        refused = client.post("/desk/board", files={"file": ("x", raw)})
        assert refused.status_code == 409 and said in refused.text
    huge = client.post(
        f"/desk/{WINTER}/text",
        data={"text": "x" * 2_000_000, "base": "1"},
        headers={"x-lovrit": "1"},
    )
    assert huge.status_code == 413 and "too much at once" in huge.text
    long = client.post(
        f"/desk/{WINTER}/text", data={"text": "x" * 70_000, "base": "1"}, headers={"x-lovrit": "1"}
    )
    assert (
        long.status_code == 200
        and "longer than 64 KiB" in long.text
        and "goblet squat" in long.text
    )


def test_revisions_are_kept_compared_and_taken_back(client: TestClient) -> None:
    client.post(f"/desk/{WINTER}/revisions", data={"reason": "before the hall was cut"})
    before = client.get(f"/desk/{WINTER}/session.slate").text
    shorter = before.replace("3 rounds of 40/20", "2 rounds of 40/20")
    client.post(f"/desk/{WINTER}/text", data={"text": shorter, "base": "1"})
    page = client.get(f"/desk/{WINTER}/revisions").text
    assert "before the hall was cut" in page and "changed" in page
    assert re.search(r"in all <b>42:20</b> → <b>34:40</b>", page)
    client.post(f"/desk/{WINTER}/revisions/1/take")
    assert client.get(f"/desk/{WINTER}/session.slate").text == before
    client.post(f"/desk/{WINTER}/undo")
    assert client.get(f"/desk/{WINTER}/session.slate").text == shorter
    assert client.get("/desk/3/revisions", params={"left": 1}).status_code == 404


def test_every_form_is_downloaded(client: TestClient) -> None:
    for form in ("slate", "json", "csv", "vtt", "md", "card", "sheet"):
        assert client.get(f"/desk/{WINTER}/session.{form}").status_code == 200
    assert "Which day is it on?" in client.get(f"/desk/{WINTER}/session.ics").text
    assert "is no day" in client.get(f"/desk/{WINTER}/session.ics?day=30.11.").text
    assert "DTSTART" in client.get(f"/desk/{WINTER}/session.ics?day=2026-11-30").text
    assert client.get(f"/desk/{WINTER}/session.pdf").status_code == 404
