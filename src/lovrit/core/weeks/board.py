"""Days with sessions and other load: what is carried from one to the next, what clashes, how alike the days are."""

from datetime import datetime, timedelta
from statistics import fmean, pstdev

import numpy as np
from numpy.typing import NDArray

from lovrit.core.asked.dose import ALSO, Asks
from lovrit.core.values import Value

WHOLE_H, HALVED_H, SORE_HALVED_H = 24.0, 24.0, 36.0
CLASH = 5.0  # hard minutes asked, and carried, from which two days clash
OTHER = {"none": 0.0, "some": 0.5, "hard": 1.0}
NAMED, ALL = 8.0, 4.0  # hard minutes of other load on the patterns it names, or on all
Line = NDArray[np.float64]
PATTERNS = ("squat", "hinge", "lunge", "push", "pull", "carry", "brace", "jump", "gait", *ALSO)


class Planned(Value):
    """A session on a day: its number or name, when it begins, what it asks, whether it may move."""

    id: str
    at: datetime
    asks: Asks
    fixed: bool = False


class Other(Value):
    """What else a day asks, in plain words: on the patterns that it names, or on all."""

    at: datetime
    what: str
    weight: str = "hard"
    patterns: tuple[str, ...] = ()


class DayClash(Value):
    """A session that asks for a pattern which is still carried."""

    session: str
    pattern: str
    asked: float
    carried: float
    since: str

    @property
    def text(self) -> str:
        """The clash in a sentence."""
        asked = f"{self.session} asks {self.asked:.0f} hard minutes of {self.pattern}"
        return f"{asked}, and {self.carried:.0f} are still carried from {self.since}."


def left(minutes: float, hours: float, halved_h: float = HALVED_H) -> float:
    """What is still carried of so many hard minutes after so many hours; nothing before they were done."""
    if hours < 0:
        return 0.0
    return minutes if hours <= WHOLE_H else minutes * 0.5 ** ((hours - WHOLE_H) / halved_h)


def carried(at: datetime, sessions: list[Planned], others: list[Other]) -> dict[str, float]:
    """Hard minutes still carried at a moment, by pattern."""
    total: dict[str, float] = {}
    for one in sessions:
        hours = (at - one.at).total_seconds() / 3600
        if hours <= 0:
            continue
        for pattern, minutes in one.asks.dose.items():
            sore = one.asks.sore.get(pattern, 0.0)
            kept = left(minutes - sore, hours) + left(sore, hours, SORE_HALVED_H)
            total[pattern] = total.get(pattern, 0.0) + kept
    for other in others:
        hours = (at - other.at).total_seconds() / 3600
        for pattern in (other.patterns or PATTERNS) if hours >= 0 else ():
            minutes = (NAMED if other.patterns else ALL) * OTHER[other.weight]
            total[pattern] = total.get(pattern, 0.0) + left(minutes, hours)
    return total


def carried_through(
    moments: list[datetime], sessions: list[Planned], others: list[Other]
) -> dict[str, Line]:
    """The same at many moments at once: a line a pattern."""
    total: dict[str, Line] = {}
    for one in sessions:
        hours = _hours(moments, one.at)
        for pattern, minutes in one.asks.dose.items():
            sore = one.asks.sore.get(pattern, 0.0)
            kept = (minutes - sore) * _share(hours, HALVED_H) + sore * _share(hours, SORE_HALVED_H)
            total[pattern] = total.get(pattern, 0.0) + np.where(hours > 0, kept, 0.0)
    for other in others:
        hours = _hours(moments, other.at)
        minutes = (NAMED if other.patterns else ALL) * OTHER[other.weight]
        for pattern in other.patterns or PATTERNS:
            kept = np.where(hours >= 0, minutes * _share(hours, HALVED_H), 0.0)
            total[pattern] = total.get(pattern, 0.0) + kept
    return total


def _hours(moments: list[datetime], since: datetime) -> Line:
    return np.array([(at - since).total_seconds() / 3600 for at in moments])


def _share(hours: Line, halved_h: float) -> Line:
    """How much of a dose is left after so many hours: all of it for a day, then half as much every so often."""
    share: Line = 0.5 ** (np.maximum(0.0, hours - WHOLE_H) / halved_h)
    return share


def clashes(sessions: list[Planned], others: list[Other], limit: float = CLASH) -> list[DayClash]:
    """Every session that asks a pattern for so many hard minutes or more while as many are carried."""
    found = []
    for one in sorted(sessions, key=lambda one: one.at):
        before = [other for other in sessions if other.at < one.at]
        there = carried(one.at, before, others)
        for pattern, asked in sorted(one.asks.dose.items()):
            if asked >= limit and there.get(pattern, 0.0) >= limit:
                found.append(
                    DayClash(
                        session=one.id,
                        pattern=pattern,
                        asked=asked,
                        carried=there[pattern],
                        since=_from(one, pattern, before, others),
                    )
                )
    return found


def _from(one: Planned, pattern: str, before: list[Planned], others: list[Other]) -> str:
    """Where most of what is carried comes from."""
    shares = [(carried(one.at, [other], []).get(pattern, 0.0), other.id) for other in before]
    shares += [(carried(one.at, [], [other]).get(pattern, 0.0), other.what) for other in others]
    return max(shares, default=(0.0, "before"))[1]


def cost(sessions: list[Planned], others: list[Other], limit: float = CLASH) -> float:
    """How much a week clashes: what is asked on what is carried, over all that clashes."""
    return sum(min(one.asked, one.carried) for one in clashes(sessions, others, limit))


def sameness(loads: list[float]) -> float | None:
    """How alike days are: their mean load over its spread (Foster 1998); None where nothing varies."""
    spread = pstdev(loads) if len(loads) > 1 else 0.0
    return fmean(loads) / spread if spread else None


def days_between(first: datetime, last: datetime) -> list[datetime]:
    """Every day's noon from one to another."""
    noon = first.replace(hour=12, minute=0, second=0, microsecond=0)
    return [noon + timedelta(days=nth) for nth in range((last.date() - first.date()).days + 1)]
