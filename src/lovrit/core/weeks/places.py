"""Two sessions at one hour in one hall, or of one coach: said before two groups stand before one door."""

from datetime import datetime, timedelta
from itertools import combinations
from typing import NamedTuple


class Held(NamedTuple):
    """A session as it takes up a hall and a coach; the coach is empty where nobody said who."""

    id: int
    title: str
    at: datetime
    minutes: int
    hall: str
    coach: str


class Twice(NamedTuple):
    """Two sessions that want the same at one hour: which, and what, in words."""

    one: int
    other: int
    said: str


def twice(sessions: list[Held]) -> tuple[Twice, ...]:
    """All pairs that overlap in one hall, or under one coach."""
    found = []
    for one, other in combinations(sorted(sessions, key=lambda held: held.at), 2):
        if other.at >= one.at + timedelta(minutes=one.minutes):
            continue
        what = f"the {one.hall}" if one.hall == other.hall else ""
        if not what and one.coach and one.coach.casefold() == other.coach.casefold():
            what = one.coach
        if what:
            when = f"{other.at:%A %-d %B, %H:%M}"
            found.append(
                Twice(
                    one.id, other.id, f"{one.title} and {other.title} both want {what} on {when}."
                )
            )
    return tuple(found)
