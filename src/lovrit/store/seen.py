"""When people came last, asked of all classes at once."""

import json
from collections.abc import Iterable

from sqlalchemy import text as sql
from sqlmodel import Session as Work

CHUNK = 40  # classes that are looked at in one go, the newest first
# of each class who is on its list, and who was taken out afterwards: they did not come to it
_CAME = """
SELECT class.id AS class_id, class.made_ms AS made_ms, json_extract(one.value, '$.id') AS person
FROM class, json_each(class.people) AS one WHERE class.id IN (SELECT value FROM json_each(:ids))
"""
_GONE = """
SELECT gone.class_id, json_extract(gone.body, '$.person') FROM class_event AS gone
WHERE gone.class_id IN (SELECT value FROM json_each(:ids)) AND gone.body LIKE '%absent%'
AND json_extract(gone.body, '$.kind') = 'absent' AND NOT EXISTS (
  SELECT 1 FROM class_event AS back WHERE back.class_id = gone.class_id
  AND json_extract(back.body, '$.kind') = 'undo' AND json_extract(back.body, '$.of') = gone.event_id)
"""
_OVER = """
SELECT id FROM class WHERE over_ms IS NOT NULL AND away_ms IS NULL AND NOT is_try AND made_ms >= :since
AND EXISTS (SELECT 1 FROM class_event AS begun WHERE begun.class_id = class.id)
ORDER BY made_ms DESC, id DESC
"""


def last_came(
    work: Work, since_ms: int = 0, people: Iterable[int] | None = None
) -> dict[int, tuple[int, int]]:
    """Of who came to a class since a moment: the last one's number, and when it was made (ms).

    Of some people only where they are named; classes are looked at, the newest first, until each of them was seen.
    """
    asked = work.connection().execute
    ids = [row[0] for row in asked(sql(_OVER), {"since": since_ms})]
    wanted = None if people is None else set(people)
    found: dict[int, tuple[int, int]] = {}
    for at in range(0, len(ids), CHUNK):
        if wanted is not None and wanted <= found.keys():
            break
        these = {"ids": json.dumps(ids[at : at + CHUNK])}
        gone = {(class_id, person) for class_id, person in asked(sql(_GONE), these)}
        came = [row for row in asked(sql(_CAME), these) if (row[0], row[2]) not in gone]
        for class_id, made_ms, person in sorted(came, key=lambda row: (-row[1], -row[0])):
            if wanted is None or person in wanted:
                found.setdefault(person, (class_id, made_ms))
    return found


def last_classes(work: Work, people: Iterable[int], since_ms: int = 0) -> dict[int, int]:
    """The number of the last class that each of some people came to since a moment."""
    people = set(people)
    came = last_came(work, since_ms, people)
    return {one: came[one][0] for one in people if one in came}


def classes_since(work: Work, moments: Iterable[int]) -> dict[int, int]:
    """How many classes there were after each of some moments (ms)."""
    rows = work.connection().execute(
        sql(
            "SELECT made_ms FROM class WHERE over_ms IS NOT NULL AND away_ms IS NULL AND NOT is_try ORDER BY made_ms"
        )
    )
    made = [row[0] for row in rows]
    return {one: sum(at > one for at in made) for one in set(moments)}
