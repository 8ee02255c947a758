"""Records of classes kept: written once a class is over, dropped where it changes, asked by day, kin, person, words."""

from collections.abc import Iterable
from datetime import date
from hashlib import sha256
from typing import Any, NamedTuple

from sqlalchemy import func
from sqlalchemy import select as columns
from sqlalchemy import text as sql
from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.core.review.record import Record
from lovrit.core.review.sought import Sought, Term
from lovrit.core.run.outcome import Outcome
from lovrit.core.tries.done import Did, Most
from lovrit.core.values import checked, plain
from lovrit.store.tables import ClassRow, RecordRow, ScoreRow


def came(person: int) -> Any:
    """That somebody came to a class, as SQLite finds it without reading all who came.

    Who was taken out did not, and to a class that was opened and never begun came nobody.
    """
    there = (
        "EXISTS (SELECT 1 FROM class_event AS begun WHERE begun.class_id = class.id) AND "
        "EXISTS (SELECT 1 FROM json_each(class.people) WHERE json_extract(value, '$.id') = :person)"
        " AND NOT EXISTS (SELECT 1 FROM class_event AS gone WHERE gone.class_id = class.id"
        " AND gone.body LIKE '%absent%' AND json_extract(gone.body, '$.kind') = 'absent'"
        " AND json_extract(gone.body, '$.person') = :person AND NOT EXISTS (SELECT 1 FROM class_event AS back"
        " WHERE back.class_id = class.id AND json_extract(back.body, '$.kind') = 'undo'"
        " AND json_extract(back.body, '$.of') = gone.event_id))"
    )
    return sql(there).bindparams(person=person)


def kin_of(key: str) -> str:
    """A short name for what blocks of a kind have in common."""
    return sha256(key.encode()).hexdigest()[:20]


def keep(work: Work, class_id: int, day: str, record: Record) -> None:
    """Keep a class's record in the place of an earlier one."""
    drop(work, class_id)
    work.add(
        RecordRow(
            class_id=class_id,
            day=day,
            did=[plain(one) for one in record.did],
            changes=list(record.changes),
            outcome=plain(record.outcome),
        )
    )
    work.flush()
    for one in record.scores:
        work.add(
            ScoreRow(
                class_id=class_id, block=one.block, person_id=one.person, day=day, kin=kin_of(one.kin), ways=one.ways,
                label=one.label, figure=one.figure, value=one.value, more=one.more, said=one.said,
            )
        )  # fmt: skip
    work.connection().execute(
        sql("INSERT OR REPLACE INTO class_words (rowid, words) VALUES (:id, :words)"),
        {"id": class_id, "words": record.words},
    )


def drop(work: Work, class_id: int) -> None:
    """A class has changed: its record is worked out again before it is next asked for."""
    work.exec(delete(ScoreRow).where(col(ScoreRow.class_id) == class_id))
    work.exec(delete(RecordRow).where(col(RecordRow.class_id) == class_id))


def missing(work: Work, most: int) -> list[int]:
    """Classes that are over and have no record, the newest first."""
    query = (
        select(ClassRow.id)
        .outerjoin(RecordRow, col(RecordRow.class_id) == col(ClassRow.id))
        .where(
            col(ClassRow.over_ms).is_not(None),
            col(ClassRow.away_ms).is_(None),
            col(RecordRow.class_id).is_(None),
        )
        .order_by(col(ClassRow.made_ms).desc())
        .limit(most)
    )
    return [class_id for class_id in work.exec(query) if class_id is not None]


def set_unreadable(work: Work, class_id: int, day: str) -> None:
    """A class that can't be read says nothing, and is not tried again until it changes."""
    drop(work, class_id)
    work.add(
        RecordRow(class_id=class_id, day=day, did=[], changes=[], outcome=plain(Outcome(run=False)))
    )


class DidThen(NamedTuple):
    """What one class did on its day."""

    class_id: int
    day: str
    did: tuple[Did, ...]


def done(
    work: Work, since: str = "", person: int | None = None, *, tries: bool = False
) -> list[DidThen]:
    """What classes did since a day (YYYY-MM-DD), all or those that somebody came to; with tries where that is asked."""
    query = select(RecordRow.class_id, RecordRow.day, RecordRow.did).join(
        ClassRow, col(ClassRow.id) == col(RecordRow.class_id)
    )
    query = query.where(col(RecordRow.day) >= since)
    if not tries:
        query = query.where(col(ClassRow.is_try).is_(False))
    if person is not None:
        query = query.where(came(person))
    return [
        DidThen(class_id, day, tuple(_did(one) for one in did))
        for class_id, day, did in work.exec(query)
    ]


def _did(kept: dict[str, Any]) -> Did:
    """A move that was done, as it was kept by ourselves: not checked field by field, since there are thousands."""
    return Did(**kept | {"most": Most(**kept["most"])})


class Came(NamedTuple):
    """How a class came out, on which day, and what was changed of its plan."""

    day: str
    outcome: Outcome
    changes: tuple[str, ...]


def outcome(work: Work, class_id: int) -> Came | None:
    """How a class came out; None where nothing is kept of it."""
    row = work.get(RecordRow, class_id)
    return None if row is None else Came(row.day, checked(Outcome, row.outcome), tuple(row.changes))


class Kept(NamedTuple):
    """A score that can be compared, as it is kept."""

    class_id: int
    block: int
    person_id: int
    day: str
    kin: str
    ways: str
    label: str
    figure: str
    value: float
    more: bool
    said: str


def _scores(work: Work, *where: Any) -> list[Kept]:
    """Scores of classes that are no tries, in the order of their days."""
    named = (getattr(ScoreRow, name) for name in Kept._fields)
    query = columns(*named).join(ClassRow, col(ClassRow.id) == col(ScoreRow.class_id))
    query = query.where(col(ClassRow.is_try).is_(False), *where)
    rows = work.connection().execute(query.order_by(col(ScoreRow.day), col(ScoreRow.class_id)))
    return [Kept(*row) for row in rows]


def scores_of(work: Work, person: int) -> list[Kept]:
    """A person's scores that can be compared, the oldest first."""
    return _scores(work, col(ScoreRow.person_id) == person)


def scores_like(work: Work, kin: str, until: str, most: int) -> list[Kept]:
    """The scores of blocks of a kind in the last so many classes up to a day, the oldest first."""
    mine = (col(ScoreRow.kin) == kin, col(ScoreRow.day) <= until)
    latest = columns(col(ScoreRow.class_id)).where(*mine).group_by(col(ScoreRow.class_id))
    latest = latest.order_by(func.max(ScoreRow.day).desc()).limit(most)
    return _scores(work, col(ScoreRow.kin) == kin, col(ScoreRow.class_id).in_(latest))


class Attended(NamedTuple):
    """A class of the club: its number, its day, how it came out, and whether somebody came."""

    class_id: int
    day: str
    outcome: Outcome
    came: bool


def attended(work: Work, person: int | None, since: str) -> list[Attended]:
    """Every class since a day (YYYY-MM-DD) that was run and counts, the oldest first; whether a person came to it."""
    counts = (col(ClassRow.away_ms).is_(None), col(ClassRow.is_try).is_(False))
    query = select(RecordRow.class_id, RecordRow.day, RecordRow.outcome).join(
        ClassRow, col(ClassRow.id) == col(RecordRow.class_id)
    )
    query = query.where(col(RecordRow.day) >= since, *counts)
    rows = list(work.exec(query.order_by(col(RecordRow.day), col(RecordRow.class_id))))
    ids = select(RecordRow.class_id).join(ClassRow, col(ClassRow.id) == col(RecordRow.class_id))
    ids = ids.where(col(RecordRow.day) >= since, *counts)
    there = set(work.exec(ids.where(came(person)))) if person else set()
    every = (Attended(one, day, checked(Outcome, out), one in there) for one, day, out in rows)
    return [one for one in every if one.outcome.run]


def kinds_since(work: Work, since: str) -> list[str]:
    """Kinds of blocks with scores on two days or more, those last done first."""
    found = work.connection().execute(
        sql(
            "SELECT kin FROM class_score JOIN class ON class.id = class_id WHERE NOT is_try"
            " GROUP BY kin HAVING count(DISTINCT day) > 1 AND max(day) >= :since ORDER BY max(day) DESC, kin"
        ),
        {"since": since},
    )
    return [row[0] for row in found]


def find(work: Work, wanted: Sought) -> list[int] | None:
    """The classes of which all that is sought is so, the newest first; None where nothing is sought."""
    if not wanted.terms:
        return [] if wanted.asks else None
    days = {
        class_id: date.fromisoformat(day)
        for class_id, day in work.exec(select(RecordRow.class_id, RecordRow.day))
    }
    left = set(days)
    for term in wanted.terms:
        left &= set(_said(work, term)) | {
            one for one in left if any(is_.fits(days[one]) for is_ in term.days)
        }
    return [] if wanted.asks else sorted(left, key=lambda one: (days[one], one), reverse=True)


def _said(work: Work, term: Term) -> Iterable[int]:
    """Classes in whose words one of these stands: the beginning of a word, a number whole."""
    if not term.words:
        return ()
    match = " OR ".join(_phrase(one) for one in term.words)
    rows = work.connection().execute(
        sql("SELECT rowid FROM class_words WHERE words MATCH :match"), {"match": match}
    )
    return [row[0] for row in rows]


def _phrase(words: tuple[str, ...]) -> str:
    return f'"{" ".join(words)}"' + ("" if words[-1].isdecimal() else "*")
