"""Straps kept: what each is called here, and who wears it. One person wears one strap, and one strap one person."""

from sqlmodel import Session as Work
from sqlmodel import col, select, update

from lovrit.store.tables import StrapRow


def everything(work: Work) -> dict[str, StrapRow]:
    """All straps that were ever named or worn, by their ids."""
    return {row.id: row for row in work.exec(select(StrapRow).order_by(col(StrapRow.id)))}


def worn(work: Work) -> dict[int, str]:
    """The strap that each wears who wears one, by their number."""
    return {row.person_id: row.id for row in everything(work).values() if row.person_id is not None}


def wear(work: Work, strap: str, person_id: int | None) -> None:
    """Say who wears a strap; whoever wore it, and whatever they wore, does so no more. None: nobody wears it."""
    if person_id is not None:
        work.exec(
            update(StrapRow).where(col(StrapRow.person_id) == person_id).values(person_id=None)
        )
    row = work.get(StrapRow, strap) or StrapRow(id=strap)
    row.person_id = person_id
    work.add(row)
    work.flush()


def swap(work: Work, one: str, other: str) -> None:
    """Two people wear each other's strap from now on."""
    rows = [work.get(StrapRow, name) or StrapRow(id=name) for name in (one, other)]
    rows[0].person_id, rows[1].person_id = rows[1].person_id, rows[0].person_id
    for row in rows:
        work.add(row)
    work.flush()


def call(work: Work, strap: str, name: str) -> None:
    """What a strap is called here."""
    row = work.get(StrapRow, strap) or StrapRow(id=strap)
    row.name = name
    work.add(row)


def forget(work: Work, strap: str) -> None:
    """A strap that is the club's no more."""
    row = work.get(StrapRow, strap)
    if row:
        work.delete(row)
