"""A message on the Desk: read onto the slate beside what was sent, asked about, answered, and taken off again."""

import re
from html import unescape

from fastapi.testclient import TestClient

WINTER = 4
MESSAGE = "WU 8 min\nA. Back squat 5x3 @ 80%\nAMRAP 10\n10 thrusters (40/30)\n8 burpees\nBring water, please"


def _slate(page: str) -> str:
    found = re.search(r'id="slate-now"[^>]*>(.*?)</div>', page, re.DOTALL)
    assert found
    return unescape(found[1])


def _field(page: str, name: str) -> str:
    panel = page[page.index('data-panel="message"') :]
    found = re.search(rf'name="{name}" value="([^"]*)"', panel)
    assert found
    return unescape(found[1])


def _post(client: TestClient, session: int, page: str = "", **fields: str) -> str:
    given = {name: _field(page, name) for name in ("text",)} if page else {}
    body = {**given, **fields}
    answer = client.post(f"/desk/{session}/message", data=body, headers={"x-lovrit": "1"})
    assert answer.status_code == 200
    return answer.text


def _write(client: TestClient, session: int, text: str) -> None:
    version = re.search(r'data-version="(\d+)"', client.get(f"/desk/{session}").text)
    assert version
    body = {"text": text, "base": version[1]}
    assert client.post(f"/desk/{session}/text", data=body).status_code == 200


def _new(client: TestClient) -> int:
    return int(client.post("/desk").url.path.rsplit("/", 1)[1])


def test_a_message_is_answered_press_by_press_and_taken_off(client: TestClient) -> None:
    session = _new(client)
    page = _post(client, session, text=MESSAGE)
    assert "2 questions about it" in page and "Bring water, please" in _slate(page)
    assert _slate(page).startswith("warm-up 8:00\n\n# A. Back squat 5x3 @ 80%\n")
    assert re.search(r"note: rest as needed</code><small>\d+:\d\d and rests", page)
    page = _post(client, session, page, put="1.0")
    assert "1 question about it" in page
    assert "5 sets of 3 reps, rest 2:00\n  back squat @ 80%" in _slate(page)
    page = _post(client, session, page, put="1.1")  # another answer takes the place of the first
    assert "rest 3:00" in _slate(page) and "rest 2:00" not in _slate(page)
    page = _post(client, session, page, put="2.0")
    assert "Read, line by line" in page and "10 thrusters @ 40/30 kg" in _slate(page)
    assert client.post(f"/desk/{session}/floor").url.path.startswith("/run/")
    page = _post(client, session, page, put="2.0")  # the same again asks again
    assert "1 question about it" in page and "# 10 thrusters (40/30)" in _slate(page)
    assert not _slate(_post(client, session, page, put="undo")).strip()
    undone = client.post(f"/desk/{session}/undo", headers={"x-lovrit": "1"}).text
    assert "# 10 thrusters (40/30)" in _slate(undone)


def test_what_was_written_by_hand_stays_beside_answers(client: TestClient) -> None:
    session = _new(client)
    page = _post(client, session, text=MESSAGE)
    by_hand = _slate(page).replace("warm-up 8:00", "warm-up 9:00")
    _write(client, session, by_hand)
    answered = _post(client, session, page, put="1.0")
    assert _slate(answered).count("warm-up") == 1 and "warm-up 9:00" in _slate(answered)
    assert "5 sets of 3 reps, rest 2:00" in _slate(answered)
    _write(client, session, _slate(answered).replace("rest 2:00", "rest 2:30"))
    body = {name: _field(answered, name) for name in ("text",)} | {"put": "1.1"}
    refused = client.post(f"/desk/{session}/message", data=body, headers={"x-lovrit": "1"})
    assert refused.status_code == 409 and "stays as you wrote it" in refused.text
    _write(client, session, _slate(answered))
    off = _slate(_post(client, session, answered, put="undo"))
    assert off.rstrip().endswith("warm-up 9:00") and "5 sets" not in off and "thrusters" not in off


def test_a_message_goes_behind_what_stands_there(client: TestClient) -> None:
    before = _slate(client.get(f"/desk/{WINTER}").text)
    page = _post(client, WINTER, text="title: x\n\n3 RFT\n10 burpees\n\n5x5 squat")
    assert _slate(page).startswith(before.rstrip()) and "3 rounds for time\n  10 burpees" in _slate(
        page
    )
    assert _slate(page).count("title:") == before.count("title:")


def test_a_pasted_board_opens_with_its_message_beside_it(client: TestClient) -> None:
    page = client.post("/desk/board", data={"text": MESSAGE})
    assert page.url.params["sent"] == "1" and "2 questions about it" in page.text
    session = int(page.url.path.rsplit("/", 1)[1])
    answered = _post(client, session, page.text, put="1.0")
    assert "5 sets of 3 reps, rest 2:00" in _slate(answered)
    again = client.get(
        f"/desk/{session}?sent=1"
    ).text  # opened once more, it knows what stands there
    assert "1 question about it" in again and again.count('aria-pressed="true"') == 1
    client.post(f"/desk/{session}/undo", headers={"x-lovrit": "1"})
    pressed = _post(client, session, again, put="1.1")  # after Undo it is an answer again
    assert "5 sets of 3 reps, rest 3:00" in _slate(pressed)


def test_the_message_is_read_from_outside(client: TestClient) -> None:
    made = client.post("/api/read/message", json={"text": MESSAGE}).json()
    assert [one["line"] for one in made["asked"]] == [2, 3]
    assert all(len(one["answers"]) >= 2 for one in made["asked"])
    assert made["kept"] == ["Bring water, please"]


def test_what_is_said_to_people_stands_where_they_look(client: TestClient) -> None:
    text = "note: Bring water\n\n6 x 30/30 at 8\n  note: Breathe out as you stand\n  squat\n"
    session = int(client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1])
    client.post(f"/crew/{session}/place", data={"person": 1, "group": 0})
    run = client.post(f"/desk/{session}/floor").url.path
    talk = client.get(f"{run}/talk").text
    cards = client.get(f"{run}/cards").text
    wall = client.get(run.replace("/run/", "/wall/")).text
    assert "Bring water" in talk and "Bring water" in cards
    assert "Breathe out as you stand" in cards and "Breathe out as you stand" in wall
    sheet = client.get(f"/desk/{session}/session.sheet").text
    assert "Bring water" in sheet and "Breathe out as you stand" in sheet
    assert "Breathe out as you stand" in client.get(f"/desk/{session}/session.md").text
