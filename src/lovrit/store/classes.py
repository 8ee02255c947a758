"""Classes kept: what happened in them, in order, and what the straps said."""

from collections.abc import Iterable
from typing import Any

from sqlalchemy import func, insert
from sqlmodel import Session, col, select

from lovrit.core.crew.person import Comer
from lovrit.core.run.event import Event
from lovrit.store.sessions import Gone
from lovrit.store.tables import ClassRow, EventRow, SampleRow


def make(work: Session, session_id: int, title: str, text: str, comers: Iterable[Comer], now_ms: int) -> ClassRow:
    """A class from a session as it stands."""
    people = [comer.model_dump(mode="json") for comer in comers]
    row = ClassRow(session_id=session_id, title=title, text=text, people=people, made_ms=now_ms)
    work.add(row)
    work.flush()
    return row


def get(work: Session, class_id: int) -> ClassRow:
    """A class.

    Raises:
        Gone: if there is none of this number.
    """
    row = work.get(ClassRow, class_id)
    if row is None:
        raise Gone("There is no such class any more.")
    return row


def comers(row: ClassRow) -> tuple[Comer, ...]:
    """Who came, as the class began."""
    return tuple(Comer.model_validate(one) for one in row.people)


def listed(work: Session) -> list[ClassRow]:
    """All classes, the newest first."""
    return list(work.exec(select(ClassRow).order_by(col(ClassRow.made_ms).desc(), col(ClassRow.id).desc())))


def open_classes(work: Session) -> list[ClassRow]:
    """Classes that are not over."""
    return list(work.exec(select(ClassRow).where(col(ClassRow.over_ms).is_(None))))


def events(work: Session, class_id: int) -> tuple[Event, ...]:
    """What happened, in order."""
    query = select(EventRow).where(EventRow.class_id == class_id).order_by(col(EventRow.seq))
    return tuple(Event.model_validate(row.body) for row in work.exec(query))


def add_event(work: Session, class_id: int, event: Event) -> bool:
    """Write an event down; one that came before counts once, and False is returned."""
    query = select(EventRow.seq).where(EventRow.class_id == class_id, EventRow.event_id == event.id)
    if work.exec(query).first() is not None:
        return False
    last = work.exec(select(func.max(EventRow.seq)).where(EventRow.class_id == class_id)).one()
    body: dict[str, Any] = event.model_dump(mode="json", exclude_none=True)
    work.add(EventRow(class_id=class_id, seq=(last or 0) + 1, event_id=event.id, at_ms=event.at_ms, body=body))
    return True


def add_samples(work: Session, class_id: int, at_ms: int, beats: dict[int, int]) -> None:
    """Write one second of all straps down."""
    rows = [{"class_id": class_id, "person_id": who, "at_ms": at_ms, "bpm": bpm} for who, bpm in beats.items()]
    if rows:
        work.connection().execute(insert(SampleRow).prefix_with("OR IGNORE"), rows)


def traces(work: Session, class_id: int) -> dict[int, list[tuple[int, int]]]:
    """Each person's readings as (time in ms, beats a minute), in order."""
    query = select(SampleRow.person_id, SampleRow.at_ms, SampleRow.bpm).where(SampleRow.class_id == class_id)
    found: dict[int, list[tuple[int, int]]] = {}
    for who, at_ms, bpm in work.exec(query.order_by(col(SampleRow.person_id), col(SampleRow.at_ms))):
        found.setdefault(who, []).append((at_ms, bpm))
    return found
