"""Records of classes worked out: a missing one before it is asked for, all of them once beside everything else."""

import structlog

from lovrit.core.review.record import Record, record_of
from lovrit.core.run.account import account
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import UnreadableClass
from lovrit.core.run.here import in_their_groups
from lovrit.house.folded import folded
from lovrit.house.house import House
from lovrit.store import classes, records
from lovrit.store.tables import ClassRow
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
        _record(house, class_id)
    except Trouble:
        raise
    except Exception as error:
        if not isinstance(error, UnreadableClass):
            log.exception("a class left no record", class_id=class_id)
        with house.database.writing() as work:
            records.set_unreadable(work, class_id, _day(house, classes.get(work, class_id)))


def _day(house: House, row: ClassRow) -> str:
    return f"{house.when(row.made_ms):%Y-%m-%d}"


def _record(house: House, class_id: int) -> None:
    """Work out a record outside the unit that writes: who presses meanwhile waits for a line, not for a class."""
    with house.database.work() as work:
        row, happened = classes.get(work, class_id), classes.events(work, class_id)
    made = _worked_out(row, happened)
    with house.database.writing() as work:
        now = classes.get(work, class_id)
        if (now.people, classes.events(work, class_id)) != (row.people, happened):
            return  # something happened in it meanwhile: its record is still missing
        day = _day(house, row)
        records.set_unreadable(work, class_id, day)
        records.keep(work, class_id, day, made)
        for tell in house.recorded:
            tell(house, work, class_id)


def _worked_out(row: ClassRow, happened: tuple[Event, ...]) -> Record:
    """The record of a class.

    Raises:
        UnreadableClass: if it was kept in a way that isn't read here.
    """
    plan, comers, fold, _ = folded(row, happened)
    over_s = ((row.over_ms or row.made_ms) - row.made_ms) / 1000
    state = account(fold.at(max(over_s, fold.state.now_s)), plan, row.made_ms)
    there = in_their_groups(comers, fold.state)
    return record_of(row.title, row.text, plan, fold, state, there)


def record_all(house: House) -> None:
    """All that are missing, a few at a time, as long as the house is open: also what comes to be missing later."""
    while not house.closing.is_set():
        house.closing.wait(EVERY_S if up_to_date(house) else SOON_S)
