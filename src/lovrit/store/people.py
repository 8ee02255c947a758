"""People kept, and who comes to which session in which group."""

from collections.abc import Iterable
from typing import Any, NamedTuple

from sqlalchemy import select as columns
from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.core.crew.born import age_in
from lovrit.core.crew.fit import Fitted
from lovrit.core.crew.highest import Formula
from lovrit.core.crew.paces import OwnPace
from lovrit.core.crew.person import Limit, Person, Standing
from lovrit.core.values import checked, plain
from lovrit.store import changed as change_log
from lovrit.store import club
from lovrit.store.database import TODAY
from lovrit.store.sessions import Gone
from lovrit.store.tables import ComesRow, PersonRow


def everyone(work: Work) -> list[Person]:
    """All people of the club by name, but for those who were let go."""
    query = select(PersonRow).where(col(PersonRow.gone_ms).is_(None)).order_by(col(PersonRow.name))
    return [_person(work, row) for row in work.exec(query)]


NOT_THEIRS = {
    "gone_ms",
    "learnt_from_ms",
    "link_no",
}  # columns that say how they are kept, not who they are


def _person(work: Work, row: PersonRow) -> Person:
    kept = row.model_dump(exclude=NOT_THEIRS)
    kept["by_age"] = row.by_age or _formula(work)
    now = _by_now(work, row.limits, row.until, row.born, row.age)
    return checked(Person, kept | now)


def _formula(work: Work) -> Formula:
    """By which formula a highest is taken from age in this club; asked once in a piece of work."""
    known: Formula | None = work.info.get("by_age")
    if known is None:
        known = work.info["by_age"] = club.schools(work).highest
    return known


def _by_now(
    work: Work, limits: list[str], until: str | None, born: int | None, age: int | None
) -> dict[str, Any]:
    """What is told from today: limits whose last day is over hold no more, and an age counts on from a year."""
    today = str(work.info[TODAY])
    over = until is not None and bool(until) and until < today
    return {
        "limits": [] if over else limits,
        "age": age if born is None else age_in(born, int(today[:4])),
    }


def get(work: Work, person_id: int) -> Person:
    """Somebody of the club.

    Raises:
        Gone: if there is nobody of this number.
    """
    return _person(work, _row(work, person_id))


def _row(work: Work, person_id: int) -> PersonRow:
    row = work.get(PersonRow, person_id)
    if row is None:
        raise Gone("There is no such person any more.")
    return row


def change(work: Work, person_id: int, **fields: object) -> Person:
    """Set some fields of a person; what they are checked against is the person itself.

    Raises:
        Gone: if there is nobody of this number.
        ValidationError: if a figure can't be.
    """
    row = _row(work, person_id)
    kept = row.model_dump(exclude=NOT_THEIRS) | {"by_age": row.by_age or _formula(work)}
    given = {name: value for name, value in fields.items() if (name, value) != ("by_age", "")}
    changed = checked(Person, kept | given)
    after = {name: plain(changed)[name] for name in given}
    change_log.note(work, person_id, change_log.of_health(kept, after))
    for name in fields:
        setattr(row, name, plain(changed)[name] if name in given else "")
    if "born" in fields:
        row.age = None  # what was said once, of no known year
    work.add(row)
    return changed


def link_number(work: Work, person_id: int) -> int:
    """Which of somebody's own links holds.

    Raises:
        Gone: if there is nobody of this number.
    """
    return _row(work, person_id).link_no


def is_gone(work: Work, person_id: int) -> bool:
    """Whether somebody was let go and is not erased yet."""
    return _row(work, person_id).gone_ms is not None


def renew_link(work: Work, person_id: int) -> None:
    """From now on only a new link of theirs holds."""
    row = _row(work, person_id)
    row.link_no += 1
    work.add(row)


class Learnt(NamedTuple):
    """What is known of how somebody's heart moves, and from when on classes may teach it."""

    person: Person
    heart: Fitted | None
    learnt_from_ms: int


def kept_heart(work: Work, person_id: int) -> Learnt | None:
    """What was learnt of somebody's heart; None where they are the club's no more."""
    row = work.get(PersonRow, person_id)
    if row is None or row.gone_ms is not None:
        return None
    person = _person(work, row)
    return Learnt(person, person.heart, row.learnt_from_ms)


def set_heart(work: Work, person_id: int, fit: Fitted | None) -> None:
    """Keep what was learnt of a heart; None where nothing is better than the start."""
    row = _row(work, person_id)
    row.heart = None if fit is None else plain(fit)
    work.add(row)


def throw_away(work: Work, person_id: int, now_ms: int) -> None:
    """What was learnt of a heart is thrown away, and classes up to now teach nothing of it any more."""
    row = _row(work, person_id)
    row.heart, row.learnt_from_ms = None, now_ms
    change_log.note(work, person_id, ["what was learnt of their heart, thrown away"])
    work.add(row)


def let_go(work: Work, person_id: int, now_ms: int | None) -> Person:
    """Let somebody go, or take that back with None; erased by ``erase_gone``."""
    row = _row(work, person_id)
    row.gone_ms = now_ms
    work.add(row)
    return _person(work, row)


def gone(work: Work) -> list[Person]:
    """Those who were let go and are not yet erased."""
    query = select(PersonRow).where(col(PersonRow.gone_ms).is_not(None))
    return [_person(work, row) for row in work.exec(query.order_by(col(PersonRow.name)))]


def comers(work: Work, session_id: int) -> list[tuple[Person, int]]:
    """Who comes to a session with their group (from 0), by group and name."""
    query = (
        select(PersonRow, ComesRow)
        .join(ComesRow, col(ComesRow.person_id) == col(PersonRow.id))
        .where(ComesRow.session_id == session_id, col(ComesRow.comes).is_(True))
        .where(col(PersonRow.gone_ms).is_(None))
        .order_by(col(ComesRow.group), col(PersonRow.name))
    )
    return [(_person(work, person), row.group) for person, row in work.exec(query)]


COUNTED = (
    "id",
    "age",
    "born",
    "effort_only",
    "standing",
    "since",
    "rest_hr",
    "max_hr",
    "threshold_hr",
    "limit_hr",
    "pace_100_s",
    "limits",
    "paces",
    "cleared",
    "until",
    "share",
)


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
        .where(col(PersonRow.gone_ms).is_(None))
    )
    rows = [
        (row[0], dict(zip(COUNTED, row[1:], strict=True)))
        for row in work.connection().execute(query).all()
    ]
    return [
        Counted(Person(name="", initials="", **row | _as_values(work, row)), group)
        for group, row in rows
    ]


def _as_values(work: Work, row: dict[str, Any]) -> dict[str, Any]:
    by_now = _by_now(work, row["limits"], row["until"], row["born"], row["age"])
    return {"paces": _paces(row["paces"]), **by_now}


def _paces(kept: list[dict[str, Any]]) -> tuple[OwnPace, ...]:
    return tuple(OwnPace(**one) for one in kept)


def who_comes(work: Work, session_ids: Iterable[int]) -> dict[int, set[int]]:
    """The numbers of those who are down for each session; a session that nobody is down for is left out."""
    query = select(ComesRow.session_id, ComesRow.person_id).where(
        col(ComesRow.session_id).in_(list(session_ids)), col(ComesRow.comes).is_(True)
    )
    found: dict[int, set[int]] = {}
    for session, person in work.exec(query):
        found.setdefault(session, set()).add(person)
    return found


def down_for(work: Work, session_ids: Iterable[int]) -> set[int]:
    """All who are down for one of these sessions."""
    return {one for some in who_comes(work, session_ids).values() for one in some}


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
    row = _row(work, person_id)
    was = {"standing": row.standing, "limits": list(row.limits)}
    now = {"standing": standing, "limits": list(limits)}
    change_log.note(work, person_id, change_log.of_health(was, now))
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


def add_person(work: Work, name: str, **fields: object) -> Person:
    """A new person of the club; of what isn't said nothing is known."""
    taken = set(work.exec(select(PersonRow.initials)))
    fields = {"name": name, "initials": initials_of(name, taken), **fields}
    row = PersonRow.model_validate(fields)
    work.add(row)
    work.flush()
    return _person(work, row)


def initials_of(name: str, taken: set[str]) -> str:
    """Two letters for a name that nobody else has, where two letters do."""
    letters = [char.upper() for char in name if char.isalpha()] or ["X"]
    for second in letters[1:] or letters:
        if letters[0] + second not in taken:
            return letters[0] + second
    return (letters[0] + letters[-1])[:2]


def came_last(work: Work, session_id: int) -> dict[int, int]:
    """Who came to the session before this one that anybody came to, with their groups."""
    query = (
        select(ComesRow.session_id)
        .where(ComesRow.session_id != session_id, col(ComesRow.comes).is_(True))
        .order_by(col(ComesRow.session_id).desc())
        .limit(1)
    )
    last = work.exec(query).first()
    return {} if last is None else {one.id: group for one, group in comers(work, last)}
