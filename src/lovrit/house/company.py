"""Who a session is for, gathered for the second look: people, groups, the days around, what the club holds."""

from datetime import date, timedelta

from sqlmodel import Session as Work

from lovrit.core.advice.company import Company, Day, company_of
from lovrit.core.asked.dose import asks
from lovrit.core.crew.person import Person
from lovrit.core.session.session import USUAL_BEGINS
from lovrit.core.timeline.plan import Plan
from lovrit.core.tries.done import Most, of_all
from lovrit.house.house import House
from lovrit.store import classes, records, sessions, weeks
from lovrit.store.tables import SessionRow

NEAR_DAYS = 3
CLASSES = frozenset({"class", "class_record"})
REMEMBERED_DAYS = 3 * 365  # what nobody did for so long is new again


def company_here(
    house: House, work: Work, row: SessionRow, plan: Plan, who: list[Person], groups: int | None
) -> Company:
    """The company of a session as it stands, of these people in so many groups."""
    counted = company_of(who, groups, house.today)
    most, classes_done = _done(house, work)
    more = {
        "done": most,
        "classes": classes_done,
        "tried": house.facts.resting_on(
            work, CLASSES, ("tried", row.id), lambda: classes.has_try(work, row.id or 0)
        ),
        "schools": house.schools,
        "missing": house.missing,
        "days": _days(house, work, row, plan),
        "clash": weeks.limit(work),
    }
    return counted.but(**more)


def _done(house: House, work: Work) -> tuple[dict[str, Most], int]:
    """The most of each move in classes and tries here, and in how many."""
    since = f"{date.fromisoformat(house.today) - timedelta(days=REMEMBERED_DAYS)}"

    def made() -> tuple[dict[str, Most], int]:
        every = records.done(work, since, tries=True)
        return of_all(one.did for one in every), len(every)

    return house.facts.resting_on(work, CLASSES, ("done", since), made)


def _days(house: House, work: Work, row: SessionRow, plan: Plan) -> tuple[Day, ...]:
    """The sessions of the days around, where this one has a date."""
    if not plan.session.date:
        return ()
    on = date.fromisoformat(plan.session.date)
    first, last = on - timedelta(days=NEAR_DAYS), on + timedelta(days=NEAR_DAYS)
    others = [
        one
        for one in sessions.between_days(work, f"{first}", f"{last}")
        if one.id != row.id and one.day
    ]
    return tuple(
        _day(house, one.text, (date.fromisoformat(one.day or "") - on).days) for one in others
    )


def _day(house: House, text: str, in_days: int) -> Day:
    """What a session of another day asks."""
    key = ("day", text, house.library_key)
    return house.facts.of(key, lambda: _asked(house.plan(text))).but(in_days=in_days)


def _asked(plan: Plan) -> Day:
    slot = plan.session.slot
    begins = (slot.begins if slot else None) or USUAL_BEGINS
    title = plan.session.title or "another session"
    return Day(in_days=0, title=title, asks=asks(plan), begins=begins)
