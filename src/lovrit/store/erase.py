"""Somebody erased as a whole: their rows, their readings, their name wherever it was written, and what the disk keeps.

Classes that were keep figures of somebody without a name.
"""

import json
import re
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from sqlite3 import OperationalError, connect
from typing import Any

from sqlalchemy import or_
from sqlalchemy import text as sql
from sqlalchemy.orm.attributes import flag_modified
from sqlmodel import Session as Work
from sqlmodel import SQLModel, col, delete, select

from lovrit.core.crew.person import nobody
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.values import plain
from lovrit.store import records
from lovrit.store.tables import (
    AnswerRow,
    AsideRow,
    ClassRow,
    ClubRow,
    ComesRow,
    EventRow,
    OwnEveningRow,
    PersonChangeRow,
    PersonRow,
    RevisionRow,
    SampleRow,
    ScoreRow,
    SessionRow,
    StrapRow,
    VersionRow,
)  # fmt: skip

SOMEBODY = "somebody"
OWN = (ComesRow, SampleRow, AnswerRow, OwnEveningRow, ScoreRow, PersonChangeRow)
# texts in which a name may stand: each with its columns
TEXTS: tuple[tuple[type[SQLModel], tuple[str, ...]], ...] = (
    (SessionRow, ("title", "text", "good_text")),
    (VersionRow, ("text",)),
    (RevisionRow, ("text", "reason")),
    (AsideRow, ("reason",)),
    (AnswerRow, ("name", "word")),
    (OwnEveningRow, ("title", "text", "word")),
    (StrapRow, ("name",)),
    (ClassRow, ("title", "text")),
)


def erase_gone(work: Work, before_ms: int) -> int:
    """Erase who was let go before a moment; how many they were."""
    rows = list(work.exec(select(PersonRow).where(col(PersonRow.gone_ms) < before_ms)))
    for row in rows:
        number, name = row.id or 0, row.name
        for table in OWN:
            work.exec(delete(table).where(col(table.person_id) == number))
        _in_classes(work, number, name)
        _in_texts(work, name)
        _with_others(work, number)
        work.delete(row)
    return len(rows)


def without(name: str) -> Callable[[str], str]:
    """Takes a name out of a text, as a whole word; who is called like a word of two letters keeps their letters."""
    if len(name.strip()) < 3:
        return lambda text: text
    named = re.compile(rf"(?<!\w){re.escape(name.strip())}(?!\w)", re.IGNORECASE)
    return lambda text: named.sub(SOMEBODY, text)


_EVENTS = """
SELECT class_id, seq FROM class_event
WHERE json_extract(body, '$.person') = :number OR body LIKE :name ESCAPE '!' OR body LIKE :escaped ESCAPE '!'
"""
_CLASSES = """
SELECT id FROM class WHERE title LIKE :name ESCAPE '!' OR text LIKE :name ESCAPE '!'
OR EXISTS (SELECT 1 FROM json_each(class.people) AS one WHERE json_extract(one.value, '$.id') = :number)
"""


def _like(text: str) -> str:
    return "%" + re.sub(r"([!%_])", r"!\1", text) + "%"


def _in_classes(work: Work, number: int, name: str) -> None:
    """In classes that were, somebody with a number: no name, no figure, no remark, no why."""
    clean, asked = without(name), {"number": number, "name": _like(name)}
    asked["escaped"] = _like(json.dumps(name)[1:-1])  # as JSON writes letters that are not of ours
    run = work.connection().execute
    events = run(sql(_EVENTS), asked).all()
    touched = {one for one, seq in events if _event(work, one, seq, number, clean)}
    for (class_id,) in run(sql(_CLASSES), asked).all():
        _nameless(work, class_id, number, clean)
        touched.add(class_id)
    for class_id in touched:
        records.drop(work, class_id)


def _event(work: Work, class_id: int, seq: int, number: int, clean: Callable[[str], str]) -> bool:
    """Their name in a note, a mark or a press; why they stopped. How hard it was stays, as somebody's."""
    event = work.get(EventRow, (class_id, seq))
    assert event is not None
    body = dict(event.body)
    for key in ("text", "by"):
        if isinstance(body.get(key), str):
            body[key] = clean(body[key])
    kind = KNOWN.get(str(body.get("kind")))
    if body.get("person") == number and kind and kind.on_body:
        body.pop("text", None)
        body.pop("why", None)
    changed = body != event.body
    if changed:
        event.body = body
        work.add(event)
    return changed


def _nameless(work: Work, class_id: int, number: int, clean: Callable[[str], str]) -> None:
    row = work.get(ClassRow, class_id)
    assert row is not None
    kept = [one for one in row.people if one["id"] == number]
    if kept:
        others = [one for one in row.people if one["id"] != number]
        row.people = [*others, plain(nobody(number, kept[0]["group"]))]
    if row.frozen and any(clean(one) != one for one in (row.title, row.text)):
        row.frozen = _cleaned(row.frozen, clean)  # the session that it was run by has the name too
    work.add(row)


def _in_texts(work: Work, name: str) -> None:
    clean = without(name)
    for table, columns in TEXTS:
        named = [
            col(getattr(table, one)).icontains(name.strip(), autoescape=True) for one in columns
        ]
        for row in work.exec(select(table).where(or_(*named))):
            for one in columns:
                text = getattr(row, one)
                if isinstance(text, str) and clean(text) != text:
                    setattr(row, one, clean(text))
                    work.add(row)
    for kept in work.exec(select(ClubRow)):
        value = _cleaned(kept.value, clean)
        if value != kept.value:
            kept.value = value
            flag_modified(kept, "value")
            work.add(kept)


def _cleaned(value: Any, clean: Callable[[str], str]) -> Any:
    """A kept choice with a name taken out of every text in it, themes, coaches and weeks' words among them."""
    if isinstance(value, str):
        return clean(value)
    if isinstance(value, list):
        return [_cleaned(one, clean) for one in value]
    if isinstance(value, dict):
        return {key: _cleaned(one, clean) for key, one in value.items()}
    return value


def _with_others(work: Work, number: int) -> None:
    """Who goes with whom, or not: others' wishes name them no more."""
    for row in work.exec(select(PersonRow)):
        for field in ("together", "apart"):
            if number in getattr(row, field):
                setattr(row, field, [one for one in getattr(row, field) if one != number])
                work.add(row)


def off_the_disk(path: Path) -> bool:
    """What was erased is in no index of words and in no log beside the file; whether that could be done now.

    In the file itself it is written over as it is deleted (``secure_delete``).
    """
    try:
        with closing(connect(path, timeout=2)) as file:
            file.execute("PRAGMA secure_delete=ON")
            for words in ("session_words", "class_words"):
                file.execute(f"INSERT INTO {words}({words}) VALUES('optimize')")
            file.commit()
            busy, *_ = file.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
            return not busy
    except OperationalError:
        return False
