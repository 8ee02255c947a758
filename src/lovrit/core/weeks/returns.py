"""What comes back: patterns, moves and skills by how long since they were done, and when they are planned again.

Only what a club (or a person) has done before can come back; of what was never done nothing is said. The figures are
coaches' practice, to be checked: a lift not seen for two weeks feels strange, a skill wants to be seen each week.
"""

from collections.abc import Iterable
from datetime import date
from typing import Literal, NamedTuple

from lovrit.core.moves.move import STRENGTH
from lovrit.core.tries.done import Did

PATTERN_DAYS, MOVE_DAYS, SKILL_DAYS = 14, 28, 8
PATTERN_TIMES, MOVE_TIMES, SKILL_TIMES = 2, 3, 2  # so often it must have been done to be missed
PRACTISED_DAYS = 28  # a skill that was seen so lately is one that is practised
USED_WEEKS = 4  # a pattern done in each of so many weeks protects (McHugh 2003)
UNUSED_DAYS = 21  # a pattern not done for so long leaves sore


class Return(NamedTuple):
    """What has not been seen for a while: its name, what it is, days since, and in how many days it is planned."""

    name: str
    what: Literal["pattern", "skill", "move"]
    days: int
    planned: int | None
    times: int

    @property
    def said(self) -> str:
        """In words, such as "pull: not for 30 days, and again in 2 days"."""
        again = "" if self.planned is None else ", and again " + _in(self.planned)
        return f"{self.name}: not for {self.days} days{again}"


def _in(days: int) -> str:
    return "today" if days == 0 else "tomorrow" if days == 1 else f"in {days} days"


def returns(
    done: Iterable[tuple[date, tuple[Did, ...]]],
    planned: Iterable[tuple[date, tuple[Did, ...]]],
    today: date,
) -> tuple[Return, ...]:
    """What was done (by day) and has not been for a while, with when it is planned again; the longest first of each."""
    patterns, moves, skills, names = _by_name(done, today)
    ahead = _ahead(planned, today)
    found = [
        *_missed("pattern", patterns, {}, ahead, PATTERN_DAYS, PATTERN_TIMES),
        *_missed("skill", _practised(skills), names, ahead, SKILL_DAYS, SKILL_TIMES),
        *_missed("move", moves, names, ahead, MOVE_DAYS, MOVE_TIMES),
    ]
    said: dict[str, Return] = {}
    for one in found:
        said.setdefault(one.name, one)
    return tuple(said.values())


Days = dict[str, list[int]]


def _by_name(
    done: Iterable[tuple[date, tuple[Did, ...]]], today: date
) -> tuple[Days, Days, Days, dict[str, str]]:
    """Days since, for patterns, for moves and for skills; and what moves are called here."""
    patterns, moves, skills, names = Days(), Days(), Days(), dict[str, str]()
    for on, some in sorted(done, key=lambda one: one[0]):
        ago = (today - on).days
        if ago < 0:
            continue
        for pattern in {one.pattern for one in some if one.pattern in STRENGTH}:
            patterns.setdefault(str(pattern), []).append(ago)
        for one in some:
            if one.pattern == "mobility":
                continue
            moves.setdefault(one.move, []).append(ago)
            names[one.move] = one.said
            if one.skill:
                skills.setdefault(one.move, []).append(ago)
    return patterns, moves, skills, names


def _practised(skills: Days) -> Days:
    """Skills that are practised by now: seen twice or more in the last weeks."""
    return {
        key: days
        for key, days in skills.items()
        if sum(one <= PRACTISED_DAYS for one in days) >= SKILL_TIMES
    }


def _ahead(planned: Iterable[tuple[date, tuple[Did, ...]]], today: date) -> dict[str, int]:
    """In how many days each pattern and move is planned first."""
    found: dict[str, int] = {}
    for on, some in planned:
        days = (on - today).days
        for name in (
            {*(one.move for one in some), *(str(one.pattern) for one in some)} if days >= 0 else ()
        ):
            found[name] = min(days, found.get(name, days))
    return found


def _missed(
    what: Literal["pattern", "skill", "move"],
    seen: Days,
    names: dict[str, str],
    ahead: dict[str, int],
    least_days: int,
    least_times: int,
) -> list[Return]:
    found = [
        Return(names.get(key, key), what, min(days), ahead.get(key), len(days))
        for key, days in seen.items()
        if len(days) >= least_times and min(days) >= least_days
    ]
    return sorted(found, key=lambda one: (-one.days, one.name))


class Lately(NamedTuple):
    """Patterns not done in the three weeks before a day, and those done in each of the four."""

    unused: frozenset[str] = frozenset()
    used: frozenset[str] = frozenset()


def lately(done: Iterable[tuple[date, tuple[Did, ...]]], on: date) -> Lately:
    """What was done lately and what was not, before a day; nothing where the club is younger than that."""
    days = [(day, some) for day, some in done if day < on]
    if not days or (on - min(day for day, _ in days)).days < UNUSED_DAYS:
        return Lately()
    weeks = [set[str]() for _ in range(USED_WEEKS)]
    for day, some in days:
        back = (on - day).days // 7
        if back < USED_WEEKS:
            weeks[back] |= {one.pattern for one in some if one.pattern}
    return Lately(
        frozenset(STRENGTH - set().union(*weeks[:3])), frozenset(set.intersection(*weeks))
    )
