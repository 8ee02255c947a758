"""Who a session is for, gathered for the second look: people, groups, the days around, what the club holds."""

from datetime import date, timedelta

from sqlmodel import Session as Work

from lovrit.core.advice.company import Company, Day, company_of
from lovrit.core.advice.note import effort
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.timeline.sums import HARD
from lovrit.store import people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.house import House

NEAR_DAYS = 2


def company_here(house: House, work: Work, row: SessionRow, plan: Plan, groups: int | None) -> Company:
    """The company of a session as it stands, in so many groups."""
    assert row.id is not None
    who = people.counted(work, row.id)
    counted = company_of(who, groups, house.today)
    more = {"schools": house.schools, "missing": house.missing, "days": _days(house, work, row, plan)}
    return counted.but(**more)


def _days(house: House, work: Work, row: SessionRow, plan: Plan) -> tuple[Day, ...]:
    """The sessions of the days around, where this one has a date."""
    if not plan.session.date:
        return ()
    on = date.fromisoformat(plan.session.date)
    around = {f"{on + timedelta(days=by)}": by for by in range(-NEAR_DAYS, NEAR_DAYS + 1)}
    found = []
    for day, by in around.items():
        found += [_day(house, other.text, by) for other in sessions.on_day(work, day) if other.id != row.id]
    return tuple(found)


def _day(house: House, text: str, in_days: int) -> Day:
    """What a session of another day asks; planned once, until the library changes."""
    if text not in house.days_near:
        house.days_near[text] = _asked(plan_text(text, house.library))
    return house.days_near[text].but(in_days=in_days)


def _asked(plan: Plan) -> Day:
    works = [one for one in plan.timeline.intervals if one.phase == "work" and (one.effort or 0) >= HARD]
    moves = [
        plan.library.find(line.tasks[0].name)
        for block in plan.session.blocks
        if effort(block) >= HARD
        for line in block.moves
    ]
    return Day(
        in_days=0,
        title=plan.session.title or "another session",
        hard_s=sum(one.seconds for one in works),
        patterns=frozenset(move.pattern for move in moves if move),
    )
