"""Who changed what of somebody's health, and when: which field, never its value."""

from collections.abc import Mapping
from contextvars import ContextVar
from typing import NamedTuple

from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.store.database import NOW
from lovrit.store.tables import PersonChangeRow

BY: ContextVar[str] = ContextVar(
    "by", default=""
)  # who asks, by name; empty at the machine and by the passphrase
HEALTH = {
    "limits": "what they don’t do",
    "until": "until when",
    "cleared": "cleared by a doctor",
    "standing": "how they stand",
    "rest_hr": "resting heart rate",
    "max_hr": "highest heart rate",
    "threshold_hr": "threshold",
    "limit_hr": "never over",
    "effort_only": "by effort",
    "born": "year of birth",
    "mind": "what to keep in mind",
    "hearts": "whether hearts may be kept",
}
NOBODY = "the owner"


class Change(NamedTuple):
    """What was changed of somebody, by whom and when."""

    person: int
    at_ms: int
    by: str
    what: str


def note(work: Work, person_id: int, what: list[str]) -> None:
    """Keep that something of somebody's health was changed; nothing where nothing was."""
    if what:
        row = PersonChangeRow(
            person_id=person_id, at_ms=work.info[NOW], by=BY.get() or NOBODY, what=", ".join(what)
        )
        work.add(row)


def of_health(before: Mapping[str, object], after: Mapping[str, object]) -> list[str]:
    """What of health is otherwise, in words."""
    return [
        said for name, said in HEALTH.items() if name in after and before.get(name) != after[name]
    ]


def listed(work: Work, most: int, person_id: int | None = None) -> list[Change]:
    """The newest changes, of one person or of all."""
    query = select(PersonChangeRow).order_by(col(PersonChangeRow.id).desc()).limit(most)
    if person_id is not None:
        query = query.where(PersonChangeRow.person_id == person_id)
    return [Change(one.person_id, one.at_ms, one.by, one.what) for one in work.exec(query)]
