"""Eight evenings of a club whose hearts, knees and loads are known, through its own doors; then what the ninth is told.

What was learnt of somebody is a table: a fact by the pages that a coach opens before a class. Each cell is a test.
"""

import html
import re
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.store import sessions
from tests.conftest import Clock
from tests.core.odd_hearts import HEART, beating, demands
from tests.house.test_floor import House

pytestmark = pytest.mark.slow
FIRST = date(2027, 1, 21)
SLATE = """title: Thursday
date: {day}
slot: 18:10-19:00

warm-up 5:00 at 3

8 x 60/60 at 8

rest 2:00

3 rounds of 40/20 at 8
  jump squat
  push-up
  goblet squat @ 12 kg

as many as possible in 2:00
  push-up

cool-down 4:00 at 2
"""
QUICK, SLOW, CALM = {"on": 14.0, "off": 35.0}, {"on": 50.0, "off": 120.0}, {"highest": 125.0}
PEOPLE = {"Ada": QUICK, "Ben": {}, "Cem": {}, "Dag": SLOW, "Eva": {}, "Fin": CALM, "Gus": {}}
HALL = {
    "name": "School hall", "width": "20", "height": "12", "walk": "1", "reset": "5",
    "spot-0": "a", "x-0": "2", "y-0": "2",
    "spot-1": "b", "x-1": "8", "y-1": "2", "spot-2": "c", "x-2": "14", "y-2": "2",
    "kit-0": "bell", "load-0": "12", "count-0": "8", "away-0": "",
}  # fmt: skip
STRAPS = ("Ada", "Dag", "Fin")
ABSENT_SINCE = 4  # evenings that Cem came to


class Club:
    """The club as it is used: through HTTP and the clock alone."""

    def __init__(self, folder: Path, clock: Clock) -> None:
        self.clock = clock
        self.house = House(folder, clock, simulated=False, empty=True)
        self.post("/club/about", zone="Europe/London", to="/")
        self.post("/people", text=", ".join(PEOPLE), sure="true")
        self.of = {name: nth for nth, name in enumerate(PEOPLE, 1)}
        for person in self.of.values():
            self.post(f"/people/{person}/hearts", may="yes")
        self.sessions: list[int] = []
        self.classes: list[int] = []

    def post(self, path: str, **fields: Any) -> str:
        answer = self.house.client.post(path, data=fields)
        assert answer.status_code < 400, (path, answer.status_code, answer.text[-400:])
        return str(answer.url.path)

    def get(self, path: str) -> str:
        answer = self.house.client.get(path)
        assert answer.status_code == 200, path
        return " ".join(answer.text.split())

    def at(self, nth: int, hour: int, minute: int) -> None:
        day = FIRST + timedelta(weeks=nth)
        self.clock.ms = int(
            datetime(day.year, day.month, day.day, hour, minute, tzinfo=UTC).timestamp() * 1000
        )

    def session(self, nth: int) -> int:
        day = FIRST + timedelta(weeks=nth)
        if not self.sessions:
            path = self.post("/desk", text=SLATE.format(day=day))
            self.sessions.append(int(path.rsplit("/", 1)[1]))
            self.post(f"/hall/{self.sessions[0]}/draw", **HALL)
        else:
            self.post("/weeks/put", session=self.sessions[0], day=str(day), at=str(day))
            with self.house.floor.house.database.work() as work:
                self.sessions.append(sessions.latest(work) or 0)
        for name, person in self.of.items():
            if name != "Cem" or nth < ABSENT_SINCE:
                self.post(f"/crew/{self.sessions[-1]}/place", person=person, group=0)
        return self.sessions[-1]

    def evening(self, nth: int) -> None:
        self.at(nth, 17, 0)
        session = self.session(nth)
        self.at(nth, 18, 10)
        class_id = self.house.to_the_floor(session)
        self.classes.append(class_id)
        self.house.happen(class_id, "start")
        self.clock.on(9 * 60)
        if nth == 7:
            self.house.happen(class_id, "stops", person=self.of["Ben"])
            self.house.happen(class_id, "why", person=self.of["Ben"], text="knee", id="why")
        plan = plan_text(SLATE.format(day=FIRST), shipped())
        self.clock.on(plan.timeline.total_s - 9 * 60 + 2)
        for _ in range(200):
            self.house.floor.tick(self.clock.ms)
            if self.house.floor.live(class_id).closed:
                break
            self.clock.on(5)
        self._hearts(class_id, nth, demands(plan))
        self.post(f"/debrief/{class_id}/felt", op=f"f{nth}", person=self.of["Eva"], value="10")
        self.post(
            f"/debrief/{class_id}/score",
            op=f"s{nth}",
            block="4",
            person=self.of["Gus"],
            text=str(30 + nth),
        )
        self.post(f"/debrief/{class_id}/note", op=f"n{nth}", text="two bells too few")

    def _hearts(self, class_id: int, nth: int, asked: Any) -> None:
        names = list(STRAPS)
        told = {
            name: np.round(beating(asked, HEART | PEOPLE[name], 10 * nth + at))
            for at, name in enumerate(names)
        }
        begins = datetime(2027, 1, 1, 18, 10, tzinfo=UTC)
        rows = ["time," + ",".join(names)]
        rows += [
            f"{begins + timedelta(seconds=second):%H:%M:%S},"
            + ",".join(str(int(told[name][second])) for name in names)
            for second in range(len(asked))
        ]
        client = self.house.client
        page = client.post(
            f"/debrief/{class_id}/traces", files={"file": ("hearts.csv", "\n".join(rows))}
        ).text
        name = re.search(r'name="name" value="(\w+)"', page)
        assert name, page[-300:]
        laid = {"name": name[1]}
        for at, one in enumerate(names):
            laid |= {f"person-{at}": str(self.of[one]), f"offset-{at}": "0"}
        self.post(f"/debrief/{class_id}/traces/lay", **laid)


@pytest.fixture(scope="module")
def club(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Club]:
    made = Club(tmp_path_factory.mktemp("club"), Clock())
    for nth in range(8):
        made.evening(nth)
    made.house.floor.learn()
    made.at(8, 17, 0)
    made.session(8)
    yield made
    made.house.stop()


KNEE = "stopped on 11 March: knee. Ask before the start"
FELT = "felt 10 where 8 was asked on 11 March"
NOTE = "two bells too few"
TOP = "never passes 115 in hard work"
# a fact, of whom, and the pages on which it stands; the last is where it must not
FACTS = (
    (KNEE, "Ben", ("tonight", "who", "talk"), ("wall", "fit", "people")),
    (FELT, "Eva", ("tonight", "who", "talk"), ("wall", "fit", "people")),
    (TOP, "Fin", ("tonight", "who", "talk", "person", "after"), ("wall", "fit")),
    ("not seen since 11 February", "Cem", ("tonight", "who", "people"), ("talk", "wall")),
    (NOTE, "", ("tonight", "desk", "weeks", "talk", "hall"), ("wall", "fit", "who")),
    ("goblet squat 12 kg", "Gus", ("fit",), ("people", "talk")),
)
ALONE = (  # on one page of one person
    ("Ada", "person", "came to 8 classes"),
    ("Cem", "person", "came to 4 classes"),
    ("Fin", "person", "By effort from now on"),
    ("Gus", "person", "18 reps a minute"),
    ("Ada", "person", "Rises quickly"),
    ("Ben", "person", "Last time, 11 March: stopped, knee"),
    ("Eva", "person", "felt 10 where 8 was asked"),
    ("Gus", "who", "Last time, 11 March: goblet squat 12 kg"),
    ("Ben", "after", "Ben stopped at 8:55: knee"),
    ("Eva", "after", "Felt harder than asked: Eva 10 at 8"),
    ("", "hall", "2 × bell 12 kg away tonight"),
)


@pytest.fixture(scope="module")
def pages(club: Club) -> dict[str, str]:
    """Every page of before the ninth class, as words alone."""
    ninth, before = club.sessions[-1], club.classes[-1]
    on_floor = club.house.to_the_floor(ninth)
    paths = {
        "tonight": "/", "desk": f"/desk/{ninth}", "who": f"/crew/{ninth}", "fit": f"/crew/{ninth}/fit",
        "hall": f"/hall/{ninth}", "weeks": "/weeks", "people": "/people", "after": f"/debrief/{before}",
        "talk": f"/run/{on_floor}/talk", "wall": f"/wall/{on_floor}",
    }  # fmt: skip
    paths |= {name: f"/people/{person}" for name, person in club.of.items()}
    return {name: said(club.get(path)) for name, path in paths.items()}


def said(page: str) -> str:
    shown = re.sub(r"<(script|style).*?</\1>", " ", page, flags=re.DOTALL)
    return " ".join(html.unescape(re.sub(r"<[^>]+>", " ", shown)).split())


@pytest.mark.parametrize(
    ("fact", "name", "page"),
    [(fact, name, page) for fact, name, there, _ in FACTS for page in there],
)
def test_what_was_learnt_stands_where_the_ninth_is_prepared(
    pages: dict[str, str], fact: str, name: str, page: str
) -> None:
    text = pages[name if page == "person" else page]
    assert fact in text, text
    assert name in text


@pytest.mark.parametrize(
    ("fact", "page"), [(fact, page) for fact, _, _, never in FACTS for page in never]
)
def test_and_nowhere_else(pages: dict[str, str], fact: str, page: str) -> None:
    assert fact not in pages[page]


@pytest.mark.parametrize(("name", "page", "fact"), ALONE)
def test_each_has_what_is_theirs(pages: dict[str, str], name: str, page: str, fact: str) -> None:
    text = pages[name if page == "person" else page]
    assert fact in text, text


def test_kit_that_lacked_is_counted_as_away_by_a_press(club: Club) -> None:
    ninth = club.sessions[-1]
    club.post(f"/hall/{ninth}/lacks", nth=0, many=2)
    page = said(club.get(f"/hall/{ninth}"))
    assert "2 × bell 12 kg away tonight" not in page.replace("2 × bell 12 kg away tonight.", "")
    again = club.house.client.post(f"/hall/{ninth}/lacks", data={"nth": 9, "many": 2})
    assert again.status_code == 409
