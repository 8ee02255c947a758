"""What people said of coming: kept for the session and its day; where it moved to another day, that is asked again."""

from collections.abc import Iterable
from typing import NamedTuple

from sqlmodel import Session as Work
from sqlmodel import col, delete, func, select

from lovrit.core.values import LovritError
from lovrit.store.tables import AnswerRow, SessionRow

MOST_WORD, MOST_NAME = 200, 60
MOST_GUESTS = 40  # a link that goes round a town fills no page


class TooMany(LovritError):
    """More guests than a session takes by its link."""


class Answer(NamedTuple):
    """Somebody's answer: their number, or a guest's name; whether they come, and a word with it."""

    id: int
    person: int | None
    name: str
    comes: bool
    word: str
    at_ms: int


def _said(row: AnswerRow) -> Answer:
    return Answer(row.id or 0, row.person_id, row.name, row.comes, row.word, row.at_ms)


def of_session(work: Work, session_id: int) -> list[Answer]:
    """What was said of a session for the day that it is on now, in the order in which it was said."""
    query = (
        select(AnswerRow)
        .join(SessionRow, col(SessionRow.id) == col(AnswerRow.session_id))
        .where(AnswerRow.session_id == session_id, AnswerRow.day == SessionRow.day)
        .order_by(col(AnswerRow.at_ms), col(AnswerRow.id))
    )
    return [_said(row) for row in work.exec(query)]


def of_person(work: Work, person_id: int, session_ids: Iterable[int]) -> dict[int, Answer]:
    """What somebody said of some sessions, each for the day that it is on now."""
    query = (
        select(AnswerRow)
        .join(SessionRow, col(SessionRow.id) == col(AnswerRow.session_id))
        .where(col(AnswerRow.session_id).in_(list(session_ids)), AnswerRow.day == SessionRow.day)
        .where(AnswerRow.person_id == person_id)
    )
    return {row.session_id: _said(row) for row in work.exec(query)}


def say(
    work: Work, session: SessionRow, person_id: int, comes: bool, word: str, now_ms: int
) -> None:
    """Somebody says whether they come; what they said before is gone."""
    assert session.id is not None
    work.exec(
        delete(AnswerRow).where(
            col(AnswerRow.session_id) == session.id, col(AnswerRow.person_id) == person_id
        )
    )
    work.add(
        AnswerRow(
            session_id=session.id, person_id=person_id, day=session.day or "", comes=comes,
            word=_one_line(word, MOST_WORD), at_ms=now_ms,
        )
    )  # fmt: skip


def say_as_guest(work: Work, session: SessionRow, name: str, word: str, now_ms: int) -> None:
    """A guest says that they come; once for each name.

    Raises:
        TooMany: if so many guests said so that the coach has to be asked.
    """
    called = _one_line(name, MOST_NAME)
    here = select(AnswerRow).where(
        AnswerRow.session_id == session.id, col(AnswerRow.person_id).is_(None)
    )
    if any(one.name.casefold() == called.casefold() for one in work.exec(here)):
        return
    count = work.exec(
        select(func.count()).select_from(AnswerRow).where(
            AnswerRow.session_id == session.id, col(AnswerRow.person_id).is_(None)
        )
    ).one()  # fmt: skip
    if count >= MOST_GUESTS:
        raise TooMany("So many guests have written already that you had better ask the coach.")
    work.add(
        AnswerRow(
            session_id=session.id or 0, name=called, day=session.day or "", comes=True,
            word=_one_line(word, MOST_WORD), at_ms=now_ms,
        )
    )  # fmt: skip


def take_out(work: Work, answer_id: int) -> None:
    """An answer is dealt with, such as a guest who was taken in."""
    work.exec(delete(AnswerRow).where(col(AnswerRow.id) == answer_id))


def _one_line(text: str, most: int) -> str:
    return " ".join(text.split())[:most]


def all_of(work: Work, person_id: int) -> list[dict[str, object]]:
    """All answers that are kept of somebody, as values."""
    rows = work.exec(select(AnswerRow).where(AnswerRow.person_id == person_id))
    return [row.model_dump(exclude={"id", "person_id", "name"}) for row in rows]
