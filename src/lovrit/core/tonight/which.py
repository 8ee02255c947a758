"""Which evening a coach means who opens the door: what is on, what comes today, else the next day that has one."""

from collections.abc import Iterable, Sequence
from datetime import datetime, time
from typing import NamedTuple

SOON_DAYS = 60  # a day of the next year that is so near needs no year


class Dated(NamedTuple):
    """A session in use: its day (YYYY-MM-DD, empty where it has none) and when it begins."""

    id: int
    day: str
    begins: time


class Doing(NamedTuple):
    """What goes on: the session whose class is on, those whose class of today is over, days that are off."""

    on: int | None = None
    over: frozenset[int] = frozenset()
    off: frozenset[str] = frozenset()


def evening_meant(sessions: Sequence[Dated], now: datetime, doing: Doing) -> int | None:
    """The session of the evening that is meant, in the club's own time; None where nothing is written.

    Sessions come with the one first that was worked on last: it is meant where none has a day that comes.
    """
    if doing.on is not None:
        return doing.on
    today = f"{now:%Y-%m-%d}"
    dated = [one for one in sessions if one.day and one.day not in doing.off]
    tonight = [one for one in dated if one.day == today]
    left = [one for one in tonight if one.id not in doing.over]
    ahead = [one for one in dated if one.day > today]
    undated = [one for one in sessions if not one.day]
    for some in (_soonest(left), _soonest(tonight)[-1:], _soonest(ahead), undated, sessions):
        if some:
            return some[0].id
    return None


def _soonest(some: Iterable[Dated]) -> list[Dated]:
    return sorted(some, key=lambda one: (one.day, one.begins))


EVENING = time(17, 0)  # from here on today is tonight


def in_words(day: str, now: datetime, begins: time | None = None) -> str:
    """When an evening is, as it is said: tonight, today, tomorrow, a weekday with its day; and its hour.

    >>> in_words("2026-12-01", datetime(2026, 12, 1, 9), time(18, 10))
    'tonight at 18:10'
    >>> in_words("2026-12-03", datetime(2026, 12, 1, 9))
    'Thursday 3 December'
    """
    on = datetime.fromisoformat(day).date()
    ahead = (on - now.date()).days
    late = begins is not None and begins >= EVENING
    near = {0: "tonight" if late else "today", 1: "tomorrow"}
    year = "" if on.year == now.year or 0 < ahead < SOON_DAYS else f" {on.year}"
    at = f" at {begins:%H:%M}" if begins else ""
    return near.get(ahead, f"{on:%A %-d %B}{year}") + at
