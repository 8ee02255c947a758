"""When a level may rise: by rule, proposed, never by itself. Beginners stay four or five weeks on one level.

Figures are coaches' practice, to be checked.
"""

from collections.abc import Sequence
from datetime import date
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.fits import Option, ladder
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line

LEAST_WEEKS, LEAST_CLASSES, LAST, RECENT_WEEKS = 4, 4, 3, 4


class Did(NamedTuple):
    """What somebody did at a station in a class: the version with its load, how it felt, what was asked, all of it?"""

    day: date
    said: str
    felt: float | None
    asked: float | None
    whole: bool


class Rise(NamedTuple):
    """A level that may rise: what it was, what comes next (its place among the options), and why."""

    station: str
    was: str
    next: str
    at: int
    because: str


def rise(
    person: Person, line: Line, library: Library, did: Sequence[Did], today: date
) -> Rise | None:
    """What may come next at a station, from what was done there; None where nothing says so yet."""
    if not did or person.standing == "back":
        return None
    row = sorted(did, key=lambda one: one.day)
    changed = [nth for nth, one in enumerate(row) if one.said != row[-1].said]
    same = row[max(changed, default=-1) + 1 :]
    above = _above(person, line, library, row[-1].said)
    if above is None or not _ready(same, today):
        return None
    at, option = above
    weeks = (same[-1].day - same[0].day).days // 7
    because = f"{len(same)} classes over {weeks} weeks, all sets done, felt no harder than asked"
    return Rise(line.name, row[-1].said, said(option), at, because)


def said(option: Option) -> str:
    """A version with its load, as a cell of the fit sheet says it of what was done."""
    return option.name + ("" if option.load is None else f", {number(option.load)} kg")


def _ready(same: list[Did], today: date) -> bool:
    """Long enough, often enough and lately on one level, whole, and none of the last ones harder than asked."""
    lasted = (same[-1].day - same[0].day).days >= 7 * LEAST_WEEKS
    lately = (today - same[-1].day).days <= 7 * RECENT_WEEKS
    last = [one for one in same if one.whole][-LEAST_CLASSES:]
    if not (lasted and lately and len(last) == LEAST_CLASSES and last == same[-LEAST_CLASSES:]):
        return False
    return all(
        one.felt is not None and one.asked is not None and one.felt <= one.asked
        for one in same[-LAST:]
    )


def _above(person: Person, line: Line, library: Library, now: str) -> tuple[int, Option] | None:
    """The next option that no limit forbids: up to the move as written at its heaviest, or harder by the line."""
    options = ladder(line, library, person)
    here = [nth for nth, one in enumerate(options) if said(one) == now]
    written = max(nth for nth, one in enumerate(options) if one.name == line.tasks[0].name)
    top = written + sum(1 for way in line.tasks[0].harder if way.name)
    if not here:
        return None
    return next(
        (
            (nth, options[nth])
            for nth in range(here[0] + 1, min(top + 1, len(options)))
            if not options[nth].asks & frozenset(person.limits)
        ),
        None,
    )
