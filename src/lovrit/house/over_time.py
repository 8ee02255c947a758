"""What one person did again in the very same way, and where it goes: for their coach, and for themselves."""

from datetime import date
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.review.compare import Evening, compare
from lovrit.core.review.kin import Worth
from lovrit.store import records

MOST_TIMES = 40


class Again(NamedTuple):
    """One evening on which somebody did a block: the class, its day, the score and what it is worth."""

    class_id: int
    block: int
    day: int
    when: str
    score: str
    worth: Worth


class Series(NamedTuple):
    """The same thing again and again: what it is, in which ways, its scores, and where it goes in words."""

    label: str
    ways: str
    times: tuple[Again, ...]
    text: str


def series_of(work: Work, person_id: int) -> list[Series]:
    """What somebody did again, each kind in its own ways."""
    by_key: dict[tuple[str, str], list[Again]] = {}
    labels: dict[tuple[str, str], str] = {}
    for row in records.scores_of(work, person_id):
        key, when = (row.kin, row.ways), date.fromisoformat(row.day)
        labels[key] = row.label
        value = Worth(row.figure, row.value, row.more)
        again = Again(row.class_id, row.block, when.toordinal(), f"{when:%-d %b}", row.said, value)
        by_key.setdefault(key, []).append(again)
    return [
        series_from(labels[key], key[1], times[-MOST_TIMES:])
        for key, times in by_key.items()
        if len({one.day for one in times}) > 1
    ]


def series_from(label: str, ways: str, times: list[Again]) -> Series:
    """A series of some evenings, with where it goes."""
    return Series(label, ways, tuple(times), _where(times))


def _where(times: list[Again]) -> str:
    """Where it goes, over four evenings or more; nothing is said of fewer."""
    figure, more = times[-1].worth.figure, times[-1].worth.more
    evenings = tuple(Evening(day=one.day, values={"me": one.worth.value}) for one in times)
    found = compare(figure, more, evenings).people["me"]
    return found.trend or (
        "No clear way up or down yet."
        if len(times) > 3
        else "Too few evenings to say where it goes."
    )
