"""After a score: the club's pace and people's, learnt again from all classes that were kept."""

from collections.abc import Iterator

from sqlmodel import Session

from lovrit.core.forecast.learned import Scored, learn
from lovrit.core.run.event import Event
from lovrit.core.session.reader import read
from lovrit.store import classes, club
from lovrit.web.house import House

NOBODY = 0


def learn_again(house: House) -> None:
    """Hold every score that was kept against the usual pace, and forecast by what they say from now on."""
    usual = house.library.at_pace(1.0, 0)
    with house.database.work() as work:
        whole, people = learn(_scores(work), usual)
        people.pop(NOBODY, None)
        club.set_paces(work, whole, people)
    house.refresh()


def _scores(work: Session) -> Iterator[Scored]:
    """The last score of each block and person of each class; one of a whole class is nobody's own."""
    for row in classes.listed(work):
        last = {(event.block, event.person): event for event in _said(work, row.id or 0)}
        blocks = read(row.text).session.blocks if last else ()
        for (block, person), event in last.items():
            if block is not None and block < len(blocks) and event.text:
                yield Scored(person=person or NOBODY, block=blocks[block], text=event.text)


def _said(work: Session, class_id: int) -> Iterator[Event]:
    return (event for event in classes.events(work, class_id) if event.kind == "score")
