"""Members by their own links: I come and I can't, a guest, an evening alone, all that is kept, and let me go."""

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from lovrit.house.mine import own_link
from lovrit.settings import Settings
from lovrit.store import people
from lovrit.store.erase import erase_gone
from lovrit.web.app import create_app
from tests.conftest import Clock, ready

WINTER, MARA, ULLA, CILLA = 4, 13, 19, 3
SECRETS = ("heart medicine", "starts too fast", "knee", "Jonas", "Cilla", "Emrys")  # of others


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    app = create_app(Settings(data=tmp_path), ready(tmp_path / "club.sqlite"), clock)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        client.post(f"/tonight/{WINTER}/day", data={"day": "today"})
        today = app.state.house.today
        client.post("/weeks/see", data={"at": today, "until": today})
        yield client


def link_of(client: TestClient, person: int) -> str:
    house = client.app.state.house  # type: ignore[attr-defined]
    with house.database.work() as work:
        return own_link(house, work, person)


def test_who_says_that_they_come_stands_on_tonight_and_who_and_is_taken_over(
    house: TestClient,
) -> None:
    mara, ulla = link_of(house, MARA), link_of(house, ULLA)
    house.post(
        f"{mara}/answer", data={"session": WINTER, "comes": "false", "word": "  night shift "}
    )
    page = house.post(f"{ulla}/answer", data={"session": WINTER, "comes": "true"}).text
    assert "You said that you come." in page
    first = house.get("/").text
    assert "1</b> said they come, <b>1</b> can’t" in first
    assert "Mara can’t come after all: “night shift”." in first and "Ulla said they come" in first
    assert "night shift" in house.get(f"/crew/{WINTER}").text
    house.post(f"/crew/{WINTER}/answers/in")
    house.post(f"/crew/{WINTER}/answers/out", data={"to": "tonight"})
    with house.app.state.house.database.work() as work:  # type: ignore[attr-defined]
        down = {one.id for one, _ in people.comers(work, WINTER)}
    assert ULLA in down and MARA not in down
    assert (
        "to decide" not in house.get("/").text or "can’t come after all" not in house.get("/").text
    )


def test_an_answer_is_for_its_day_and_is_asked_again_where_that_moved(house: TestClient) -> None:
    mara = link_of(house, MARA)
    house.post(f"{mara}/answer", data={"session": WINTER, "comes": "true"})
    assert "You said that you come." in house.get(mara).text
    house.post(f"/tonight/{WINTER}/day", data={"day": "tomorrow"})
    assert "said they come" not in house.get("/").text


def test_a_link_shows_nothing_of_anybody_else_and_ends(house: TestClient) -> None:
    mara = link_of(house, MARA)
    page = house.get(mara).text
    assert "Mara" in page and not [one for one in SECRETS if one in page]
    assert house.get(f"{mara}x").status_code == 404
    assert "Mara" in house.get(f"{mara}/all.json").text
    house.post(f"/people/{MARA}/link")
    gone = house.get(mara)
    assert gone.status_code == 404 and "has ended" in gone.text
    for addressed in (mara, "/see/nobody", "/hand/nobody", f"{mara}/own/{WINTER}"):
        said = house.get(addressed).text
        assert "your coach" in said
        assert 'class="frame"' not in said and 'class="press" href' not in said
    assert house.get(link_of(house, MARA)).status_code == 200
    assert (
        house.post(f"{mara}/answer", data={"session": WINTER, "comes": "true"}).status_code == 404
    )


def test_a_guest_writes_a_name_and_the_coach_decides(house: TestClient) -> None:
    see = re.search(r"/see/[^\"/]+", house.get("/weeks").text)
    assert see
    asked = house.post(
        f"{see[0]}/come", data={"session": WINTER, "name": "  Rika <b> ", "word": "first time"}
    )
    assert "the coach knows" in asked.text
    house.post(f"{see[0]}/come", data={"session": WINTER, "name": "Rika <b>"})
    assert house.post(f"{see[0]}/come", data={"session": WINTER, "name": "   "}).status_code == 409
    first = house.get("/").text
    assert first.count("Rika &lt;b&gt; wants to come") == 1
    number = re.search(r'name="answer" value="(\d+)"', first)
    assert number
    house.post(f"/crew/{WINTER}/answers/guest", data={"answer": number[1], "to": "tonight"})
    with house.app.state.house.database.work() as work:  # type: ignore[attr-defined]
        here = {one.name: one.standing for one, _ in people.comers(work, WINTER)}
    assert here["Rika <b>"] == "new"
    assert "for the first time" not in house.get("/").text or "Rika" in house.get("/").text


def own(key: str = "a-phone-of-mine", **more: Any) -> dict[str, Any]:
    told = {"key": key, "session": WINTER, "at_ms": 1_800_000_000_000, "lasted_s": 2540, "felt": 7}
    return {
        **told,
        "scores": [[3, "6 of 6"]],
        "word": "windy",
        "laps": [[1, "work", 40.0]],
        **more,
    }


def test_an_evening_alone_counts_once_and_is_told_apart_from_classes(house: TestClient) -> None:
    mara = link_of(house, MARA)
    page = house.get(f"{mara}/own/{WINTER}").text
    assert "On my own" in page and "Nothing all-out alone" in page
    for _ in range(2):
        assert house.post(f"{mara}/own", json=own()).json() == {"kept": True}
    mine = house.get(mara).text
    assert mine.count("windy") == 1 and "alone" in mine
    assert "windy" in house.get(f"/people/{MARA}").text
    assert "windy" in house.get(f"{mara}/all.json").text
    assert "No class has been run yet" in house.get("/debrief").text
    assert house.post(f"{mara}/own", json=own(lasted_s=10**9)).status_code == 422
    assert house.post(f"{mara}/own", json=own("another-phone", session=99)).status_code == 404


def test_the_same_done_again_alone_is_laid_beside_its_like_only(
    house: TestClient, clock: Clock
) -> None:
    mara, day = link_of(house, MARA), 86_400_000
    for nth in range(2):
        clock.on(86_400)
        told = own(f"evening-{nth}", at_ms=clock.ms, scores=[[3, f"{5 + nth} of 6"]])
        house.post(f"{mara}/own", json=told)
    house.post(f"{mara}/own", json=own("at-home", home=True, at_ms=clock.ms + day))
    series = house.get(mara).text.partition("What changed")[2].partition("What I did")[0]
    assert "alone" in series and "5 of 6" in series and series.count("of 6") == 2


def test_let_me_go_and_stay_after_all(house: TestClient, clock: Clock) -> None:
    mara = link_of(house, MARA)
    house.post(f"{mara}/own", json=own())
    assert "erased within the hour" in house.post(f"{mara}/go").text
    assert "Mara" not in house.get(f"/crew/{WINTER}").text
    house.post(f"{mara}/go", data={"stay": "true"})
    assert "Mara" in house.get(f"/crew/{WINTER}").text
    house.post(f"{mara}/go")
    clock.on(3700)
    with house.app.state.house.database.writing() as work:  # type: ignore[attr-defined]
        assert erase_gone(work, clock.ms - 3_600_000) == 1
    assert house.get(mara).status_code == 404


def test_links_into_a_class_end_a_day_after_it(house: TestClient, clock: Clock) -> None:
    class_id = int(house.post(f"/desk/{WINTER}/floor").url.path.rsplit("/", 1)[1])
    screens = house.get(f"/run/{class_id}/screens").text
    hand, wall = (
        re.search(rf"http://[^\"]+(/{kind}/[^\"]+)", screens) for kind in ("hand", "screen")
    )
    assert hand and wall
    for nth, kind in enumerate(("start", "end")):
        house.post(f"/run/{class_id}/happen", json={"id": kind, "kind": kind, "at_ms": clock.ms})
        clock.on(60 * (1 - nth))
    house.app.state.floor.tick(clock.ms)  # type: ignore[attr-defined]
    clock.on(20 * 3600)
    assert [house.get(one[1]).status_code for one in (hand, wall)] == [200, 200]
    clock.on(5 * 3600)
    for one in (hand, wall):
        gone = house.get(one[1])
        assert gone.status_code == 404 and "a day after its class" in gone.text
