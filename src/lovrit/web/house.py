"""What every route needs: the database, the clock, the templates, the classes that are on, in one place."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date, datetime
from threading import Event
from typing import Annotated, Any
from zoneinfo import ZoneInfo

from fastapi import Depends, Form, Path, Request
from jinja2 import Environment
from sqlmodel import Session as Work
from starlette.datastructures import FormData

from lovrit.core.advice.company import Day, Schools
from lovrit.core.days import Toward, read_day
from lovrit.core.forecast.learned import Quickness
from lovrit.core.moves.figure import Drawing
from lovrit.core.moves.library import Library
from lovrit.core.run.event import MOST_ID
from lovrit.core.tries.done import Most
from lovrit.settings import Settings
from lovrit.store import club, straps
from lovrit.store.database import Database
from lovrit.straps.outside import Outside
from lovrit.web.guests import Guesses, Guests
from lovrit.web.hub import Hub
from lovrit.web.jobs import Jobs

MOST_FIELDS = 420


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
    guesses: Guesses = field(default_factory=Guesses)
    placings: Jobs = field(default_factory=Jobs)
    closing: Event = field(default_factory=Event)
    secret: str = field(init=False, repr=False)
    about: club.About = field(default_factory=club.About)
    days_near: dict[str, Day] = field(default_factory=dict)
    weeks: dict[tuple[str, frozenset[str]], Any] = field(default_factory=dict)
    done: tuple[dict[str, Most], int] | None = None  # what was done here, until a class changes
    recorded: list["Recorded"] = field(
        default_factory=list
    )  # who is told where a class is over, by its number
    outside: Outside = field(default_factory=Outside)

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

    def day(self, text: str, toward: Toward = "ahead") -> date:
        """A day as somebody wrote it, by the club's habit.

        Raises:
            NoSuchDay: if it is none, or could be two.
        """
        return read_day(text, date.fromisoformat(self.today), toward, self.about.days)

    def refresh(self) -> None:
        """Read again what the club holds; after each change of it."""
        self.days_near, self.weeks = {}, {}
        with self.database.work() as work:
            self.library, self.schools, self.missing = (
                club.library(work),
                club.schools(work),
                club.missing(work),
            )
            self.secret, self.about = club.secret(work), club.about(work)
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


def house_of(request: Request) -> House:
    """The house that a request came to."""
    house: House = request.app.state.house
    return house


async def _form_of(request: Request) -> FormData:
    return await request.form(max_fields=MOST_FIELDS)


InHouse = Annotated[House, Depends(house_of)]
WholeForm = Annotated[FormData, Depends(_form_of)]
# a number in an address; SQLite's go to 63 bits
Id = Annotated[int, Path(ge=0, le=MOST_ID)]
FormId = Annotated[int, Form(ge=0, le=MOST_ID)]
