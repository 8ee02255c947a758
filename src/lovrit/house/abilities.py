"""What people can do, as their scores say it: worked out once for all who ask, anew where a class changes."""

from datetime import date

from sqlmodel import Session as Work

from lovrit.core.review.can import Fact, Shown, facts_of, shown_by
from lovrit.core.run.frozen import Frozen, UnreadableClass
from lovrit.house.house import House
from lovrit.store import classes, records

CLASSES = frozenset({"class", "class_record", "class_score"})
MOST_SCORES = 400


def abilities(house: House, work: Work, person_id: int) -> tuple[Fact, ...]:
    """What one person can do by what they did, of all classes that can be compared."""
    key = ("abilities", person_id, house.today, house.library_key)
    return house.facts.resting_on(work, CLASSES, key, lambda: _facts(house, work, person_id))


def _facts(house: House, work: Work, person_id: int) -> tuple[Fact, ...]:
    plans: dict[int, Frozen | None] = {}
    told: list[tuple[date, Shown]] = []
    for row in records.scores_of(work, person_id)[-MOST_SCORES:]:
        if row.class_id not in plans:
            plans[row.class_id] = _plan(work, row.class_id)
        plan = plans[row.class_id]
        if plan is None or row.block >= len(plan.session.blocks):
            continue
        shown = shown_by(plan.session.blocks[row.block], row.said, plan.library)
        if shown is not None:
            told.append((date.fromisoformat(row.day), shown))
    return facts_of(told, date.fromisoformat(house.today))


def _plan(work: Work, class_id: int) -> Frozen | None:
    try:
        return classes.run_by(classes.get(work, class_id))
    except UnreadableClass:
        return None
