"""What groups as they are cost in the hall: the first clashes, told beside the groups as soon as somebody is moved."""

from sqlmodel import Session as Work

from lovrit.core.crew.groups import letter
from lovrit.core.place.evening import evening
from lovrit.core.place.hall import labels, moving_block, problem_of
from lovrit.core.run.classplan import Runner, class_plan, lanes_of
from lovrit.core.timeline.plan import Plan
from lovrit.house.house import House
from lovrit.store import halls, people

MOST = 2


def clashes_of(house: House, work: Work, session_id: int, plan: Plan) -> tuple[str, ...]:
    """The first clashes of a session in its hall as its groups are; none where nothing is drawn or nobody moves."""
    hall, at = halls.hall(work, session_id), moving_block(plan)
    comers = people.comers(work, session_id)
    if at is None or not hall.spots or not comers:
        return ()
    everyone = [one for one, _ in comers]
    called = labels(everyone)
    count = max(group for _, group in comers) + 1
    groups = [[called[one.id] for one, group in comers if group == nth] for nth in range(count)]
    problem = problem_of(plan.session.blocks[at], hall, everyone, count, house.library)
    told = evening(problem, groups, halls.spots(work, session_id)).clashes
    more = (f"and {len(told) - MOST} more, on Hall",) if len(told) > MOST else ()
    return (*told[:MOST], *more)


def waves_of(house: House, plan: Plan, groups: int) -> tuple[str, str] | None:
    """Which groups begin first where a block has its half start later, and which follow; None where none has."""
    runners = [Runner(str(nth), letter(nth)) for nth in range(groups)]
    for planned in class_plan(plan.session, house.library).blocks:
        if planned.floor.lanes == "waves" and groups > 1:
            first, second = lanes_of(planned.floor, runners)
            said = (" ".join(letter(int(who)) for who in lane.people) for lane in (first, second))
            return next(said), next(said)
    return None
