"""A session's evening in the hall: who comes, what has to be placed, and what clashes as it stands."""

from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.place.at_once import at_once
from lovrit.core.place.evening import Evening, evening
from lovrit.core.place.hall import Hall, Wished, labels, moving_block, problem_of
from lovrit.core.place.problem import Problem
from lovrit.core.place.stations import rooms
from lovrit.core.timeline.plan import Plan
from lovrit.house.house import House
from lovrit.store import halls, people, sessions
from lovrit.store.tables import SessionRow


class InHall(NamedTuple):
    """A session with who comes to it and where."""

    row: SessionRow
    plan: Plan
    at: int | None
    hall: Hall
    wished: Wished
    comers: list[tuple[Person, int]]
    spots: dict[str, str]


def evening_of(house: House, work: Work, session_id: int) -> InHall:
    """A session with who comes to it, its hall, and where its stations were placed."""
    row = sessions.get(work, session_id)
    plan = house.plan(row.good_text or row.text)
    return InHall(
        row,
        plan,
        moving_block(plan),
        halls.hall(work, session_id),
        Wished(
            halls.wishes(work, session_id),
            halls.mixed(work, session_id),
            halls.stood(work, session_id),
            halls.order(work, session_id),
        ),
        people.comers(work, session_id),
        halls.spots(work, session_id),
    )


class Stood(NamedTuple):
    """An evening as it stands in its hall: what has to be placed, people by group, and what follows of it."""

    problem: Problem
    groups: list[list[str]]
    told: Evening


def problem_in(now: InHall, library: Library, wished: Wished | None = None) -> Problem:
    """What has to be placed of a session's moving block tonight."""
    assert now.at is not None
    groups = max((group for _, group in now.comers), default=-1) + 1
    people_ = [one for one, _ in now.comers]
    block = now.plan.session.blocks[now.at]
    return problem_of(block, now.hall, people_, groups, library, wished)


def stood(now: InHall, library: Library) -> Stood | None:
    """The evening as groups and stations stand; None where nobody moves."""
    if now.at is None:
        return None
    problem = problem_in(now, library)
    called = labels([one for one, _ in now.comers])
    groups = [
        [called[one.id] for one, group in now.comers if group == nth]
        for nth in range(problem.count)
    ]
    ways = tuple((one.what, one.x, one.y) for one in now.hall.ways)
    room = rooms(now.plan.session.blocks[now.at].moves, library)
    told = evening(problem, groups, now.spots, ways, now.hall.size_m, room)
    return Stood(problem, groups, told)


def clashes_in(now: InHall, house: House) -> tuple[str, ...]:
    """What can't be in the hall as groups and stations stand; none where nothing is drawn or nobody comes."""
    here = stood(now, house.library) if now.hall.spots and now.comers else None
    people_ = [one for one, _ in now.comers]
    short = at_once(now.plan, now.hall, people_, house.library)
    return (*(here.told.clashes if here else ()), *(one.text for one in short if one.short))
