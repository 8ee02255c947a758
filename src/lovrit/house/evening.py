"""A session's evening in the hall: who comes, what has to be placed, and what clashes as it stands."""

from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.crew.person import Person
from lovrit.core.place.at_once import at_once
from lovrit.core.place.evening import evening
from lovrit.core.place.hall import Hall, Wished, labels, moving_block, problem_of
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


def clashes_in(now: InHall, house: House) -> tuple[str, ...]:
    """What can't be in the hall as groups and stations stand; none where nothing is drawn or nobody moves."""
    return (*_moving(now, house), *_standing(now, house))


def _moving(now: InHall, house: House) -> tuple[str, ...]:
    if now.at is None or not now.hall.spots or not now.comers:
        return ()
    everyone = [one for one, _ in now.comers]
    called = labels(everyone)
    count = max(group for _, group in now.comers) + 1
    groups = [[called[one.id] for one, group in now.comers if group == nth] for nth in range(count)]
    problem = problem_of(now.plan.session.blocks[now.at], now.hall, everyone, count, house.library)
    return tuple(evening(problem, groups, now.spots).clashes)


def _standing(now: InHall, house: House) -> tuple[str, ...]:
    """Kit that is short where all do the same at once."""
    people_ = [one for one, _ in now.comers]
    return tuple(
        one.text for one in at_once(now.plan, now.hall, people_, house.library) if one.short
    )
