"""A series reads the debrief: a week that was too much holds the next step back, and says so."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from lovrit.house.recorded import up_to_date
from lovrit.store import records, sessions, weeks
from tests.conftest import Clock
from tests.house.test_floor import House

SLATE = "title: Bells\n\nas many as possible in 4:00 at 7\n  5 swing\n  5 squat\n"


@pytest.fixture
def house(tmp_path: Path, clock: Clock) -> Iterator[House]:
    made = House(tmp_path, clock)
    yield made
    made.stop()


def laid(house: House) -> list[int]:
    """A series of four weeks that begins today."""
    session = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
    house.client.post("/weeks/put", data={"session": session, "day": house.floor.house.today})
    house.client.post(
        "/weeks/series", data={"session": session, "weeks": 4, "grow": "reps", "easier": 0}
    )
    page = house.client.get(f"/weeks/series?session={session}").text
    return [int(one) for one in re.findall(r'<a href="/desk/(\d+)">20', page)]


def run(house: House, session: int, stops: int, felt: float | None) -> None:
    for person in (1, 2, 3, 5):
        house.client.post(f"/crew/{session}/place", data={"person": person, "group": 0})
    class_id = house.to_the_floor(session)
    house.happen(class_id, "start")
    house.clock.on(120)
    for person in (1, 2, 3, 5)[:stops]:
        house.happen(class_id, "stops", id=f"stop-{class_id}-{person}", person=person)
    house.clock.on(400)
    house.floor.tick(house.clock.ms)
    for person in (1, 2, 3, 5) if felt is not None else ():
        house.client.post(
            f"/debrief/{class_id}/felt",
            data={"op": f"f{class_id}{person}", "person": person, "value": felt},
        )
    up_to_date(house.floor.house)


def texts(house: House, numbers: list[int]) -> list[str]:
    with house.floor.house.database.work() as work:
        return [re.sub(r"date: .*\n", "", sessions.get(work, one).text) for one in numbers]


def test_a_week_that_was_too_much_comes_once_more(house: House) -> None:
    numbers = laid(house)
    before = texts(house, numbers)
    assert len(set(before)) > 2
    run(house, numbers[0], 0, 7.5)
    assert texts(house, numbers) == before
    house.clock.on(7 * 86_400)
    run(house, numbers[1], 2, None)
    after = texts(house, numbers)
    assert after == [before[0], before[1], before[1], before[2]]
    page = house.client.get(f"/weeks/series?session={numbers[1]}").text
    assert "The next step was held back: 2 of 4 stopped" in page and "went as asked" in page
    with house.floor.house.database.work() as work:
        assert "too much" in weeks.steps(work)[-1]["said"]
    house.client.post("/weeks/undo")
    assert texts(house, numbers) == before
    house.client.post("/debrief/2/note", data={"op": "n", "text": "hot"})
    up_to_date(house.floor.house)
    # it was taken back: whatever is typed afterwards holds it no second time
    assert texts(house, numbers) == before


def test_a_deleted_session_and_a_class_of_nobody_break_no_series(house: House) -> None:
    numbers = laid(house)
    house.client.post(f"/desk/{numbers[2]}/away")
    run(house, numbers[0], 4, None)
    with house.floor.house.database.work() as work:
        assert records.missing(work, 9) == []
    assert house.client.get(f"/weeks/series?session={numbers[0]}").status_code == 200
    assert house.client.get("/weeks").status_code == 200


def test_a_class_that_was_run_today_without_a_plan_stays_where_it_was(house: House) -> None:
    session = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
    run(house, session, 0, 7.0)
    for day in (house.floor.house.today, house.floor.house.today):
        planned = int(house.client.post("/desk", data={"text": SLATE}).url.path.rsplit("/", 1)[1])
        house.client.post("/weeks/put", data={"session": planned, "day": day})
    for path in ("/weeks", "/weeks/better", "/weeks/clashes"):
        page = house.client.get(path)
        assert page.status_code == 200 and 'name="to-class' not in page.text
    assert "was run" in house.client.get("/weeks").text
