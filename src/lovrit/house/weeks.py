"""Days and sessions as the weeks read them: what each asks by what was done before it; kept at hand."""

from datetime import date, datetime, time, timedelta
from typing import NamedTuple
from zoneinfo import ZoneInfo

from sqlmodel import Session as Work

from lovrit.core.asked.carried import Other, Planned
from lovrit.core.asked.dose import Asks, asks, together
from lovrit.core.moves.library import Library
from lovrit.core.session.session import USUAL_BEGINS
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.tries.done import Did, did
from lovrit.core.values import Value
from lovrit.core.weeks.returns import Lately, lately
from lovrit.core.weeks.ways import Around
from lovrit.house.house import House
from lovrit.store import classes, halls, records, sessions, weeks
from lovrit.store.tables import SessionRow
from lovrit.store.weeks import KeptOther

NOTHING_LATELY = Lately()
TALL, LONGEST_S = 64, 3600
MOST_TAPE = 60
CARRIED_DAYS, HISTORY_DAYS = (
    21,
    70,
)  # sessions so long ago may still be carried; classes so long ago are history


def monday_of(day: date) -> date:
    """The Monday of a day's week."""
    return day - timedelta(days=day.weekday())


class Read(Value):
    """What a session's text comes to: what it asks and does, its tape, when its hall begins."""

    asks: Asks
    did: tuple[Did, ...]
    bars: tuple[tuple[float, float], ...]
    seconds: int
    begins: time


def read_session(text: str, library: Library, lately_: Lately = NOTHING_LATELY) -> Read:
    """A session's text as the board needs it; what was not done for weeks leaves more."""
    plan = plan_text(text, library)
    slot = plan.session.slot
    return Read(
        asks=asks(plan, lately_.unused, lately_.used),
        did=did((block for block in plan.session.blocks if block.works), library),
        bars=_bars(plan),
        seconds=plan.timeline.total_s,
        begins=(slot.begins if slot else None) or USUAL_BEGINS,
    )


def _bars(plan: Plan) -> tuple[tuple[float, float], ...]:
    """Works on an upright tape: how far down, and how high, in pixels of an hour's tape."""
    works = [one for one in plan.timeline.intervals if one.phase == "work"]
    scale = TALL / LONGEST_S
    made = [
        (round(one.start_s * scale, 1), round(max(0.6, one.seconds * scale), 1)) for one in works
    ]
    return tuple(made[:: max(1, len(made) // MOST_TAPE)])


def read_of(house: House, row: SessionRow, lately_: Lately = NOTHING_LATELY) -> Read:
    """What a session comes to, read once until the library changes."""
    return _read(house, row.good_text or row.text, lately_)


def _read(house: House, text: str, lately_: Lately) -> Read:
    key = ("week", text, lately_, house.library_key)
    return house.facts.of(key, lambda: read_session(text, house.library, lately_))


class Ran(NamedTuple):
    """A class that was run: what was done of it is carried, whatever was planned; ``session`` if on its day."""

    class_id: int
    title: str
    at: datetime
    asks: Asks
    session: int | None = None


class Laid(NamedTuple):
    """Some weeks as they are laid out: sessions with what they come to, other load, days off, what else is kept."""

    first: date
    weeks: int
    today: date
    rows: list[SessionRow]
    reads: dict[int, Read]
    lately: dict[int, Lately]
    others: list[KeptOther]
    off: set[str]
    themes: dict[str, str]
    coaches: dict[int, str]
    halls: dict[int, str]
    done: list[tuple[date, tuple[Did, ...]]]
    limit: float
    ran: list[Ran]

    @property
    def last(self) -> date:
        """The last day that is shown."""
        return self.first + timedelta(days=7 * self.weeks - 1)

    def planned(self) -> list[Planned]:
        """Sessions as they are weighed, and classes that were run without one."""
        on = [
            planned_of(row, self.reads[row.id or 0], self.done_of(row.id or 0))
            for row in self.rows
            if row.day
        ]
        return on + [
            Planned(id=f"class-{one.class_id}", at=one.at, asks=one.asks, fixed=True)
            for one in self.unplanned
        ]

    @property
    def unplanned(self) -> list[Ran]:
        """Classes that were run on a day for which no session said them."""
        return [one for one in self.ran if one.session is None]

    def done_of(self, session: int) -> Asks | None:
        """What was done of a session on its day; None where it was not run then."""
        found = [one.asks for one in self.ran if one.session == session]
        return together(found) if found else None

    def around(self) -> Around:
        """What a clash stands in."""
        off = frozenset(date.fromisoformat(one) for one in self.off)
        return Around(
            self.planned(), [other_of(one) for one in self.others], off, self.today, self.limit
        )


def lay_out(house: House, work: Work, first: date, weeks_: int) -> Laid:
    """So many weeks from a Monday on, with the three before them, of which something may still be carried."""
    begin, last = first - timedelta(days=CARRIED_DAYS), first + timedelta(days=7 * weeks_ - 1)
    rows = sessions.between_days(work, f"{begin}", f"{last}")
    since = first - timedelta(days=HISTORY_DAYS)
    done = [(date.fromisoformat(one.day), one.did) for one in records.done(work, f"{since}")]
    plain = {row.id or 0: read_of(house, row) for row in rows}
    ahead = [
        (date.fromisoformat(row.day), plain[row.id or 0].did)
        for row in rows
        if row.day and row.day >= house.today
    ]
    new = {row.id or 0: _lately(row, [*done, *ahead]) for row in rows}
    reads = {row.id or 0: _weighed(house, row, new[row.id or 0]) for row in rows}
    near = f"{first - timedelta(days=CARRIED_DAYS)}"
    return Laid(
        first, weeks_, date.fromisoformat(house.today), rows, reads, new,
        [one for one in weeks.others(work) if one["date"] >= near], weeks.off(work), weeks.themes(work),
        weeks.coaches(work), halls.chosen(work, [row.id or 0 for row in rows]), done, weeks.limit(work),
        _ran(house, work, rows, begin, last),
    )  # fmt: skip


def _ran(house: House, work: Work, rows: list[SessionRow], first: date, last: date) -> list[Ran]:
    """Classes of these days, each with what was done of it."""
    planned = {(row.id, row.day) for row in rows}
    found = []
    for row in classes.over_between(work, _ms(house, first), _ms(house, last + timedelta(days=1))):
        at = house.when(row.made_ms)
        came = records.outcome(work, row.id or 0)
        done = came.outcome.asks if came else None
        asks = done or _read(house, row.text, NOTHING_LATELY).asks
        own = row.session_id if (row.session_id, f"{at:%Y-%m-%d}") in planned else None
        found.append(Ran(row.id or 0, row.title, at.replace(tzinfo=None), asks, own))
    return found


def _ms(house: House, day: date) -> int:
    return round(datetime.combine(day, time(0), ZoneInfo(house.zone)).timestamp() * 1000)


def _lately(row: SessionRow, done: list[tuple[date, tuple[Did, ...]]]) -> Lately:
    """What will have been done and what will not on a session's day."""
    return lately(done, date.fromisoformat(row.day)) if row.day else NOTHING_LATELY


def _weighed(house: House, row: SessionRow, near: Lately) -> Read:
    """A session by what was done before it; only what it asks of that makes a difference."""
    asked = {one.pattern for one in read_of(house, row).did}
    return read_of(house, row, Lately(near.unused & asked, near.used & asked))


def planned_of(row: SessionRow, read: Read, done: Asks | None = None) -> Planned:
    """A session on its day as it is weighed: by what was done where it was run, which moves nowhere any more."""
    at = datetime.combine(date.fromisoformat(row.day or ""), read.begins)
    return Planned(id=str(row.id), at=at, asks=done or read.asks, fixed=done is not None)


def other_of(one: KeptOther) -> Other:
    """Other load as it is weighed: at noon."""
    at = datetime.combine(date.fromisoformat(one["date"]), time(12))
    return Other(at=at, what=one["what"], weight=one["weight"], patterns=tuple(one["patterns"]))
