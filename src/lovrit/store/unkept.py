"""Readings of who said no, or was not asked: they steer a class, and go once it is over."""

from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.store import records
from lovrit.store.tables import ClassRow, PersonRow, SampleRow

ASKED_FOR_MS = 24 * 3_600_000  # so long after a class one can still be asked


def forget_unkept(work: Work, now_ms: int) -> int:
    """Readings go of classes that are over: at once of who said no, a day later of whom nobody asked. So many went."""
    count = 0
    for answer, wait_ms in (("no", 0), ("", ASKED_FOR_MS)):
        whose = select(PersonRow.id).where(PersonRow.hearts == answer)
        for person in list(work.exec(whose)):
            for class_id in classes_with(work, person or 0, now_ms - wait_ms):
                work.exec(
                    delete(SampleRow).where(
                        col(SampleRow.class_id) == class_id, col(SampleRow.person_id) == person
                    )
                )
                records.drop(work, class_id)  # figures that rest on them are worked out anew
                count += 1
    return count


def classes_with(work: Work, person_id: int, before_ms: int) -> list[int]:
    """Classes that were over by a moment and hold readings of somebody."""
    told = select(SampleRow.at_ms).where(
        SampleRow.class_id == ClassRow.id, SampleRow.person_id == person_id
    )
    query = select(ClassRow.id).where(col(ClassRow.over_ms) <= before_ms, told.exists())
    return [one for one in work.exec(query) if one]
