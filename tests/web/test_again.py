"""Classes asked again: found by words, taken away as a folder, laid beside the same before, person by person."""

import io
import json
from collections.abc import Iterator
from pathlib import Path
from zipfile import ZipFile

import pytest

from lovrit.core.moves.library import shipped
from lovrit.formats.review_files import review_object
from lovrit.web.debrief.tape import run_tape
from tests.conftest import Clock
from tests.house.test_floor import House

SLATE = "title: Bells again\n\nas many as possible in 4:00 at 8\n  5 swing\n  5 squat\n"
DAY_S = 86_400


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[House]:
    made = House(tmp_path, clock)
    yield made
    made.stop()


def ran(house: House, scores: dict[int, str], slate: str = SLATE) -> int:
    session = int(house.client.post("/desk", data={"text": slate}).url.path.rsplit("/", 1)[1])
    for person in scores:
        placed = house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
        assert placed.status_code == 200, placed.text
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    house.clock.on(400)
    house.floor.tick(house.clock.ms)
    for person, text in scores.items():
        answer = house.client.post(
            f"/debrief/{class_id}/score",
            data={"op": f"{class_id}-{person}", "block": 0, "text": text, "person": str(person)},
        )
        assert answer.status_code in (200, 422), answer.text  # one of these is refused on purpose
    return class_id


def test_a_class_is_found_taken_away_and_read_again(house: House) -> None:
    class_id = ran(house, {1: "9 + 2", 2: "7 + 1"})
    house.client.post(f"/debrief/{class_id}/note", data={"op": "n", "text": "cold hall, Übung gut"})
    for words, there in (
        ("ubung", True),
        ("swings cold", True),
        ("swings warm", False),
        ("31.2.2026", False),
    ):
        page = house.client.get("/debrief", params={"words": words}).text
        assert ("Bells again" in page) is there, words
    assert (
        "There is no 31 February 2026."
        in house.client.get("/debrief", params={"words": "31.2.2026"}).text
    )
    answer = house.client.get(f"/debrief/{class_id}/class.zip")
    assert answer.headers["content-type"] == "application/zip"
    files = ZipFile(io.BytesIO(answer.content))
    names = {name.rsplit("/", 1)[1]: name for name in files.namelist()}
    assert set(names) >= {"session.slate", "class.json", "scores.csv", "turns.csv", "said.txt"}
    told = review_object(json.loads(files.read(names["class.json"])), shipped())
    said = files.read(names["said.txt"]).decode()
    assert "2 came" in told["paragraph"] and "2 came" in said and "cold hall" in said
    assert "9 + 2" in files.read(names["scores.csv"]).decode()


def test_the_same_again_is_laid_beside_the_same_and_the_board_says_who(house: House) -> None:
    before = {1: "8 + 0", 2: "8 + 1", 3: "9 + 0", 4: "8 + 3", 5: "8 + 0"}
    evenings = [ran(house, before)]
    for _ in range(2):
        house.clock.on(7 * DAY_S)
        evenings.append(ran(house, before))
    house.clock.on(7 * DAY_S)
    other = ran(house, {1: "9 + 0"}, SLATE.replace("5 squat", "6 squat"))
    evenings.append(ran(house, before | {1: "10 + 5"}))
    kin = house.client.get(f"/debrief/{evenings[-1]}/kin/0").text
    assert kin.count('<th scope="col">') == 6 and "<b>better</b>" in kin and "about the same" in kin
    assert "Nobody" not in kin and "9 + 0" in kin
    alone = house.client.get(f"/debrief/{other}/kin/0").text
    assert "can’t be told yet" in alone
    names = {one.id: one.name for one in house.floor.live(evenings[0]).comers}
    board = house.client.get("/debrief/club").text
    assert f"<b>better</b>: {names[1]};" in board and "4 about the same" in board
    assert board.count("<article>") == 1
    assert "10 + 5" in house.client.get("/people/1/progress").text
    house.client.post(
        f"/debrief/{evenings[-1]}/score", data={"op": "away", "block": 0, "text": "", "person": "1"}
    )
    assert f"<b>better</b>: {names[1]};" not in house.client.get("/debrief/club").text
    house.clock.on(60 * DAY_S)
    assert "Last done 60 days ago" in house.client.get("/debrief/club").text


def test_an_empty_club_and_a_club_of_one_are_told_what_is_so(house: House) -> None:
    assert "Nothing was scored twice" in house.client.get("/debrief/club").text
    assert "No class has been run yet" in house.client.get("/debrief").text
    for nth in range(3):
        ran(house, {1: f"{8 + nth} + 0"})
        house.clock.on(7 * DAY_S)
    page = house.client.get("/debrief/club").text
    assert "the evening can’t be told from the person" in page.replace("&#39;", "’")


def test_a_load_ten_times_the_last_is_refused_and_stays_as_typed(house: House) -> None:
    slate = "title: Bars\n\n3 sets of 5, rest 0:30\n  deadlift @ 40 kg\n"
    ran(house, {1: "42,5"}, slate)
    house.clock.on(7 * DAY_S)
    class_id = ran(house, {}, slate.replace("Bars", "Bars again"))
    house.client.post(
        f"/crew/{house.floor.live(class_id).session_id}/place", data={"person": 1, "group": 0}
    )
    later = ran(house, {1: "450 kg x 5"}, slate)
    page = house.client.post(
        f"/debrief/{later}/score", data={"op": "z", "block": 0, "text": "450 kg", "person": "1"}
    )
    assert (
        page.status_code == 422
        and "10 times the last, 42.5 kg" in page.text
        and 'value="450 kg"' in page.text
    )
    right = {"op": "y", "block": 0, "text": "45 kg x 5, 3 sets", "person": "1"}
    house.client.post(f"/debrief/{later}/score", data=right)
    assert "45 kg x 5, 3 sets" in house.client.get(f"/debrief/{later}").text


def test_marks_stand_at_their_moments_on_the_tape(house: House) -> None:
    session = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    house.clock.on(5)
    for nth, wait in enumerate((60, 10, 110)):
        house.clock.on(wait)
        house.happen(class_id, "mark", id=f"m{nth}", text=f"rings {nth}")
    house.clock.on(200)
    house.floor.tick(house.clock.ms)
    tape = run_tape(house.floor.live(class_id))
    assert tape and [pin.when for pin in tape.pins] == ["1:00", "1:10", "3:00"]
    assert [pin.level for pin in tape.pins] == [0, 1, 0] and tape.pins[0].words == "rings 0"
    assert sum(bar.width for bar in tape.bars) == pytest.approx(100, abs=1)
    assert "1:10 marked: rings 1" in house.client.get(f"/debrief/{class_id}").text


def test_a_worse_time_is_a_slower_one(house: House) -> None:
    slate = "title: A race\n\n2 rounds for time, cap 6:00\n  10 swing\n  10 squat\n"
    for nth in range(3):
        last = ran(
            house, {1: "4:40" if nth == 2 else "4:00", 2: "4:00", 3: "4:02", 4: "4:04"}, slate
        )
        house.clock.on(7 * DAY_S)
    names = {one.id: one.name for one in house.floor.live(last).comers}
    assert f"<b>slower</b>: {names[1]};" in house.client.get("/debrief/club").text
    assert "<b>slower</b>" in house.client.get(f"/debrief/{last}/kin/0").text
