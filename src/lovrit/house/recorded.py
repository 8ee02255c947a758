"""Records of classes worked out: a missing one before it is asked for, all of them once beside everything else."""

from contextlib import suppress

import structlog
from sqlmodel import Session as Work

from lovrit.core.crew.groups import letter
from lovrit.core.review.record import record_of
from lovrit.core.run.account import account
from lovrit.core.run.classplan import Runner
from lovrit.core.run.deeds import DEEDS
from lovrit.core.run.event import happening
from lovrit.core.run.frozen import UnreadableClass
from lovrit.core.run.going import Fold
from lovrit.core.run.here import in_their_groups
from lovrit.house.house import House
from lovrit.house.live import nameless
from lovrit.store import classes, records
from lovrit.store.trouble import Trouble

log = structlog.get_logger()
AT_ONCE = 12
EVERY_S, SOON_S = 2.0, 0.05  # a class that went over has its record so soon, also where nobody asks


def up_to_date(house: House, most: int = AT_ONCE) -> bool:
    """Work out records that are missing, so many at most; whether there are none left.

    A disk that takes nothing now keeps nobody from reading: it is tried again.
    """
    try:
        return _work_out(house, most)
    except Trouble:
        return False


def _work_out(house: House, most: int) -> bool:
    with house.database.work() as work:
        ids = records.missing(work, most + 1)
    for class_id in ids[:most]:
        _recorded(house, class_id)
    return len(ids) <= most


def _recorded(house: House, class_id: int) -> None:
    """One record; a class that breaks us is kept as one that can't be read, so that it stops no page and no other."""
    try:
        with house.database.writing() as work:
            record(house, work, class_id)
    except Trouble:
        raise
    except Exception:
        log.exception("a class left no record", class_id=class_id)
        with house.database.writing() as work:
            at = house.when(classes.get(work, class_id).made_ms)
            records.set_unreadable(work, class_id, f"{at:%Y-%m-%d}")


def record_all(house: House) -> None:
    """All that are missing, a few at a time, as long as the house is open: also what comes to be missing later."""
    while not house.closing.is_set():
        house.closing.wait(EVERY_S if up_to_date(house) else SOON_S)


def record(house: House, work: Work, class_id: int) -> None:
    """Work out the record of a class and keep it; of one that can't be read, that it can't."""
    row = classes.get(work, class_id)
    day = f"{house.when(row.made_ms):%Y-%m-%d}"
    records.set_unreadable(work, class_id, day)
    with suppress(UnreadableClass):
        comers, plan, happened = (
            classes.comers(row),
            classes.run_by(row),
            classes.events(work, class_id),
        )
        late = {event.person for event in happened if event.kind == "joins"}
        people = [Runner(str(one.id), letter(one.group)) for one in comers if one.id not in late]
        people = people or ([Runner("-1", "A")] if row.is_try else nameless(plan.session))
        fold = Fold(plan.plan(), people, DEEDS)
        for event in happened:
            fold.take(happening(event, row.made_ms, kept=True))
        over_s = ((row.over_ms or row.made_ms) - row.made_ms) / 1000
        state = account(fold.at(max(over_s, fold.state.now_s)), plan, row.made_ms)
        there = in_their_groups(comers, fold.state)
        records.keep(work, class_id, day, record_of(row.title, row.text, plan, fold, state, there))
        for tell in house.recorded:
            tell(house, work, class_id)
