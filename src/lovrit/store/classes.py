"""Classes kept: what happened in them, in order, and what the straps said."""

from collections.abc import Iterable
from contextlib import suppress
from typing import Any

from pydantic import ValidationError
from sqlalchemy import func, insert
from sqlalchemy.orm import defer
from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import Library
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import (
    FORMAT,
    Frozen,
    UnreadableClass,
    freeze,
    frozen_object,
    session_of,
    thaw,
)
from lovrit.core.timeline.plan import plan_session, plan_text
from lovrit.core.values import checked, plain
from lovrit.store import records
from lovrit.store.sessions import Gone
from lovrit.store.tables import ClassRow, EventRow, SampleRow

PAGE = 50


def make(
    work: Work,
    session_id: int | None,
    title: str,
    text: str,
    comers: Iterable[Comer],
    now_ms: int,
    by: Frozen,
    is_try: bool = False,
) -> ClassRow:
    """A class from a session as it stands, run ``by`` what it was planned as; or a try of it."""
    people = [plain(comer) for comer in comers]
    row = ClassRow(
        session_id=session_id,
        title=title,
        text=text,
        people=people,
        made_ms=now_ms,
        is_try=is_try,
        frozen=frozen_object(by),
    )
    work.add(row)
    work.flush()
    return row


def get(work: Work, class_id: int) -> ClassRow:
    """A class.

    Raises:
        Gone: if there is none of this number.
    """
    row = work.get(ClassRow, class_id)
    if row is None:
        raise Gone("There is no such class any more.")
    return row


def is_here(work: Work, made_ms: int, title: str) -> bool:
    """Whether a class of this title was made at this moment."""
    query = select(ClassRow.id).where(ClassRow.made_ms == made_ms, ClassRow.title == title)
    return work.exec(query.limit(1)).first() is not None


def comers(row: ClassRow) -> tuple[Comer, ...]:
    """Who came, as the class began.

    Raises:
        Unreadable: if a comer was kept in a way that isn't read here.
    """
    try:
        return tuple(checked(Comer, one) for one in row.people)
    except ValidationError:
        raise UnreadableClass("Somebody who came to it can’t be read.") from None


def add_comer(work: Work, class_id: int, comer: Comer) -> None:
    """Somebody who came late."""
    row = get(work, class_id)
    row.people = [*row.people, plain(comer)]
    work.add(row)


def run_by(row: ClassRow) -> Frozen:
    """What a class is run by.

    Raises:
        Unreadable: if it was kept in a way that isn't read here.
    """
    return thaw(row.frozen or {})


def freeze_old(work: Work, library: Library) -> list[int]:
    """Classes of before, which were planned again each time: from now on they stay as they are now. Their numbers."""
    found = []
    for row in work.exec(select(ClassRow).where(col(ClassRow.frozen).is_(None))):
        row.frozen = frozen_object(freeze(plan_text(row.text, library)))
        work.add(row)
        found.append(row.id or 0)
    before = func.json_extract(col(ClassRow.frozen), "$.format") < FORMAT
    for row in work.exec(select(ClassRow).where(before)):
        with suppress(UnreadableClass):  # it is set aside, and said, where it is asked for
            session = session_of(row.frozen or {})
            row.frozen = frozen_object(freeze(plan_session(session, library)))
            work.add(row)
            found.append(row.id or 0)
    return found


def _here() -> Any:
    """Of those that were not put away."""
    return col(ClassRow.away_ms).is_(None)


def _newest() -> list[Any]:
    return [col(ClassRow.made_ms).desc(), col(ClassRow.id).desc()]


def listed(
    work: Work, most: int = PAGE, past: int = 0, only: list[int] | None = None
) -> list[ClassRow]:
    """So many classes, the newest first, past so many; without what they are run by, which is large.

    ``only`` these, in their order, where some are named.
    """
    query = select(ClassRow).options(defer(col(ClassRow.frozen)), defer(col(ClassRow.people)))  # type: ignore[arg-type]
    if only is None:
        return list(work.exec(query.where(_here()).order_by(*_newest()).limit(most).offset(past)))
    wanted = only[past : past + most]
    rows = {row.id: row for row in work.exec(query.where(col(ClassRow.id).in_(wanted)))}
    return [rows[one] for one in wanted if one in rows]


def count(work: Work) -> int:
    """How many classes there are."""
    return work.exec(select(func.count()).select_from(ClassRow).where(_here())).one()


def put_away(work: Work, class_id: int, away_ms: int | None) -> None:
    """A class that was none is put away, and comes back where ``away_ms`` is None.

    While it is away no list, record, kin or forecast knows of it.
    """
    row = get(work, class_id)
    row.away_ms = away_ms
    work.add(row)
    records.drop(work, class_id)


def away(work: Work, most: int) -> list[ClassRow]:
    """The classes that were put away, the last one first."""
    query = select(ClassRow).options(defer(col(ClassRow.frozen)), defer(col(ClassRow.people)))  # type: ignore[arg-type]
    query = query.where(col(ClassRow.away_ms).is_not(None))
    return list(work.exec(query.order_by(col(ClassRow.away_ms).desc()).limit(most)))


def set_comers(work: Work, class_id: int, comers: Iterable[Comer]) -> None:
    """Who comes to a class that has not begun, said anew."""
    row = get(work, class_id)
    row.people = [plain(comer) for comer in comers]
    work.add(row)


def open_ids(work: Work) -> list[int]:
    """The numbers of the classes that are not over, the oldest first."""
    query = select(ClassRow.id).where(col(ClassRow.over_ms).is_(None), _here())
    query = query.order_by(col(ClassRow.id))
    return [class_id for class_id in work.exec(query) if class_id is not None]


def open_of(work: Work, session_id: int) -> list[ClassRow]:
    """A session's classes that are not over, the newest first; a try is none of them."""
    query = select(ClassRow).where(
        col(ClassRow.over_ms).is_(None),
        ClassRow.session_id == session_id,
        col(ClassRow.is_try).is_(False),
        _here(),
    )
    return list(work.exec(query.order_by(*_newest())))


def tries_of(work: Work, session_id: int, most: int) -> list[ClassRow]:
    """The tries of a session, so many at most, the newest first."""
    query = select(ClassRow).where(ClassRow.session_id == session_id, col(ClassRow.is_try), _here())
    return list(work.exec(query.order_by(*_newest()).limit(most)))


def of_sessions(work: Work, session_ids: list[int]) -> list[ClassRow]:
    """The classes of some sessions that are over, the oldest first; tries are none of them."""
    query = select(ClassRow).options(defer(col(ClassRow.frozen)), defer(col(ClassRow.people)))  # type: ignore[arg-type]
    query = query.where(
        col(ClassRow.session_id).in_(session_ids),
        col(ClassRow.is_try).is_(False),
        col(ClassRow.over_ms).is_not(None),
        _here(),
    )
    return list(work.exec(query.order_by(col(ClassRow.made_ms))))


def over_between(work: Work, from_ms: int, to_ms: int) -> list[ClassRow]:
    """The classes that were made in a time and are over, the oldest first; tries are none of them."""
    query = select(ClassRow).options(defer(col(ClassRow.frozen)), defer(col(ClassRow.people)))  # type: ignore[arg-type]
    query = query.where(
        col(ClassRow.made_ms) >= from_ms, col(ClassRow.made_ms) < to_ms, col(ClassRow.is_try).is_(False),
        col(ClassRow.over_ms).is_not(None), _here(),
    )  # fmt: skip
    return list(work.exec(query.order_by(col(ClassRow.made_ms))))


def noted(work: Work, session_ids: list[int]) -> list[tuple[ClassRow, str]]:
    """The classes of some sessions of which something was noted, the newest first, each with what it says by now."""
    rows = {row.id: row for row in of_sessions(work, session_ids)}
    query = select(EventRow.class_id, func.json_extract(EventRow.body, "$.text")).where(
        col(EventRow.class_id).in_(rows), func.json_extract(EventRow.body, "$.kind") == "note"
    )
    said = {class_id: text or "" for class_id, text in work.exec(query.order_by(col(EventRow.seq)))}
    return [(row, said[row.id]) for row in reversed(rows.values()) if row.id in said]


def has_try(work: Work, session_id: int) -> bool:
    """Whether somebody has tried a session to its end."""
    query = select(ClassRow.id).where(
        ClassRow.session_id == session_id,
        col(ClassRow.is_try),
        col(ClassRow.over_ms).is_not(None),
        _here(),
    )
    return work.exec(query.limit(1)).first() is not None


def came_to(work: Work, person_id: int, most: int) -> list[ClassRow]:
    """The classes that somebody came to, so many at most, the newest first; without what they are run by."""
    query = select(ClassRow).options(defer(col(ClassRow.frozen)), defer(col(ClassRow.people)))  # type: ignore[arg-type]
    query = query.where(records.came(person_id), _here()).order_by(*_newest()).limit(most)
    return list(work.exec(query))


def with_samples(work: Work, most: int) -> list[int]:
    """The numbers of the newest classes that are over and have readings."""
    told = select(SampleRow.class_id).where(SampleRow.class_id == ClassRow.id).exists()
    query = select(ClassRow.id).where(col(ClassRow.over_ms).is_not(None), told, _here())
    return [class_id for class_id in work.exec(query.order_by(*_newest()).limit(most)) if class_id]


def trace_of(work: Work, class_id: int, person_id: int) -> list[tuple[int, int]]:
    """One person's readings of a class as (time in ms, beats a minute), in order."""
    query = select(SampleRow.at_ms, SampleRow.bpm).where(
        SampleRow.class_id == class_id, SampleRow.person_id == person_id
    )
    return list(work.exec(query.order_by(col(SampleRow.at_ms))))


def has_begun(work: Work, class_id: int) -> bool:
    """Whether anything has happened in a class yet."""
    return (
        work.exec(select(EventRow.seq).where(EventRow.class_id == class_id).limit(1)).first()
        is not None
    )


def set_over(work: Work, class_id: int, over_ms: int | None) -> None:
    """Say when a class was over; None where it goes on after all."""
    row = get(work, class_id)
    row.over_ms = over_ms
    work.add(row)
    records.drop(work, class_id)


def events(work: Work, class_id: int) -> tuple[Event, ...]:
    """What happened, in order.

    Raises:
        Unreadable: if an event was kept in a way that isn't read here.
    """
    query = select(EventRow.body).where(EventRow.class_id == class_id).order_by(col(EventRow.seq))
    try:
        return tuple(checked(Event, body) for body in work.exec(query))
    except ValidationError:
        raise UnreadableClass(
            "Something that happened in it is of a kind that this Lovrit doesn’t know."
        ) from None


def add_event(work: Work, class_id: int, event: Event) -> bool:
    """Write an event down; one that came before counts once, and False is returned."""
    query = select(EventRow.seq).where(EventRow.class_id == class_id, EventRow.event_id == event.id)
    if work.exec(query).first() is not None:
        return False
    last = work.exec(select(func.max(EventRow.seq)).where(EventRow.class_id == class_id)).one()
    body: dict[str, Any] = plain(event, exclude_none=True)
    records.drop(work, class_id)
    work.add(
        EventRow(
            class_id=class_id, seq=(last or 0) + 1, event_id=event.id, at_ms=event.at_ms, body=body
        )
    )
    return True


def add_events(work: Work, class_id: int, events: Iterable[Event]) -> None:
    """Write down all that happened in a class of which nothing is written yet."""
    rows = [
        {
            "class_id": class_id,
            "seq": nth,
            "event_id": event.id,
            "at_ms": event.at_ms,
            "body": plain(event, exclude_none=True),
        }
        for nth, event in enumerate(events, 1)
    ]
    if rows:
        work.connection().execute(insert(EventRow), rows)


def add_samples(work: Work, class_id: int, told: Iterable[tuple[int, dict[int, int]]]) -> None:
    """Write down what all straps told, second by second: (time in ms, beats a minute by person)."""
    rows = [
        {"class_id": class_id, "person_id": who, "at_ms": at_ms, "bpm": bpm}
        for at_ms, beats in told
        for who, bpm in beats.items()
    ]
    if rows:
        work.connection().execute(insert(SampleRow).prefix_with("OR IGNORE"), rows)


def traces(work: Work, class_id: int) -> dict[int, list[tuple[int, int]]]:
    """Each person's readings as (time in ms, beats a minute), in order."""
    query = select(SampleRow.person_id, SampleRow.at_ms, SampleRow.bpm).where(
        SampleRow.class_id == class_id
    )
    found: dict[int, list[tuple[int, int]]] = {}
    for who, at_ms, bpm in work.exec(
        query.order_by(col(SampleRow.person_id), col(SampleRow.at_ms))
    ):
        found.setdefault(who, []).append((at_ms, bpm))
    return found
