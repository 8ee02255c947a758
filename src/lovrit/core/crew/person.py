"""A person as a coach knows them. Nothing here is ever shown on the wall but the group."""

from dataclasses import field
from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.crew.born import FIRST_YEAR
from lovrit.core.crew.fit import Fitted
from lovrit.core.crew.highest import BY_AGE, USUAL, Formula
from lovrit.core.crew.paces import OwnPace
from lovrit.core.values import Value, fields_of

Standing = Literal["usual", "new", "back"]
Kept = Literal["", "yes", "no", "before"]
Cleared = Literal["", "yes", "not yet"]
Share = Literal["", "second", "third", "lower", "easy"]
Limit = Literal["overhead", "jumps", "depth", "floor"]
DOES_NOT: dict[Limit, str] = {
    "overhead": "nothing overhead",
    "jumps": "no jumps",
    "depth": "no depth",
    "floor": "not on the floor",
}


USUAL_REST, USUAL_HIGHEST = 62, 186
CHILD = 16  # years; below it a guardian decides what is kept (where your law says otherwise, it comes first)
MEASURED_ERROR, UNKNOWN_ERROR = 2.5, 12.0  # beats, one standard deviation of a highest
OLDER = 65  # years from which hard work is measured out


class Chosen(Value):
    """What somebody does of a move: the version, and its load in kg where it has one.

    ``brought`` where the load is taken to the station from elsewhere in the hall.
    """

    name: Annotated[str, Field(max_length=120)]
    load: Annotated[float | None, Field(ge=0, le=500)] = None
    brought: bool = False


class Person(Value):
    """A person of the club. Heart figures in beats a minute; None where nobody has measured or said them.

    ``effort_only`` where the heart can't steer: medicine, or no strap. ``strap`` says how the simulated strap
    behaves; ``mind`` is what the coach keeps in mind. ``standing`` since ``since`` (YYYY-MM-DD): new, back after a
    break or illness, or usual; ``limits`` are what they don't do now. ``pace_100_s`` is how long they take for 100 m on
    foot at a pace that they hold for some minutes, in seconds; ``paces`` are their own numbered ones. ``does`` is the
    version and load chosen of a move, by its key. ``limits`` hold until ``until`` (YYYY-MM-DD), where that is said;
    ``contact`` is whom to call for them; ``cleared`` what a doctor said of hard work, empty where nobody asked.
    ``share`` is how much of the hard work is theirs; ``threshold_hr`` the beats of an hour's hardest; ``measured`` how
    and when the heart figures were. ``level`` (1 to 5) only mixes groups and is never shown to others; ``together``
    and ``apart`` are ids of those they go with, or not. ``bests`` are the heaviest that they lifted once: kg by a
    move's key; ``mosts`` what they do of a move in one go, fresh: reps, or seconds of a hold.
    ``limit_hr`` is what their heart is not to pass, as they or their doctor said. ``by_age`` is the formula that a
    highest is taken from where nobody measured it; ``heart`` what was learnt of how theirs rises and falls. ``born`` is
    their year of birth, from which ``age`` is told. ``hearts`` is whether what a strap told may be kept, said on
    ``hearts_since``: empty where nobody asked, “before” where it was kept before anybody did; ``guardian`` whose word a
    yes was, where somebody is a child.
    """

    id: int
    name: str
    initials: str
    rest_hr: Annotated[int | None, Field(ge=30, le=120)] = None
    max_hr: Annotated[int | None, Field(ge=100, le=230)] = None
    age: int | None = None
    born: Annotated[int | None, Field(ge=FIRST_YEAR, le=2100)] = None
    effort_only: bool = False
    strap: str = "steady"
    mind: str = ""
    standing: Standing = "usual"
    since: str | None = None
    pace_100_s: Annotated[int | None, Field(ge=8, le=300)] = None
    limits: tuple[Limit, ...] = ()
    paces: tuple[OwnPace, ...] = ()
    does: dict[str, Chosen] = field(default_factory=dict)
    contact: Annotated[str, Field(max_length=120)] = ""
    cleared: Cleared = ""
    until: str | None = None
    share: Share = ""
    threshold_hr: Annotated[int | None, Field(ge=80, le=220)] = None
    measured: Annotated[str, Field(max_length=80)] = ""
    level: Annotated[int | None, Field(ge=1, le=5)] = None
    together: tuple[int, ...] = ()
    apart: tuple[int, ...] = ()
    bests: dict[str, Annotated[float, Field(gt=0, le=500)]] = field(default_factory=dict)
    mosts: dict[str, Annotated[float, Field(gt=0, le=5000)]] = field(default_factory=dict)
    limit_hr: Annotated[int | None, Field(ge=90, le=220)] = None
    by_age: Formula = USUAL
    heart: Fitted | None = None
    hearts: Kept = ""
    hearts_since: str | None = None
    guardian: Annotated[str, Field(max_length=80)] = ""

    @property
    def child(self) -> bool:
        """Whether somebody else decides for them what is kept."""
        return self.age is not None and self.age < CHILD

    @property
    def asks_guardian(self) -> str:
        """What is asked before a child's heart is kept, as every form of it says."""
        return f"{self.name} is {self.age}: a guardian decides, in writing where your club asks it. Whose word is it?"

    @property
    def rest(self) -> int:
        """Resting beats a minute: their own, else a usual one."""
        return USUAL_REST if self.rest_hr is None else self.rest_hr

    @property
    def highest(self) -> int:
        """Highest beats a minute: their own, else from age by the club's formula, else a usual one."""
        if self.max_hr is not None:
            return self.max_hr
        return USUAL_HIGHEST if self.age is None else BY_AGE[self.by_age].at(self.age)

    @property
    def highest_error(self) -> float:
        """How far their highest may be off, in beats (one standard deviation)."""
        if self.max_hr is not None:
            return MEASURED_ERROR
        return BY_AGE[self.by_age].error if self.age is not None else UNKNOWN_ERROR

    @property
    def heart_asks(self) -> str:
        """What has to be asked of their heart, from what it did in classes; empty where nothing, or it was answered."""
        fit = self.heart
        if fit is None or not fit.ask or fit.answered or self.effort_only:
            return ""
        if fit.ask == "measure":
            return (
                f"heart does more than {self.highest} as the highest says ({fit.seen} so far), and that is from age: "
                "measure it?"
            )
        return (
            f"heart never passes {fit.seen} in hard work, where {self.highest} is taken for the highest: medicine? "
            "By effort until that is known?"
        )

    @property
    def heart_stays(self) -> bool:
        """Whether what a strap tells of them may be kept after the class, and learnt from."""
        return self.hearts in ("yes", "before")

    @property
    def assumed(self) -> str:
        """Which heart figures are not their own, in words; empty where both are."""
        said = [] if self.rest_hr is not None else ["rest assumed"]
        if self.max_hr is None:
            said.append(
                "highest assumed"
                if self.age is None
                else f"highest from age, ± {self.highest_error:g}"
            )
        return ", ".join(said)

    def weeks(self, today: str) -> int | None:
        """Whole weeks on this standing; None where nobody said since when."""
        if not self.since:
            return None
        return max(0, (date.fromisoformat(today) - date.fromisoformat(self.since)).days // 7)


ERASED = "–"


class Comer(Person):
    """A person who comes to a class, in a group (from 0)."""

    group: int = 0

    @property
    def erased(self) -> bool:
        """Whether it is somebody who was erased: a number and a group, of whom nothing is told any more."""
        return self.initials == ERASED


def nobody(number: int, group: int) -> Comer:
    """What is left of somebody who was erased, in the classes that they came to."""
    return Comer(id=number, name="somebody", initials=ERASED, group=group)


def coming(person: Person, group: int) -> Comer:
    """Somebody as they come to a class; whom to call, and whom they go with, stays with the club."""
    blank = {"contact": "", "measured": "", "level": None, "together": (), "apart": ()}
    return Comer(**fields_of(person) | blank, group=group)
