"""A person as a coach knows them. Nothing here is ever shown on the wall but the group."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.crew.paces import OwnPace
from lovrit.core.values import Value

Standing = Literal["usual", "new", "back"]
Limit = Literal["overhead", "jumps", "depth", "floor"]
DOES_NOT: dict[Limit, str] = {
    "overhead": "nothing overhead",
    "jumps": "no jumps",
    "depth": "no depth",
    "floor": "not on the floor",
}


class Person(Value):
    """A person of the club. Heart figures in beats a minute.

    ``effort_only`` where the heart can't steer: medicine, or no strap. ``strap`` says how the simulated strap
    behaves; ``mind`` is what the coach keeps in mind. ``standing`` since ``since`` (YYYY-MM-DD): new, back after a
    break or illness, or usual; ``limits`` are what they don't do now. ``pace_100_s`` is how long they take for 100 m on
    foot at a pace that they hold for some minutes, in seconds; ``paces`` are their own numbered ones.
    """

    id: int
    name: str
    initials: str
    rest_hr: Annotated[int, Field(ge=30, le=120)] = 62
    max_hr: Annotated[int, Field(ge=100, le=230)] = 186
    age: int | None = None
    effort_only: bool = False
    strap: str = "steady"
    mind: str = ""
    standing: Standing = "usual"
    since: str | None = None
    pace_100_s: Annotated[int | None, Field(ge=8, le=300)] = None
    limits: tuple[Limit, ...] = ()
    paces: tuple[OwnPace, ...] = ()

    def weeks(self, today: str) -> int | None:
        """Whole weeks on this standing; None where nobody said since when."""
        if not self.since:
            return None
        return max(0, (date.fromisoformat(today) - date.fromisoformat(self.since)).days // 7)


class Comer(Person):
    """A person who comes to a class, in a group (from 0)."""

    group: int = 0
