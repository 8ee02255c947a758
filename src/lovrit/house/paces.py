"""After a score: what its class says of people's pace, kept by class; the club's pace is what all classes add up to."""

from sqlmodel import Session as Work

from lovrit.core.forecast.learned import Scored, learn, ratios_of
from lovrit.core.run.account import ScoreTold
from lovrit.core.run.frozen import Frozen, UnreadableClass
from lovrit.house.house import House
from lovrit.store import classes, club

NOBODY = 0


def learn_from(house: House, class_id: int, plan: Frozen, scores: tuple[ScoreTold, ...]) -> None:
    """Hold a class's scores against the usual pace, and forecast by what all classes say from now on.

    A try says how one or two fared, so the club's pace learns nothing from it.
    """
    with house.database.writing() as work:
        if classes.get(work, class_id).is_try:
            return
        _keep(house, work, class_id, plan, scores)
        sum_up(work)


def learn_class(house: House, work: Work, class_id: int) -> None:
    """Learn from a class that was kept; nothing from one that can't be read."""
    row = classes.get(work, class_id)
    if row.is_try:
        return
    try:
        plan = classes.run_by(row)
        happened = [event for event in classes.events(work, class_id) if event.kind == "score"]
    except UnreadableClass:
        return
    last = {
        (one.block, one.person): one for one in happened
    }  # a later one takes the place of an earlier
    told = [
        ScoreTold(block=block, text=(event.text or "").strip(), person=person)
        for (block, person), event in last.items()
        if block is not None and (event.text or "").strip()
    ]
    _keep(house, work, class_id, plan, tuple(told))


def _keep(
    house: House, work: Work, class_id: int, plan: Frozen, scores: tuple[ScoreTold, ...]
) -> None:
    usual = house.library.at_pace(1.0, 0)
    blocks = plan.session.blocks
    scored = [
        Scored(person=one.person or NOBODY, block=blocks[one.block], text=one.text)
        for one in scores
        if one.block < len(blocks)
    ]
    club.keep_learnt(work, class_id, ratios_of(scored, usual))


def sum_up(work: Work) -> None:
    """The club's pace and people's from all classes; a score of a whole class is nobody's own."""
    whole, people = learn(club.learnt(work))
    people.pop(NOBODY, None)
    club.set_paces(work, whole, people)
