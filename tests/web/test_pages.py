"""The pages without a browser: posts, refusals, headers, streams."""

import json
import re
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from httpx import Response

from lovrit.settings import Settings
from lovrit.web.app import create_app
from lovrit.web.serve import serve
from tests.conftest import Clock, ready

SCRIPT = {"x-lovrit": "1"}
WINTER = 4


def version(page: str) -> int:
    return int(re.search(r'data-version="(\d+)"', page)[1])


def text_of(client: TestClient) -> str:
    return client.get(f"/desk/{WINTER}/session.slate").text


def post_text(client: TestClient, text: str, base: int, **more: str) -> Response:
    fields = {"text": text, "base": str(base), **more}
    return client.post(f"/desk/{WINTER}/text", data=fields, headers=SCRIPT)


def start_class(client: TestClient) -> int:
    answer = client.post(f"/desk/{WINTER}/floor", follow_redirects=False)
    return int(answer.headers["location"].rsplit("/", 1)[1])


def happen(client: TestClient, class_id: int, kind: str, **more: object) -> dict:
    body = {"id": more.pop("id", kind), "kind": kind, "at_ms": 0, **more}
    return client.post(f"/run/{class_id}/happen", json=body).json()["state"]


def test_a_text_redraws_everything_that_follows_it(client: TestClient) -> None:
    text = text_of(client).replace("3 rounds of 40/20", "2 rounds of 45/15")
    parts = post_text(client, text, 1).text
    assert "2 rounds of 45/15" in parts and 'id="readout"' in parts and "45:00" in parts
    assert version(parts) == 2
    assert text_of(client) == text


def test_a_text_that_cannot_be_read_keeps_every_character_and_the_last_picture(
    client: TestClient,
) -> None:
    bad = text_of(client).replace("3 rounds of 40/20", "3 rownds of 40/")
    parts = post_text(client, bad, 1, block="1").text
    assert text_of(client) == bad
    assert "as it last could be read" in parts and "goblet squat" in parts
    assert 'data-line="11"' in parts
    assert 'class="work group-0"' in parts
    page = client.get(f"/desk/{WINTER}").text
    assert "goblet squat" in page and "3 rownds of 40/" in page
    stopped = client.post(f"/desk/{WINTER}/floor")
    assert stopped.status_code == 409 and "Line 11" in stopped.text


def test_a_stop_keeps_it_from_the_floor_and_the_page_says_which(client: TestClient) -> None:
    text = text_of(client).replace("slot: 18:10-18:55", "slot: 20:00")
    post_text(client, text, 1)
    answer = client.post(f"/desk/{WINTER}/floor")
    assert answer.status_code == 409
    assert "20:00" in answer.text and "can’t be run" in answer.text.replace("&#39;", "’").replace(
        "'", "’"
    )


def test_edits_posts_twice_and_undo(client: TestClient) -> None:
    edit = json.dumps({"do": "set", "block": 1, "figure": "work", "value": 45})
    fields = {"edit": edit, "base": "1", "op": "one"}
    first = client.post(f"/desk/{WINTER}/edit", data=fields, headers=SCRIPT).text
    again = client.post(f"/desk/{WINTER}/edit", data=fields, headers=SCRIPT).text
    assert version(first) == version(again) == 2
    assert "3 rounds of 45/20, break 2:00, at 8    # quiet landings" in text_of(client)
    client.post(f"/desk/{WINTER}/undo", data={"op": "two"}, headers=SCRIPT)
    assert "3 rounds of 40/20" in text_of(client)
    client.post(f"/desk/{WINTER}/redo", data={}, headers=SCRIPT)
    assert "3 rounds of 45/20" in text_of(client)


def test_an_edit_while_a_line_cannot_be_read_finds_its_block(client: TestClient) -> None:
    bad = text_of(client).replace("rest 1:30", "rest maybe")
    post_text(client, bad, 1)
    edit = json.dumps({"do": "set", "block": 3, "figure": "total", "value": 480})
    client.post(f"/desk/{WINTER}/edit", data={"edit": edit, "base": "2"}, headers=SCRIPT)
    assert "every 1:00 for 8:00" in text_of(client) and "rest maybe" in text_of(client)
    lost = json.dumps({"do": "set", "block": 2, "figure": "total", "value": 60})
    refused = client.post(f"/desk/{WINTER}/edit", data={"edit": lost, "base": "3"}, headers=SCRIPT)
    assert refused.status_code == 409


def test_two_windows_write_at_once(client: TestClient) -> None:
    text = text_of(client)
    post_text(client, text.replace("warm-up 6:00", "warm-up 5:00"), 1)
    parts = post_text(client, text.replace("rest 1:30", "rest 1:00"), 1).text
    assert "warm-up 5:00" in text_of(client) and "rest 1:00" in text_of(client)
    assert 'data-collided="0"' in parts
    parts = post_text(client, text.replace("rest 1:30", "rest 0:45"), 1).text
    assert 'data-collided="1"' in parts and "at the same time: rest 1:00" in text_of(client)


def test_without_script_the_desk_still_works(client: TestClient) -> None:
    fields = {"text": "warm-up 5:00\r\nrest 1:00", "base": "1"}
    answer = client.post(f"/desk/{WINTER}/text", data=fields)
    assert answer.status_code == 200 and "<!doctype html>" in answer.text
    assert text_of(client) == "warm-up 5:00\nrest 1:00"
    assert "In all" in client.get(f"/desk/{WINTER}?why=total").text


def test_figures_explain_themselves(client: TestClient) -> None:
    assert "a break takes the place" in client.get(f"/desk/{WINTER}/why/block-1").text.replace(
        "&#39;", "'"
    )
    assert client.get(f"/desk/{WINTER}/why/nothing").status_code == 404


def test_people_are_dealt_placed_and_join(client: TestClient) -> None:
    assert "6 threes" in client.get(f"/crew/{WINTER}").text
    dealt = client.post(f"/crew/{WINTER}/deal", data={"groups": 4}).text
    assert "2 fives and 2 fours" in dealt
    assert "17" in client.post(f"/crew/{WINTER}/place", data={"person": 1, "group": -1}).text
    joined = client.post(f"/crew/{WINTER}/join", data={"name": "Zora <b>"}).text
    assert "Zora &lt;b&gt;" in joined
    assert client.post(f"/crew/{WINTER}/deal", data={"groups": 99}).status_code == 422


def test_a_class_from_start_to_debrief(client: TestClient, clock: Clock) -> None:
    class_id = start_class(client)
    floor = client.app_state.floor
    state = happen(client, class_id, "start")
    assert state["phase"] == "on" and state["moments"][0]["zero"] == clock.ms + 5000
    for _ in range(480):
        clock.on(1)
        floor.tick(clock.ms)
    happen(client, class_id, "stops", person=3)
    assert happen(client, class_id, "stops", person=3)["stopped"] == [3]
    for _ in range(60):
        clock.on(1)
        floor.tick(clock.ms)
    coach, wall = client.get(f"/run/{class_id}").text, client.get(f"/wall/{class_id}").text
    assert "bead" in coach and "Anouk" in coach
    assert "Anouk" not in wall and "bead" not in wall and "stopped" not in wall
    happen(client, class_id, "end")
    page = client.get(f"/debrief/{class_id}").text
    assert "18 came" in page and "1 stopped</b> (Cilla)" in page and "turns on one another" in page
    felt = {"op": "f", "person": "1", "value": "7,5"}
    assert client.post(f"/debrief/{class_id}/felt", data=felt).text.count("7.5") >= 1
    assert (
        client.post(
            f"/debrief/{class_id}/felt", data={**felt, "op": "g", "value": "12"}
        ).status_code
        == 409
    )
    assert "calm" in client.post(f"/debrief/{class_id}/note", data={"op": "n", "text": "calm"}).text
    rows = client.get(f"/debrief/{class_id}/traces.csv").text.splitlines()
    assert rows[0] == "person,group,time_utc,second,beats_per_minute"
    assert len(rows) - 1 == (540 - 5 + 1) * 16  # from the end of the count-in on, no second lost
    assert client.get(f"/debrief/{class_id}/session.slate").text == text_of(client)
    assert client.get(f"/debrief/{class_id}/session.json").json()["format"] == "lovrit-session"


def test_forms_sent_twice_count_once(client: TestClient) -> None:
    assert start_class(client) == start_class(client)
    client.post(f"/crew/{WINTER}/join", data={"name": "Zora"})
    again = client.post(f"/crew/{WINTER}/join", data={"name": "Zora"})
    assert again.status_code == 409 and "Zora already comes" in again.text


def test_scores_are_refused_with_their_reason_and_stay_in_their_field(client: TestClient) -> None:
    answer = client.post("/desk/1/floor", follow_redirects=False)
    class_id = int(answer.headers["location"].rsplit("/", 1)[1])
    happen(client, class_id, "start")
    happen(client, class_id, "end")
    bad = client.post(f"/debrief/{class_id}/score", data={"op": "a", "block": "1", "text": "lots"})
    assert (
        bad.status_code == 422
        and "Write rounds and reps" in bad.text
        and 'value="lots"' in bad.text
    )
    kept = client.post(f"/debrief/{class_id}/score", data={"op": "b", "block": "1", "text": "6+4"})
    assert 'value="6 + 4"' in kept.text


@pytest.mark.parametrize("second", [0, 3, 200, 371, 401, 1000, 2400, 2600])
def test_killed_at_any_second_it_goes_on_where_it_is(
    tmp_path: Path, clock: Clock, second: int
) -> None:
    settings = Settings(data=tmp_path)

    def house() -> TestClient:
        database = ready(settings.database)
        return TestClient(create_app(settings, database, clock), base_url="http://127.0.0.1")

    with house() as first:
        class_id = start_class(first)
        happen(first, class_id, "start")
        clock.on(second)
    clock.on(1)
    with house() as second_life:
        page = second_life.get(f"/run/{class_id}").text
        state = json.loads(re.search(r'id="state">(.*?)</script>', page)[1])
        whole = state["total_s"] * 1000
        expected = (second + 1) * 1000 - 5000
        assert state["phase"] == ("over" if expected >= whole else "on")
        if state["phase"] == "on":
            assert state["ends_ms"] - state["now_ms"] == whole - expected


@pytest.mark.parametrize(
    "path", ["/nothing", "/desk/99", "/run/99", "/wall/99", "/debrief/99", "/crew/99", "/desk/x"]
)
def test_unknown_addresses_get_a_page_with_a_way_on(client: TestClient, path: str) -> None:
    answer = client.get(path)
    assert answer.status_code in (404, 422)
    assert "To tonight" in answer.text and "lovrit.css" in answer.text


def test_posts_from_other_sites_are_refused(client: TestClient) -> None:
    for headers in ({"origin": "http://elsewhere.test"}, {"sec-fetch-site": "cross-site"}):
        assert client.post(f"/desk/{WINTER}/undo", headers=headers).status_code == 403
    assert client.get("/desk", headers={"host": "elsewhere.test"}).status_code == 421


def test_pages_send_a_strict_content_policy(client: TestClient) -> None:
    answer = client.get(f"/desk/{WINTER}")
    policy = answer.headers["content-security-policy"]
    assert "script-src 'self';" in policy and "unsafe" not in policy
    assert " style=" not in answer.text and "onclick" not in answer.text
    assert not re.search(r"<script(?![^>]*(src=|application/json))", answer.text)


def test_the_passphrase_is_asked_once_a_browser(tmp_path: Path, clock: Clock) -> None:
    database = ready()
    settings = Settings(data=tmp_path, host="192.0.2.1", passphrase="quiet landings")
    with TestClient(create_app(settings, database, clock), base_url="http://192.0.2.1") as client:
        asked = client.get("/desk", headers={"accept": "text/html"})
        assert "passphrase" in asked.text
        assert client.post("/run/1/happen", json={}).status_code == 401
        assert client.post("/passphrase", data={"passphrase": "loud"}).status_code == 401
        assert (
            "Winter hall 4"
            in client.post("/passphrase", data={"passphrase": "quiet landings"}).text
        )
        assert client.get("/desk").status_code == 200
        client.cookies.clear()
        client.cookies.set("lovrit-in", "forged")
        assert client.get("/clock").status_code == 401


def test_serving_says_what_is_missing(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("LOVRIT_DATA", str(tmp_path))
    assert serve("0.0.0.0", None, demo=False, fresh=False) == 2
    assert "passphrase" in capsys.readouterr().err
    monkeypatch.setattr("lovrit.web.serve.BUILT", tmp_path)
    assert serve(None, None, demo=False, fresh=False) == 2
    assert "make setup" in capsys.readouterr().err
