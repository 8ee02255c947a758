"""The house: the database, the clock, what the club holds, who listens and who is in, in one place."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from datetime import date, datetime
from pathlib import Path
from threading import Event
from zoneinfo import ZoneInfo

from jinja2 import Environment
from sqlmodel import Session as Work

from lovrit.core.advice.company import Schools
from lovrit.core.days import Toward, read_day
from lovrit.core.forecast.learned import Quickness
from lovrit.core.moves.figure import Drawing
from lovrit.core.moves.library import Library
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.house.facts import Facts
from lovrit.house.guests import Guesses, Guests
from lovrit.house.hub import Hub
from lovrit.house.jobs import Jobs
from lovrit.house.sent import Sent
from lovrit.settings import Settings
from lovrit.store import club, straps
from lovrit.store.database import Database
from lovrit.store.revisions import revisions_at
from lovrit.store.secret import secret_of
from lovrit.straps.outside import Outside

CLUB = frozenset({"club", "own_move", "strap", "person"})  # tables of what the club holds
MOVES = frozenset({"own_move"})
MOST_PLANS = (
    64  # whole plans are remembered apart: one is some hundred times larger than what is told of it
)


@dataclass
class House:
    """One running Lovrit. ``now_ms`` is the clock, so that tests can have their own."""

    settings: Settings
    database: Database
    templates: Environment
    now_ms: Callable[[], int]
    library: Library = field(init=False)
    hub: Hub = field(default_factory=Hub)
    schools: Schools = field(default_factory=Schools)
    missing: frozenset[str] = frozenset()
    paces: dict[int, Quickness] = field(default_factory=dict)
    drawings: dict[str, Drawing] = field(default_factory=dict)
    guests: Guests | None = None
    beside: Path | None = (
        None  # where all is kept now, where the club's file was taken from its place
    )
    guesses: Guesses = field(default_factory=Guesses)
    placings: Jobs = field(default_factory=Jobs)
    closing: Event = field(default_factory=Event)
    secret: str = field(init=False, repr=False)
    about: club.About = field(default_factory=club.About)
    facts: Facts = field(default_factory=Facts)
    plans: Facts = field(default_factory=lambda: Facts(MOST_PLANS))
    library_key: Hashable = (
        None  # of what the library is: a fact that rests on it has this in its key
    )
    recorded: list["Recorded"] = field(
        default_factory=list
    )  # who is told where a class is over, by its number
    outside: Outside = field(default_factory=Outside)
    erased: list[Callable[[], None]] = field(
        default_factory=list
    )  # who is told where somebody was erased
    sent: Sent = field(default_factory=Sent)
    copies_said: str = ""  # why there was no copy last night

    @property
    def zone(self) -> str:
        """The club's time zone, by which every time of day is told."""
        return self.about.zone or self.settings.time_zone

    def when(self, ms: int) -> datetime:
        """A moment in the club's zone."""
        return datetime.fromtimestamp(ms / 1000, ZoneInfo(self.zone))

    @property
    def today(self) -> str:
        """The club's day (YYYY-MM-DD)."""
        return f"{self.when(self.now_ms()):%Y-%m-%d}"

    @property
    def year(self) -> int:
        """The club's year."""
        return int(self.today[:4])

    def day(self, text: str, toward: Toward = "ahead") -> date:
        """A day as somebody wrote it, by the club's habit.

        Raises:
            NoSuchDay: if it is none, or could be two.
        """
        return read_day(text, date.fromisoformat(self.today), toward, self.about.days)

    @property
    def kept_in(self) -> Path:
        """The file that all is kept in by now."""
        return self.database.path or self.settings.database

    @property
    def beside_said(self) -> str:
        """That the club's file was taken from its place, where it is so; empty where all is well."""
        if self.beside is None:
            return ""
        return (
            "The club’s file was deleted, moved or replaced while Lovrit ran. Nothing is lost: all of it goes on in "
            f"{self.beside.name}, beside it."
        )

    def file_comes_home(self) -> None:
        """What was kept beside goes back to its own place; whatever stands there by now is put aside."""
        home = self.settings.database
        if self.beside is None:
            return
        if home.exists():
            home.rename(
                home.with_name(f"{home.stem}-other-{self.when(self.now_ms()):%Y%m%d-%H%M%S}.sqlite")
            )
        for end in ("-wal", "-shm"):
            home.with_name(home.name + end).unlink(missing_ok=True)
        before = self.beside
        self.database.move_to(home)  # where that fails, it is still known where all is
        self.beside = None
        for end in ("", "-wal", "-shm"):
            before.with_name(before.name + end).unlink(missing_ok=True)

    def plan(self, text: str) -> Plan:
        """A text on the clock, with the moves that the club knows: planned once for all who ask."""
        key = (text, self.library_key)
        return self.plans.of(key, lambda: plan_text(text, self.library))

    def __post_init__(self) -> None:
        self.database.today, self.database.now_ms = lambda: self.today, self.now_ms
        self.secret = secret_of(self.database)
        self._read()
        self.database.revisions.tell(self._moved)

    def _moved(self, tables: frozenset[str]) -> None:
        if tables & CLUB:
            self._read()

    def _read(self) -> None:
        """What the club holds, as it is kept by now."""
        with self.database.work() as work:
            mosts = tuple(tuple(sorted(one.items())) for one in club.mosts_of(work) if one)
            key = (revisions_at(work, MOVES), club.pace(work), mosts)
            if key != self.library_key:
                self.library, self.library_key = club.library(work), key
            self.schools, self.missing = club.schools(work), club.missing(work)
            self.about = club.about(work)
            self.paces, self.drawings = club.paces(work), club.drawings(work)
            self.outside.worn = straps.worn(work)


def since_day(house: House, text: str, standing: str) -> str | None:
    """Since when somebody stands as they do (YYYY-MM-DD): the day that was written, else today where it has begun now.

    Raises:
        NoSuchDay: if it is none, or could be two.
    """
    if text.strip():
        return f"{house.day(text, 'back')}"
    return house.today if standing != "usual" else None


Recorded = Callable[[House, Work, int], None]
