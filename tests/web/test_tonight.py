"""The first page as a coach finds it: what is meant, what lacks, one press each; the thread; one finder."""

import html
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from lovrit.settings import Settings
from lovrit.web.app import create_app
from tests.conftest import Clock, ready

WINTER = 4
TIGHT = """title: Tight
slot: 20:00

warm-up 6:00 at 3

3 rounds of 40/20 at 8
  goblet squat | bell 16
  ring row
"""


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    app = create_app(Settings(data=tmp_path), ready(tmp_path / "club.sqlite"), clock)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client


def steps(client: TestClient, session: int) -> dict[str, str]:
    """Each step of a session's thread with its three words."""
    told = client.get(f"/thread/{session}").text
    return dict(re.findall(r"<b>(\w+)</b> <small[^>]*>([^<]+)</small>", told))


def test_the_thread_says_of_each_step_what_it_lacks_and_follows(house: TestClient) -> None:
    made = int(house.post("/desk", data={"text": TIGHT}).url.path.rsplit("/", 1)[1])
    said = steps(house, made)
    assert list(said) == ["Write", "Who", "Where", "Floor", "After"]
    assert (
        said["Who"] == "nobody yet"
        and said["Floor"] == "not open yet"
        and said["After"] == "never run"
    )
    house.post(f"/crew/{made}/who/all")
    assert "groups" in steps(house, made)["Who"]
    house.post(f"/desk/{made}/text", data={"text": TIGHT + "zzz 9\n", "base": 1})
    assert steps(house, made)["Write"] == "1 line unread"
    house.post(f"/desk/{made}/undo")
    class_id = house.post(f"/desk/{made}/floor").url.path.rsplit("/", 1)[1]
    assert steps(house, made)["Floor"] == "ready to start"
    assert house.get(f"/run/of/{made}").url.path == f"/run/{class_id}"
    assert "never run" in house.get(f"/debrief/of/{made}").text
    for path in (f"/desk/{made}", f"/crew/{made}", f"/hall/{made}", f"/run/{class_id}"):
        page = house.get(path).text
        assert 'id="thread"' in page and "Tight" in page, path
    assert 'id="thread"' not in house.get("/people").text


def test_the_first_page_is_tonight_and_each_thing_is_mended_by_one_press(house: TestClient) -> None:
    first = house.get("/").text
    assert "It has no day yet." in first
    house.post(f"/tonight/{WINTER}/day", data={"day": "today"})
    first = house.get("/").text
    assert "Winter hall 4" in first and re.search("T(onight|oday) at 18:10", first)
    assert "Whom to watch" in first and "heart medicine: by effort" in first
    assert "bell, rings, bench, rope, band" in first
    assert re.search("Ivy</b> new", first) and re.search("Faye</b> back", first)
    house.post(f"/crew/{WINTER}/who/none")
    assert "Nobody is down for it yet." in house.get("/").text
    house.post(f"/crew/{WINTER}/who/all", data={"to": "tonight"})
    assert "Nobody is down" not in house.get("/").text
    assert "title: " in house.get(f"/desk/{WINTER}").text


def test_a_class_that_is_on_and_one_that_wants_its_scores_stand_on_the_first_page(
    house: TestClient, clock: Clock
) -> None:
    text = "title: Short\npeople: 3\n\n2 rounds for time\n  5 squat\n"
    made = int(house.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1])
    class_id = int(house.post(f"/desk/{made}/floor").url.path.rsplit("/", 1)[1])
    assert "To the ready list" in house.get("/").text
    happen = f"/run/{class_id}/happen"
    house.post(happen, json={"id": "a", "kind": "start", "at_ms": clock.ms})
    assert "To the class that is on" in house.get("/").text
    clock.on(60)
    house.post(happen, json={"id": "b", "kind": "end", "at_ms": clock.ms})
    house.app.state.floor.tick(clock.ms)  # type: ignore[attr-defined]
    first = house.get("/").text
    assert "Still to write down" in first and "1 score missing" in first
    assert f'href="/debrief/{class_id}">How was it?' in first
    assert steps(house, made)["After"] == "1 score missing"


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("winter", "Winter hall 4"), ("mara", "Mara"), ("ring ro", "ring row"), ("new sess", "new session"),
        ("straps", "heart-rate straps"), ("export zzz", "Nothing here has"), ("XYZZY", "Nothing here has"),
    ],
)  # fmt: skip
def test_the_finder_finds_by_the_beginnings_of_words(
    house: TestClient, words: str, found: str
) -> None:
    answer = house.get("/find", params={"words": words})
    assert found in answer.text and answer.status_code == 200
    part = house.get("/find", params={"words": words}, headers={"hx-request": "true"}).text
    assert found in part and "<html" not in part


def test_the_finder_finds_a_day(house: TestClient) -> None:
    house.post(f"/tonight/{WINTER}/day", data={"day": "today"})
    assert "Winter hall 4" in house.get("/find", params={"words": "today"}).text


def test_an_empty_club_begins_in_three_ways_each_ending_on_the_floor(
    tmp_path: Path, clock: Clock
) -> None:
    app = create_app(Settings(data=tmp_path), ready(tmp_path / "club.sqlite", filled=False), clock)
    with TestClient(app, base_url="http://127.0.0.1") as empty:
        page = empty.get("/").text
        texts = re.findall(r'name="text" value="([^"]+)"', page)
        assert len(texts) >= 5
        pasted = empty.post(
            "/desk/board", data={"text": "3 rounds 40 on 20 off\n- squat\n- plank\n"}
        )
        begun = [
            pasted.url.path,
            *(
                empty.post("/desk", data={"text": one.replace("&#39;", "'")}).url.path
                for one in texts
            ),
        ]
        for path in begun:
            assert empty.post(f"{path}/floor").url.path.startswith("/run/"), path


def test_a_session_of_the_rack_has_its_name_wherever_it_is_taken(client: TestClient) -> None:
    def title() -> str:
        return re.findall(r"<title>([^<]*)", begun.text)[0]

    taken = re.findall(
        r'action="/desk"><input type="hidden" name="text" value="([^"]*)"',
        client.get("/first").text,
    )
    begun = client.post("/desk", data={"text": html.unescape(taken[0])})
    assert "Untitled" not in title()
    session = client.post("/desk", data={"text": ""}).url.path
    edit = re.findall(r'name="edit" value="([^"]*)"', client.get(session).text)[0]
    base = re.findall(r'name="base" value="([^"]*)"', client.get(session).text)[0]
    client.post(
        f"{session}/edit",
        data={"edit": html.unescape(html.unescape(edit)), "base": base, "op": "a-rack"},
    )
    begun = client.get(session)
    assert "Untitled" not in title() and "could not be read" not in begun.text
    assert begun.text.count('class="problem"') == 0
