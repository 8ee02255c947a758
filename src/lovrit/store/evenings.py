"""The evenings of one text: sessions that were put on further days from one another."""

from collections.abc import Iterable

from sqlmodel import Session as Work
from sqlmodel import col, or_, select

from lovrit.store.tables import SessionRow, VersionRow

MOST_BEFORE = 60  # texts that a session has had, of which an evening may still have one


def mark(work: Work, made: SessionRow, like: SessionRow) -> None:
    """A session that was made from another is one more evening of its text."""
    made.evening_of = like.evening_of or like.id
    work.add(made)


def others(work: Work, row: SessionRow, today: str) -> list[SessionRow]:
    """The other evenings of a text that are still to come, in their order."""
    first = row.evening_of or row.id
    query = (
        select(SessionRow)
        .where(or_(col(SessionRow.evening_of) == first, col(SessionRow.id) == first))
        .where(col(SessionRow.id) != row.id, col(SessionRow.day) >= today)
        .where(col(SessionRow.put_away_ms).is_(None))
        .order_by(col(SessionRow.day), col(SessionRow.id))
    )
    return list(work.exec(query))


def of_one_text(work: Work, session_ids: Iterable[int]) -> dict[int, set[int]]:
    """Of some sessions, all evenings of the text that each is of, gone by or to come, itself among them."""
    every = col(SessionRow.evening_of)
    of = {
        one: first or one
        for one, first in work.exec(
            select(SessionRow.id, SessionRow.evening_of).where(
                col(SessionRow.id).in_(list(session_ids))
            )
        )
        if one
    }
    query = select(SessionRow.id, SessionRow.evening_of).where(
        or_(every.in_(set(of.values())), col(SessionRow.id).in_(set(of.values())))
    )
    by_text: dict[int, set[int]] = {}
    for one, first in work.exec(query):
        by_text.setdefault(first or one or 0, set()).add(one or 0)
    return {one: by_text.get(first, set()) | {one} for one, first in of.items()}


def texts_before(work: Work, session_id: int) -> list[str]:
    """The texts that a session has had, the newest first, so many at most."""
    query = (
        select(VersionRow.text)
        .where(col(VersionRow.session_id) == session_id)
        .order_by(col(VersionRow.version).desc())
        .limit(MOST_BEFORE)
    )
    return list(work.exec(query))
