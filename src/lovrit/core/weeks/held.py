"""When the next step of a series waits: the week before was too much, and how that shows. The limits are ours."""

from statistics import median
from typing import NamedTuple

from lovrit.core.clock import clock, number
from lovrit.core.run.outcome import Outcome

MANY_STOPPED, MOST_KEPT = 0.25, 0.5
TOO_MUCH, FEWEST, A_SHARE = 2.0, 3, 0.25
LEFT_OUT_S = 180
FALSE_START = 0.1  # of the planned work; a class that did less was begun by mistake or called off, and says nothing


class Weighed(NamedTuple):
    """What a week says to the next: why its step waits, if it does; ``unknown`` where nothing can be told."""

    held: str
    unknown: str = ""


def weigh(week: Outcome) -> Weighed:
    """What a class of a series says to the week after it."""
    if not week.run or not week.came or week.done < FALSE_START:
        return Weighed("", "it was not run")
    for why in (_stopped(week), _felt(week), _kept(week), _ended(week)):
        if why:
            return Weighed(why)
    known = _told(week) or week.stopped or (week.ended and week.missed_s) or week.late_s
    return Weighed("", "" if known else "nobody said how it was")


def _stopped(week: Outcome) -> str:
    few = week.came < FEWEST and week.stopped
    if few or (week.stopped > 1 and week.stopped / week.came >= MANY_STOPPED):
        return f"{week.stopped} of {week.came} stopped"
    return ""


def _enough(said: int, came: int) -> bool:
    """Whether so many speak for those who came: three of them and a quarter, or all where there are fewer."""
    return said >= min(came, max(FEWEST, A_SHARE * came)) and said > 0


def _told(week: Outcome) -> bool:
    felt = week.asked is not None and _enough(len(week.felt), week.came)
    return felt or _enough(week.told, week.came)


def _felt(week: Outcome) -> str:
    if week.asked is None or not _enough(len(week.felt), week.came):
        return ""
    felt = median(week.felt)
    return (
        f"effort {number(felt)} where {number(week.asked)} was asked"
        if felt - week.asked >= TOO_MUCH
        else ""
    )


def _kept(week: Outcome) -> str:
    if _enough(week.told, week.came) and week.kept / week.told < MOST_KEPT:
        return f"{week.kept} of {week.told} kept all turns up"
    return ""


def _ended(week: Outcome) -> str:
    return (
        f"ended {clock(week.missed_s)} before its end"
        if week.ended and week.missed_s >= LEFT_OUT_S
        else ""
    )


def held_back(texts: list[str], nth: int) -> list[str]:
    """The weeks of a series after the step behind week ``nth`` (from 0) was held: it comes once more, all else later.

    >>> held_back(["a", "b", "c"], 0)
    ['a', 'a', 'b']
    """
    return [*texts[: nth + 1], *texts[nth:-1]] if nth < len(texts) - 1 else list(texts)
