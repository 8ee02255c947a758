"""Evenings that people ran alone: kept as theirs, apart from classes."""

from sqlmodel import Session as Work
from sqlmodel import col, select

from lovrit.store.tables import OwnEveningRow


def keep(work: Work, evening: OwnEveningRow) -> None:
    """Keep one; sent twice by a phone it counts once."""
    known = select(OwnEveningRow.id).where(
        OwnEveningRow.person_id == evening.person_id, OwnEveningRow.key == evening.key
    )
    if work.exec(known).first() is None:
        work.add(evening)


def of_person(work: Work, person_id: int, most: int = 100) -> list[OwnEveningRow]:
    """Somebody's own evenings, the newest first."""
    query = select(OwnEveningRow).where(OwnEveningRow.person_id == person_id)
    return list(work.exec(query.order_by(col(OwnEveningRow.at_ms).desc()).limit(most)))
