"""Sessions kept: their texts, their history for undo, and texts written in two places at once."""

import re
from typing import NamedTuple

from sqlalchemy import Subquery
from sqlalchemy import text as sql
from sqlmodel import Session as Work
from sqlmodel import col, func, select

from lovrit.core.session.session import Session
from lovrit.core.values import LovritError, Value
from lovrit.store.merge import merge
from lovrit.store.tables import ClassRow, RevisionRow, SessionRow, StepRow, VersionRow

TYPING_PAUSE_MS = 1500
PAGE = 50
MOST_WORDS = 12
NEVER = "never"  # finds what was never run
WORD = re.compile(r"\w+")


class Gone(LovritError):
    """Something that was asked for is not here."""


class Written(Value):
    """What a session's text is after a post."""

    text: str
    version: int
    undo: bool
    redo: bool
    collided: bool = False


def create(work: Work, text: str, title: str, now_ms: int) -> SessionRow:
    """A new session with its first text."""
    row = SessionRow(title=title, text=text, created_ms=now_ms, changed_ms=now_ms)
    work.add(row)
    work.flush()
    assert row.id is not None
    work.add(VersionRow(session_id=row.id, version=1, text=text, at_ms=now_ms))
    work.add(StepRow(session_id=row.id, position=1, version=1, at_ms=now_ms))
    return row


def get(work: Work, session_id: int) -> SessionRow:
    """A session.

    Raises:
        Gone: if there is none of this number.
    """
    row = work.get(SessionRow, session_id)
    if row is None:
        raise Gone("There is no such session any more.")
    return row


def latest(work: Work) -> int | None:
    """The session in use that was changed last."""
    query = select(SessionRow.id).where(col(SessionRow.put_away_ms).is_(None))
    return work.exec(query.order_by(col(SessionRow.changed_ms).desc()).limit(1)).first()


def describe(row: SessionRow, session: Session, length_s: int, structures: str) -> None:
    """Keep beside a session's text what it comes to, for lists and searches."""
    row.title, row.length_s, row.structures, row.day = (
        session.title,
        length_s,
        structures,
        session.date,
    )
    names = (task.name for block in session.blocks for line in block.moves for task in line.tasks)
    row.moves = list(dict.fromkeys(names))


def not_described(work: Work, most: int) -> list[SessionRow]:
    """Some sessions of which nobody has worked out what they come to."""
    return list(work.exec(select(SessionRow).where(col(SessionRow.length_s).is_(None)).limit(most)))


def put_away(work: Work, row: SessionRow, now_ms: int | None) -> None:
    """Put a session away, or bring it back with None; nothing of it is lost either way."""
    row.put_away_ms = now_ms
    work.add(row)


def _last_runs() -> Subquery:
    last_run = select(ClassRow.session_id, func.max(ClassRow.made_ms).label("ran")).group_by(
        col(ClassRow.session_id)
    )
    return last_run.subquery()


class Found(NamedTuple):
    """A page of a list: sessions with when each was last run, and how many there are in all."""

    rows: list[tuple[SessionRow, int | None]]
    in_all: int


def found(work: Work, away: bool, words: str = "", most: int = PAGE, past: int = 0) -> Found:
    """Sessions in use, or those put away, that have all the words; the last changed first, past so many."""
    wanted = [
        col(SessionRow.put_away_ms).is_not(None) if away else col(SessionRow.put_away_ms).is_(None)
    ]
    ran = _last_runs()
    said = words.lower().split()
    if NEVER in said:
        wanted.append(
            col(SessionRow.id).not_in(select(ran.c.session_id).where(ran.c.session_id.is_not(None)))
        )
    sought = _match(" ".join(word for word in said if word != NEVER))
    if sought:
        ids = sql("SELECT rowid FROM session_words WHERE words MATCH :sought").bindparams(
            sought=sought
        )
        wanted.append(col(SessionRow.id).in_(ids))
    count = work.exec(select(func.count()).select_from(SessionRow).where(*wanted)).one()
    query = (
        select(SessionRow, ran.c.ran)
        .outerjoin(ran, ran.c.session_id == col(SessionRow.id))
        .where(*wanted)
    )
    rows = work.exec(query.order_by(col(SessionRow.changed_ms).desc()).limit(most).offset(past))
    return Found([(row, when) for row, when in rows], count)


def _match(words: str) -> str:
    """Words as SQLite's index takes them: each as the beginning of a word, and nothing of its own language."""
    found = WORD.findall(words)[:MOST_WORDS]
    return " ".join(f'"{word}"*' for word in found)


class Holds(NamedTuple):
    """Which moves a session has, as it is written, and when it was last run."""

    id: int
    title: str
    moves: list[str]
    ran: int | None


def moves_held(work: Work) -> list[Holds]:
    """The moves of every session in use."""
    ran = _last_runs()
    query = (
        select(SessionRow.id, SessionRow.title, SessionRow.moves, ran.c.ran)
        .outerjoin(ran, ran.c.session_id == col(SessionRow.id))
        .where(col(SessionRow.put_away_ms).is_(None))
        .order_by(col(SessionRow.changed_ms).desc())
    )
    return [Holds(*row) for row in work.exec(query)]


def revision(work: Work, session_id: int, revision_id: int) -> RevisionRow:
    """A revision of a session.

    Raises:
        Gone: if the session has none of this number.
    """
    kept = work.get(RevisionRow, revision_id)
    if kept is None or kept.session_id != session_id:
        raise Gone("There is no such revision.")
    return kept


def state(work: Work, row: SessionRow, collided: bool = False) -> Written:
    """A session's text, and whether there is something to undo or redo."""
    further = work.get(StepRow, (row.id, row.position + 1)) is not None
    return Written(
        text=row.text, version=row.version, undo=row.position > 1, redo=further, collided=collided
    )


def version_text(work: Work, session_id: int, version: int) -> str:
    """The text of a version.

    Raises:
        Gone: if the session never had it.
    """
    found = work.get(VersionRow, (session_id, version))
    if found is None:
        raise Gone("That state of the session is not known here; reload the page.")
    return found.text


def seen(work: Work, session_id: int, op: str | None) -> bool:
    """Whether a post has already been counted."""
    if op is None:
        return False
    query = select(VersionRow.version).where(
        VersionRow.session_id == session_id, VersionRow.op == op
    )
    return work.exec(query).first() is not None


def write_text(
    work: Work,
    row: SessionRow,
    text: str,
    base: int,
    op: str | None,
    burst: str | None,
    now_ms: int,
) -> Written:
    """Take a text that was written on version ``base``; what others wrote meanwhile is kept too.

    Posts of one ``burst`` that follow quickly on one another are one step to undo.
    """
    assert row.id is not None
    if seen(work, row.id, op):
        return state(work, row)
    collided = False
    if base != row.version:
        text, collided = merge(version_text(work, row.id, base), row.text, text)
    if text == row.text:
        return state(work, row, collided)
    with work.no_autoflush:  # all of it is written at once
        _new_version(work, row, text, op, now_ms)
        _step(work, row, burst, now_ms)
    undo = row.position > 1
    return Written(text=text, version=row.version, undo=undo, redo=False, collided=collided)


def _new_version(work: Work, row: SessionRow, text: str, op: str | None, now_ms: int) -> None:
    assert row.id is not None
    row.text, row.version, row.changed_ms = text, row.version + 1, now_ms
    work.add(row)
    work.add(VersionRow(session_id=row.id, version=row.version, text=text, op=op, at_ms=now_ms))


def _step(work: Work, row: SessionRow, burst: str | None, now_ms: int) -> None:
    """A step to undo, or more of the last one; what was undone before can't be redone any more."""
    assert row.id is not None
    query = select(StepRow).where(StepRow.session_id == row.id)
    near = {
        one.position: one for one in work.exec(query.where(col(StepRow.position) >= row.position))
    }
    last = near.pop(row.position, None)
    if last and burst and last.burst == burst and now_ms - last.at_ms <= TYPING_PAUSE_MS:
        last.version, last.at_ms = row.version, now_ms
    else:
        row.position += 1
        last = near.pop(row.position, None) or StepRow(
            session_id=row.id, position=row.position, version=row.version, at_ms=now_ms
        )
        last.version, last.burst, last.at_ms = row.version, burst, now_ms
    work.add(last)
    for undone in near.values():
        work.delete(undone)


def step_back(work: Work, row: SessionRow, by: int, op: str | None, now_ms: int) -> Written:
    """Undo (``by`` -1) or redo (+1) one step; where there is none, nothing changes."""
    assert row.id is not None
    step = work.get(StepRow, (row.id, row.position + by))
    if step is None or row.position + by < 1 or seen(work, row.id, op):
        return state(work, row)
    _new_version(work, row, version_text(work, row.id, step.version), op, now_ms)
    row.position += by
    step.burst = None
    work.add(step)
    return state(work, row)


def keep_revision(work: Work, row: SessionRow, reason: str, now_ms: int) -> RevisionRow:
    """Keep the text as it stands, with its reason."""
    assert row.id is not None
    kept = RevisionRow(session_id=row.id, text=row.text, reason=reason, at_ms=now_ms)
    work.add(kept)
    work.flush()
    return kept


def revisions(work: Work, session_id: int) -> list[RevisionRow]:
    """The revisions of a session, the newest first."""
    query = select(RevisionRow).where(RevisionRow.session_id == session_id)
    return list(
        work.exec(query.order_by(col(RevisionRow.at_ms).desc(), col(RevisionRow.id).desc()))
    )


def between_days(work: Work, first: str, last: str) -> list[SessionRow]:
    """Sessions in use from one day to another (YYYY-MM-DD), both included."""
    query = select(SessionRow).where(col(SessionRow.put_away_ms).is_(None))
    return list(work.exec(query.where(col(SessionRow.day).between(first, last))))
