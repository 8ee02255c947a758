"""What groups as they are cost in the hall: the first clashes, told beside the groups as soon as somebody is moved."""

from sqlmodel import Session as Work

from lovrit.core.crew.groups import letter
from lovrit.core.run.classplan import Runner, class_plan, lanes_of
from lovrit.core.timeline.plan import Plan
from lovrit.house.evening import clashes_in, evening_of
from lovrit.house.house import House

MOST = 2


def clashes_of(house: House, work: Work, session_id: int) -> tuple[str, ...]:
    """The first clashes of a session in its hall as its groups are."""
    told = clashes_in(evening_of(house, work, session_id), house)
    more = (f"and {len(told) - MOST} more, under Where",) if len(told) > MOST else ()
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
