"""Readings that are kept no longer: of who said no, or was not asked; and old ones, by the club's own rule."""

from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.store import club, records
from lovrit.store.tables import ClassRow, PersonRow, SampleRow

OLD_MS = 365 * 24 * 3_600_000  # from so long after a class on its traces are old
THINNED_MS = 10_000  # one reading in so long is left where old traces are thinned
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


def thin_old(work: Work, now_ms: int) -> int:
    """Traces of classes of a year ago and more are thinned or go, where the club says so; of how many classes.

    Each class is looked at once a rule: what was looked at before is not looked at again.
    """
    rule, before = club.about(work).traces, now_ms - OLD_MS
    kept = club.choice(work, LOOKED)
    looked = kept if isinstance(kept, dict) and kept.get("rule") == rule else {}
    if rule == "whole":
        return 0
    query = select(ClassRow.id).where(
        col(ClassRow.over_ms) <= before, col(ClassRow.over_ms) > int(looked.get("until_ms", -1))
    )
    found = [one for one in work.exec(query) if one]
    for class_id in found:
        work.connection().exec_driver_sql(
            THIN if rule == "thinned" else GONE, {"c": class_id, "s": THINNED_MS}
        )
    if found or not looked:
        club.choose(work, LOOKED, {"rule": rule, "until_ms": before})
    return len(found)


LOOKED = "old_traces"
GONE = "DELETE FROM sample WHERE class_id = :c"
# the first reading of each ten seconds stays
THIN = """DELETE FROM sample WHERE class_id = :c AND (person_id, at_ms) NOT IN (
  SELECT person_id, MIN(at_ms) FROM sample WHERE class_id = :c GROUP BY person_id, at_ms / :s)"""


def classes_with(work: Work, person_id: int, before_ms: int) -> list[int]:
    """Classes that were over by a moment and hold readings of somebody."""
    told = select(SampleRow.at_ms).where(
        SampleRow.class_id == ClassRow.id, SampleRow.person_id == person_id
    )
    query = select(ClassRow.id).where(col(ClassRow.over_ms) <= before_ms, told.exists())
    return [one for one in work.exec(query) if one]
