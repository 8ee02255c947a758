"""People kept, and who comes to which session in which group."""

from typing import Any, NamedTuple

from sqlalchemy import select as columns
from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.core.crew.paces import OwnPace
from lovrit.core.crew.person import Limit, Person, Standing
from lovrit.core.values import checked, plain
from lovrit.store.sessions import Gone
from lovrit.store.tables import ComesRow, PersonRow


def everyone(work: Work) -> list[Person]:
    """All people of the club by name."""
    return [_person(row) for row in work.exec(select(PersonRow).order_by(col(PersonRow.name)))]


def _person(row: PersonRow) -> Person:
    return checked(Person, row.model_dump())


def comers(work: Work, session_id: int) -> list[tuple[Person, int]]:
    """Who comes to a session with their group (from 0), by group and name."""
    query = (
        select(PersonRow, ComesRow)
        .join(ComesRow, col(ComesRow.person_id) == col(PersonRow.id))
        .where(ComesRow.session_id == session_id, col(ComesRow.comes).is_(True))
        .order_by(col(ComesRow.group), col(PersonRow.name))
    )
    return [(_person(person), row.group) for person, row in work.exec(query)]


COUNTED = ("id", "age", "effort_only", "standing", "since", "pace_100_s", "limits", "paces")


class Counted(NamedTuple):
    """Somebody who comes, as far as the rules count them, and their group (from 0)."""

    person: Person
    group: int


def counted(work: Work, session_id: int) -> list[Counted]:
    """Who comes, as far as the rules count them; quicker than ``comers``, as names and hearts stay out of it."""
    query = (
        columns(col(ComesRow.group), *(getattr(PersonRow, name) for name in COUNTED))
        .join(ComesRow, col(ComesRow.person_id) == col(PersonRow.id))
        .where(col(ComesRow.session_id) == session_id, col(ComesRow.comes).is_(True))
    )
    rows = [
        (row[0], dict(zip(COUNTED, row[1:], strict=True)))
        for row in work.connection().execute(query).all()
    ]
    return [
        Counted(Person(name="", initials="", **row | {"paces": _paces(row["paces"])}), group)
        for group, row in rows
    ]


def _paces(kept: list[dict[str, Any]]) -> tuple[OwnPace, ...]:
    return tuple(OwnPace(**one) for one in kept)


def stand(
    work: Work,
    person_id: int,
    standing: Standing,
    since: str | None,
    limits: tuple[Limit, ...],
    pace_100_s: int | None = None,
    paces: tuple[OwnPace, ...] = (),
) -> None:
    """Say how a person stands, since when (YYYY-MM-DD), what they don't do now, and their own paces."""
    row = work.get(PersonRow, person_id)
    if row is None:
        raise Gone("There is no such person any more.")
    row.standing, row.since, row.limits, row.pace_100_s = standing, since, list(limits), pace_100_s
    row.paces = [plain(one) for one in paces]
    work.add(row)


def set_comers(work: Work, session_id: int, groups: dict[int, int]) -> None:
    """Say who comes: people's numbers with their groups; everyone else stays away."""
    for row in work.exec(select(ComesRow).where(ComesRow.session_id == session_id)):
        row.comes = row.person_id in groups
        row.group = groups.pop(row.person_id, row.group)
        work.add(row)
    for person, group in groups.items():
        work.add(ComesRow(session_id=session_id, person_id=person, group=group))


def add_person(work: Work, name: str, initials: str) -> Person:
    """A new person of the club with usual figures."""
    row = PersonRow(name=name, initials=initials)
    work.add(row)
    work.flush()
    return _person(row)
