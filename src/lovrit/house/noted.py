"""What the coach noted after the last class of a session, an evening of its text or its series."""

from collections.abc import Iterable
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.house.house import House
from lovrit.store import classes, evenings, weeks


class Noted(NamedTuple):
    """A note: its words, the class that it is of, and its day."""

    text: str
    class_id: int
    on: str


def notes_of(
    house: House, work: Work, session_ids: Iterable[int], before: int | None = None
) -> dict[int, Noted]:
    """The newest note on each of some sessions, the evenings of its text or its series, of those on which there is one.

    ``before`` is a class of which it is not to be, where one is named.
    """
    every = weeks.all_series(work)
    kin = {
        one: {
            *of_it,
            *(other for some in every if one in some["sessions"] for other in some["sessions"]),
        }
        for one, of_it in evenings.of_one_text(work, session_ids).items()
    }
    told = [
        (row.session_id, Noted(text.strip(), row.id or 0, f"{house.when(row.made_ms):%-d %B}"))
        for row, text in classes.noted(work, sorted(set().union(*kin.values())))
        if row.id != before and text.strip()
    ]
    newest = (
        (one, next((note for of, note in told if of in some), None)) for one, some in kin.items()
    )
    return {one: note for one, note in newest if note is not None}


def last_note(
    house: House, work: Work, session_id: int | None, before: int | None = None
) -> Noted | None:
    """The same of one session; None where nothing was noted."""
    return (
        None if session_id is None else notes_of(house, work, [session_id], before).get(session_id)
    )
