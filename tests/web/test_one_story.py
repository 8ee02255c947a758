"""One fact, one story: a limit, who comes, who was there, a class that was none, on every page that tells of them."""

import html
import json
import re
from typing import Any

from fastapi.testclient import TestClient

from lovrit.house.signed import link
from tests.conftest import Clock
from tests.web.test_pages import happen

FLOOR = "warm-up 6:00 at 3\n  easy laps\n\n3 rounds of 40/20, break 2:00, at 7\n  bench step-up\n  plank\n"
LIMITED = 3


def text_of(page: str) -> str:
    plain = re.sub(r"<[^>]+>", " ", re.sub(r'src="data:[^"]*"', "", page))
    return " ".join(html.unescape(plain).split())


def session(client: TestClient, text: str = FLOOR, people: int = 4) -> str:
    at = client.post("/desk", data={"text": text}, follow_redirects=False).headers["location"]
    number = at.rsplit("/", 1)[1]
    for who in range(1, people + 1):
        client.post(f"/crew/{number}/place", data={"person": who, "group": (who - 1) % 2})
    return number


def on_floor(client: TestClient, number: str) -> int:
    made = client.post(f"/desk/{number}/floor", data={"anew": "true"}, follow_redirects=False)
    return int(made.headers["location"].rsplit("/", 1)[1])


def own_page(client: TestClient, class_id: int, person: int) -> tuple[str, dict[str, Any]]:
    page = client.get(link(client.app_state.house, "hand", class_id, person)).text
    return page, json.loads(re.search(r'id="state">(.*?)</script>', page)[1])


def test_a_limit_is_the_same_on_sheet_card_and_own_page(client: TestClient) -> None:
    limits = {"standing": "usual", "limits": ["jumps", "depth", "floor"]}
    client.post(f"/people/{LIMITED}/stands", data=limits)
    number = session(client)
    class_id = on_floor(client, number)
    sheet = client.get(f"/crew/{number}/fit").text
    cells = re.findall(rf'data-cell="{LIMITED}-\d".*?</button>', sheet, re.DOTALL)
    does = [re.search(r">([^<>]+)<small>", one)[1].strip() for one in cells]
    assert len(does) == 2 and "plank" not in does
    cards = client.get(f"/run/{class_id}/cards").text
    mine = text_of(cards.split("Cilla</h2>")[1])
    _, state = own_page(client, class_id, LIMITED)
    told = {
        said
        for rows in state["rows"]
        for row in rows
        for what in row["what"]
        for said in [what["does"]]
    }
    for said in does:
        assert said in mine, mine
        assert any(said in one for one in told), told


def test_a_refused_day_loses_no_limit(client: TestClient) -> None:
    typed = {
        "standing": "back", "since": "31.2.", "limits": ["jumps", "depth"], "cleared": "not yet",
        "contact": "Ada, 0151",
    }  # fmt: skip
    answer = client.post("/people/5/stands", data=typed)
    assert answer.status_code == 422 and "no such day" in answer.text
    shown = re.findall(r'name="(limits|standing|cleared)" value="([^"]*)" checked', answer.text)
    assert sorted(shown) == [
        ("cleared", "not yet"), ("limits", "depth"), ("limits", "jumps"), ("standing", "back"),
    ]  # fmt: skip
    assert 'value="31.2."' in answer.text and "Ada, 0151" in answer.text
    client.post("/people/5/stands", data=typed | {"since": "1.4.2025", "until": "24 Dec 2099"})
    kept = client.get("/people/5").text
    assert 'value="2025-04-01"' in kept and 'value="2099-12-24"' in kept
    refused = client.post(
        "/people/5/goes", data={"share": "easy", "level": "9", "measured": "step test"}
    )
    assert re.search(r'value="easy" selected', refused.text) and 'value="step test"' in refused.text


def test_what_nobody_knows_is_chosen_and_taking_over_marks_nobody(client: TestClient) -> None:
    client.post(
        f"/people/{LIMITED}/stands", data={"limits": ["jumps", "depth", "floor", "overhead"]}
    )
    number = session(client, "2 rounds of 40/20 at 7\n  overhead zorb\n  squat\n")
    sheet = client.get(f"/crew/{number}/fit").text
    assert "1 to choose" in sheet
    same = {"person": LIMITED, "station": 0, "do": "all"}
    client.post(f"/crew/{number}/fit", data=same)
    assert 'title="as chosen"' not in client.get(f"/crew/{number}/fit").text
    offered = re.search(rf'id="choose-{LIMITED}-0".*?</select>', sheet, re.DOTALL)[0]
    name = re.findall(r"<option>([^<]+)", offered)[0]
    client.post(f"/crew/{number}/fit", data=same | {"do": "choose", "move": name})
    sheet = client.get(f"/crew/{number}/fit").text
    assert "to choose" not in sheet and name in text_of(sheet)


def test_who_comes_arrives_until_the_class_begins(client: TestClient, clock: Clock) -> None:
    number = session(client)
    class_id = on_floor(client, number)
    client.post(f"/crew/{number}/place", data={"person": 9, "group": 1})
    client.post(f"/crew/{number}/place", data={"person": 1, "group": -1})
    client.post("/people/9/stands", data={"limits": ["overhead"]})
    page = client.get(f"/run/{class_id}").text
    assert 'data-person="9"' in page and 'dl class="people"' in page
    assert not re.search(r'<span data-person="1"', page)
    client.post(f"/crew/{number}/place", data={"person": 10, "group": 0})
    happen(client, class_id, "start")
    clock.on(10)
    _, state = own_page(client, class_id, 10)
    assert state["mine"]["group"] == "A" and state["phase"] == "on"


def test_a_class_that_never_began_is_discarded_and_comes_back(client: TestClient) -> None:
    class_id = on_floor(client, session(client))
    assert f"/debrief/{class_id}/away" in client.get(f"/run/{class_id}").text
    client.post(f"/debrief/{class_id}/away")
    assert client.get("/run", follow_redirects=False).status_code == 200
    assert f"/debrief/{class_id}/back" in client.get("/debrief").text
    client.post(f"/debrief/{class_id}/back")
    assert client.get("/run", follow_redirects=False).headers["location"] == f"/run/{class_id}"


def test_who_was_not_there_counts_nowhere_until_they_were(client: TestClient, clock: Clock) -> None:
    class_id = on_floor(client, session(client))
    happen(client, class_id, "start")
    clock.on(400)
    happen(client, class_id, "felt", person=2, value=9)
    happen(client, class_id, "end")
    assert "4 came" in text_of(client.get(f"/debrief/{class_id}").text)
    theirs = f'href="/debrief/{class_id}?person=2"'
    assert theirs in client.get("/people/2").text
    client.post(f"/debrief/{class_id}/absent", data={"op": "gone", "person": 2})
    page = client.get(f"/debrief/{class_id}").text
    assert "3 came" in text_of(page) and "effort felt" not in text_of(page)
    assert "Bodo O was there after all" in text_of(page)
    assert theirs not in client.get("/people/2").text
    client.post(f"/debrief/{class_id}/there", data={"op": "back", "of": "gone"})
    assert "4 came" in text_of(client.get(f"/debrief/{class_id}").text)
    assert theirs in client.get("/people/2").text


def test_a_class_that_is_put_away_counts_nowhere(client: TestClient, clock: Clock) -> None:
    number = session(client, "title: Zebra\n\n" + FLOOR)
    class_id = on_floor(client, number)
    happen(client, class_id, "start")
    clock.on(400)
    happen(client, class_id, "end")
    assert "Zebra" in client.get("/debrief?words=zebra").text.split('id="words"')[1]
    client.post(f"/debrief/{class_id}/away")
    assert "No class has all" in client.get("/debrief?words=zebra").text
    assert f'href="/debrief/{class_id}?person=1"' not in client.get("/people/1").text


def dated(client: TestClient, day: str, title: str = "Zebra") -> str:
    number = session(client, f"title: {title}\n\n{FLOOR}")
    client.post("/weeks/put", data={"session": number, "day": day})
    return number


def test_on_a_day_off_there_is_nothing(client: TestClient) -> None:
    number = dated(client, "2027-03-04")
    client.post("/weeks/see", data={"at": "2027-03-01", "until": "2027-03-07"})
    client.post("/weeks/off", data={"day": "4.3.2027"})
    refused = client.post("/weeks/put", data={"session": number, "day": "2027-03-04"})
    assert refused.status_code == 409 and "Thursday 4 March is a day off" in html.unescape(
        refused.text
    )
    client.post("/weeks/see", data={"at": "2027-03-01", "until": "2027-03-07"})
    seen = client.get(see_link(client)).text
    assert "called off" in seen or "Zebra" not in text_of(seen)
    other = dated(client, "2027-02-25", "Series")
    client.post("/weeks/series", data={"session": other, "weeks": 3})
    days = re.findall(
        r'data-day="(2027-0[23]-\d\d)" aria-label="Series',
        client.get("/weeks?from=2027-02-22&weeks=4").text,
    )
    assert days == ["2027-02-25", "2027-03-11", "2027-03-18"]


def see_link(client: TestClient) -> str:
    page = client.get("/weeks?from=2027-03-01").text
    return re.search(r'(/see/[^"<\s]+)', page)[1]


def test_a_stale_board_takes_nothing_from_another_coach(client: TestClient) -> None:
    number = dated(client, "2027-03-04")
    client.post("/weeks/move", data={"session": number, "day": "2027-03-05", "was": "2027-03-04"})
    stale = client.post(
        "/weeks/move", data={"session": number, "day": "2027-03-02", "was": "2027-03-04"}
    )
    assert stale.status_code == 409 and "it is on Friday 5 March" in html.unescape(stale.text)
    seen = int(re.search(r'name="seen" value="(\d+)"', client.get("/weeks").text)[1])
    client.post("/weeks/theme", data={"monday": "2027-03-01", "text": "quiet landings"})
    assert client.post("/weeks/undo", data={"seen": seen}).status_code == 409
    assert "quiet landings" in client.get("/weeks?from=2027-03-01").text


def test_a_week_counts_what_was_done(client: TestClient, clock: Clock) -> None:
    day = f"{client.app_state.house.today}"
    number = session(client, f"title: Zebra\ndate: {day}\n\n" + FLOOR.replace("at 7", "at 9"))
    board = f"/weeks?from={day}"
    assert re.search(r"\b[3-9] hard|1\d hard", client.get(board).text)
    planned = re.search(r"<b>(\d+)</b> hard", client.get(board).text)
    for _ in range(3):
        class_id = on_floor(client, number)
        happen(client, class_id, "start")
        clock.on(6)
        happen(client, class_id, "end")
    client.get("/debrief?words=zebra")
    after = re.search(r"<b>(\d+)</b> hard", client.get(board).text)
    assert after is None or planned is None or int(after[1]) < int(planned[1])


def test_a_session_with_an_unread_line_is_listed_by_what_could_be_read(client: TestClient) -> None:
    number = session(client, "", people=0)
    text = "title: Zebra\n\nwarm-up 6:00 at 3\n\n3 runds of 40/20\n"
    client.post(f"/desk/{number}/text", data={"base": 1, "text": text})
    client.get(f"/desk/{number}")
    listed = text_of(client.get("/desk?words=zebra").text)
    assert "Zebra" in listed and "6:00" in listed and "Untitled" not in listed
