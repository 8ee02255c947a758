"""Who a session is for, gathered for the second look: people, groups, the days around, what the club holds."""

from datetime import UTC, date, datetime, timedelta
from functools import lru_cache

from sqlmodel import Session

from lovrit.core.advice.company import Company, Day, company_of
from lovrit.core.advice.note import HARD, effort
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.store import people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.house import House

NEAR_DAYS = 2


def company_here(house: House, work: Session, row: SessionRow, plan: Plan, groups: int | None) -> Company:
    """The company of a session as it stands, in so many groups."""
    assert row.id is not None
    today = f"{datetime.fromtimestamp(house.now_ms() / 1000, UTC):%Y-%m-%d}"
    who = people.counted(work, row.id)
    counted = company_of(who, groups, today)
    more = {"schools": house.schools, "missing": house.missing, "days": _days(work, row, plan)}
    return counted.model_copy(update=more)


def _days(work: Session, row: SessionRow, plan: Plan) -> tuple[Day, ...]:
    """The sessions of the days around, where this one has a date."""
    if not plan.session.date:
        return ()
    on = date.fromisoformat(plan.session.date)
    around = {f"{on + timedelta(days=by)}": by for by in range(-NEAR_DAYS, NEAR_DAYS + 1)}
    found = []
    for day, by in around.items():
        found += [_day(other.text, by) for other in sessions.on_day(work, day) if other.id != row.id]
    return tuple(found)


@lru_cache(maxsize=64)
def _day(text: str, in_days: int) -> Day:
    """What a session of another day asks."""
    plan = plan_text(text, shipped())
    works = [one for one in plan.timeline.intervals if one.phase == "work" and (one.effort or 0) >= HARD]
    moves = [
        plan.library.find(line.tasks[0].name)
        for block in plan.session.blocks
        if effort(block) >= HARD
        for line in block.moves
    ]
    return Day(
        in_days=in_days,
        title=plan.session.title or "another session",
        hard_s=sum(one.seconds for one in works),
        patterns=frozenset(move.pattern for move in moves if move),
    )
