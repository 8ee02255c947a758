"""When people came last, asked of all classes at once."""

from collections.abc import Iterable

from sqlalchemy import text as sql
from sqlmodel import Session as Work

# who was taken out of a class afterwards did not come to it
_LAST = """
SELECT person, class_id, max(made_ms) FROM (
SELECT json_extract(one.value, '$.id') AS person, class.id AS class_id, class.made_ms AS made_ms
FROM class, json_each(class.people) AS one
WHERE class.over_ms IS NOT NULL AND class.away_ms IS NULL AND NOT class.is_try
AND EXISTS (SELECT 1 FROM class_event AS begun WHERE begun.class_id = class.id)
AND NOT EXISTS (SELECT 1 FROM class_event AS gone WHERE gone.class_id = class.id
  AND gone.body LIKE '%absent%' AND json_extract(gone.body, '$.kind') = 'absent'
  AND json_extract(gone.body, '$.person') = json_extract(one.value, '$.id')
  AND NOT EXISTS (SELECT 1 FROM class_event AS back WHERE back.class_id = class.id
    AND json_extract(back.body, '$.kind') = 'undo' AND json_extract(back.body, '$.of') = gone.event_id))
AND class.made_ms >= :since) GROUP BY person
"""


def last_came(work: Work, since_ms: int = 0) -> dict[int, tuple[int, int]]:
    """Of everybody who came to a class since a moment: the last one's number, and when it was made (ms)."""
    rows = work.connection().execute(sql(_LAST), {"since": since_ms})
    return {person: (class_id, made_ms) for person, class_id, made_ms in rows}


def last_classes(work: Work, people: Iterable[int], since_ms: int = 0) -> dict[int, int]:
    """The number of the last class that each of some people came to since a moment."""
    came = last_came(work, since_ms)
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
