"""People and the first hour of a club of one's own."""

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from lovrit.house.erased import AFTER_MS
from lovrit.settings import Settings
from lovrit.web.app import create_app
from lovrit.web.settle import settle
from tests.conftest import Clock
from tests.web.test_one_story import on_floor
from tests.web.test_pages import happen, ready

SESSION = "title: First\npeople: 9\n\n3 rounds of 40/20 at 7\n  squat\n  row\n  plank\n"


@pytest.fixture
def empty(tmp_path: Path, clock: Clock) -> TestClient:
    app = create_app(Settings(data=tmp_path), ready(tmp_path / "club.sqlite", filled=False), clock)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        client.house = app.state.house
        yield client


def test_an_empty_club_opens_on_three_ways_to_begin_and_goes_on(empty: TestClient) -> None:
    first = empty.get("/").text
    assert all(one in first for one in ("Paste a message", "session of the rack", "sample evening"))
    said = {"name": "Reed Club", "zone": "Europe/Paris", "defibrillator": "left of the door"}
    kept = empty.post("/club/about", data=said | {"to": "/"})
    assert "Reed Club" in kept.text and empty.house.zone == "Europe/Paris"
    assert empty.post("/club/about", data={"zone": "Paris"}).status_code == 409
    assert empty.house.zone == "Europe/Paris"
    empty.post("/people", data={"text": "Ben, Carla, Dora"})
    assert "3 here" in empty.get("/first").text
    session = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    assert f"/desk/{session}" in empty.get("/").text
    class_id = empty.post(f"/desk/{session}/floor").url.path.rsplit("/", 1)[1]
    page = empty.get(f"/run/{class_id}").text
    assert "groups go by letter" in page and "left of the door" in page and "Ben" in page
    assert (
        "0 came" in empty.get(f"/debrief/{class_id}").text
        or "never started" in empty.get(f"/debrief/{class_id}").text
    )


def test_lists_are_taken_shown_first_where_in_doubt_and_never_twice(empty: TestClient) -> None:
    doubtful = empty.post("/people", data={"text": "Ben\nBen and Carla\nDora"})
    assert "two people?" in doubtful.text and "Ben and Carla" in doubtful.text
    assert "Nobody yet" in empty.get("/people").text
    sure = empty.post("/people", data={"text": "Ben\nBen and Carla\nDora", "sure": "true"})
    assert "2 people came in" in sure.text
    again = empty.post("/people", data={"text": "ben\nEd"})
    assert "Here already" in again.text and "Ed" in again.text
    file = {"file": ("club.csv", "\ufeffName;Age;Rest\nFay;41;58\n".encode(), "text/csv")}
    assert "1 person came in" in empty.post("/people", files=file).text
    assert "Fay,1986,58," in empty.get("/people.csv").text


def test_a_row_is_changed_in_place_and_a_figure_that_cannot_be_stays_as_typed(
    empty: TestClient,
) -> None:
    empty.post("/people", data={"text": "Ben, Carla"})
    row = {"name": "Ben K", "age": "34", "rest_hr": "", "max_hr": "", "mind": "knee"}
    hx = {"hx-request": "1"}
    assert 'value="Ben K"' in empty.post("/people/1", data=row, headers=hx).text
    wrong = empty.post("/people/1", data=row | {"rest_hr": "fast"}, headers=hx)
    assert "is not a resting heart rate" in wrong.text and 'value="fast"' in wrong.text
    taken = empty.post("/people/1", data=row | {"name": "carla"}, headers=hx)
    assert "has this name already" in taken.text
    turned = empty.post("/people/1", data=row | {"rest_hr": "100", "max_hr": "110"}, headers=hx)
    assert "turned round" in turned.text
    shown = empty.get("/people").text
    assert 'placeholder="184"' in shown and 'placeholder="62"' in shown  # from age, and a usual one


def test_who_is_let_go_can_come_back_for_an_hour_and_is_then_erased(
    empty: TestClient, clock: Clock
) -> None:
    empty.post("/people", data={"text": "Ben, Carla"})
    session = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    assert "2</b> people" in empty.post(f"/crew/{session}/who/all").text
    class_id = empty.post(f"/desk/{session}/floor").url.path.rsplit("/", 1)[1]
    empty.post("/people/1/let-go")
    assert "1</b> people" in empty.get(f"/crew/{session}").text
    empty.post("/people/1/back")
    assert "2</b> people" in empty.get(f"/crew/{session}").text
    empty.post("/people/1/let-go")
    clock.on(AFTER_MS / 1000 + 1)
    settle(empty.house)
    assert empty.post("/people/1/back").status_code == 404
    empty.app.state.floor.lives.clear()
    page = empty.get(f"/run/{class_id}").text
    assert "Ben" not in page and "somebody" in page and "Carla" in page


def test_who_comes_in_one_press_or_by_a_row_of_names(empty: TestClient) -> None:
    first = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    assert "Add people" in empty.get(f"/crew/{first}").text
    assert "bring people in first" in empty.post(f"/crew/{first}/deal", data={"groups": 3}).text
    empty.post("/people", data={"text": "Ann, Ben, Carla, Dora, Ed, Fay"})
    assert "3 twos" in empty.post(f"/crew/{first}/deal", data={"groups": 3}).text
    second = empty.post("/desk", data={"text": SESSION}).url.path.rsplit("/", 1)[1]
    assert "0</b> people" in empty.get(f"/crew/{second}").text
    assert "3 twos" in empty.post(f"/crew/{second}/who/last").text
    empty.post(f"/crew/{second}/who/none")
    joined = empty.post(f"/crew/{second}/join", data={"name": "ben, Gil, Hana"}).text
    assert "3</b> people" in joined and empty.get("/people.csv").text.count("Ben") == 1
    refused = empty.post(f"/crew/{second}/join", data={"name": "Gil and Ann"})
    assert refused.status_code == 409 and "two people?" in refused.text


def test_one_person_is_told_whole_to_the_coach_and_to_nobody_else(client: TestClient) -> None:
    said = {"standing": "back", "since": "2026-11-20", "limits": ["floor"], "cleared": "not yet"}
    call = {"contact": "Rowan, 555 0192"}
    kept = client.post("/people/1/stands", data=said | call | {"until": "2999-01-01"})
    assert "555 0192" in kept.text and 'value="2999-01-01"' in kept.text
    refused = client.post("/people/1/stands", data=said | call | {"until": "soon"})
    assert (
        refused.status_code == 422
        and "is no day" in refused.text
        and 'value="soon"' in refused.text
    )
    held = client.get("/people/1/all.json").json()
    assert held["person"]["limits"] == ["floor"] and held["person"]["cleared"] == "not yet"
    session = client.get("/crew").url.path.rsplit("/", 1)[1]
    run = client.post(f"/desk/{session}/floor").url.path
    number = run.rsplit("/", 1)[1]
    coach = client.get(run).text
    assert "Whom to call" in coach and "Not cleared for hard work yet: Anouk K" in coach
    elsewhere = (
        f"/wall/{number}", f"{run}/cards", f"{run}/sheets", f"{run}/screens", f"/debrief/{number}",
        f"/crew/{session}", f"/crew/{session}/fit", "/people.csv",
    )  # fmt: skip
    assert not any("555 0192" in client.get(path).text for path in elsewhere)
    client.post(
        "/people/1/stands", data=said | {"until": "2026-01-01"}
    )  # what was until then is over
    assert client.get("/people/1/all.json").json()["person"]["limits"] == []
    client.post(f"/crew/{session}/fit", data={"do": "harder", "person": 1, "station": 0})
    assert "goblet squat, 12 kg" in client.get("/people/1").text.replace("\n", "")
    client.post("/people/1/forget", data={"move": "goblet squat"})
    assert "goes by its rule" in client.get("/people/1").text


def test_with_whom_somebody_goes_and_how_much_of_the_hard_work_is_theirs(
    client: TestClient,
) -> None:
    everyone = people_of(client)
    one, other = everyone[0], everyone[1]
    said = {
        "together": other["name"],
        "apart": "",
        "level": "2",
        "share": "second",
        "threshold": "158",
        "bests": "deadlift 100, back squat 82,5 kg",
    }
    client.post(f"/people/{one['id']}/goes", data=said)
    kept = client.get(f"/people/{one['id']}/all.json").json()["person"]
    assert kept["together"] == [other["id"]] and kept["share"] == "second"
    assert (kept["level"], kept["threshold_hr"]) == (2, 158)
    assert kept["bests"] == {"deadlift": 100, "back squat": 82.5}
    for field, typed in (
        ("level", "9"),
        ("together", "Nobody Known"),
        ("threshold", "12"),
        ("bests", "deadlift"),
    ):
        answer = client.post(f"/people/{one['id']}/goes", data=said | {field: typed})
        assert answer.status_code == 422 and typed in answer.text  # and what was typed stays
    assert client.get(f"/people/{one['id']}/all.json").json()["person"] == kept
    coach = client.get("/crew/4/fit").text
    assert "every second hard turn" in coach and "all of it</button>" in coach


def people_of(client: TestClient) -> list[dict[str, object]]:
    found = []
    for number in range(1, 30):
        answer = client.get(f"/people/{number}/all.json")
        if answer.status_code == 200:
            found.append(answer.json()["person"])
    return found


def test_what_somebody_can_do_stands_on_their_page_and_is_kept_by_a_press(
    client: TestClient, clock: Clock
) -> None:
    slate = (
        "title: Lift\n\n3 sets of 5 reps, rest 1:00, at 7\n  back squat\n\n800 m for time\n  run\n"
    )
    for days, kilos, time in ((0, "60", "3:20"), (7, "65", "3:12")):
        number = client.post("/desk", data={"text": slate}).url.path.rsplit("/", 1)[1]
        client.post(f"/crew/{number}/place", data={"person": 1, "group": 0})
        class_id = on_floor(client, number)
        happen(client, class_id, "start")
        clock.on(900)
        happen(client, class_id, "end")
        for block, said in ((0, f"{kilos} kg x 5"), (1, time)):
            fields = {"op": f"{days}-{block}", "block": block, "person": 1, "text": said}
            assert client.post(f"/debrief/{class_id}/score", data=fields).status_code == 200
        clock.on(7 * 86_400)
    client.get("/debrief")  # records are worked out
    page = client.get("/people/1").text
    assert "75.8 kg, lifted once" in page and "two evenings" in page
    assert "keep 76 kg as their best" in page and "24.5 s for 100 m" in page
    client.post("/people/1/can", data={"what": "best", "move": "back squat"})
    client.post("/people/1/can", data={"what": "pace", "move": "run"})
    page = client.get("/people/1").text
    assert "lifts once back squat 76 kg; 24 s for 100 m on foot" in page and "keep 76" not in page
    again = client.post("/people/1/can", data={"what": "best", "move": "swing"})
    assert again.status_code == 422 or "look again" in again.text


def test_what_somebody_does_in_one_go_is_kept_and_felt_on_every_page(
    client: TestClient, clock: Clock
) -> None:
    text = "title: Test\n\n3 rounds for quality, rest 2:00\n  max push-up\n"
    number = client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1]
    client.post(f"/crew/{number}/place", data={"person": 1, "group": 0})
    class_id = on_floor(client, number)
    happen(client, class_id, "start")
    clock.on(900)
    happen(client, class_id, "end")
    fields = {"op": "most", "block": 0, "person": 1, "text": "9 8 6"}
    assert client.post(f"/debrief/{class_id}/score", data=fields).status_code == 200
    client.get("/debrief")
    assert "keep 9 as what they do in one go" in client.get("/people/1").text
    client.post("/people/1/can", data={"what": "most", "move": "push up"})
    page = client.get("/people/1").text
    assert "does in one go 9 push-up" in page and "keep 9" not in page

    again = "title: Again\n\n1 round for quality\n  max push-up\n\namrap 8:00\n  12 push-up\n  9 squat\n"
    number = client.post("/desk", data={"text": again}).url.path.rsplit("/", 1)[1]
    client.post(f"/crew/{number}/place", data={"person": 1, "group": 0})
    offered = client.get(f"/crew/{number}/rises").text
    assert "at most 9 in one go" in offered and "push-up on knees from now on" in offered
    class_id = on_floor(client, number)
    assert "max push-up (9 so far)" in client.get(f"/run/{class_id}/cards").text
    client.post(f"/crew/{number}/rise", data={"person": 1, "station": 0, "at": 1})
    assert "at most 9" not in client.get(f"/crew/{number}/rises").text
    assert "push-up on knees" in client.get(f"/crew/{number}/fit").text

    assert "as people here do" not in client.get("/moves/push-up").text
    for person, most in ((2, "push-up 30"), (3, "push-up 34 reps, plank 80 s")):
        client.post(f"/people/{person}/goes", data={"mosts": most})
    assert "does in one go 34 push-up, 80 s plank" in client.get("/people/3").text
    move = client.get("/moves/push-up").text
    assert "about <b>30</b> in one go fresh, as people here do" in move
    refused = client.post("/people/3/goes", data={"mosts": "push-up many"})
    assert refused.status_code == 422 and "push-up many" in refused.text


def test_a_year_of_somebody_stands_on_one_page(client: TestClient, clock: Clock) -> None:
    text = "title: Weekly\n\n3 rounds of 40/20 at 6\n  squat\n"
    for week in range(5):
        number = client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1]
        for person in (1, 2) if week != 2 else (2,):
            client.post(f"/crew/{number}/place", data={"person": person, "group": 0})
        class_id = on_floor(client, number)
        happen(client, class_id, "start")
        if week == 4:
            happen(client, class_id, "stops", person="1")
        clock.on(100)
        happen(client, class_id, "end")
        happen(client, class_id, "felt", person="1", value=8)
        clock.on(7 * 86_400)
    client.get("/debrief")
    page = client.get("/people/1/progress").text
    assert "came to 4 of 5 classes" in page and "felt 2 above what was asked" in page
    assert "stopped early once" in page and page.count('<rect class="came"') == 4
    assert "wasn’t there" in page and "felt 8 of 6 asked, stopped early" in page
    assert client.get("/people/9/progress").text.count("<rect") == 0
