"""The sample club put into an empty database."""

import time
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from zoneinfo import ZoneInfo

from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.core.crew.groups import deal
from lovrit.core.crew.paces import OwnPace
from lovrit.core.place.hall import Hall
from lovrit.core.session.dated import with_date
from lovrit.core.session.reader import read
from lovrit.core.values import checked_json, plain
from lovrit.store import answers, halls, people, sessions
from lovrit.store.database import Database
from lovrit.store.tables import PersonRow, SessionRow

SLATES = ("home-while-the-hall-is-shut", "easy-start", "long-and-even", "winter-hall-4")

# who is new or back, and since how many days; what some don't do now
STANDING = {"Ivy": ("new", 4), "Faye": ("back", 9)}
LIMITS = {"Tam": ["overhead"], "Luz": ["jumps"], "Cilla": ["depth"]}

# metres a second at paces 3 and 4, and seconds for 100 m on foot, of those who have been timed
PACES = {
    "Anouk K": (2.6, 2.9, 36),
    "Bodo O": (3.0, 3.4, 30),
    "Dov E": (2.8, 3.1, 33),
    "Gila": (2.5, 2.8, 37),
    "Jonas": (2.9, 3.3, 31),
    "Keir": (3.1, 3.5, 29),
    "Luz": (2.0, 2.3, 45),
    "Mara": (2.8, 3.2, 32),
    "Nils": (2.9, 3.2, 32),
    "Pela": (2.7, 3.0, 34),
    "Ruta": (2.4, 2.7, 39),
    "Wim": (2.5, 2.8, 38),
}

# name, initials, rest, highest, age, by effort, strap, what to keep in mind
PEOPLE = (
    ("Anouk K", "AK", 58, 186, 34, False, "steady", ""),
    ("Bodo O", "BO", 54, 191, 29, False, "steady", ""),
    ("Cilla", "CI", 62, 178, 45, False, "steady", "knee"),
    ("Dov E", "DE", 60, 188, 31, False, "steady", ""),
    ("Emrys", "EM", 64, 170, 58, True, "none", "heart medicine: by effort"),
    ("Faye", "FY", 63, 190, 27, False, "steady", "7 at most"),
    ("Gila", "GA", 59, 183, 38, False, "drops", ""),
    ("Hugo", "HU", 66, 176, 49, False, "steady", ""),
    ("Ivy", "IV", 70, 193, 22, False, "steady", ""),
    ("Jonas", "JO", 61, 181, 41, False, "over", "starts too fast"),
    ("Keir", "KE", 57, 187, 33, False, "steady", ""),
    ("Luz", "LU", 65, 179, 44, False, "steady", "ankle"),
    ("Mara", "MA", 56, 184, 36, False, "steady", ""),
    ("Nils", "NI", 58, 189, 30, False, "steady", ""),
    ("Oskar", "OS", 67, 172, 55, True, "none", "no strap: by effort"),
    ("Pela", "PE", 60, 185, 35, False, "steady", ""),
    ("Ruta", "RU", 62, 182, 39, False, "steady", ""),
    ("Tam", "TA", 64, 177, 47, False, "steady", "shoulder"),
    ("Ulla", "UL", 66, 174, 51, False, "steady", "away until February"),
    ("Wim", "WI", 59, 180, 42, False, "steady", ""),
)
COMING, GROUPS = 18, 6
ZONE = ZoneInfo("Europe/Berlin")


def fill(database: Database) -> None:
    """Put the club in; where there is one already, nothing is changed."""
    with database.work() as work:
        if work.exec(select(PersonRow.id)).first() is not None:
            return
        _people(work)
        halls.set_hall(
            work, checked_json(Hall, files("lovrit.demo").joinpath("hall.json").read_text("utf-8"))
        )
        now_ms = time.time_ns() // 1_000_000
        for nth, name in enumerate(SLATES):
            _session(work, name, now_ms - (len(SLATES) - nth) * 86_400_000)


def slate(name: str) -> str:
    """A slate of the demo's."""
    return files("lovrit.demo").joinpath(f"{name}.slate").read_text("utf-8")


def _people(work: Work) -> None:
    names = ("name", "initials", "rest_hr", "max_hr", "age", "effort_only", "strap", "mind")
    for person in PEOPLE:
        row = PersonRow.model_validate(dict(zip(names, person, strict=True)))
        row.born, row.age = datetime.now(UTC).year - (row.age or 40), None
        row.hearts, row.hearts_since = "yes", f"{datetime.now(UTC) - timedelta(days=90):%Y-%m-%d}"
        row.standing, days = STANDING.get(row.name, ("usual", 0))
        row.since = f"{datetime.now(UTC) - timedelta(days=days):%Y-%m-%d}" if days else None
        row.limits = LIMITS.get(row.name, [])
        three, four, row.pace_100_s = PACES.get(row.name, (None, None, None))
        own = [
            OwnPace(number=nth, value=pace, unit="m/s")
            for nth, pace in ((3, three), (4, four))
            if pace
        ]
        row.paces = [plain(one) for one in own]
        work.add(row)
    work.flush()


def _session(work: Work, name: str, now_ms: int) -> SessionRow:
    text = slate(name)
    row = sessions.create(work, text, read(text).session.title, now_ms)
    assert row.id is not None
    query = select(PersonRow.id).order_by(col(PersonRow.name)).limit(COMING)
    coming = [person for person in work.exec(query) if person is not None]
    people.set_comers(work, row.id, deal(coming, GROUPS))
    return row


TONIGHT, THEN, THEN_IN = "Winter hall 4, legs and pull", "Long and even", 2
# what was said of coming tonight: name, whether they come, a word
ANSWERS = (
    ("Anouk K", True, ""), ("Cilla", True, "knee again, I will go easy"), ("Dov E", True, ""), ("Gila", True, ""),
    ("Hugo", True, ""), ("Jonas", True, ""), ("Keir", False, "late shift"), ("Mara", True, ""), ("Nils", True, ""),
    ("Ulla", True, "back already!"),
)  # fmt: skip


def dated(database: Database, now_ms: int) -> None:
    """The demo's evening is always tonight: its day is said anew where it has gone by, with what people answered."""
    today = datetime.fromtimestamp(now_ms / 1000, ZONE).date()
    with database.work() as work:
        rows = list(work.exec(select(SessionRow).where(col(SessionRow.put_away_ms).is_(None))))
        for row in rows:
            ahead = {TONIGHT: 0, THEN: THEN_IN}.get(row.title)
            if ahead is None or (row.day or "") >= f"{today}":
                continue
            _on_day(work, row, f"{today + timedelta(days=ahead)}", now_ms)
            if row.title == TONIGHT:
                _answer(work, row, now_ms)


def _on_day(work: Work, row: SessionRow, day: str, now_ms: int) -> None:
    text = with_date(row.text, day)
    sessions.write_text(work, row, text, row.version, None, None, now_ms)
    row.good_text, row.day = text, day
    work.add(row)
    work.flush()


def _answer(work: Work, row: SessionRow, now_ms: int) -> None:
    known = {one.name: one.id for one in people.everyone(work)}
    for name, comes, word in ANSWERS:
        if name in known:
            answers.say(work, row, known[name], comes, word, now_ms)
    answers.say_as_guest(work, row, "Rika", "a friend of Mara’s, never paddled", now_ms)
