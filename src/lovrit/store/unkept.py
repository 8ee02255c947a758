"""Readings that are kept no longer: of who said no, or was not asked; and old ones, by the club's own rule."""

from sqlmodel import Session as Work
from sqlmodel import col, delete, select

from lovrit.store import club, records
from lovrit.store.tables import ClassRow, PersonRow, SampleRow

OLD_MS = 365 * 24 * 3_600_000  # from so long after a class on its traces are old
THINNED_MS = (
    5_000  # one reading in so long is left where old traces are thinned: as the slowest straps tell
)
LOOKED, AT_ONCE = (
    "old_traces",
    5,
)  # classes in one unit of work: what runs meanwhile waits for no more
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
    """Traces of some classes of a year ago and more are thinned or go, where the club says so; of how many classes.

    The oldest come first, a few at a time; each is looked at once a rule.
    """
    rule = club.about(work).traces
    if rule == "whole":
        return 0
    kept = club.choice(work, LOOKED)
    looked = kept if isinstance(kept, dict) and kept.get("rule") == rule else {}
    query = (
        select(ClassRow.id, ClassRow.over_ms)
        .where(
            col(ClassRow.over_ms) <= now_ms - OLD_MS,
            col(ClassRow.over_ms) > int(looked.get("until_ms", -1)),
        )
        .order_by(col(ClassRow.over_ms))
        .limit(AT_ONCE)
    )
    found = list(work.exec(query))
    for class_id, _ in found:
        work.connection().exec_driver_sql(
            THIN if rule == "thinned" else GONE, {"c": class_id, "s": THINNED_MS}
        )
    if found:
        club.choose(work, LOOKED, {"rule": rule, "until_ms": found[-1][1]})
    return len(found)


GONE = "DELETE FROM sample WHERE class_id = :c"
# the first reading of each so many seconds stays
THIN = """DELETE FROM sample WHERE class_id = :c AND (person_id, at_ms) NOT IN (
  SELECT person_id, MIN(at_ms) FROM sample WHERE class_id = :c GROUP BY person_id, at_ms / :s)"""


def classes_with(work: Work, person_id: int, before_ms: int) -> list[int]:
    """Classes that were over by a moment and hold readings of somebody."""
    told = select(SampleRow.at_ms).where(
        SampleRow.class_id == ClassRow.id, SampleRow.person_id == person_id
    )
    query = select(ClassRow.id).where(col(ClassRow.over_ms) <= before_ms, told.exists())
    return [one for one in work.exec(query) if one]
