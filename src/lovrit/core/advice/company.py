"""Who a session is for, as the rules see it: how many, how they stand, what some don't do, and the days around."""

from collections import Counter
from dataclasses import field
from datetime import time
from typing import Literal

from lovrit.core.asked.clashing import CLASH
from lovrit.core.asked.dose import Asks
from lovrit.core.crew.highest import USUAL, Formula
from lovrit.core.crew.person import OLDER, Limit, Person
from lovrit.core.session.session import USUAL_BEGINS, Whom
from lovrit.core.tries.done import Most
from lovrit.core.values import Value

ASKED_FROM = 50


class Schools(Value):
    """Where coaches disagree, what this club holds. What is said follows from it, and says whose it is."""

    short_rest: Literal["fades", "all-out"] = "fades"
    steer: Literal["effort", "heart", "both"] = "both"
    beginners: Literal["long", "short", "both"] = "both"
    hard: Literal["last", "anywhere"] = "last"
    warm_up: Literal["always", "own"] = "always"
    wall: Literal["letters", "names"] = "letters"
    highest: Formula = USUAL


class Day(Value):
    """A session of another day: how many days away, when it begins, what it asks; below 0 for one gone by."""

    in_days: int
    title: str
    asks: Asks
    begins: time = USUAL_BEGINS


class Company(Value):
    """Who comes. Counts only: a rule never names a person where others can read it.

    ``paces`` says how many have a numbered pace of their own; of those whose heart can steer (``steering``), the
    highest of ``from_age`` was never measured, and ``thresholds`` have one that is known. ``done`` is the most of each
    move, by its name in the library, in so many ``classes``; ``tried`` where somebody has tried the session;
    ``clash`` is what counts here as a whole load of a region, in hard minutes' worth.
    """

    groups: int | None = None
    people: int = 0
    new: int = 0
    back: int = 0
    older: int = 0
    older_eased: int = 0
    children: int = 0
    to_ask: int = 0
    new_weeks: int | None = None
    limits: dict[Limit, int] = field(default_factory=dict)
    paces: dict[int, int] = field(default_factory=dict)
    days: tuple[Day, ...] = ()
    schools: Schools = Schools()
    missing: frozenset[str] = frozenset()
    steering: int = 0
    by_effort: int = 0
    from_age: int = 0
    thresholds: int = 0
    done: dict[str, Most] = field(default_factory=dict)
    classes: int = 0
    tried: bool = False
    clash: float = CLASH

    def also_for(self, whom: tuple[Whom, ...]) -> "Company":
        """With at least one of those that the session says it is for."""
        more = {
            "new": max(self.new, int("beginners" in whom)),
            "children": max(self.children, int("children" in whom)),
            "older": max(self.older, int("older" in whom)),
        }
        return self.but(**more) if whom else self


def company_of(people: list[Person], groups: int | None, today: str | None = None) -> Company:
    """The company that these people are; ``today`` as YYYY-MM-DD, for weeks on a level."""
    weeks = [one.weeks(today) for one in people if one.standing == "new" and today]
    known = [one for one in weeks if one is not None]
    limits = Counter(limit for person in people for limit in person.limits)
    steering = [one for one in people if not one.effort_only]
    paces = Counter(number for person in people for number in {one.number for one in person.paces})
    return Company(
        groups=groups,
        people=len(people),
        new=sum(one.standing == "new" for one in people),
        back=sum(one.standing == "back" for one in people),
        older=sum((one.age or 0) >= OLDER for one in people),
        older_eased=sum((one.age or 0) >= OLDER and one.share != "" for one in people),
        children=sum(one.child for one in people),
        to_ask=sum(
            one.cleared != "yes" and ((one.age or 0) >= ASKED_FROM or one.effort_only)
            for one in people
        ),
        new_weeks=min(known, default=None),
        limits=dict(limits),
        paces=dict(paces),
        steering=len(steering),
        by_effort=len(people) - len(steering),
        from_age=sum(one.max_hr is None for one in steering),
        thresholds=sum(one.threshold_hr is not None for one in steering),
    )
